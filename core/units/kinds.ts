/**
 * Kinds: what a number measures. A kind is the powers of angle, time and length in it, so kinds multiply and
 * divide as in physics; a comparison gives a *truth*, which is no number.
 */
export interface Kind {
  readonly angle: number
  readonly time: number
  readonly length: number
  readonly truth?: true
}

const kind = (angle: number, time: number, length: number): Kind => ({ angle, time, length })
export const PLAIN = kind(0, 0, 0)
export const ANGLE = kind(1, 0, 0)
export const TIME = kind(0, 1, 0)
export const FREQUENCY = kind(0, -1, 0)
export const LENGTH = kind(0, 0, 1)
export const TRUTH: Kind = { angle: 0, time: 0, length: 0, truth: true }

export const productKind = (a: Kind, b: Kind): Kind => kind(a.angle + b.angle, a.time + b.time, a.length + b.length)
export const quotientKind = (a: Kind, b: Kind): Kind => kind(a.angle - b.angle, a.time - b.time, a.length - b.length)
export const powerKind = (a: Kind, n: number): Kind => kind(a.angle * n, a.time * n, a.length * n)
export const isPlain = (a: Kind): boolean => sameKind(a, PLAIN)
export const sameKind = (a: Kind, b: Kind): boolean =>
  a.angle === b.angle && a.time === b.time && a.length === b.length && a.truth === b.truth

const NAMED: readonly (readonly [Kind, string])[] = [
  [PLAIN, 'a plain number'],
  [ANGLE, 'an angle'],
  [TIME, 'a time'],
  [FREQUENCY, 'a frequency'],
  [LENGTH, 'a length'],
  [kind(1, -1, 0), 'an angle per time'],
  [kind(0, -1, 1), 'a length per time'],
  [TRUTH, 'a yes or no'],
]

/** The kind in words with its article: "an angle", "a length per time", "angle · time". */
export function kindName(a: Kind): string {
  const named = NAMED.find(([k]) => sameKind(k, a))
  if (named) return named[1]
  const powers = [
    ['angle', a.angle],
    ['time', a.time],
    ['length', a.length],
  ] as const
  const part = (sign: 1 | -1) =>
    powers
      .filter(([, n]) => n * sign > 0)
      .map(([word, n]) => (Math.abs(n) === 1 ? word : `${word}^${Math.abs(n)}`))
      .join(' × ')
  return part(-1) ? `${part(1) || 'plain'} per ${part(-1)}` : part(1)
}
