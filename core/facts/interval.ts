/**
 * Intervals: guaranteed lowest and highest values. Every operation that rounds widens by a few units in the
 * last place, so that a bound holds for the doubles the engine gives and not only on paper.
 */
import { power } from '../signal/maths.ts'

export interface Interval {
  readonly low: number
  readonly high: number
}

export const ALL: Interval = { low: -Infinity, high: Infinity }
export const point = (x: number): Interval => ({ low: x, high: x })
export const interval = (low: number, high: number): Interval =>
  Number.isNaN(low) || Number.isNaN(high) ? ALL : low <= high ? { low, high } : { low: high, high: low }

const SLACK = 4 * Number.EPSILON
/** How far rounding may carry a value: a few units in its last place, or of the smallest doubles where it is one. */
const rounding = (x: number): number =>
  Math.abs(x) * SLACK + (x !== 0 && Math.abs(x) < 1e-290 ? 32 * Number.MIN_VALUE : 0)
const widened = (low: number, high: number): Interval =>
  Number.isNaN(low) || Number.isNaN(high)
    ? ALL
    : {
        low: Number.isFinite(low) ? low - rounding(low) : low < 0 ? low : Number.MAX_VALUE,
        high: Number.isFinite(high) ? high + rounding(high) : high > 0 ? high : -Number.MAX_VALUE,
      }

export const plus = (a: Interval, b: Interval): Interval => widened(a.low + b.low, a.high + b.high)
export const minus = (a: Interval, b: Interval): Interval => widened(a.low - b.high, a.high - b.low)
export const negative = (a: Interval): Interval => ({ low: -a.high, high: -a.low })
/** 0 × ∞ counts as 0 here: a factor that is always 0 keeps the product at 0. */
const cross = (x: number, y: number) => (x === 0 || y === 0 ? 0 : x * y)
export function times(a: Interval, b: Interval): Interval {
  const c = [cross(a.low, b.low), cross(a.low, b.high), cross(a.high, b.low), cross(a.high, b.high)]
  return widened(Math.min(...c), Math.max(...c))
}
export function over(a: Interval, b: Interval): Interval {
  if (b.low <= 0 && b.high >= 0) return ALL
  return times(a, widened(1 / b.high, 1 / b.low))
}
export const union = (a: Interval, b: Interval): Interval => ({
  low: Math.min(a.low, b.low),
  high: Math.max(a.high, b.high),
})
export const meet = (a: Interval, low: number, high: number): Interval => ({
  low: Math.min(high, Math.max(low, a.low)),
  high: Math.max(low, Math.min(high, a.high)),
})
export const isBounded = (a: Interval): boolean => Number.isFinite(a.low) && Number.isFinite(a.high)
/** A value times itself. */
export function square(a: Interval): Interval {
  const all = times(a, a)
  return a.low >= 0 || a.high <= 0 ? { low: Math.max(0, all.low), high: all.high } : { low: 0, high: all.high }
}
/** A value raised to a whole power. */
export function wholePower(a: Interval, n: number): Interval {
  if (n === 0) return point(1)
  if (n < 0) return over(point(1), wholePower(a, -n))
  let to = point(1)
  for (let k = 0; k < n; k++) to = times(to, a)
  return n % 2 === 0 ? { low: Math.max(0, to.low), high: to.high } : to
}
/** A value of at least 0 raised to a power of at least 0: its corners, and 1 where a power of 0 is possible. */
export function anyPower(a: Interval, n: Interval): Interval {
  const corners = [power(a.low, n.low), power(a.low, n.high), power(a.high, n.low), power(a.high, n.high)]
  return widened(Math.min(...corners), Math.max(...corners))
}
