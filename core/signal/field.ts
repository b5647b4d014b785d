/**
 * Smooth noise over several directions: a slope in each direction hashed for every corner of the lattice, blended by
 * the quintic fade (Perlin, "Improving Noise", 2002). Slopes within ±1 give at most ½ for each direction, so divided
 * by that it stays in ±1; harder slopes keep its swing as wide as that of noise in one.
 */
import { hashSigned, seedOf } from './hash.ts'
import { fade, hardnessFor, type Octave } from './noise.ts'

/** A place in cells: whole ones and the part, by direction. */
export interface Cell {
  readonly whole: number
  readonly part: number
  /** Cells after which this direction comes round; 0 for never. */
  readonly wrap: number
}

/** The value at a place, of one octave. */
function lattice(at: readonly Cell[], seed: number): number {
  const n = at.length
  const hard = hardnessFor(Math.sqrt(n))
  let sum = 0
  for (let corner = 0; corner < 1 << n; corner++) {
    let own = seed
    let weight = 1
    for (let k = 0; k < n; k++) {
      const { whole, part, wrap } = at[k]!
      const far = (corner >> k) & 1
      const cell = whole + far
      own = seedOf(own, wrap > 0 ? cell - Math.floor(cell / wrap) * wrap : cell)
      weight *= far ? fade(part) : 1 - fade(part)
    }
    let reach = 0
    for (let k = 0; k < n; k++) {
      const h = hashSigned(k, own)
      const slope = h < 0 ? (1 - hard) * h - hard : (1 - hard) * h + hard
      reach += slope * (at[k]!.part - ((corner >> k) & 1))
    }
    sum += weight * reach
  }
  return (2 / n) * sum
}

/** Noise of several octaves over up to three directions, within ±1. */
export function fieldNoise(octaves: readonly Octave[], at: readonly Cell[]): number {
  let sum = 0
  for (const o of octaves) {
    const finer = at.map(({ whole, part, wrap }): Cell => {
      const fine = part * o.finer + o.shift
      const carry = Math.floor(fine)
      return { whole: whole * o.finer + carry, part: fine - carry, wrap: wrap * o.finer }
    })
    sum += o.share * lattice(finer, o.seed)
  }
  return sum > 1 ? 1 : sum < -1 ? -1 : sum
}
