/** A value counted in steps of a size: whole ones and a part; what grows steadily is cut exactly. */
import { SMOOTH, joined, passing, steadily, type Bends } from '../facts/bends.ts'
import { ALWAYS, NEVER, everySeconds, wholeRounds, type Repeats } from '../facts/repeats.ts'
import { fixedLanes, moving, pointwise, scratch, type Column } from '../columns/column.ts'
import { negatedLanes, overLanes, plusLanes, uniform } from '../columns/fractions.ts'
import type { LaneCall } from '../columns/kernel.ts'
import { SteadyLanes } from '../columns/steady.ts'
import {
  bends,
  bySecond,
  constantOf,
  hardlyApart,
  isNear,
  type CompiledExpression,
} from '../form/compiled-expression.ts'
import { AffineReader, add, constant, scale, type Affine, type Split } from '../time/affine.ts'
import type { Moment } from '../time/moment.ts'
import {
  ONE,
  ZERO,
  absolute,
  isZero,
  minus as less,
  negate,
  over,
  rational,
  times as by,
  toNumber,
  type Rational,
} from '../time/rational.ts'
import { repeatsOfArgs, type Call, type CallWith } from './prepared-call.ts'

/** How many steps of a size a value makes: whole ones and a part. */
export interface Steps {
  readonly at: (m: Moment) => Split
  /** The same when it is steady. */
  readonly affine: Affine | null
  readonly size: (m: Moment) => number
  /** Whether the whole steps are right whatever the rounding. */
  readonly sure: boolean
}

/** x in steps of `size` (1 when not given), counted from `from`. */
export function steps(
  x: CompiledExpression,
  size: CompiledExpression | undefined,
  from: CompiledExpression | undefined,
  frameRate: Rational,
): Steps {
  const s = size ? constantOf(size) : ONE
  const f = from ? constantOf(from) : ZERO
  const sizeAt = size ? size.at : () => 1
  if (x.exact && s && f && !isZero(s)) {
    const moved = add(x.exact, constant(negate(f)))
    const affine = moved && scale(moved, over(ONE, s))
    if (affine) {
      const reader = new AffineReader(affine, frameRate)
      return { at: m => reader.splitAt(m), affine, size: sizeAt, sure: true }
    }
  }
  const out: Split = { whole: 0, part: 0 }
  const at = (m: Moment): Split => {
    const v = (x.at(m) - (from ? from.at(m) : 0)) / sizeAt(m)
    out.whole = Math.floor(v)
    out.part = v - out.whole
    return out
  }
  return { at, affine: null, size: sizeAt, sure: false }
}

/** Reads whole and part of steps on many lanes; `size` is that of a step. */
type Cut = (whole: number, part: number, size: number, x: number) => number

/**
 * The same on many lanes: cut exactly where x grows steadily and the others are constants, else by doubles. Null where only
 * some of it is the same on all lanes.
 * @param half steps before a whole one at which it leaps; null where it leaps nowhere
 */
export function stepLanes(
  { args, lanes, first, constant: constantIn }: LaneCall<Call> & { readonly args: { readonly x: Column } },
  [size, low, high]: readonly [string, string?, string?],
  half: number | null,
  cut: { readonly sure: Cut; readonly unsure: Cut },
): Column | null {
  const { x } = args
  const from = low === undefined ? undefined : args[low]
  const given = low === undefined ? args[size] : undefined
  const l = low === undefined ? null : constantIn(low)
  const h = high === undefined ? null : constantIn(high)
  const step =
    low === undefined ? (given ? constantIn(size) : uniform(ONE, lanes)) : l && h && plusLanes(h, negatedLanes(l))
  const begun = l ?? uniform(ZERO, lanes)
  if (x.type === 'one' && x.form.exact && !constantOf(x.form)) return null
  if (x.type === 'steady' && step && (low === undefined || l)) {
    const moved = plusLanes(x.base, negatedLanes(begun))
    const [rate, base] = [overLanes(x.rate, step), moved && overLanes(moved, step)]
    if (!rate || !base) return null
    const steady = new SteadyLanes(rate, base, first.frameRate)
    const sizes = fixedLanes(step)
    const [whole, part] = scratch(2, lanes)
    return moving((now, at, count, out) => {
      steady.split(now.moment, at, count, part, whole)
      sizes.fill(now, at, count, out)
      for (let i = 0; i < count; i++) out[i] = cut.sure(whole[i]!, part[i]!, out[i]!, NaN)
    })
  }
  const far = high === undefined ? undefined : args[high]
  const of = (v: number, start: number, size: number, t: number): number => {
    const n = (v - start) / size
    const whole = Math.floor(n)
    const part = n - whole
    const near = half !== null && (isNear(whole + part, whole + half, t) || isNear(whole + part, whole + half + 1, t))
    return near ? NaN : cut.unsure(whole, part, size, v)
  }
  const sizes =
    far && from ? pointwise([far, from], lanes, (b, a) => b - a) : (given ?? fixedLanes(uniform(ONE, lanes)))
  return pointwise([x, from ?? fixedLanes(begun), sizes], lanes, of)
}

/** Where the value passes whole steps, `ahead` steps before them. */
export function stepBends(
  call: CallWith<'x'>,
  s: Steps,
  sizes: readonly (CompiledExpression | undefined)[],
  ahead = 0,
): Bends {
  const x = call.args.x
  if (constantOf(x)) return SMOOTH
  if (s.affine) return steadily(toNumber(s.affine.rate), toNumber(s.affine.base) + ahead, [0])
  const value = bySecond(
    {
      at: m => {
        const { whole, part } = s.at(m)
        return whole + part + ahead
      },
    },
    call.frameRate,
  )
  return passing(value, joined(bends(x), ...sizes.map(f => (f ? bends(f) : SMOOTH))), Math.floor)
}

/** Whether rounding may have put a number of steps on the wrong side of where it is cut. */
export const unsure = (s: Steps, { whole, part }: Split, at: number, m: Moment): boolean =>
  !s.sure && (hardlyApart(whole + part, whole + at, m) || hardlyApart(whole + part, whole + at + 1, m))

/** A value with the size of its steps, or the ends of its range. */
type Stepped = CallWith<'x', 'to' | 'by' | 'low' | 'high'>

/** Of what grows by so much with each round: it comes back when it has grown by whole sizes. */
function rounded(call: Stepped, steps: Rational): Repeats {
  const { x, to, by: size, low, high } = call.args
  const own = x.facts().repeats
  const [l, h] = [low && constantOf(low), high && constantOf(high)]
  const step = low ? l && h && less(h, l) : (constantOf(to ?? size ?? x) ?? (to || size ? null : ONE))
  if (isZero(own.gain) || !own.every || isZero(own.every) || !step || isZero(step)) return repeatsOfArgs(call)
  return wholeRounds({ ...own, gain: over(own.gain, by(step, steps)) })
}

/** Repeats of what only depends on the part of a step, or of so many `steps`. */
export function cyclic(call: Stepped, s: Steps, steps = ONE): Repeats {
  if (!s.affine) return rounded(call, steps)
  return isZero(s.affine.rate) ? ALWAYS : everySeconds(absolute(over(steps, s.affine.rate)))
}

/** Repeats of whole steps: of a steady growth each step gains one. */
export function stepping(call: CallWith<'x', 'to'>, s: Steps): Repeats {
  const { x, to } = call.args
  if (!s.affine) {
    const own = x.facts().repeats
    const step = to ? constantOf(to) : ONE
    if (isZero(own.gain) || !own.every || isZero(own.every) || !step || isZero(step)) return repeatsOfArgs(call)
    // With each round it gains so many steps; after as many rounds as make them whole it is cut the same again.
    return { ...own, every: by(own.every, rational(over(by(own.gain, own.every), step).d)) }
  }
  if (isZero(s.affine.rate)) return ALWAYS
  return constantOf(to ?? x) || !to
    ? { every: absolute(over(ONE, s.affine.rate)), gain: x.exact!.rate, from: null }
    : NEVER
}
