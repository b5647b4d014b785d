/** Exact fractions for the trials: written for them alone, so that they share nothing with what they try. */
export interface Q {
  readonly n: bigint
  readonly d: bigint
}

const gcd = (a: bigint, b: bigint): bigint => {
  let [x, y] = [a < 0n ? -a : a, b]
  while (y !== 0n) [x, y] = [y, x % y]
  return x
}

export function q(n: bigint | number, d: bigint | number = 1n): Q {
  const [a, b] = [BigInt(n), BigInt(d)]
  if (b === 0n) throw new Error('a fraction over 0')
  const by = gcd(a, b < 0n ? -b : b) || 1n
  return b < 0n ? { n: -a / by, d: -b / by } : { n: a / by, d: b / by }
}

/** A decimal as it is written. */
export function decimal(text: string): Q {
  const [, whole = '', part = '', power = '0'] = /^(\d*)(?:\.(\d*))?(?:e([+-]?\d+))?$/i.exec(text) ?? []
  const up = Number(power) - part.length
  const n = BigInt(whole + part)
  return up >= 0 ? q(n * 10n ** BigInt(up)) : q(n, 10n ** BigInt(-up))
}

/** A double, exactly. */
export function ofDouble(x: number): Q {
  let d = 1n
  let y = x
  while (!Number.isInteger(y)) {
    y *= 2
    d *= 2n
  }
  return q(BigInt(y), d)
}

export const plus = (a: Q, b: Q): Q => q(a.n * b.d + b.n * a.d, a.d * b.d)
export const minus = (a: Q, b: Q): Q => q(a.n * b.d - b.n * a.d, a.d * b.d)
export const times = (a: Q, b: Q): Q => q(a.n * b.n, a.d * b.d)
export const over = (a: Q, b: Q): Q => q(a.n * b.d, a.d * b.n)
export const compare = (a: Q, b: Q): number => {
  const x = a.n * b.d - b.n * a.d
  return x < 0n ? -1 : x > 0n ? 1 : 0
}
export const floorOf = (a: Q): bigint => (a.n >= 0n ? a.n / a.d : -((-a.n + a.d - 1n) / a.d))

/** The nearest double: the quotient to 64 bits, so that it is rounded about once. */
export function toDouble(a: Q): number {
  const direct = [Number(a.n), Number(a.d)] as const
  if (Number.isSafeInteger(direct[0]) && Number.isSafeInteger(direct[1])) return direct[0] / direct[1]
  const negative = a.n < 0n
  const n = negative ? -a.n : a.n
  const shift = BigInt(a.d.toString(2).length - n.toString(2).length + 64)
  const top = shift >= 0n ? (n << shift) / a.d : n / (a.d << -shift)
  const x = Number(top) * 2 ** -Number(shift)
  return negative ? -x : x
}
