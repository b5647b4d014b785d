import { describe, expect, it } from 'vitest'
import { SMOOTH, UNKNOWN, atSeconds, joined, later, ordered, passing, steadily, turning } from './bends.ts'

const sine = (t: number) => Math.sin(2 * Math.PI * t)

describe('where a value leaps or bends', () => {
  it('single seconds are found strictly within a window, and are all there ever are', () => {
    const b = atSeconds([3, 1, 2])
    expect(ordered(b, 1, 3)).toEqual([2])
    expect(b.only).toEqual([3, 1, 2])
    expect(atSeconds([])).toBe(SMOOTH)
  })
  it('what grows steadily passes whole numbers again and again, forwards and backwards', () => {
    expect(ordered(steadily(2, 0, [0]), -0.1, 1.2)).toEqual([0, 0.5, 1])
    expect(ordered(steadily(-2, 1, [0]), -0.1, 1.2)).toEqual([0, 0.5, 1])
    expect(ordered(steadily(1, 0, [0, 0.25]), 0, 2)).toEqual([0.25, 1, 1.25])
    expect(steadily(0, 3, [0])).toBe(SMOOTH)
    expect(steadily(2, 0, [0, 0.5]).often).toBe(4)
    expect(ordered(steadily(0.5, 0, [0.25]), 0, 5)).toEqual([0.5, 2.5, 4.5])
  })
  it('some seconds later they lie later', () => {
    expect(ordered(later(atSeconds([1, 2]), 0.5), 0, 9)).toEqual([1.5, 2.5])
    expect(later(atSeconds([1]), 2).only).toEqual([3])
    expect(later(SMOOTH, 2)).toBe(SMOOTH)
  })
  it('together they are as fine as the finest, and known when all are', () => {
    const both = joined(turning(4), atSeconds([1]), SMOOTH)
    expect([both.grain, both.all]).toEqual([0.25, true])
    expect(ordered(both, 0, 2)).toEqual([1])
    expect(joined(UNKNOWN, turning(1)).all).toBe(false)
    expect(joined()).toBe(SMOOTH)
  })
})

describe('where a value passes from one range to the next', () => {
  const sign = (v: number) => (v < 0 ? -1 : 1)
  it('is found to the last bits', () => {
    const found = ordered(passing(sine, turning(1), sign), 0.1, 1.9)
    expect(found.map(t => Math.round(t * 1e12) / 1e12)).toEqual([0.5, 1, 1.5])
  })
  it('also where a crest only just reaches over an edge', () => {
    const high = (v: number) => (v > 0.9999 ? 1 : 0)
    const found = ordered(passing(sine, turning(1), high), 0, 1)
    expect(found).toHaveLength(2)
    const half = Math.acos(0.9999) / (2 * Math.PI)
    expect(found[0]).toBeCloseTo(0.25 - half, 10)
    expect(found[1]).toBeCloseTo(0.25 + half, 10)
  })
  it('through several ranges at once, on both sides of a leap of its own', () => {
    const stairs = (t: number) => (t < 1 ? t : t + 3)
    expect(ordered(passing(stairs, atSeconds([1]), Math.floor), 0.5, 2.5)).toEqual([1, expect.closeTo(2, 9)])
  })
})
