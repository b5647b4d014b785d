/**
 * How dials make a constant what it is: factor × a product of powers of *atoms*. An atom is a dial, or a
 * whole expression of dials that is no product. The product names the pace whose slip a piece keeps, so that
 * `45deg/s * fairPace` and `sine(every: 2s / fairPace)` share the one slip of `fairPace`.
 */
import type { Moment } from '../time/moment.ts'
import { isZero, minus, over, rational, times, ONE, type Rational } from '../time/rational.ts'
import { seedOf } from '../signal/hash.ts'

export interface DialFactors {
  /** Power by atom; none is 0. */
  readonly atoms: ReadonlyMap<string, number>
  /** What stands before the atoms. */
  readonly factor: Rational
}

/** A dial by its id, or any expression of dials by its text. */
export const dialFactor = (key: string): DialFactors => ({ atoms: new Map([[short(key), 1]]), factor: ONE })

/** Keys are kept in documents, so long ones become their hash. */
const short = (key: string): string =>
  key.length <= 80 ? key : `#${seedOf(key).toString(36)}${seedOf(key, 1).toString(36)}`

/** a times b, or a ÷ b. A plain constant is given as its factor with no atoms. */
export function combineFactors(a: DialFactors, b: DialFactors, inverse: boolean): DialFactors {
  const atoms = new Map(a.atoms)
  for (const [key, power] of b.atoms) {
    const next = (atoms.get(key) ?? 0) + (inverse ? -power : power)
    if (next === 0) atoms.delete(key)
    else atoms.set(key, next)
  }
  return { atoms, factor: inverse ? over(a.factor, b.factor) : times(a.factor, b.factor) }
}

/** What a pace is multiplied by as time goes on: seconds, or the sum of what else the rate is made of. */
export interface ElapsedTime {
  /** Tells it from other runs of the same dials; '' for seconds from 0. */
  readonly key: string
  readonly at: (m: Moment) => Rational
  /** Counts in seconds of the clock in force; else at moments of the piece. */
  readonly clocked: boolean
}

/** Seconds from an origin. */
export const secondsFrom = (origin: Rational): ElapsedTime => ({
  key: isZero(origin) ? '' : `@${origin.n}/${origin.d}`,
  at: m => minus(m.exactSeconds, origin),
  clocked: true,
})

/** The key under which a slip is kept: the atoms in order, and what the pace runs over. */
export function slipKey(d: DialFactors, run: ElapsedTime): string {
  const atoms = [...d.atoms]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([key, power]) => (power === 1 ? key : `${key}^${power}`))
  return atoms.join('*') + run.key
}

/** The product of the atoms, from the whole constant. */
export const paceOf = (d: DialFactors, value: Rational): Rational =>
  isZero(d.factor) ? rational(0) : over(value, d.factor)
