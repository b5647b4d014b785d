/**
 * The clock in force, as formulas read it. A steady clock keeps everything exact: what is steady on it is
 * steady in the piece's time too. Any other clock turns a moment of the piece into one of its own.
 */
import { NONE, atWhole, atZero, type Edges } from '../insight/edges.ts'
import { ALWAYS, NEVER, everySeconds, type Repeats } from '../insight/repeats.ts'
import { AffineReader, isConstant, type Affine, type Split } from '../time/affine.ts'
import type { Moment } from '../time/moment.ts'
import { absolute, isZero, over, plus, times, ONE, ZERO, type Rational } from '../time/rational.ts'

export interface Beat {
  /** Clock seconds from piece seconds, when it is steady. */
  readonly steady: Affine | null
  /** The moment that is read; the same moment for a steady clock, whose rate stands in `steady`. */
  readonly when: (m: Moment) => Moment
  /** Seconds on the clock, exact. */
  readonly seconds: (m: Moment) => Rational
  /** How a clock that is not steady comes back, and where it leaps. */
  readonly repeats: Repeats
  readonly edges: Edges
}

/** The piece's own time. */
export const PIECE: Beat = {
  steady: { rate: ONE, base: ZERO },
  when: m => m,
  seconds: m => m.exactSeconds,
  repeats: ALWAYS,
  edges: NONE,
}

/** Something steady on a clock, read at moments of the piece. */
export interface Reading {
  readonly splitAt: (m: Moment) => Split
  readonly at: (m: Moment) => number
  /** In piece seconds, when the clock is steady. */
  readonly affine: Affine | null
  /** Of what comes back after each whole one of it, and of what does not. */
  readonly cyclic: Repeats
  readonly once: Repeats
  /** Where it passes whole numbers, and where it passes 0. */
  readonly wholes: Edges
  readonly zero: Edges
}

/** a, steady in clock seconds, as steady in piece seconds. */
export const onSteady = (a: Affine, clock: Affine): Affine => ({
  rate: times(a.rate, clock.rate),
  base: plus(times(a.rate, clock.base), a.base),
})

/** `a` counts in clock seconds. */
export function reading(a: Affine, beat: Beat, frameRate: Rational): Reading {
  const affine = beat.steady && onSteady(a, beat.steady)
  return readingOf(affine ?? a, affine, beat, frameRate)
}

/** The same for what already counts in piece seconds where the clock is steady. */
export function readingOf(a: Affine, affine: Affine | null, beat: Beat, frameRate: Rational): Reading {
  const reader = new AffineReader(a, frameRate)
  const own = isZero(a.rate) ? ALWAYS : everySeconds(absolute(over(ONE, a.rate)))
  const still = isConstant(a)
  return {
    splitAt: affine ? m => reader.splitAt(m) : m => reader.splitAt(beat.when(m)),
    at: affine ? m => reader.at(m) : m => reader.at(beat.when(m)),
    affine,
    cyclic: affine ? own : still ? ALWAYS : beat.repeats,
    once: still ? ALWAYS : affine ? NEVER : beat.repeats,
    wholes: affine ? atWhole(a) : still ? NONE : ['anywhere'],
    zero: affine ? atZero(a) : still ? NONE : ['anywhere'],
  }
}
