/**
 * Smooth noise in one dimension: a slope hashed for every whole cell, blended by the quintic fade of
 * Perlin ("Improving Noise", 2002). Between slopes ±1 the blend never leaves ±1/2, so twice it stays in ±1.
 */
import { hashSigned, hashUnit, seedOf } from './hash.ts'

/** Quintic fade: 0 at 0, 1 at 1, first and second derivatives 0 at both. */
export const fade = (x: number): number => x * x * x * (x * (x * 6 - 15) + 10)

/** The slope of a cell, within ±1: evenly spread, or, the harder, the nearer to ±1. */
function slopeAt(cell: number, seed: number, hard: number): number {
  const h = hashSigned(cell, seed)
  return hard === 0 ? h : h < 0 ? (1 - hard) * h - hard : (1 - hard) * h + hard
}

/**
 * How hard the slopes must be so that a swing comes out `by` times as wide as evenly spread ones make it. Their mean
 * square is (1 + c + c²) ÷ 3 at hardness c, so c = (√(4·by² − 3) − 1) ÷ 2; by √3 all are ±1, which is the most.
 */
export const hardnessFor = (by: number): number => Math.min(1, Math.max(0, (Math.sqrt(4 * by * by - 3) - 1) / 2))

/**
 * Noise within ±1 at whole + part cells (0 ≤ part < 1). With `wrap` > 0 the cells repeat after that many.
 */
export function latticeNoise(whole: number, part: number, seed: number, wrap: number, hard = 0): number {
  let left = whole
  let right = whole + 1
  if (wrap > 0) {
    left -= Math.floor(left / wrap) * wrap
    right -= Math.floor(right / wrap) * wrap
  }
  const a = slopeAt(left, seed, hard) * part
  const b = slopeAt(right, seed, hard) * (part - 1)
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
  /** How hard its slopes are, so that the sum of several octaves swings as wide as one. */
  readonly hard: number
}

/**
 * Octaves for a seed; each next one is twice as fine and `roughness` times as strong. Octaves that are independent
 * add up to a narrower swing than one alone, by √Σs² ÷ Σs: harder slopes make up for that, and ±1 still holds.
 */
export function octavesOf(seed: number, count: number, roughness: number): Octave[] {
  let total = 0
  let strength = 1
  let squares = 0
  for (let k = 0; k < count; k++, strength *= roughness) {
    total += strength
    squares += strength * strength
  }
  const hard = hardnessFor(total / Math.sqrt(squares))
  const octaves: Octave[] = []
  strength = 1
  let finer = 1
  for (let k = 0; k < count; k++, strength *= roughness, finer *= 2) {
    const own = seedOf(seed, k)
    octaves.push({ seed: own, finer, shift: hashUnit(0, own ^ 0x5f356495), share: strength / total, hard })
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
    sum += o.share * latticeNoise(whole * o.finer + carry, fine - carry, o.seed, wrap * o.finer, o.hard)
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
    const upTo = cellsUpTo(whole * o.finer + carry, fine - carry, o) - cellsUpTo(0, o.shift, o)
    sum += (o.share * upTo) / o.finer
  }
  return sum
}

function cellsUpTo(whole: number, x: number, { seed, hard }: Octave): number {
  const [first, a, b] = [slopeAt(0, seed, hard), slopeAt(whole, seed, hard), slopeAt(whole + 1, seed, hard)]
  const within = a * (x * x * 0.5 - fadeX(x)) + b * (fadeX(x) - fadeOnly(x))
  return 2 * ((first - a) * CELL + within)
}

/** Cells of a lap up to which noise is looked at for being nearly still, and the least it then reaches. */
const FEW_CELLS = 64
const LEAST_REACH = 0.5

/** Octaves that wrap after a few cells: where chance has left them nearly still, they are raised to half their reach. */
function raised(octaves: readonly Octave[], wrap: number): readonly Octave[] {
  if (wrap === 0 || wrap > FEW_CELLS) return octaves
  const { low, high } = noiseReach(octaves, wrap)
  const reach = Math.max(-low, high)
  if (reach >= LEAST_REACH) return octaves
  // A lap of cells that are all alike to the last bit has no shape to raise.
  return reach < 1e-9 ? octaves : octaves.map(o => ({ ...o, share: (o.share * LEAST_REACH) / reach }))
}

/** What was made ready lately: the same octaves serve a formula again while another number of it is tuned. */
const ready = new Map<string, readonly Octave[]>()
const reaches = new WeakMap<readonly Octave[], { readonly wrap: number; readonly reach: Reach }>()
const MOST_READY = 20_000

/** Octaves for a seed, raised where they wrap after a few cells; the same list for the same numbers. */
export function octavesReady(seed: number, count: number, roughness: number, wrap: number): readonly Octave[] {
  const key = `${seed} ${count} ${roughness} ${wrap}`
  let known = ready.get(key)
  if (!known) {
    if (ready.size >= MOST_READY) ready.clear()
    ready.set(key, (known = raised(octavesOf(seed, count, roughness), wrap)))
  }
  return known
}

/** The furthest a slope of ±1 on either side carries noise of one octave, at a part of its cell. */
const most = (part: number): number => 2 * (part + (1 - 2 * part) * fade(part))

/**
 * How much noise within ±1 climbs a cell at most, either way: of one octave 2.7, where slopes of 1 and −1 meet a
 * fifth into a cell.
 */
export const noiseSteepness = (octaves: readonly Octave[]): number =>
  octaves.reduce((sum, o) => sum + o.share * o.finer * 2.75, 0)

/** Bends of `latticeNoise` at most, per cell squared: 2 (2 · 2 · 1.875 + 5.774), from those of the fade. */
const BEND = 27
/** Lowest and highest. */
export interface Reach {
  readonly low: number
  readonly high: number
}

/** Places in a cell of the finest octave at which it is looked at, and looks at most. */
const LOOKS = 64
const MOST_LOOKS = 16384

/**
 * Lowest and highest value of octave noise over all cells. Cells that wrap are looked at one by one; else it is
 * what slopes of ±1 in all octaves at once would give, as the octaves are shifted against each other for ever.
 * Between looks h apart it reaches at most h² ÷ 8 × its bend further (error of linear interpolation).
 */
export function noiseReach(octaves: readonly Octave[], wrap: number): Reach {
  const known = reaches.get(octaves)
  if (known?.wrap === wrap) return known.reach
  const reach = reachOf(octaves, wrap)
  reaches.set(octaves, { wrap, reach })
  return reach
}

function reachOf(octaves: readonly Octave[], wrap: number): Reach {
  const finest = octaves.at(-1)!.finer
  const step = 1 / (finest * LOOKS)
  const bend = octaves.reduce((sum, o) => sum + o.share * o.finer * o.finer * BEND, 0)
  const further = ((step * step) / 8) * bend + 1e-12
  if (wrap > 0 && wrap * finest * LOOKS <= MOST_LOOKS) {
    let [low, high] = [Infinity, -Infinity]
    for (let cell = 0; cell < wrap; cell++) {
      for (let k = 0; k < finest * LOOKS; k++) {
        const v = octaveNoise(octaves, cell, k * step, wrap)
        if (v < low) low = v
        if (v > high) high = v
      }
    }
    return { low: Math.max(-1, low - further), high: Math.min(1, high + further) }
  }
  if (octaves.length === 1) return { low: -1, high: 1 }
  let reach = 0
  for (let k = 0; k < finest * LOOKS; k++) {
    let sum = 0
    for (const o of octaves) {
      const fine = k * step * o.finer + o.shift
      sum += o.share * most(fine - Math.floor(fine))
    }
    if (sum > reach) reach = sum
  }
  reach = Math.min(1, reach + further)
  return { low: -reach, high: reach }
}
