import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import * as I from './interval.ts'

describe('at the ends of what doubles hold', () => {
  it('what overflows is beyond the largest, and what is hardly there keeps its rounding', () => {
    expect(I.over(I.point(1), I.interval(5e-324, 5.5e-309))).toEqual({
      low: expect.closeTo(Number.MAX_VALUE, -300),
      high: Infinity,
    })
    expect(I.times(I.point(1e-200), I.point(1.5e-120)).low).toBeLessThan(1e-200 * 1.5e-120)
    expect(I.times(I.point(0), I.ALL)).toEqual({ low: 0, high: 0 })
  })
})

describe('intervals hold', () => {
  const number = fc.oneof(
    { weight: 9, arbitrary: fc.double({ min: -1e3, max: 1e3, noNaN: true }) },
    { weight: 1, arbitrary: fc.double({ min: -1e-300, max: 1e-300, noNaN: true }) },
  )
  const some = fc.tuple(number, number).map(([a, b]) => I.interval(a, b))
  const within = fc.double({ min: 0, max: 1, noNaN: true })
  const inside = (a: I.Interval, share: number) => Math.min(a.high, Math.max(a.low, a.low + (a.high - a.low) * share))
  it.each([
    ['plus', I.plus, (x: number, y: number) => x + y],
    ['minus', I.minus, (x: number, y: number) => x - y],
    ['times', I.times, (x: number, y: number) => x * y],
    ['over', I.over, (x: number, y: number) => x / y],
  ] as const)('%s', (_name, of, on) => {
    fc.assert(
      fc.property(some, some, within, within, (a, b, s, t) => {
        const value = on(inside(a, s), inside(b, t))
        const bound = of(a, b)
        if (Number.isNaN(value)) return
        expect(value).toBeGreaterThanOrEqual(bound.low)
        expect(value).toBeLessThanOrEqual(bound.high)
      }),
      { numRuns: 2000 },
    )
  })
})
