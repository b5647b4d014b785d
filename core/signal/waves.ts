/**
 * A wave surface: waves of many lengths added up, each at the speed that gravity and the depth of the water give it
 * (Airy's linear theory: ω² = g k tanh k d). Each makes a whole number of swings in a lap, so the surface closes
 * there. Places in px, 100 to the metre.
 *
 * Or noise over space: the same sum with directions all round and paces by chance (a random field by its spectrum, as
 * Shinozuka and Jan 1972), which no wind and no depth has a part in.
 */
import { hashSigned, hashUnit } from './hash.ts'
import { expOf } from './maths.ts'
import { cosineOfTurns, sineOfPart, sineOfTurns } from './sine.ts'

export interface WaveSettings {
  /** Length of the longest waves, px. */
  readonly longest: number
  /** Depth of the water, px. */
  readonly depth: number
  /** Where the wind blows to, degrees: 0 along x, 90 along z. */
  readonly wind: number
  /** How many waves are added up. */
  readonly waves: number
  /** Px after which the surface is the same again; 0 for never. */
  readonly tile: number
  readonly seed: number
  /** Noise over space: how many times a second it changes; water unless said. */
  readonly noise?: { readonly pace: number } | undefined
}

/** One of the waves: swings per px along x and z, whole swings in a lap, its share of the height, its start. */
export interface Wave {
  readonly x: number
  readonly z: number
  readonly swings: number
  readonly share: number
  readonly start: number
}

/** Gravity in px per second squared, and how each next wave is shorter. */
const GRAVITY = 981
const SHORTER = 0.74
/** The golden section of a turn: each next direction lies in the largest gap that those before have left. */
const GOLDEN = 0.6180339887498949
/** How far the waves run aside of the wind, in turns. */
const ASIDE = 0.09

const tanh = (x: number): number => (x > 20 ? 1 : 1 - 2 / (expOf(2 * x) + 1))

/** The waves of a surface, for a lap of so many seconds. All shares together are 1. */
export function wavesOf(s: WaveSettings, lap: number): Wave[] {
  const made: Wave[] = []
  let length = s.longest
  for (let k = 0; k < s.waves; k++, length *= SHORTER) {
    const aside = k === 0 ? 0 : hashSigned(3 * k, s.seed) * ASIDE
    const direction = s.noise ? hashUnit(0, s.seed) + k * GOLDEN + aside : s.wind / 360 + aside
    const perPx = 1 / (length * (1 + 0.12 * hashSigned(3 * k + 1, s.seed)))
    const whole = (x: number) => (s.tile > 0 ? Math.round(x * s.tile) / s.tile : x)
    const [x, z] = [whole(perPx * cosineOfTurns(direction)), whole(perPx * sineOfTurns(direction))]
    const number = 2 * Math.PI * Math.sqrt(x * x + z * z)
    const water = Math.sqrt(GRAVITY * number * tanh(number * s.depth)) / (2 * Math.PI)
    const swings = s.noise
      ? Math.round(s.noise.pace * lap * (0.5 + hashUnit(3 * k + 1, s.seed ^ 0x51ed)))
      : Math.max(1, Math.round(water * lap))
    const share = length * (0.6 + 0.4 * hashUnit(3 * k + 2, s.seed))
    made.push({ x, z, swings, share, start: hashUnit(k, s.seed ^ 0x3ad8025f) })
  }
  const all = made.reduce((sum, w) => sum + w.share, 0)
  return made.map(w => ({ ...w, share: w.share / all }))
}

/**
 * The height at a place, within ±1, when the lap is `progress` (0 ≤ progress < 1) on. `crest` from 0 to 1 makes crests
 * sharp and troughs flat.
 */
export function waveHeight(waves: readonly Wave[], x: number, z: number, progress: number, crest: number): number {
  let sum = 0
  for (const w of waves) {
    const turns = w.x * x + w.z * z - w.swings * progress + w.start
    const s = sineOfPart(turns - Math.floor(turns))
    const up = (s + 1) / 2
    sum += w.share * (s + crest * (2 * up * up - 1 - s))
  }
  return sum > 1 ? 1 : sum < -1 ? -1 : sum
}

/** How steep waves of 1 px are together: their slopes added up. */
export const steepness = (waves: readonly Wave[]): number =>
  waves.reduce((sum, w) => sum + w.share * 2 * Math.PI * Math.sqrt(w.x * w.x + w.z * w.z), 0)

/** Where foam begins on a crest and how quickly it grows; how steep waves must be for it. The shader reads them too. */
export const FOAM = { from: 0.85, down: 0.9, high: 4, steep: 0.08, rough: 6 } as const

/**
 * How much foam lies at a place, 0 to 1: on the upper part of crests, the more `foam` (0 to 1) the further down, and none
 * where all waves together are less steep than about 1 in 12.
 *
 * @param height of the water there, within ±1; @param steep slopes of all waves together
 */
export function foamAt(height: number, foam: number, steep: number): number {
  const high = (height - FOAM.from + FOAM.down * foam) * FOAM.high
  const rough = (steep - FOAM.steep) * FOAM.rough
  return foam > 0 ? Math.min(1, Math.max(0, high)) * Math.min(1, Math.max(0, rough)) : 0
}
