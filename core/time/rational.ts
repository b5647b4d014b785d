/**
 * Exact fractions. Everything that sets pace (frequencies, frame rates, lap lengths, moments) is kept as a
 * fraction of whole numbers, so that nothing drifts however long a piece runs.
 *
 * A `Rational` is always in lowest terms with a positive denominator. Fractions that would grow beyond
 * `BOUND` bits are given up (`null` from the bounded operations): the caller goes on in doubles.
 */
export interface Rational {
  readonly n: bigint
  readonly d: bigint
}

/** Bits a numerator or denominator may have before exactness is given up. */
const BOUND = 512n
const LIMIT = 1n << BOUND

export const ZERO: Rational = { n: 0n, d: 1n }
export const ONE: Rational = { n: 1n, d: 1n }

function gcd(a: bigint, b: bigint): bigint {
  while (b !== 0n) [a, b] = [b, a % b]
  return a < 0n ? -a : a
}

/** n ÷ d in lowest terms. Throws a RangeError when d is 0. */
export function rational(n: bigint | number, d: bigint | number = 1n): Rational {
  let top = BigInt(n)
  let bottom = BigInt(d)
  if (bottom === 0n) throw new RangeError('A fraction can’t have 0 below the line.')
  if (bottom < 0n) [top, bottom] = [-top, -bottom]
  const g = gcd(top, bottom)
  return g > 1n ? { n: top / g, d: bottom / g } : { n: top, d: bottom }
}

/** A one with n zeros behind it. */
export const tenTo = (n: number): bigint => BigInt(`1${'0'.repeat(n)}`)

/**
 * The fraction that a number's shortest decimal text says: 0.1 becomes 1/10, not the nearby binary fraction.
 * Throws a RangeError when x is not finite.
 */
export function fromNumber(x: number): Rational {
  if (!Number.isFinite(x)) throw new RangeError(`${x} has no fraction`)
  return fromDecimal(String(x))
}

/** The fraction of a decimal text such as `12`, `.5`, `1.25e-3`. Throws a RangeError on any other text. */
export function fromDecimal(text: string): Rational {
  const parts = /^([+-]?)(\d*)(?:\.(\d*))?(?:e([+-]?\d+))?$/i.exec(text)
  if (!parts || (!parts[2] && !parts[3])) throw new RangeError(`"${text}" isn’t a decimal number`)
  const fraction = parts[3] ?? ''
  const exponent = Number(parts[4] ?? 0) - fraction.length
  if (Math.abs(exponent) > 400) throw new RangeError(`"${text}" is out of range`)
  const digits = BigInt(`${parts[2]}${fraction}` || '0') * (parts[1] === '-' ? -1n : 1n)
  return exponent >= 0 ? { n: digits * tenTo(exponent), d: 1n } : rational(digits, tenTo(-exponent))
}

export const negate = (a: Rational): Rational => ({ n: -a.n, d: a.d })
export const plus = (a: Rational, b: Rational): Rational => rational(a.n * b.d + b.n * a.d, a.d * b.d)
export const minus = (a: Rational, b: Rational): Rational => rational(a.n * b.d - b.n * a.d, a.d * b.d)
export const times = (a: Rational, b: Rational): Rational => rational(a.n * b.n, a.d * b.d)
/** a ÷ b. Throws a RangeError when b is 0. */
export const over = (a: Rational, b: Rational): Rational => rational(a.n * b.d, a.d * b.n)
export const isZero = (a: Rational): boolean => a.n === 0n
export const isWhole = (a: Rational): boolean => a.d === 1n
export const equal = (a: Rational, b: Rational): boolean => a.n === b.n && a.d === b.d
/** −1, 0 or 1 as a is below, at or above b. */
export function compare(a: Rational, b: Rational): -1 | 0 | 1 {
  const difference = a.n * b.d - b.n * a.d
  return difference < 0n ? -1 : difference > 0n ? 1 : 0
}
/** The greatest whole number at or below a. */
export const floor = (a: Rational): bigint => {
  const whole = a.n / a.d
  return a.n < 0n && whole * a.d !== a.n ? whole - 1n : whole
}
/** a less its floor: 0 ≤ result < 1. */
export const fraction = (a: Rational): Rational => ({ n: a.n - floor(a) * a.d, d: a.d })
export const absolute = (a: Rational): Rational => (a.n < 0n ? negate(a) : a)
/** Whether a stays within the size up to which exactness is kept. */
export const within = (a: Rational): boolean => a.n < LIMIT && -a.n < LIMIT && a.d < LIMIT

const SAFE = BigInt(Number.MAX_SAFE_INTEGER)
/** How many bits a whole number has, at most one more. */
function bits(x: bigint): number {
  const near = Number(x)
  // A double tells it by its own power of two; what is beyond doubles is counted in digits.
  return near < 8.9e307 ? Math.ceil(log2Above(near)) : x.toString(16).length * 4
}
/** The power of two above a double, by its halves: no logarithm, which differs between machines. */
function log2Above(x: number): number {
  let n = 0
  for (let y = x; y >= 4294967296; y /= 4294967296) n += 32
  let y = x
  for (let k = n; k > 0; k -= 32) y /= 4294967296
  return n + 32 - Math.clz32(y)
}
/** n ÷ d as the nearest double, from whole numbers of any size. */
export function ratio(n: bigint, d: bigint): number {
  const size = n < 0n ? -n : n
  if (size <= SAFE && d <= SAFE) return Number(n) / Number(d)
  // Scale so that the quotient holds at least 64 bits, round once, and halve back (exact). What division leaves over
  // counts as one more bit: it decides where the quotient seems to lie right between two doubles.
  const shift = Math.max(0, 67 - (bits(size) - bits(d)))
  const scaled = size << BigInt(shift)
  const quotient = scaled / d
  let value = Number(quotient * d === scaled ? quotient : quotient | 1n)
  for (let k = shift; k > 0; k -= 32) value /= k >= 32 ? 4294967296 : Number(1n << BigInt(k))
  return n < 0n ? -value : value
}
export const toNumber = (a: Rational): number => ratio(a.n, a.d)

/** The greatest rational of which both are whole multiples; 0 counts as a multiple of anything. */
export const commonMeasure = (a: Rational, b: Rational): Rational => rational(gcd(a.n * b.d, b.n * a.d), a.d * b.d)
/** The least positive rational that is a whole multiple of both (both must not be 0). */
export const commonMultiple = (a: Rational, b: Rational): Rational => absolute(over(times(a, b), commonMeasure(a, b)))
/** A double as a fraction; 0 when it is not finite, where a value that is not there must not stop what else is worked out. */
export const fromFinite = (x: number): Rational => (Number.isFinite(x) ? fromNumber(x) : ZERO)
