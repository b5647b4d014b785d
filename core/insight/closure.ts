/** Whether a value loops in the lap: value(t + lap) is value(t) from the start of the lap on, up to the turns after which it looks the same. */
import type { CompiledExpression } from '../form/compiled-expression.ts'
import { momentOfSeconds } from '../time/moment.ts'
import {
  ZERO,
  absolute,
  compare,
  isWhole,
  isZero,
  over,
  plus,
  rational,
  times,
  toNumber,
  type Rational,
} from '../time/rational.ts'
import type { ProgramHome } from '../engine/program.ts'
import type { Measures } from '../units/units.ts'

export type Closure =
  | { readonly verdict: 'yes' | 'symmetry' }
  /** Only after a moment, in seconds of the piece, that lies after the start of the lap; whether it rests from there. */
  | { readonly verdict: 'later'; readonly from: Rational; readonly rests: boolean }
  /** By how much the value at the end of the lap differs from that at its start, in base measure, less whole symmetries. */
  | { readonly verdict: 'no' | 'unproven'; readonly gap: number; readonly within?: never }
  /** It ends as it begins, but a moment in between, a lap later, it is this far off. */
  | { readonly verdict: 'no'; readonly gap: number; readonly within: true }

/** Seconds from 0 beyond which the start of a lap is not looked at. */
const FAR = rational(600)

/** What a lap is held against: `natural` and `symmetry` in base measure, 0 for none. */
export interface Round {
  readonly measures: Measures
  /** The second of the piece at which the lap begins. */
  readonly start: Rational
  /** What the value may grow by and be the same value still: a turn. */
  readonly natural: Rational
  /** What it may grow by and look the same: a turn over the part's symmetry. */
  readonly symmetry: Rational
}

export function closureOf(
  form: CompiledExpression,
  { measures, queue }: ProgramHome,
  start: Rational,
  natural: Rational,
  symmetry: Rational,
): Closure {
  const round = { measures, start, natural, symmetry }
  const { frameRate } = measures
  const read = (s: Rational) => [queue.settle(() => form.at(momentOfSeconds(s, frameRate)))]
  return provenClosure(form, round) ?? seenClosure(read, round).closure
}

/** That it loops, where that follows from what is known of it; null where it does not. */
export function provenClosure(
  form: Pick<CompiledExpression, 'grid' | 'facts'>,
  { measures: m, start, natural, symmetry }: Round,
): Closure | null {
  // What takes nothing but whole turns is always the same.
  const whole = (of: Rational) => form.grid && !isZero(of) && isWhole(over(form.grid, of))
  if (whole(natural)) return { verdict: 'yes' }
  if (whole(symmetry)) return { verdict: 'symmetry' }
  const { every, gain, from } = form.facts().repeats
  if (every === null || !(isZero(every) || isWhole(over(m.lapLength, every)))) return null
  const growth = times(gain, m.lapLength)
  const multiple = (of: Rational) => !isZero(of) && isWhole(over(growth, of))
  const back = isZero(growth) || multiple(natural)
  if (from && compare(from, start) > 0 && (back || multiple(symmetry)))
    return { verdict: 'later', from, rests: isZero(every) && isZero(gain) }
  if (back) return { verdict: 'yes' }
  return multiple(symmetry) ? { verdict: 'symmetry' } : null
}

export interface Seen {
  readonly closure: Closure
  /** Of which copy it is, counted from 0, and whether others are off by something else. */
  readonly copy: number
  readonly differ: boolean
}

/**
 * What copies look like at the ends of the lap, and between: the widest gap of any of them.
 * @param read all copies at a second of the piece
 */
export function seenClosure(
  read: (second: Rational) => ArrayLike<number>,
  { measures: m, start, natural, symmetry }: Round,
): Seen {
  // A lap far away is looked at as if it began at 0: sums as far as that would take too long.
  const near = compare(absolute(start), FAR) > 0 ? ZERO : start
  const turn = toNumber(isZero(symmetry) ? natural : symmetry)
  const gapOf = (was: number, is: number): number => {
    const raw = is - was
    const gap = turn > 0 ? raw - Math.round(raw / turn) * turn : raw
    return Math.abs(gap) > SMALLEST_GAP * (1 + Math.abs(was)) ? gap : 0
  }
  let [widest, copy, differ] = [0, 0, false]
  // One that ends as it begins may still be elsewhere a lap later: 0 at both ends, but not between.
  for (let k = 0; k < LOOKS; k++) {
    const s = plus(near, times(m.lapLength, rational(k, LOOKS)))
    const [was, is] = [read(s), read(plus(s, m.lapLength))]
    let first = 0
    for (let i = 0; i < was.length; i++) {
      const gap = gapOf(was[i]!, is[i]!)
      if (i === 0) first = gap
      // What differs by its last bits is the same.
      const grain = SMALLEST_GAP * (1 + Math.abs(was[i]!))
      differ ||= Math.abs(gap - first) > grain
      if (Math.abs(gap) > Math.abs(widest) + (widest === 0 ? 0 : grain)) [widest, copy] = [gap, i]
    }
    if (k === 0 && widest !== 0) return { closure: { verdict: 'no', gap: widest }, copy, differ }
  }
  return widest === 0
    ? { closure: { verdict: 'unproven', gap: 0 }, copy: 0, differ: false }
    : { closure: { verdict: 'no', gap: widest, within: true }, copy, differ }
}

/** Moments of a lap at which it is looked for a gap where there is none at its start: a prime, so that few waves miss them all. */
const LOOKS = 23
/** Less than this share of a value, or of a unit of it, is no gap. */
export const SMALLEST_GAP = 1e-9
