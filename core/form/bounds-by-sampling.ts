/**
 * Bounds by looking: of a value that comes back, and whose speed is known, every smooth piece of one period is read so
 * often that it cannot reach far beyond what was seen (value ± speed · half the distance between two looks, the
 * simplest of Lipschitz bounds). So a source that is read twice, steps in antiphase, or a link less itself a while
 * ago are known for what they are together, which bounds of the parts alone cannot tell.
 */
import { ordered } from '../facts/bends.ts'
import * as I from '../facts/interval.ts'
import { isZero, toNumber, type Rational } from '../time/rational.ts'
import { bySecond, type CompiledExpression } from './compiled-expression.ts'
import type { WorkQueue } from './work-queue.ts'

/** Looks over a period at first, to see whether there is anything to gain, and then in all. */
const GLANCES = 48
const LOOKS = 3000
/** Bounds no wider than so many times what a glance reaches are left as they are. */
const TIGHT = 1.15
/** Operations that looking may take. */
const MOST_WORK = 400_000
/** Pieces of one period. */
const MOST_PIECES = 600

/** The seconds that hold all a value ever does: one period, or from its first bend to its last with rest on both sides. */
function windowOf(f: CompiledExpression): readonly [number, number] | null {
  const { repeats, leaps, bends } = f.facts()
  if (!leaps.all) return null
  if (repeats.every && !isZero(repeats.every) && isZero(repeats.gain) && !repeats.from)
    return [0, toNumber(repeats.every)]
  if (!bends.only || bends.only.length === 0 || bends.grain !== Infinity) return null
  return [Math.min(...bends.only) - 1, Math.max(...bends.only) + 1]
}

/** Whether a value stands still before one second and after another, as far as can be seen. */
const restsOutside = (read: (t: number) => number, [from, to]: readonly [number, number]): boolean =>
  [1, 1e3, 1e6].every(far => read(from - far) === read(from) && read(to + far) === read(to))

/** The bounds of `f`, no wider than `known`. */
export function tightenBoundsBySampling(
  f: CompiledExpression,
  known: I.Interval,
  frameRate: Rational,
  queue: WorkQueue,
): I.Interval {
  const window = windowOf(f)
  if (!window || f.facts().cost.anew * LOOKS > MOST_WORK) return known
  const [from, to] = window
  const once = bySecond(f, frameRate)
  const read = (t: number) => queue.settle(() => once(t))
  let [low, high] = [Infinity, -Infinity]
  const see = (v: number) => {
    if (v < low) low = v
    if (v > high) high = v
  }
  for (let k = 0; k < GLANCES; k++) see(read(from + ((to - from) * (k + 0.37)) / GLANCES))
  if (known.high - known.low <= TIGHT * (high - low) || !(high >= low)) return known
  const { slope } = f.facts()
  if (!I.isBounded(slope)) return known
  if (f.facts().bends.only && f.facts().repeats.every === null && !restsOutside(read, window)) return known
  if (!f.facts().repeats.every || isZero(f.facts().repeats.every!)) {
    if (!restsOutside(read, window)) return known
  }
  const cuts = [from, ...ordered(f.facts().leaps, from, to), to]
  if (cuts.length > MOST_PIECES) return known
  let beyond = 0
  for (let k = 1; k < cuts.length; k++) {
    const [a, b] = [cuts[k - 1]!, cuts[k]!]
    const inset = Math.min(1e-9, (b - a) / 8)
    const steps = Math.max(4, Math.ceil((LOOKS * (b - a)) / (to - from)))
    const step = (b - a - 2 * inset) / steps
    for (let i = 0; i <= steps; i++) see(read(a + inset + i * step))
    beyond = Math.max(beyond, step / 2 + inset)
    see(read(b))
  }
  const further =
    beyond * Math.max(Math.abs(slope.low), Math.abs(slope.high)) + 1e-12 * Math.max(Math.abs(low), Math.abs(high))
  return I.interval(Math.max(known.low, low - further), Math.min(known.high, high + further))
}
