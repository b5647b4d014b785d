/**
 * Quantities that grow steadily: rate · t + base, t in seconds, both exact. A constant has rate 0.
 * Read at a moment they are rounded once; split into a whole part and a remainder they are right for ever,
 * which is what keeps an oscillator's phase and the cells of noise exact after a year.
 */
import { ZERO, floor, fraction, isZero, negate, over, plus, ratio, times, within, type Rational } from './rational.ts'
import type { Moment } from './moment.ts'

export interface Affine {
  /** Per second. */
  readonly rate: Rational
  readonly base: Rational
}

export const constant = (base: Rational): Affine => ({ rate: ZERO, base })
export const isConstant = (a: Affine): boolean => isZero(a.rate)
/** a + b, or null when the fractions grow too large to be kept exact. */
export const add = (a: Affine, b: Affine): Affine | null => bounded(plus(a.rate, b.rate), plus(a.base, b.base))
/** a · by, or null when too large. */
export const scale = (a: Affine, by: Rational): Affine | null => bounded(times(a.rate, by), times(a.base, by))
export const opposite = (a: Affine): Affine => ({ rate: negate(a.rate), base: negate(a.base) })

/** The exact value at a moment. */
export const evaluateAffine = (a: Affine, m: Moment): Rational => plus(times(a.rate, m.exactSeconds), a.base)

function bounded(rate: Rational, base: Rational): Affine | null {
  return within(rate) && within(base) ? { rate, base } : null
}

const SAFE = Number.MAX_SAFE_INTEGER
const MODEST = 1n << 40n

/** Whole and part of one reading: whole ≤ value < whole + 1, part in [0, 1). Reused between readings. */
export interface Split {
  whole: number
  part: number
}

/** Reads one affine quantity at moments; made once per formula, allocates nothing while numbers stay small. */
export class AffineReader {
  private readonly perFrame: Rational
  /** value = (p · top + q · bottom) / (r · bottom), with top/bottom the moment's frames. */
  private readonly p: bigint
  private readonly q: bigint
  private readonly r: bigint
  private readonly small: boolean
  private readonly pn: number
  private readonly qn: number
  private readonly rn: number
  private readonly fixed: number | null
  readonly split: Split = { whole: 0, part: 0 }

  constructor(
    readonly form: Affine,
    frameRate: Rational,
  ) {
    this.perFrame = over(form.rate, frameRate)
    this.p = this.perFrame.n * form.base.d
    this.q = form.base.n * this.perFrame.d
    this.r = this.perFrame.d * form.base.d
    const size = (x: bigint) => (x < 0n ? -x : x)
    this.small = size(this.p) < MODEST && size(this.q) < MODEST && this.r < MODEST
    this.pn = Number(this.p)
    this.qn = Number(this.q)
    this.rn = Number(this.r)
    this.fixed = isConstant(form) ? ratio(form.base.n, form.base.d) : null
  }

  /** The value, rounded once. */
  at(m: Moment): number {
    if (this.fixed !== null) return this.fixed
    if (this.small) {
      const a = this.pn * m.top
      const b = this.qn * m.bottom
      const top = a + b
      const bottom = this.rn * m.bottom
      if (safe(a) && safe(b) && safe(top) && bottom <= SAFE) return top / bottom
    }
    return ratio(this.p * m.frames.n + this.q * m.frames.d, this.r * m.frames.d)
  }

  /** Whole part and remainder, exact up to the one rounding of the remainder. */
  splitAt(m: Moment): Split {
    const out = this.split
    if (this.small) {
      const a = this.pn * m.top
      const b = this.qn * m.bottom
      const top = a + b
      const bottom = this.rn * m.bottom
      if (safe(a) && safe(b) && safe(top) && bottom <= SAFE) {
        // The remainder of whole doubles is exact, so the quotient below is a whole number without rounding.
        // `+ 0` makes a zero of the −0 that whole steps below 0 leave.
        let rest = (top % bottom) + 0
        if (rest < 0) rest += bottom
        out.whole = (top - rest) / bottom
        out.part = rest / bottom
        return out
      }
    }
    const value: Rational = { n: this.p * m.frames.n + this.q * m.frames.d, d: this.r * m.frames.d }
    out.whole = Number(floor(value))
    const rest = fraction(value)
    out.part = ratio(rest.n, rest.d)
    if (out.part >= 1) {
      // A remainder within half a bit of 1 stays below it: the whole part is exact and must not be passed.
      out.part = 1 - Number.EPSILON / 2
    }
    return out
  }

  /** −1, 0 or 1 as the exact value is below, at or above 0. */
  signAt(m: Moment): -1 | 0 | 1 {
    const top = this.p * m.frames.n + this.q * m.frames.d
    return top < 0n ? -1 : top > 0n ? 1 : 0
  }
}

/** NaN (a moment too fine for doubles) is not safe either. */
const safe = (x: number): boolean => x <= SAFE && x >= -SAFE
