/** Whether a value loops in the lap: value(t + lap) is value(t) from the start of the lap on, up to the turns after which it looks the same. */
import type { Form } from '../form/form.ts'
import { workedOut } from '../form/working.ts'
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

/**
 * @param start the second of the piece at which the lap begins
 * @param natural what the value may grow by and be the same value still (a turn); 0 for none
 * @param symmetry what it may grow by and look the same (a turn over the part's symmetry); 0 for none
 */
export function closureOf(form: Form, m: Measures, start: Rational, natural: Rational, symmetry: Rational): Closure {
  // What takes nothing but whole turns is always the same.
  const whole = (of: Rational) => form.grid && !isZero(of) && isWhole(over(form.grid, of))
  if (whole(natural)) return { verdict: 'yes' }
  if (whole(symmetry)) return { verdict: 'symmetry' }
  const { every, gain, from } = form.facts().repeats
  const comesBack = every !== null && (isZero(every) || isWhole(over(m.lapLength, every)))
  if (comesBack) {
    const growth = times(gain, m.lapLength)
    const multiple = (of: Rational) => !isZero(of) && isWhole(over(growth, of))
    const back = isZero(growth) || multiple(natural)
    if (from && compare(from, start) > 0 && (back || multiple(symmetry)))
      return { verdict: 'later', from, rests: isZero(every) && isZero(gain) }
    if (back) return { verdict: 'yes' }
    if (multiple(symmetry)) return { verdict: 'symmetry' }
  }
  const at = (s: Rational) => workedOut(() => form.at(momentOfSeconds(s, m.frameRate)))
  // A lap far away is looked at as if it began at 0: sums as far as that would take too long.
  const near = compare(absolute(start), FAR) > 0 ? ZERO : start
  const turn = toNumber(isZero(symmetry) ? natural : symmetry)
  const gapAt = (s: Rational): number => {
    const [was, is] = [at(s), at(plus(s, m.lapLength))]
    const raw = is - was
    const gap = turn > 0 ? raw - Math.round(raw / turn) * turn : raw
    return Math.abs(gap) > SMALL * (1 + Math.abs(was)) ? gap : 0
  }
  const gap = gapAt(near)
  if (gap !== 0) return { verdict: 'no', gap }
  // One that ends as it begins may still be elsewhere a lap later: 0 at both ends, but not between.
  let widest = 0
  for (let k = 1; k < LOOKS; k++) {
    const between = gapAt(plus(near, times(m.lapLength, rational(k, LOOKS))))
    if (Math.abs(between) > Math.abs(widest)) widest = between
  }
  return widest === 0 ? { verdict: 'unproven', gap } : { verdict: 'no', gap: widest, within: true }
}

/** Moments of a lap at which it is looked for a gap where there is none at its start: a prime, so that few waves miss them all. */
const LOOKS = 23
/** Less than this share of a value, or of a unit of it, is no gap. */
const SMALL = 1e-9
