/**
 * The clock in force, as formulas read it. A steady clock keeps everything exact: what is steady on it is
 * steady in the piece's time too. Any other clock turns a moment of the piece into one of its own.
 */
import { SMOOTH, atSeconds, passing, steadily, type Bends } from '../facts/bends.ts'
import { ALL, type Interval } from '../facts/interval.ts'
import { ALWAYS, NEVER, everySeconds, restingFrom, scaled, wholeRounds, type Repeats } from '../facts/repeats.ts'
import { AffineReader, evaluateAffine, isConstant, type Affine, type Split } from '../time/affine.ts'
import { momentNear, type Moment } from '../time/moment.ts'
import { absolute, isZero, minus, over, plus, times, toNumber, ONE, ZERO, type Rational } from '../time/rational.ts'

export interface ActiveClock {
  /** The clock's id; '' for the piece's own time. */
  readonly id: string
  /** Clock seconds from piece seconds, when it is steady. */
  readonly steady: Affine | null
  /** The moment that is read; the same moment for a steady clock, whose rate stands in `steady`. */
  readonly when: (m: Moment) => Moment
  /** Seconds on the clock, exact. */
  readonly seconds: (m: Moment) => Rational
  /** How a clock that is not steady comes back, where it leaps or bends, and between which seconds it stays. */
  readonly repeats: Repeats
  readonly bends: Bends
  readonly bounds: Interval
}

/** The piece's own time. */
export const PIECE_CLOCK: ActiveClock = {
  id: '',
  steady: { rate: ONE, base: ZERO },
  when: m => m,
  seconds: m => m.exactSeconds,
  repeats: ALWAYS,
  bends: SMOOTH,
  bounds: ALL,
}

/** Something steady on a clock, read at moments of the piece. */
export interface ClockReading {
  readonly splitAt: (m: Moment) => Split
  readonly at: (m: Moment) => number
  readonly exactAt: (m: Moment) => Rational
  /** In piece seconds, when the clock is steady. */
  readonly affine: Affine | null
  /** Of what comes back after each whole one of it, and of what does not. */
  readonly cyclic: Repeats
  readonly once: Repeats
  /** Of what stands still wherever it is below `low` or above `high`: at rest from when it has left them for good. */
  readonly between: (low: Rational, high: Rational) => Repeats
  /** Where it passes whole numbers once one of the offsets (just 0 unless given) has been taken off. */
  readonly passing: (...offsets: readonly number[]) => Bends
  /** Where it passes single values. */
  readonly reaching: (...values: readonly number[]) => Bends
}

/** At rest from when something steady has left a range for good. */
export const settledBy = (a: Affine, low: Rational, high: Rational): Repeats =>
  isConstant(a) ? ALWAYS : restingFrom(over(minus(a.rate.n > 0n ? high : low, a.base), a.rate))

/** a, steady in clock seconds, as steady in piece seconds. */
export const onSteady = (a: Affine, clock: Affine): Affine => ({
  rate: times(a.rate, clock.rate),
  base: plus(times(a.rate, clock.base), a.base),
})

/** `a` counts in clock seconds. */
export function clockReading(a: Affine, beat: ActiveClock, frameRate: Rational): ClockReading {
  const affine = beat.steady && onSteady(a, beat.steady)
  return clockReadingOf(affine ?? a, affine, beat, frameRate)
}

/** The same for what already counts in piece seconds where the clock is steady. */
export function clockReadingOf(a: Affine, affine: Affine | null, beat: ActiveClock, frameRate: Rational): ClockReading {
  const reader = new AffineReader(a, frameRate)
  const own = isZero(a.rate) ? ALWAYS : everySeconds(absolute(over(ONE, a.rate)))
  const still = isConstant(a)
  return {
    splitAt: affine ? m => reader.splitAt(m) : m => reader.splitAt(beat.when(m)),
    exactAt: m => evaluateAffine(a, affine ? m : beat.when(m)),
    at: affine ? m => reader.at(m) : m => reader.at(beat.when(m)),
    affine,
    cyclic: affine ? own : still ? ALWAYS : wholeRounds(scaled(beat.repeats, a.rate)),
    once: still ? ALWAYS : affine ? NEVER : isZero(beat.repeats.gain) ? beat.repeats : NEVER,
    between: (low, high) =>
      still ? ALWAYS : affine ? settledBy(a, low, high) : isZero(beat.repeats.gain) ? beat.repeats : NEVER,
    passing: (...offsets) => {
      const from = offsets.length > 0 ? offsets : [0]
      if (still) return SMOOTH
      if (affine) return steadily(toNumber(a.rate), toNumber(a.base), from)
      const value = (t: number) => reader.at(beat.when(momentNear(t, frameRate)))
      return passing(value, beat.bends, v => from.reduce((n, offset) => n + Math.floor(v - offset), 0))
    },
    reaching: (...values) => {
      if (still) return SMOOTH
      if (affine) return atSeconds(values.map(v => (v - toNumber(a.base)) / toNumber(a.rate)))
      const value = (t: number) => reader.at(beat.when(momentNear(t, frameRate)))
      return passing(value, beat.bends, v => values.filter(u => u <= v).length)
    },
  }
}
