/**
 * How a value comes back: value(t + every) = value(t) + gain · every, exactly. A steady growth has a gain and
 * any `every`; a sine has `every` and no gain; their sum has both, and closes when the gain is whole turns. A value
 * that comes to rest, or a stage of its own, comes back only `from` a moment on.
 */
import {
  ZERO,
  commonMultiple,
  compare,
  equal,
  isZero,
  negate,
  absolute,
  over,
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
  /** The second of the piece after which that holds; null when it always does. */
  readonly from: Rational | null
}

export const ALWAYS: Repeats = { every: ZERO, gain: ZERO, from: null }
export const NEVER: Repeats = { every: null, gain: ZERO, from: null }
export const everySeconds = (every: Rational): Repeats => ({ every, gain: ZERO, from: null })
export const growing = (gain: Rational): Repeats => ({ every: ZERO, gain, from: null })
/** At rest from a moment on. */
export const restingFrom = (from: Rational): Repeats => ({ every: ZERO, gain: ZERO, from })
/** The same, but only from a moment on. */
export const onlyFrom = (r: Repeats, from: Rational | null): Repeats => ({ ...r, from: latest(r.from, from) })
/** The same, some seconds later. */
export const delayed = (r: Repeats, by: Rational): Repeats => ({ ...r, from: r.from && add(r.from, by) })
export const rests = (r: Repeats): boolean => r.every !== null && isZero(r.every) && isZero(r.gain)

/** At rest for all time. */
export const stands = (r: Repeats): boolean => rests(r) && r.from === null

const latest = (a: Rational | null, b: Rational | null): Rational | null =>
  a && b ? (compare(a, b) > 0 ? a : b) : (a ?? b)

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
  from: latest(a.from, b.from),
})
export const negative = (a: Repeats): Repeats => ({ ...a, gain: negate(a.gain) })
/** a times a constant; a factor that is no fraction ends a growth's exactness. */
export const scaled = (a: Repeats, by: Rational | null): Repeats =>
  isZero(a.gain) ? a : by === null ? NEVER : { ...a, gain: mul(a.gain, by) }
/**
 * How what comes back with every whole one of a value does: each round may add a fraction, and after as many rounds
 * as its denominator they are whole.
 */
export function wholeRounds(of: Repeats): Repeats {
  if (of.every === null || isZero(of.gain) || isZero(of.every)) return of
  return { ...of, every: mul(of.every, rational(mul(of.gain, of.every).d)), gain: ZERO }
}
/** The same of something that looks the same after every whole one, also where it grows steadily: a turn. */
export const turned = (of: Repeats): Repeats =>
  of.every !== null && isZero(of.every) && !isZero(of.gain)
    ? { every: over(rational(1), absolute(of.gain)), gain: ZERO, from: of.from }
    : wholeRounds(of)
/** Any function of several values: it repeats when none of them grows and all repeat. */
export function together(all: readonly Repeats[]): Repeats {
  if (all.some(r => !isZero(r.gain))) return NEVER
  return all.reduce<Repeats>(
    (a, b) => ({ every: common(a.every, b.every), gain: ZERO, from: latest(a.from, b.from) }),
    ALWAYS,
  )
}
