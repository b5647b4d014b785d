/** Readings at other moments: earlier ones, and ones that vary. */
import type { CompiledExpression } from '../form/compiled-expression.ts'
import type { WorkQueue } from '../form/work-queue.ts'
import { momentNear, momentOfSeconds, type Moment } from '../time/moment.ts'
import { fromNumber, minus, plus as and, type Rational } from '../time/rational.ts'

/** The moment some seconds before another; seconds as a double are taken as their decimal. */
export const momentBefore = (m: Moment, seconds: Rational): Moment =>
  momentOfSeconds(minus(m.exactSeconds, seconds), m.rate)
/**
 * The moment at a second that varies, some seconds after another (or after second 0): exact where it is a short
 * decimal, such as people write; else as near as moments are found. All the digits of a double, taken off again and
 * again, would make fractions that everything waits for and nobody sees.
 */
export function momentAtVaryingSecond(seconds: number, m: Moment, since: Moment | null): Moment | null {
  if (!Number.isFinite(seconds)) return null
  if (!Number.isInteger(seconds * SHORT)) return momentNear((since?.seconds ?? 0) + seconds, m.rate)
  const exact = fromNumber(seconds)
  return momentOfSeconds(since ? and(since.exactSeconds, exact) : exact, m.rate)
}
const SHORT = 1e6

/** A reading of `x` at moments made from moments, which remembers the last one. */
export function readAtShiftedMoment(
  x: CompiledExpression,
  queue: WorkQueue,
  to: (m: Moment) => Moment | null,
): (m: Moment) => number {
  let last: Moment | null = null
  let value = NaN
  return m => {
    if (m === last) return value
    const before = queue.requestCount
    const there = to(m)
    value = there ? x.at(there) : NaN
    // What has no value, or rests on something that is still being worked out, is asked again.
    last = Number.isNaN(value) || queue.requestCount !== before ? null : m
    return value
  }
}
