import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { AffineReader, evaluateAffine } from './affine.ts'
import { type Moment, momentOfFrame, momentOfSeconds, momentOfTicks } from './moment.ts'
import { floor, fraction, rational, toNumber, type Rational } from './rational.ts'

const RATE = rational(60)
const pace = fc
  .tuple(fc.integer({ min: -100000, max: 100000 }), fc.integer({ min: 1, max: 1000 }))
  .map(([n, d]) => rational(n, d))

function splitExactly(rate: Rational, base: Rational, m: Moment) {
  const value = evaluateAffine({ rate, base }, m)
  return { whole: Number(floor(value)), part: toNumber(fraction(value)) }
}

describe('steady growth, read at moments', () => {
  it('is split exactly after a year, in small numbers and in large', () => {
    fc.assert(
      fc.property(pace, pace, fc.integer({ min: -2_000_000_000, max: 2_000_000_000 }), (rate, base, frame) => {
        const m = momentOfFrame(frame, RATE)
        const { whole, part } = new AffineReader({ rate, base }, RATE).splitAt(m)
        const exact = splitExactly(rate, base, m)
        expect(whole).toBe(exact.whole)
        expect(Math.abs(part - exact.part)).toBeLessThanOrEqual(1e-15)
      }),
      { numRuns: 2000 },
    )
  })

  it('puts a frame that lies exactly on a step on its right side, always', () => {
    for (const hz of [rational(3, 10), rational(777, 100)]) {
      const reader = new AffineReader({ rate: hz, base: rational(0) }, RATE)
      for (let step = 1; step < 3000; step++) {
        // The moment of the step itself: a whole number of cycles.
        const m = momentOfSeconds({ n: BigInt(step) * hz.d, d: hz.n }, RATE)
        const { whole, part } = reader.splitAt(m)
        expect([whole, part]).toEqual([step, 0])
      }
    }
  })

  it('stays below the next whole number right before it', () => {
    const reader = new AffineReader({ rate: rational(1), base: rational(-1, 10n ** 30n) }, RATE)
    const { whole, part } = reader.splitAt(momentOfFrame(60, RATE))
    expect(whole).toBe(0)
    expect(part).toBeLessThan(1)
  })

  it('knows its sign exactly', () => {
    const reader = new AffineReader({ rate: rational(1), base: rational(-3) }, RATE)
    expect([179, 180, 181].map(f => reader.signAt(momentOfFrame(f, RATE)))).toEqual([-1, 0, 1])
  })

  it('reads moments between frames', () => {
    const reader = new AffineReader({ rate: rational(1, 8), base: rational(0) }, rational(30))
    expect(reader.at(momentOfTicks(1024 * 372, rational(30)))).toBe(12.4 / 8)
    expect(momentOfTicks(512, rational(30)).seconds).toBe(1 / 60)
  })
})
