/** Time on a clock as an expression. */
import { costOf } from '../facts/cost.ts'
import * as I from '../facts/interval.ts'
import { scaled } from '../facts/repeats.ts'
import type { Affine } from '../time/affine.ts'
import { plus, times, toNumber, type Rational } from '../time/rational.ts'
import { clockReading, type ActiveClock } from './active-clock.ts'
import { expressionOf, steadyExpression, type CompiledExpression } from './compiled-expression.ts'

/** What grows steadily in a clock's seconds, as an expression: exact where the clock is steady. */
export function clockTime(a: Affine, beat: ActiveClock, frameRate: Rational): CompiledExpression {
  const read = clockReading(a, beat, frameRate)
  if (read.affine) return steadyExpression(read.affine, frameRate, { ofTime: true })
  const facts = {
    bounds: () => I.plus(I.times(beat.bounds, I.point(toNumber(a.rate))), I.point(toNumber(a.base))),
    repeats: () => scaled(beat.repeats, a.rate),
    bends: () => beat.bends,
    cost: () => costOf(1, []),
    finite: () => true,
  }
  const bent = expressionOf(read.at, facts, { exactly: m => plus(times(a.rate, beat.seconds(m)), a.base) })
  return { ...bent, onClock: { affine: a, beat } }
}
