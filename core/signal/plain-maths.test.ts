import { describe, expect, it } from 'vitest'
import { random } from '../../tests/random.ts'
import { atan2, exp, log, pow } from './plain-maths.ts'

const draw = random(81_240)
const r = (): number => draw(2 ** 31) / 2 ** 31
const bits = new BigInt64Array(1)
const double = new Float64Array(bits.buffer)
/** Any double, and one of a size that formulas have. */
const any = (): number => {
  bits[0] = BigInt.asIntN(64, (BigInt(draw(2 ** 31)) << 33n) | (BigInt(draw(2 ** 31)) << 2n))
  return double[0]!
}
const usual = (): number => (r() - 0.5) * 10 ** Math.floor(r() * 8 - 3)
const EDGES = [
  0,
  -0,
  1,
  -1,
  2,
  0.5,
  -0.5,
  3,
  -3,
  Infinity,
  -Infinity,
  NaN,
  1e308,
  5e-324,
  -5e-324,
  709.78,
  -745.13,
  1024,
  -1074,
  1 / 3,
]
/** How many doubles two are apart. */
function ulps(a: number, b: number): number {
  if (Object.is(a, b)) return 0
  double[0] = a
  const first = bits[0]!
  double[0] = b
  return Math.abs(Number(first - bits[0]!))
}
const pairs = [
  ...EDGES.flatMap(a => EDGES.map(b => [a, b] as const)),
  ...Array.from({ length: 20_000 }, () => [any(), any()] as const),
  ...Array.from({ length: 20_000 }, () => [usual(), usual()] as const),
]

describe('plain maths', () => {
  it('is that of this engine, whose own is made the same way', () => {
    for (const [a, b] of pairs) {
      expect(ulps(exp(a), Math.exp(a)), `exp(${a})`).toBe(0)
      expect(ulps(log(a), Math.log(a)), `log(${a})`).toBe(0)
      expect(ulps(atan2(a, b), Math.atan2(a, b)), `atan2(${a}, ${b})`).toBe(0)
    }
  })
  it('gives powers to the last bit but one', () => {
    for (const [a, b] of pairs) {
      const [own, theirs] = [pow(a, b), Math.pow(a, b)]
      expect(ulps(own, theirs), `${a} ^ ${b}: ${own}, ${theirs}`).toBeLessThanOrEqual(1)
    }
  })
  it('is exact where the result is', () => {
    for (let n = -1022; n < 1024; n++) expect(log(pow(2, n)) / Math.LN2).toBeCloseTo(n, 9)
    for (let n = 0; n < 22; n++) expect(pow(10, n)).toBe(Number(`1e${n}`))
    expect([pow(-2, 3), pow(-2, 2), pow(-8, 1 / 3), pow(9, 0.5), pow(0, 0)]).toEqual([-8, 4, NaN, 3, 1])
    expect([exp(0), exp(1), log(1), log(0), log(-1)]).toEqual([1, Math.E, 0, -Infinity, NaN])
  })
})
