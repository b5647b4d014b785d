import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  commonMultiple,
  compare,
  floor,
  fraction,
  fromDecimal,
  fromNumber,
  minus,
  over,
  plus,
  ratio,
  rational,
  times,
  toNumber,
} from './rational.ts'

const some = fc.tuple(fc.bigInt(-(10n ** 20n), 10n ** 20n), fc.bigInt(1n, 10n ** 12n)).map(([n, d]) => rational(n, d))

describe('exact fractions', () => {
  it('are what their decimal text says, not the nearby binary fraction', () => {
    expect(fromNumber(0.1)).toEqual({ n: 1n, d: 10n })
    expect(fromDecimal('.125')).toEqual({ n: 1n, d: 8n })
    expect(fromDecimal('1.5e3')).toEqual({ n: 1500n, d: 1n })
    expect(fromDecimal('-2.50')).toEqual({ n: -5n, d: 2n })
    expect(fromNumber(1e-7)).toEqual({ n: 1n, d: 10000000n })
  })

  it('refuse what is no number', () => {
    for (const text of ['', '.', 'e5', '1e999', '0x10', '1.2.3'])
      expect(() => fromDecimal(text), text).toThrow(RangeError)
    expect(() => fromNumber(NaN)).toThrow(RangeError)
    expect(() => rational(1, 0)).toThrow(RangeError)
  })

  it('add and multiply as fractions do', () => {
    fc.assert(
      fc.property(some, some, some, (a, b, c) => {
        expect(plus(a, b)).toEqual(plus(b, a))
        expect(times(a, plus(b, c))).toEqual(plus(times(a, b), times(a, c)))
        expect(minus(plus(a, b), b)).toEqual(a)
        if (b.n !== 0n) expect(times(over(a, b), b)).toEqual(a)
      }),
    )
  })

  it('split into a floor and what is left of one, below zero too', () => {
    fc.assert(
      fc.property(some, a => {
        const rest = fraction(a)
        expect(plus(rational(floor(a)), rest)).toEqual(a)
        expect(compare(rest, rational(0))).toBeGreaterThanOrEqual(0)
        expect(compare(rest, rational(1))).toBeLessThan(0)
      }),
    )
    expect(floor(rational(-7, 2))).toBe(-4n)
  })

  it('become doubles within one unit in the last place, however large they are', () => {
    expect(ratio(10n ** 40n, 10n ** 39n)).toBe(10)
    expect(ratio(-1n, 3n)).toBe(-1 / 3)
    fc.assert(
      fc.property(some, fc.bigInt(1n, 10n ** 30n), (a, k) => {
        const plain = toNumber(a)
        expect(Math.abs(ratio(a.n * k, a.d * k) - plain)).toBeLessThanOrEqual(Math.abs(plain) * Number.EPSILON)
      }),
    )
  })

  it('meet at their least common multiple', () => {
    expect(commonMultiple(rational(3, 2), rational(2))).toEqual(rational(6))
    expect(commonMultiple(rational(8, 3), rational(8))).toEqual(rational(8))
  })
})
