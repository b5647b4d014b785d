/** Drawn curves as they are read over time: where they bend. */
import { joined, type Bends } from '../facts/bends.ts'
import type { After, DrawnCurve } from '../signal/drawn.ts'
import type { NamedEase } from '../signal/easing.ts'
import type { ClockReading } from './active-clock.ts'

/** Where a curve bends that is read in lengths of its own: at its points, in each round of it. */
export function curveBends(d: DrawnCurve, after: After, read: ClockReading): Bends {
  const length = d.end - d.start
  const shares = length > 0 ? d.bends.map(t => (t - d.start) / length) : []
  const there = after === 'mirror' ? [...shares, ...shares.map(s => 1 - s)] : shares
  return after === 'hold' ? read.reaching(...shares) : joined(read.passing(...there))
}

/** A curve as an easing: its length stands for shares from 0 to 1, its values are shares. */
export function curveEase({ drawn, size }: { readonly drawn: DrawnCurve; readonly size: number }): NamedEase {
  const { start, end, low, high, bends } = drawn
  const length = end > start ? end - start : 1
  return {
    ease: x => drawn.at(start + x * length) * size,
    low: Math.min(low * size, high * size),
    high: Math.max(low * size, high * size),
    knots: bends.map(t => (t - start) / length).filter(t => t > 0 && t < 1),
  }
}
