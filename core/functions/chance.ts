/** Chance: noise and random, hashed, without a period, each property and copy with its own. */
import { integralWithin, type Integral } from '../form/integral.ts'
import type { Work } from '../form/work-queue.ts'
import { hashUnit } from '../signal/hash.ts'
import { fieldNoise, type Cell } from '../signal/field.ts'
import { noiseReach, noiseSteepness, noiseUpTo, octaveNoise, octavesReady, type Octave } from '../signal/noise.ts'
import { ALL, interval, minus, plus, point, times, union, type Interval } from '../facts/interval.ts'
import { SMOOTH, UNKNOWN, joined, passing } from '../facts/bends.ts'
import { NEVER, everySeconds, together } from '../facts/repeats.ts'
import { bends, bySecond, constantOf } from '../form/compiled-expression.ts'
import { signsOf } from '../columns/fractions.ts'
import { moving, pointwise, scratch, type Column } from '../columns/column.ts'
import {
  floor,
  fromFinite,
  minus as minusExact,
  plus as plusExact,
  rational,
  times as by,
  toNumber,
} from '../time/rational.ts'
import type { Moment } from '../time/moment.ts'
import { ANGLE, FREQUENCY, PLAIN } from '../units/kinds.ts'
import {
  bendsOfArgs,
  boundsOf,
  costOfArgs,
  folding,
  leapsOfArgs,
  repeatsOfArgs,
  slopeOf,
  type Call,
  type CallWith,
} from './prepared-call.ts'
import { entry } from './entry.ts'
import { parameter } from './parameter.ts'
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
  swingLanes,
  swingSlope,
  valueArguments,
} from './swing.ts'

const SEED = parameter({
  name: 'seed',
  description: 'give the same number to get the same random values',
  kind: PLAIN,
  steady: true,
})

const whole = (call: Call, name: string, fallback: number, low: number, high: number): number => {
  const c = call.args[name] && constantOf(call.args[name])
  return c ? Math.min(high, Math.max(low, Math.round(toNumber(c)))) : fallback
}

/** Most octaves a noise may have. */
export const MOST_OCTAVES = 8

type Layered = CallWith<'octaves' | 'roughness', 'at'>
type Noise = CallWith<'octaves' | 'roughness' | 'amp' | 'offset', 'at' | 'low' | 'high'>

/** How many octaves a noise has, and how strong each finer one is. */
function layersOf(call: Layered): { readonly count: number; readonly share: number } {
  const rough = constantOf(call.args.roughness)
  const share = rough ? Math.min(1, Math.max(0, toNumber(rough))) : 0.5
  return { count: whole(call, 'octaves', 1, 1, MOST_OCTAVES), share }
}

function octavesIn(call: Layered, seed: number): readonly Octave[] {
  const { count, share } = layersOf(call)
  return octavesReady(seed, count, share, overSpace(call) ? 0 : call.phase.wrap)
}

/** How far it may reach: with a seed of each copy's own, as far as any may. */
const reachIn = (call: Layered): Interval =>
  overSpace(call) || call.seed === null ? interval(-1, 1) : noiseReach(octavesIn(call, call.seed), call.phase.wrap)

/** How fast it may change: octaves that wrap after a few cells are raised as their seed asks for, others never. */
function slopeIn(call: Noise): Interval {
  if (overSpace(call) || (call.seed === null && call.phase.wrap > 0)) return ALL
  return swingSlope(call, noiseSteepness(octavesIn(call, call.seed ?? 0)))
}

/** Whether it is a landscape, read at a place. */
const overSpace = (call: Call): boolean => call.args.at !== undefined

/** Parts of a cell of the first octave at which cells of this one begin. */
const lattice = (o: Octave): number[] => Array.from({ length: o.finer }, (_, k) => (k + 1 - o.shift) / o.finer)

/** The directions of a landscape: its places in cells, and time where it also moves. */
function directions(call: Call): ((m: Moment) => Cell)[] {
  const { at, across, cell } = call.args
  const places = [at!, ...(across ? [across] : [])].map(place => (m: Moment): Cell => {
    const x = cell ? place.at(m) / cell.at(m) : place.at(m)
    return { whole: Math.floor(x), part: x - Math.floor(x), wrap: 0 }
  })
  if (!call.given.has('freq')) return places
  const { wrap } = call.phase
  return [...places, (m: Moment): Cell => ({ ...call.phase.splitAt(m), wrap })]
}

export const noise = entry(
  {
    name: 'noise',
    group: 'source',
    description:
      'Drifts smoothly and randomly, never further than amp from its offset, and never repeats. Each property and each copy drifts differently unless they share a seed. With at: (and across:) it is a landscape over space, shared by all copies; add freq: and it also changes over time.',
    example: { part: 'Dynamo needle', property: 'rotation', text: 'noise(freq: 2Hz, amp: 6deg)' },
    parameters: [
      FREQ,
      AMP,
      OFFSET,
      PHASE,
      {
        name: 'octaves',
        description: 'how many finer layers of detail are added',
        kind: PLAIN,
        initial: 1,
        steady: true,
        positive: true,
      },
      { name: 'roughness', description: 'how strong each finer layer is', kind: PLAIN, initial: 0.5, steady: true },
      SEED,
      LOW,
      HIGH,
      { name: 'at', description: 'the place to read it at, in cells or as a length', kind: 'other', required: true },
      { name: 'across', description: 'the place in the second direction', kind: 'other' },
      { name: 'cell', description: 'the size of one cell, where places are lengths', kind: 'other' },
    ],
    alternatives: [[['freq'], ['at']], SWING],
    together: [['freq', 'at']],
    result: 'result',
    pace: { freq: 'freq', phase: 'phase' },
    seeded: true,
  },
  {
    at: call => {
      const octaves = octavesIn(call, call.seed!)
      if (overSpace(call)) {
        const ways = directions(call)
        return swing(call, m =>
          fieldNoise(
            octaves,
            ways.map(w => w(m)),
          ),
        )
      }
      const { wrap } = call.phase
      return swing(call, m => {
        const s = call.phase.splitAt(m)
        return octaveNoise(octaves, s.whole, s.part, wrap)
      })
    },
    integral: call => {
      if (overSpace(call) || call.phase.wrap > 0) return null
      const octaves = octavesIn(call, call.seed!)
      return swingIntegral(call, (cells, part) => noiseUpTo(octaves, cells, part))
    },
    kernel: call => {
      const { phase, first, seeds, lanes } = call
      if (!phase || overSpace(first) || !isSame(call.args.octaves) || !isSame(call.args.roughness)) return null
      const { count, share } = layersOf(first)
      const { wrap } = phase
      const octaves = seeds.map(seed => octavesReady(seed, count, share, wrap))
      const [whole] = scratch(1, lanes)
      const wave = moving((now, from, n, out) => {
        phase.split(now, from, n, out, whole)
        for (let i = 0; i < n; i++) out[i] = octaveNoise(octaves[from + i]!, whole[i]!, out[i]!, wrap)
      })
      return swingLanes(call, wave)
    },
  },
  {
    bounds: call => swingBounds(call, reachIn(call)),
    slope: slopeIn,
    cost: call => costOfArgs(call, layersOf(call).count * (overSpace(call) ? 8 : 1)),
    repeats: call => {
      if (overSpace(call) && !call.given.has('freq')) return repeatsOfArgs(valueArguments(call))
      if (call.phase.still) return repeatsOfArgs(valueArguments(call))
      if (!call.phase.wrap) return NEVER
      const cell = call.phase.repeats().every
      if (!cell) return NEVER
      return together([everySeconds(by(cell, rational(call.phase.wrap))), repeatsOfArgs(valueArguments(call))])
    },
    leaps: call => joined(leapsOfArgs(valueArguments(call)), call.given.has('freq') ? call.phase.leaps() : SMOOTH),
    bends: call => {
      if (call.seed === null) return UNKNOWN
      const own = bendsOfArgs(valueArguments(call))
      const cells = octavesIn(call, call.seed).flatMap(o => lattice(o))
      const inTime = [call.phase.passing(...cells), ...(call.phase.affine ? [] : [call.phase.bends()])]
      const { at, across, cell } = call.args
      if (!at) return joined(own, ...inTime)
      const where = (v: number) => cells.reduce((n, c) => n + Math.floor(v - c), 0)
      const passed = [at, ...(across ? [across] : [])].map(place => {
        const read = bySecond({ at: m => place.at(m) / (cell?.at(m) ?? 1) }, call.frameRate)
        return passing(read, joined(bends(place), cell ? bends(cell) : own), where)
      })
      return joined(own, ...passed, ...(call.given.has('freq') ? inTime : []))
    },
  },
)

const isSame = (c: Column | undefined): boolean => c === undefined || c.type === 'one'

/** The share that a step draws; steps wrap after a lap's. */
const unitIn = (step: number, wrap: number, seed: number): number =>
  hashUnit(wrap > 0 ? step - Math.floor(step / wrap) * wrap : step, seed)

/** A share of the way between two ends, never beyond them. */
function drawn(l: number, h: number, unit: number): number {
  const y = l + (h - l) * unit
  return l <= h ? (y > h ? h : y < l ? l : y) : y < h ? h : y > l ? l : y
}

export const random = entry(
  {
    name: 'random',
    group: 'source',
    description:
      'A random value between low and high: always the same one without a rate, or a new one several times a second, held in between.',
    example: { part: 'Dynamo needle', property: 'rotation', text: 'random(low: -30deg, high: 30deg, rate: 10Hz)' },
    parameters: [
      { name: 'low', description: 'the lowest value', kind: 'result', initial: 0, valuePlace: true },
      { name: 'high', description: 'the highest value', kind: 'result', initial: 1, valuePlace: true },
      { name: 'rate', description: 'how many new values per second', kind: FREQUENCY },
      SEED,
      { name: 'phase', description: 'how far ahead it starts; one turn is one step', kind: ANGLE, initial: 0 },
    ],
    result: 'result',
    pace: { freq: 'rate', phase: 'phase' },
    seeded: true,
  },
  {
    at: call => {
      const { low, high } = call.args
      const { wrap } = call.phase
      return m => {
        const { whole } = call.phase.splitAt(m)
        return drawn(low.at(m), high.at(m), unitIn(whole, wrap, call.seed!))
      }
    },
    kernel: call => {
      const { phase, seeds, lanes } = call
      const { low, high, rate } = call.args
      // Without a rate it is a constant, exact as such.
      const steps = rate && call.constant('rate')
      if (!phase || !steps || signsOf(steps).includes(0)) return null
      const { wrap } = phase
      const [parts] = scratch(1, lanes)
      const unit = moving((now, from, n, out) => {
        phase.split(now, from, n, parts, out)
        for (let i = 0; i < n; i++) out[i] = unitIn(out[i]!, wrap, seeds[from + i]!)
      })
      return pointwise([low, high, unit], lanes, drawn)
    },
    // Without a rate it is one value for ever: a constant wherever a constant may stand.
    fold: call => {
      const { affine, still } = call.phase
      if (!still || !affine || call.seed === null) return null
      const unit = fromFinite(hashUnit(Number(floor(affine.base)), call.seed))
      return folding(call, ['low', 'high'], (l, h) => plusExact(l, by(minusExact(h, l), unit)))
    },
    integral: call => steppedIntegral(call),
  },
  {
    bounds: call => {
      const [low, high] = [boundsOf(call, 'low'), boundsOf(call, 'high')]
      const units = unitsOf(call)
      const inner = units && plus(low, times(minus(high, low), units))
      const ends = union(low, high)
      return inner ? interval(Math.max(ends.low, inner.low), Math.min(ends.high, inner.high)) : ends
    },
    repeats: call => {
      if (call.phase.still) return repeatsOfArgs(valueArguments(call))
      const step = call.phase.repeats().every
      if (!call.phase.wrap || !step) return NEVER
      return together([everySeconds(by(step, rational(call.phase.wrap))), repeatsOfArgs(valueArguments(call))])
    },
    slope: call => union(slopeOf(call, 'low'), slopeOf(call, 'high')),
    bends: call => joined(bendsOfArgs(valueArguments(call)), call.phase.passing(0)),
  },
)

/** Cells of a random that are looked at one by one, at most. */
const MOST_CELLS = 4096

/** The lowest and highest share a random draws, when it stands still or its cells wrap; null for never. */
function unitsOf(call: Call): Interval | null {
  const { affine, still, wrap } = call.phase
  const { seed } = call
  if (seed === null) return null
  if (still && affine) return point(hashUnit(Number(floor(affine.base)), seed))
  if (wrap === 0 || wrap > MOST_CELLS) return null
  return Array.from({ length: wrap }, (_, cell) => point(hashUnit(cell, seed))).reduce(union)
}

/**
 * The integral of a stepped random between constant ends: whole steps are added up once and kept, many of them bit by
 * bit while whoever reads waits.
 */
function steppedIntegral(call: CallWith<'low' | 'high'>): Integral | null {
  const [low, high] = [constantOf(call.args.low), constantOf(call.args.high)]
  const turns = call.phase.affine
  if (!low || !high || !turns || turns.rate.n <= 0n || call.phase.wrap > 0) return null
  const [l, h, pace] = [toNumber(low), toNumber(high), toNumber(turns.rate)]
  const unit = (cell: number) => hashUnit(cell, call.seed!)
  /** Sums of whole steps from cell 0 up, and down. */
  const [up, down] = [[0], [0]]
  const extend = (list: number[], to: number) => {
    while (list.length <= to) {
      const k = list.length - 1
      list.push(list[k]! + (list === up ? unit(k) : -unit(-k - 1)))
    }
  }
  /** How far the lists are asked for; one piece of work, however often it is asked. */
  const wanted = new Map<number[], number>()
  const work: Work = {
    go: () => {
      for (const [list, n] of wanted) {
        extend(list, Math.min(n, list.length + STEPS_AT_ONCE))
        if (list.length > n) wanted.delete(list)
      }
      return wanted.size === 0
    },
  }
  const from = toNumber(turns.base)
  // It begins somewhere in its steps, and the last may have begun.
  const most = MOST_STEPS + Math.ceil(Math.abs(from)) + 1
  const sum = (cells: number): number => {
    const list = cells >= 0 ? up : down
    const n = Math.abs(cells)
    if (n > most) return NaN
    if (n > list.length + STEPS_AT_ONCE) {
      wanted.set(list, Math.max(n, wanted.get(list) ?? 0))
      call.queue.enqueue(work)
      return NaN
    }
    extend(list, n)
    return list[n]!
  }
  const upTo = (whole: number, part: number) => sum(whole) + unit(whole) * part
  const begun = upTo(Math.floor(from), from - Math.floor(from))
  return integralWithin(m => {
    const { whole: w, part } = call.phase.splitAt(m)
    return l * m.seconds + ((h - l) * (upTo(w, part) - begun)) / pace
  }, MOST_STEPS / pace)
}

/** Steps that a random rate is added up over at most; beyond them it stays. */
const MOST_STEPS = 8_000_000
const STEPS_AT_ONCE = 100_000
