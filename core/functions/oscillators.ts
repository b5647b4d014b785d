/** Oscillators: sine, triangle, square and saw. */
import { sineOfPart } from '../signal/sine.ts'
import { joined, type Edges } from '../facts/edges.ts'
import { constantOf } from '../form/form.ts'
import { add, constant, type Affine } from '../time/affine.ts'
import { atWhole } from '../facts/edges.ts'
import { negate, toNumber } from '../time/rational.ts'
import { PLAIN } from '../units/kinds.ts'
import { edgesOfArgs, type Call, type Entry, type Parameter } from './entry.ts'
import {
  AMP,
  EVERY,
  FREQ,
  HIGH,
  LOW,
  OFFSET,
  PHASE,
  SWING,
  swing,
  swingBounds,
  swingIntegral,
  swingRepeats,
  swingSlope,
  valuesOf,
} from './swing.ts'

interface Wave {
  readonly name: string
  readonly says: string
  readonly example: Entry['example']
  /** −1 … 1 at a part of a cycle. */
  readonly wave: (part: number) => number
  /** Its integral up to a part of a cycle, in cycles; over a whole one it is 0. */
  readonly upTo: (part: number) => number
  readonly leaps: boolean
  /** How much it climbs a turn at most, either way. */
  readonly steepest: number
}

const own = (call: Call): Edges => edgesOfArgs(valuesOf(call))

function oscillator({ name, says, example, wave, upTo, leaps, steepest }: Wave): Entry {
  return {
    name,
    group: 'source',
    says,
    example,
    takes: [FREQ, AMP, OFFSET, PHASE, EVERY, LOW, HIGH],
    either: [[['freq'], ['every']], SWING],
    result: 'result',
    pace: { freq: 'freq', every: 'every', phase: 'phase' },
    value: call => swing(call, m => wave(call.phase.splitAt(m).part)),
    bounds: call => swingBounds(call),
    repeats: swingRepeats,
    slope: call => swingSlope(call, steepest),
    edges: call => (leaps ? joined(own(call), call.phase.wholes()) : own(call)),
    integral: call => swingIntegral(call, (_whole, part) => upTo(part)),
  }
}

const TURN = 2 * Math.PI

export const sine = oscillator({
  name: 'sine',
  says: 'Swings smoothly to both sides of an offset, again and again.',
  example: { part: 'Mount', property: 'y', text: 'sine(every: 2s, amp: 24px)' },
  wave: sineOfPart,
  upTo: part => (1 - sineOfPart(part < 0.75 ? part + 0.25 : part - 0.75)) / TURN,
  leaps: false,
  steepest: TURN * (1 + 1e-12),
})

export const triangle = oscillator({
  name: 'triangle',
  says: 'Goes up and down at one speed, with a sharp turn at either end; like a sine it begins at its middle, going up.',
  example: { part: 'Swing', property: 'rotation', text: 'triangle(every: 3s, amp: 40deg)' },
  wave: p => (p < 0.25 ? 4 * p : p < 0.75 ? 2 - 4 * p : 4 * p - 4),
  upTo: p => (p < 0.25 ? 2 * p * p : p < 0.75 ? 2 * p - 2 * p * p - 0.25 : 2 * p * p - 4 * p + 2),
  leaps: false,
  steepest: 4,
})

export const saw = oscillator({
  name: 'saw',
  says: 'Climbs at one speed from low to high and falls back at once, again and again.',
  example: { part: 'Carousel', property: 'rotation', text: 'saw(every: 2s, low: 0deg, high: 60deg)' },
  wave: p => 2 * p - 1,
  upTo: p => p * p - p,
  leaps: true,
  steepest: 2,
})

const DUTY: Parameter = { name: 'duty', says: 'what share of the time it is high', kind: PLAIN, initial: 0.5 }

/** Where a square falls: where phase − duty passes whole numbers. */
function falls(call: Call): Edges {
  const { affine } = call.phase
  const duty = constantOf(call.args.duty!)
  const moved: Affine | null = affine && duty && add(affine, constant(negate(duty)))
  return moved ? atWhole(moved) : ['anywhere']
}

export const square: Entry = {
  name: 'square',
  group: 'source',
  says: 'Leaps between high and low; duty is the share of the time it is high.',
  example: { part: 'Lantern', property: 'opacity', text: 'square(every: 1s, duty: 0.3, low: 20%, high: 100%)' },
  takes: [FREQ, AMP, OFFSET, PHASE, DUTY, EVERY, LOW, HIGH],
  either: [[['freq'], ['every']], SWING],
  result: 'result',
  pace: { freq: 'freq', every: 'every', phase: 'phase' },
  value: call => {
    const { duty } = call.args
    return swing(call, m => (call.phase.splitAt(m).part < duty!.at(m) ? 1 : -1))
  },
  bounds: call => swingBounds(call),
  repeats: swingRepeats,
  slope: call => swingSlope(call, 0),
  edges: call => joined(own(call), call.phase.wholes(), falls(call)),
  integral: call => {
    const share = constantOf(call.args.duty!)
    if (!share) return null
    const d = Math.min(1, Math.max(0, toNumber(share)))
    return swingIntegral(call, (whole, p) => whole * (2 * d - 1) + (p < d ? p : 2 * d - p))
  },
}
