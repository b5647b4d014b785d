/** Products by lane: constants fold to one exact fraction each lane, time stays exact, the rest is multiplied in text order. */
import { arithmetic, moving, pointwise, type Column } from '../../columns/column.ts'
import {
  commonOf,
  joinedUp,
  laneOf,
  overLanes,
  scaledLanes,
  timesLanes,
  uniform,
  type Fractions,
} from '../../columns/fractions.ts'
import { areSmall } from '../../form/product.ts'
import { constantOf } from '../../form/compiled-expression.ts'
import { ONE, equal, isZero, over, times, toNumber, within, type Rational } from '../../time/rational.ts'
import { columnOf, constantLanes, exactOf, exactScaled, oneLanes } from './exact-lanes.ts'
import { noColumn } from './split.ts'

export interface FactorColumn {
  readonly column: Column
  readonly inverse: boolean
}

/** As `multiplyExpressions` in core/form. */
export function productColumn(factors: readonly FactorColumn[], lanes: number, frameRate: Rational): Column {
  // What is one for all lanes is folded once.
  let common = ONE
  let own: Fractions | null = null
  let paced = false
  const rest: FactorColumn[] = []
  for (const f of factors) {
    const c = constantLanes(f.column, lanes)
    if (!c) {
      rest.push(f)
      continue
    }
    const alike = f.column.type === 'one' ? constantOf(f.column.form) : null
    if (alike) common = f.inverse ? (isZero(alike) ? noColumn() : over(common, alike)) : times(common, alike)
    else
      own =
        (f.inverse ? overLanes(own ?? oneLanes(lanes), c.exact) : own ? timesLanes(own, c.exact) : c.exact) ??
        noColumn()
    paced ||= c.paced
  }
  if (!within(common)) return noColumn()
  const constant = (own ? scaledLanes(own, common) : uniform(common, lanes)) ?? noColumn()
  if (rest.length === 0) return columnOf({ rate: null, base: constant, paced }, frameRate)
  const only = rest[0]!
  const grows = rest.length === 1 && !only.inverse ? exactOf(only.column, lanes) : null
  if (grows) return paced ? noColumn() : columnOf(exactScaled(grows, constant), frameRate)
  if (rest.length === 1 && only.column.type === 'one' && only.column.form.onClock) return noColumn()
  const multiplied = (a: Column, f: FactorColumn): Column => arithmetic(f.inverse ? '/' : '*', a, f.column, lanes)
  const start = only.inverse ? pointwise([only.column], lanes, x => 1 / x) : only.column
  return scaledColumn(rest.slice(1).reduce(multiplied, start), constant, lanes)
}

/** A constant of each lane times a column: with the division last where both its numbers are small, as `scaledBy` has it. */
function scaledColumn(of: Column, by: Fractions, lanes: number): Column {
  const constant = joinedUp(by)
  const common = commonOf(constant)
  if (common && equal(common, ONE)) return of
  const factors = new Float64Array(lanes)
  const divisors = new Float64Array(lanes).fill(1)
  for (let i = 0; i < lanes; i++) {
    // Lanes with small numbers may stand among others that have none.
    const [n, d] = constant.big
      ? [Number(constant.all[i]!.n), Number(constant.all[i]!.d)]
      : [constant.n[i]!, constant.d[i]!]
    if (areSmall(n, d)) {
      factors[i] = n
      divisors[i] = d
    } else factors[i] = toNumber(laneOf(constant, i))
  }
  if (common) {
    const [n, d] = [factors[0]!, divisors[0]!]
    return moving((now, from, count, out) => {
      of.fill(now, from, count, out)
      for (let i = 0; i < count; i++) out[i] = (out[i]! * n) / d
    })
  }
  return moving((now, from, count, out) => {
    of.fill(now, from, count, out)
    for (let i = 0; i < count; i++) out[i] = (out[i]! * factors[from + i]!) / divisors[from + i]!
  })
}
