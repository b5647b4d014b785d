/**
 * How a value comes back: value(t + every) = value(t) + gain · every, exactly. A steady growth has a gain and
 * any `every`; a sine has `every` and no gain; their sum has both, and closes when the gain is whole turns.
 */
import {
  ZERO,
  commonMultiple,
  compare,
  equal,
  isZero,
  negate,
  plus as add,
  rational,
  tenTo,
  times as mul,
  type Rational,
} from '../time/rational.ts'

export interface Repeats {
  /** Seconds; 0 when any time does (constants and steady growth). Null when it never comes back. */
  readonly every: Rational | null
  /** Growth per second. */
  readonly gain: Rational
}

export const ALWAYS: Repeats = { every: ZERO, gain: ZERO }
export const NEVER: Repeats = { every: null, gain: ZERO }
export const everySeconds = (every: Rational): Repeats => ({ every, gain: ZERO })
export const growing = (gain: Rational): Repeats => ({ every: ZERO, gain })

/** A repeat beyond this many seconds is called "practically never". */
export const DAY = rational(86400)

function common(a: Rational | null, b: Rational | null): Rational | null {
  if (a === null || b === null) return null
  if (isZero(a)) return b
  if (isZero(b) || equal(a, b)) return a
  const both = commonMultiple(a, b)
  return compare(both, rational(tenTo(15))) > 0 ? null : both
}

export const plus = (a: Repeats, b: Repeats): Repeats => ({
  every: common(a.every, b.every),
  gain: add(a.gain, b.gain),
})
export const negative = (a: Repeats): Repeats => ({ every: a.every, gain: negate(a.gain) })
/** a times a constant; a factor that is no fraction ends a growth's exactness. */
export const scaled = (a: Repeats, by: Rational | null): Repeats =>
  isZero(a.gain) ? a : by === null ? NEVER : { every: a.every, gain: mul(a.gain, by) }
/** Any function of several values: it repeats when none of them grows and all repeat. */
export function together(all: readonly Repeats[]): Repeats {
  if (all.some(r => !isZero(r.gain))) return NEVER
  return all.reduce<Repeats>((a, b) => ({ every: common(a.every, b.every), gain: ZERO }), ALWAYS)
}
