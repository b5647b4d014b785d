/**
 * Smooth noise in one dimension: a slope hashed for every whole cell, blended by the quintic fade of
 * Perlin ("Improving Noise", 2002). Between slopes ±1 the blend never leaves ±1/2, so twice it stays in ±1.
 */
import { hashSigned, hashUnit, seedOf } from './hash.ts'

/** Quintic fade: 0 at 0, 1 at 1, first and second derivatives 0 at both. */
export const fade = (x: number): number => x * x * x * (x * (x * 6 - 15) + 10)

/**
 * Noise within ±1 at whole + part cells (0 ≤ part < 1). With `wrap` > 0 the cells repeat after that many.
 */
export function latticeNoise(whole: number, part: number, seed: number, wrap: number): number {
  let left = whole
  let right = whole + 1
  if (wrap > 0) {
    left -= Math.floor(left / wrap) * wrap
    right -= Math.floor(right / wrap) * wrap
  }
  const a = hashSigned(left, seed) * part
  const b = hashSigned(right, seed) * (part - 1)
  return 2 * (a + (b - a) * fade(part))
}

/** What noise of several octaves is made of, worked out once. */
export interface Octave {
  readonly seed: number
  /** Cells of this octave to one cell of the first: 1, 2, 4 … */
  readonly finer: number
  /** Part of a cell this octave is moved by, so that copies do not all cross 0 at the same moment. */
  readonly shift: number
  /** Its share of the whole; all shares add up to 1. */
  readonly share: number
}

/** Octaves for a seed; each next one is twice as fine and `roughness` times as strong. */
export function octavesOf(seed: number, count: number, roughness: number): Octave[] {
  let total = 0
  let strength = 1
  for (let k = 0; k < count; k++, strength *= roughness) total += strength
  const octaves: Octave[] = []
  strength = 1
  let finer = 1
  for (let k = 0; k < count; k++, strength *= roughness, finer *= 2) {
    const own = seedOf(seed, k)
    octaves.push({ seed: own, finer, shift: hashUnit(0, own ^ 0x5f356495), share: strength / total })
  }
  return octaves
}

/** Noise within ±1 at whole + part cells of the first octave; `wrap` cells make a lap, 0 for never. */
export function octaveNoise(octaves: readonly Octave[], whole: number, part: number, wrap: number): number {
  let sum = 0
  for (const o of octaves) {
    // The whole part is scaled on its own, so a large cell number does not eat the digits of the part.
    const fine = part * o.finer + o.shift
    const carry = Math.floor(fine)
    sum += o.share * latticeNoise(whole * o.finer + carry, fine - carry, o.seed, wrap * o.finer)
  }
  return sum > 1 ? 1 : sum < -1 ? -1 : sum
}

/** ∫ x (1 − fade x) over a cell: what a slope of 1 on its left gives. The right side's is the same below 0. */
const CELL = 1 / 7

/** The integral of fade(x) · x and of fade(x) · (x − 1), from 0 to x. */
const fadeX = (x: number): number => x * x * x * x * x * ((6 / 7) * x * x - 2.5 * x + 2)
const fadeOnly = (x: number): number => x * x * x * x * (x * x - 3 * x + 2.5)

/**
 * The integral of octave noise from cell 0, in cells of the first octave. Over whole cells only the first and
 * the last slope are left: what a slope gives to the cell on its right it takes from the one on its left.
 */
export function noiseUpTo(octaves: readonly Octave[], whole: number, part: number): number {
  let sum = 0
  for (const o of octaves) {
    const fine = part * o.finer + o.shift
    const carry = Math.floor(fine)
    const upTo = cellsUpTo(whole * o.finer + carry, fine - carry, o.seed) - cellsUpTo(0, o.shift, o.seed)
    sum += (o.share * upTo) / o.finer
  }
  return sum
}

function cellsUpTo(whole: number, x: number, seed: number): number {
  const [first, a, b] = [hashSigned(0, seed), hashSigned(whole, seed), hashSigned(whole + 1, seed)]
  const within = a * (x * x * 0.5 - fadeX(x)) + b * (fadeX(x) - fadeOnly(x))
  return 2 * ((first - a) * CELL + within)
}
