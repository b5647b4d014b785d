/**
 * Doubles with a second one for what the first has lost: about 106 bits together. They tell the nearest double of a sum of
 * fractions without big integers, or that they cannot: sums by Knuth's two-sum, products by Dekker's splitting ("A
 * floating-point technique for extending the available precision", Numer. Math. 18, 1971).
 */
import { fraction, toNumber, type Rational } from '../time/rational.ts'

const SPLITTER = 134_217_729
/** 2 to the 54th, and to the 108th: so many bits two doubles hold together. */
const TWO_54 = 18_014_398_509_481_984
const TWO_108 = TWO_54 * TWO_54

/** What a product of two doubles, each below 2^53 in size, has lost by rounding. */
function lostOf(a: number, b: number, product: number): number {
  const [ca, cb] = [SPLITTER * a, SPLITTER * b]
  const ah = ca - (ca - a)
  const bh = cb - (cb - b)
  const [al, bl] = [a - ah, b - bh]
  return al * bl - (product - ah * bh - al * bh - ah * bl)
}

/** What n / d, whole numbers below 2^53, has lost as the double `quotient`. */
export function remainderOf(n: number, d: number, quotient: number): number {
  const product = quotient * d
  return (n - product - lostOf(quotient, d, product)) / d
}

/** The part of a fraction after its whole, as two doubles. */
export function partOf(r: Rational): { readonly high: number; readonly low: number } {
  const part = fraction(r)
  // A double is a whole number over a power of two; of the smallest the last bits go into the second one.
  const scaled = Math.floor(toNumber(part) * TWO_108)
  const rest = (part.n << 108n) - BigInt(scaled) * part.d
  return { high: scaled / TWO_108, low: toNumber({ n: rest, d: part.d << 108n }) }
}

/** Parts nearer to a whole number than this are left to exact arithmetic, and sums that differ by this round apart. */
const NEAR = 1 / 1_099_511_627_776
const SLACK = 1 / (TWO_54 * 274_877_906_944)

/** The nearest double of a sum of two parts, less 1 where it is 1 or more; NaN where two doubles cannot tell it. */
export function partOfSum(aHigh: number, aLow: number, bHigh: number, bLow: number): number {
  const sum = aHigh + bHigh
  const virtual = sum - aHigh
  const low = aHigh - (sum - virtual) + (bHigh - virtual) + (aLow + bLow)
  const high = sum >= 1 ? sum - 1 : sum
  const value = high + low
  if (!(value > NEAR && value < 1 - NEAR) || high + (low + SLACK) !== high + (low - SLACK)) return NaN
  return value
}

/** The nearest double of a whole number and two parts; NaN where it cannot be told. */
export function sumWith(whole: number, aHigh: number, aLow: number, bHigh: number, bLow: number): number {
  const sum = aHigh + bHigh
  const virtual = sum - aHigh
  const low = aHigh - (sum - virtual) + (bHigh - virtual) + (aLow + bLow)
  const all = whole + sum
  const back = all - whole
  const rest = whole - (all - back) + (sum - back) + low
  const value = all + rest
  const slack = SLACK * (1 + Math.abs(whole))
  if (!(Math.abs(value) > NEAR) || all + (rest + slack) !== all + (rest - slack)) return NaN
  return value
}
