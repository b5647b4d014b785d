/**
 * Values that stand still and differ from copy to copy, seen all at once: their bounds are known, which copy has which
 * is not. What is known of a formula made of them is so of every copy.
 */
import { SMOOTH } from '../facts/bends.ts'
import { FREE } from '../facts/cost.ts'
import { point, type Interval } from '../facts/interval.ts'
import { ALWAYS } from '../facts/repeats.ts'
import type { Rational } from '../time/rational.ts'
import { expressionOf, type CompiledExpression } from './compiled-expression.ts'
import { refuseToRead } from './differs-by-copy.ts'

/** @param grid what all of them are whole multiples of, where there is such a step */
export const valueAcrossCopies = (bounds: Interval, grid: Rational | null = null): CompiledExpression =>
  expressionOf(
    refuseToRead,
    {
      bounds: () => bounds,
      repeats: () => ALWAYS,
      bends: () => SMOOTH,
      cost: () => FREE,
      finite: () => true,
      slope: () => point(0),
    },
    { grid },
  )
