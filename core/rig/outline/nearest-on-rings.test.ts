import { describe, expect, it } from 'vitest'
import { nearestOnRings, type RingPoint } from './nearest-on-rings.ts'

const ring = (nth: number, ...at: readonly (readonly [number, number])[]): RingPoint[] =>
  at.map(([x, y], k) => ({ ring: nth, nth: k, x, y }))
const square = ring(0, [0, 0], [100, 0], [100, 100], [0, 100])

describe('the nearest place on rings', () => {
  it('is between two neighbours, by its share of the way', () => {
    expect(nearestOnRings(square, [25, -3], 24)).toEqual({ ring: 0, after: 0, share: 0.25 })
  })

  it('is also between the last point and the first', () => {
    expect(nearestOnRings(square, [-3, 25], 24)).toEqual({ ring: 0, after: 3, share: 0.75 })
  })

  it('is a corner where a place lies beyond it', () => {
    expect(nearestOnRings(square, [110, -5], 24)).toEqual({ ring: 0, after: 0, share: 1 })
  })

  it('is on the nearer of two rings', () => {
    const hole = ring(1, [40, 40], [60, 40], [50, 60])
    expect(nearestOnRings([...square, ...hole], [50, 38], 24)).toEqual({ ring: 1, after: 0, share: 0.5 })
  })

  it('is nowhere where none is near enough, or there are no points', () => {
    expect(nearestOnRings(square, [50, 50], 24)).toBeNull()
    expect(nearestOnRings([], [0, 0], 24)).toBeNull()
  })

  it('is a point that stands alone', () => {
    expect(nearestOnRings(ring(2, [5, 5]), [6, 5], 24)).toEqual({ ring: 2, after: 0, share: 0 })
  })
})
