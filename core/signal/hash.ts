/**
 * Hashes of whole numbers, the ground of noise and random: no state and no period. Mixing steps are the
 * finalisers of MurmurHash3 (Austin Appleby, public domain), chained over the words of the input.
 */

function mix(hash: number, word: number): number {
  let h = Math.imul(hash ^ word, 0x85ebca6b)
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35)
  return (h ^ (h >>> 16)) >>> 0
}

const WORD = 4294967296

/** A seed of 32 bits from words: whole numbers (all 53 bits count) and texts. */
export function seedOf(...words: readonly (number | string)[]): number {
  let h = 0x9e3779b9
  for (const word of words) {
    if (typeof word === 'string') for (let i = 0; i < word.length; i++) h = mix(h, word.charCodeAt(i) + 0x51ed)
    else h = mix(mix(h, word | 0), Math.floor(word / WORD) | 0)
    h = mix(h, 0x2545f491)
  }
  return h
}

/** A number in [0, 1) of 52 bits for a cell (any whole number up to 53 bits, either sign) under a seed. */
export function hashUnit(cell: number, seed: number): number {
  const high = Math.floor(cell / WORD)
  const low = cell - high * WORD
  const a = mix(mix(seed | 0, low | 0), high | 0)
  const b = mix(a ^ 0x6a09e667, low ^ high)
  return (a * 1048576 + (b >>> 12)) / 4503599627370496
}

/** The same in [−1, 1). */
export const hashSigned = (cell: number, seed: number): number => hashUnit(cell, seed) * 2 - 1
