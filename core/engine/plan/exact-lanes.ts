/** What is exact of columns: constants and steady growth, and their sums and products, as the plain evaluator has them. */
import { isConstant } from '../../time/affine.ts'
import { ONE, ZERO, isZero, type Rational } from '../../time/rational.ts'
import { fixedLanes, steadyLanes, type Column } from '../../columns/column.ts'
import {
  fractionsOf,
  negatedLanes,
  plusLanes,
  signsOf,
  timesLanes,
  uniform,
  wholes,
  type Fractions,
} from '../../columns/fractions.ts'
import { SteadyLanes } from '../../columns/steady.ts'
import { SplitLanes, noColumn } from './split.ts'

/** Steady growth by lane; rate null: none grows. */
export interface Exact {
  readonly rate: Fractions | null
  readonly base: Fractions
  /** Made of dials or laps, which matter where it is a pace. */
  readonly paced: boolean
}

/** What one lane is exactly, in base measure and seconds of the piece. */
export interface ExactLane {
  readonly rate: Rational
  readonly base: Rational
  /** Made of dials or laps. */
  readonly paced: boolean
}

/** Lanes that are exact one by one, together: null where none is. Those that aren't are told apart from those that are. */
export function exactTogether(lanes: readonly (ExactLane | null)[]): Exact | null {
  const moved = Float64Array.from(lanes, lane => (lane ? 0 : 1))
  if (!moved.includes(0)) return null
  if (moved.includes(1)) throw new SplitLanes(moved)
  const all = lanes as readonly ExactLane[]
  const grows = all.some(lane => !isZero(lane.rate))
  return {
    rate: grows ? fractionsOf(all.map(lane => lane.rate)) : null,
    base: fractionsOf(all.map(lane => lane.base)),
    paced: all.some(lane => lane.paced),
  }
}

const fits = <T>(f: T | null): T => f ?? noColumn()

/** What a column is exactly, or null. */
export function exactOf(column: Column, lanes: number): Exact | null {
  if (column.type === 'fixed') return { rate: null, base: column.exact, paced: column.paced }
  if (column.type === 'steady') return { rate: column.rate, base: column.base, paced: false }
  if (column.type === 'moving' || !column.form.exact) return null
  const { exact, perLap, dials } = column.form
  return {
    rate: isConstant(exact) ? null : uniform(exact.rate, lanes),
    base: uniform(exact.base, lanes),
    paced: perLap || dials !== null,
  }
}

/** What is constant on every lane, or null. */
export function constantLanes(column: Column, lanes: number): { exact: Fractions; paced: boolean } | null {
  const exact = exactOf(column, lanes)
  return exact && !exact.rate ? { exact: exact.base, paced: exact.paced } : null
}

/** A column of steady growth. Lanes that stand still are told apart from those that grow. */
export function columnOf({ rate, base, paced }: Exact, frameRate: Rational): Column {
  if (!rate) return fixedLanes(base, paced)
  const still = signsOf(rate).map(s => (s === 0 ? 1 : 0))
  const count = still.reduce((n, s) => n + s, 0)
  if (count === still.length) return fixedLanes(base, paced)
  if (count > 0) throw new SplitLanes(still)
  // What is made of dials and grows is never multiplied with them again: the plain evaluator follows such lanes.
  return paced ? noColumn() : steadyLanes(rate, base, new SteadyLanes(rate, base, frameRate))
}

export function exactSum(a: Exact, b: Exact): Exact {
  const rate = a.rate && b.rate ? fits(plusLanes(a.rate, b.rate)) : (a.rate ?? b.rate)
  // Steady growth made with dials keeps them in its slip; a sum of it has none left to follow.
  const paced = rate ? false : a.paced || b.paced
  return { rate, base: fits(plusLanes(a.base, b.base)), paced }
}

export const exactNegated = (a: Exact): Exact => ({
  rate: a.rate && negatedLanes(a.rate),
  base: negatedLanes(a.base),
  paced: a.paced,
})

export const exactScaled = (a: Exact, by: Fractions): Exact => ({
  rate: a.rate && fits(timesLanes(a.rate, by)),
  base: fits(timesLanes(a.base, by)),
  paced: a.paced,
})

/** −1, 0 or 1 as the constants of one column are below, at or above those of another. */
export const comparedLanes = (a: Fractions, b: Fractions): Float64Array => signsOf(fits(plusLanes(a, negatedLanes(b))))

/** A truth on every lane: 1 or 0. */
export const truthLanes = (of: Float64Array): Column => fixedLanes(wholes(of))

export const oneLanes = (lanes: number): Fractions => uniform(ONE, lanes)
export const zeroLanes = (lanes: number): Fractions => uniform(ZERO, lanes)
