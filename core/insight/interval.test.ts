import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import * as I from './interval.ts'

describe('intervals hold', () => {
  const some = fc
    .tuple(fc.double({ min: -1e3, max: 1e3, noNaN: true }), fc.double({ min: -1e3, max: 1e3, noNaN: true }))
    .map(([a, b]) => I.interval(a, b))
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
