/** Chance: noise and random, hashed, without a period, each property and copy with its own. */
import { hashUnit } from '../signal/hash.ts'
import { noiseReach, noiseSteepness, noiseUpTo, octaveNoise, octavesOf, type Octave } from '../signal/noise.ts'
import { ALL, interval, minus, plus, point, times, union, type Interval } from '../facts/interval.ts'
import { joined } from '../facts/edges.ts'
import { NEVER, everySeconds, together } from '../facts/repeats.ts'
import { constantOf } from '../form/form.ts'
import { floor, rational, times as by, toNumber } from '../time/rational.ts'
import type { Moment } from '../time/moment.ts'
import { ANGLE, FREQUENCY, PLAIN } from '../units/kinds.ts'
import { boundsOf, costOfArgs, edgesOfArgs, repeatsOfArgs, type Call, type Entry, type Parameter } from './entry.ts'
import {
  AMP,
  FREQ,
  HIGH,
  LOW,
  OFFSET,
  PHASE,
  SWING,
  swing,
  swingBounds,
  swingIntegral,
  swingSlope,
  valuesOf,
} from './swing.ts'

const SEED: Parameter = { name: 'seed', says: 'a number that is shared to share the chance', kind: PLAIN, steady: true }

const whole = (call: Call, name: string, fallback: number, low: number, high: number): number => {
  const c = call.args[name] && constantOf(call.args[name])
  return c ? Math.min(high, Math.max(low, Math.round(toNumber(c)))) : fallback
}

/** Most octaves a noise may have. */
export const MOST_OCTAVES = 8

function octavesIn(call: Call): Octave[] {
  const rough = constantOf(call.args.roughness!)
  const share = rough ? Math.min(1, Math.max(0, toNumber(rough))) : 0.5
  return octavesOf(call.seed, whole(call, 'octaves', 1, 1, MOST_OCTAVES), share)
}

export const noise: Entry = {
  name: 'noise',
  group: 'source',
  says: 'Wanders smoothly by chance, never further than amp from its offset, and never repeats. Each property and each copy wanders its own way unless a seed is shared. With at: it is a landscape over space and stands still in time.',
  example: { part: 'Dynamo needle', property: 'rotation', text: 'noise(freq: 2Hz, amp: 6deg)' },
  takes: [
    FREQ,
    AMP,
    OFFSET,
    PHASE,
    { name: 'octaves', says: 'how many finer layers are added', kind: PLAIN, initial: 1, steady: true, positive: true },
    { name: 'roughness', says: 'how strong each finer layer is', kind: PLAIN, initial: 0.5, steady: true },
    SEED,
    LOW,
    HIGH,
    { name: 'at', says: 'a place to read it at, one cell to 1 or to 1px', kind: 'other', required: true },
  ],
  either: [[['freq', 'phase'], ['at']], SWING],
  result: 'result',
  pace: { freq: 'freq', phase: 'phase' },
  seeded: true,
  value: call => {
    const octaves = octavesIn(call)
    const place = call.args.at
    if (place) {
      return swing(call, m => {
        const x = place.at(m)
        const cell = Math.floor(x)
        return octaveNoise(octaves, cell, x - cell, 0)
      })
    }
    const { wrap } = call.phase
    return swing(call, m => {
      const s = call.phase.splitAt(m)
      return octaveNoise(octaves, s.whole, s.part, wrap)
    })
  },
  bounds: call => swingBounds(call, noiseReach(octavesIn(call), call.args.at ? 0 : call.phase.wrap)),
  slope: call => (call.args.at ? ALL : swingSlope(call, noiseSteepness(octavesIn(call)))),
  cost: call => costOfArgs(call, octavesIn(call).length),
  repeats: call => {
    if (call.args.at || call.phase.still) return repeatsOfArgs(valuesOf(call))
    if (!call.phase.wrap) return NEVER
    const cell = call.phase.repeats().every
    if (!cell) return NEVER
    return together([everySeconds(by(cell, rational(call.phase.wrap))), repeatsOfArgs(valuesOf(call))])
  },
  edges: call => edgesOfArgs(valuesOf(call)),
  integral: call => {
    if (call.args.at || call.phase.wrap > 0) return null
    const octaves = octavesIn(call)
    return swingIntegral(call, (cells, part) => noiseUpTo(octaves, cells, part))
  },
}

export const random: Entry = {
  name: 'random',
  group: 'source',
  says: 'A value by chance between low and high: one for ever without a rate, or a new one so many times a second, held between.',
  example: { part: 'Dynamo needle', property: 'rotation', text: 'random(low: -30deg, high: 30deg, rate: 10Hz)' },
  takes: [
    { name: 'low', says: 'the lowest value', kind: 'result', initial: 0, valuePlace: true },
    { name: 'high', says: 'the highest value', kind: 'result', initial: 1, valuePlace: true },
    { name: 'rate', says: 'how many new values a second', kind: FREQUENCY },
    SEED,
    { name: 'phase', says: 'how far ahead it is, a turn to a step', kind: ANGLE, initial: 0 },
  ],
  result: 'result',
  pace: { freq: 'rate', phase: 'phase' },
  seeded: true,
  value: call => {
    const { low, high } = call.args
    const { wrap } = call.phase
    return m => {
      const { whole } = call.phase.splitAt(m)
      const cell = wrap > 0 ? whole - Math.floor(whole / wrap) * wrap : whole
      const l = low!.at(m)
      const h = high!.at(m)
      const y = l + (h - l) * hashUnit(cell, call.seed)
      return l <= h ? (y > h ? h : y < l ? l : y) : y < h ? h : y > l ? l : y
    }
  },
  bounds: call => {
    const [low, high] = [boundsOf(call, 'low'), boundsOf(call, 'high')]
    const units = unitsOf(call)
    const inner = units && plus(low, times(minus(high, low), units))
    const ends = union(low, high)
    return inner ? interval(Math.max(ends.low, inner.low), Math.min(ends.high, inner.high)) : ends
  },
  repeats: call => {
    if (call.phase.still) return repeatsOfArgs(valuesOf(call))
    const step = call.phase.repeats().every
    if (!call.phase.wrap || !step) return NEVER
    return together([everySeconds(by(step, rational(call.phase.wrap))), repeatsOfArgs(valuesOf(call))])
  },
  edges: call => joined(edgesOfArgs(valuesOf(call)), call.phase.wholes()),
  integral: call => steppedIntegral(call),
}

/** Cells of a random that are looked at one by one, at most. */
const MOST_CELLS = 4096

/** The lowest and highest share a random draws, when it stands still or its cells wrap; null for never. */
function unitsOf(call: Call): Interval | null {
  const { affine, still, wrap } = call.phase
  if (still && affine) return point(hashUnit(Number(floor(affine.base)), call.seed))
  if (wrap === 0 || wrap > MOST_CELLS) return null
  return Array.from({ length: wrap }, (_, cell) => point(hashUnit(cell, call.seed))).reduce(union)
}

/** The integral of a stepped random between constant ends: whole steps are added up once and kept. */
function steppedIntegral(call: Call): ((m: Moment) => number) | null {
  const [low, high] = [constantOf(call.args.low!), constantOf(call.args.high!)]
  const turns = call.phase.affine
  if (!low || !high || !turns || turns.rate.n <= 0n || call.phase.wrap > 0) return null
  const [l, h, pace] = [toNumber(low), toNumber(high), toNumber(turns.rate)]
  const unit = (cell: number) => hashUnit(cell, call.seed)
  /** Sums of whole steps from cell 0 up, and down. */
  const up = [0]
  const down = [0]
  const sum = (cells: number): number => {
    const [list, step] = cells >= 0 ? [up, 0] : [down, -1]
    const n = Math.abs(cells)
    while (list.length <= n) {
      const k = list.length - 1
      list.push(list[k]! + (step === 0 ? unit(k) : -unit(-k - 1)))
    }
    return list[n]!
  }
  const upTo = (whole: number, part: number) => (Math.abs(whole) > MOST_STEPS ? NaN : sum(whole) + unit(whole) * part)
  const from = toNumber(turns.base)
  const begun = upTo(Math.floor(from), from - Math.floor(from))
  return m => {
    const { whole: w, part } = call.phase.splitAt(m)
    return l * m.seconds + ((h - l) * (upTo(w, part) - begun)) / pace
  }
}

/** Steps that a random rate is added up over at most; beyond them the property rests at its hand value. */
const MOST_STEPS = 20_000_000
