/** Oscillators: sine, triangle, square and saw. */
import { sineOfPart } from '../signal/sine.ts'
import { SMOOTH, joined, passing, type Bends } from '../facts/bends.ts'
import { bySecond, constantOf, hardlyApart, isNear, type Exactly } from '../form/compiled-expression.ts'
import { pointwise } from '../columns/column.ts'
import { waveOf } from '../columns/phase-columns.ts'
import {
  compare,
  fraction,
  minus,
  negate,
  plus,
  rational,
  times,
  toNumber,
  ONE,
  type Rational,
} from '../time/rational.ts'
import { PLAIN } from '../units/kinds.ts'
import { bendsOfArgs, leapsOfArgs, type Call, type CallWith } from './prepared-call.ts'
import { type Entry, entry } from './entry.ts'
import { parameter } from './parameter.ts'
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
  swingLanes,
  swingSlope,
  valueArguments,
  type SwingCall,
} from './swing.ts'

interface Wave {
  readonly name: string
  readonly description: string
  readonly example: Entry['example']
  /** −1 … 1 at a part of a cycle. */
  readonly wave: (part: number) => number
  /** Its integral up to a part of a cycle, in cycles; over a whole one it is 0. */
  readonly upTo: (part: number) => number
  /** Parts of a cycle at which it leaps or bends; null for what is smooth throughout, and no polynomial. */
  readonly corners: readonly number[] | null
  /** The same from the part as a fraction, where it is one. */
  readonly exactly?: (part: Rational) => Rational
  /** How much it climbs a turn at most, either way. */
  readonly steepest: number
}

/** Bends of a wave with corners at parts of its cycle, and of what it swings between. */
function cornered(call: Call, corners: readonly number[] | null): Bends {
  const own = bendsOfArgs(valueArguments(call))
  if (corners === null) return joined(own, call.phase.bends())
  return joined(own, call.phase.passing(...corners), call.phase.affine ? SMOOTH : call.phase.bends())
}

/** The value as a fraction where the phase and what it swings between are. */
function exactSwing(
  call: SwingCall,
  wave: (m: Parameters<Exactly>[0], part: Rational) => Rational | null,
): Exactly | null {
  const { amp, offset, low, high } = call.args
  const ends = low !== undefined && high !== undefined
  const [a, b] = ends ? [low, high] : [offset, amp]
  const turns = call.phase.exactly
  if (!turns || !a.exactly || !b.exactly) return null
  return m => {
    const [x, y, t] = [a.exactly!(m), b.exactly!(m), turns(m)]
    const w = t && wave(m, fraction(t))
    if (!x || !y || !w) return null
    return ends ? plus(x, times(minus(y, x), times(plus(w, ONE), rational(1, 2)))) : plus(x, times(y, w))
  }
}

function oscillator({ name, description, example, wave, upTo, corners, exactly, steepest }: Wave): Entry {
  return entry(
    {
      name,
      group: 'source',
      description,
      example,
      parameters: [FREQ, AMP, OFFSET, PHASE, EVERY, LOW, HIGH],
      alternatives: [[['freq'], ['every']], SWING],
      result: 'result',
      pace: { freq: 'freq', every: 'every', phase: 'phase' },
    },
    {
      at: call => swing(call, m => wave(call.phase.splitAt(m).part)),
      ...(exactly ? { exactly: (call: SwingCall) => exactSwing(call, (_, part) => exactly(part)) } : {}),
      integral: call => swingIntegral(call, (_whole, part) => upTo(part)),
      kernel: call => call.phase && swingLanes(call, waveOf(call.phase, wave)),
    },
    {
      bounds: call => swingBounds(call),
      repeats: swingRepeats,
      slope: call => swingSlope(call, steepest),
      bends: call => cornered(call, corners),
      leaps: call =>
        joined(
          leapsOfArgs(valueArguments(call)),
          call.phase.leaps(),
          corners?.[0] === 0 ? call.phase.passing(0) : SMOOTH,
        ),
    },
  )
}

const TURN = 2 * Math.PI

export const sine = oscillator({
  name: 'sine',
  description: 'Swings smoothly around an offset, again and again.',
  example: { part: 'Mount', property: 'y', text: 'sine(every: 2s, amp: 24px)' },
  wave: sineOfPart,
  upTo: part => (1 - sineOfPart(part < 0.75 ? part + 0.25 : part - 0.75)) / TURN,
  corners: null,
  steepest: TURN * (1 + 1e-12),
})

export const triangle = oscillator({
  name: 'triangle',
  description: 'Goes up and down at constant speed with sharp turns; like a sine, it starts in the middle, going up.',
  example: { part: 'Swing', property: 'rotation', text: 'triangle(every: 3s, amp: 40deg)' },
  wave: p => (p < 0.25 ? 4 * p : p < 0.75 ? 2 - 4 * p : 4 * p - 4),
  upTo: p => (p < 0.25 ? 2 * p * p : p < 0.75 ? 2 * p - 2 * p * p - 0.25 : 2 * p * p - 4 * p + 2),
  corners: [0.25, 0.75],
  exactly: p => {
    const four = times(p, rational(4))
    if (compare(four, ONE) < 0) return four
    return compare(four, rational(3)) < 0 ? minus(rational(2), four) : minus(four, rational(4))
  },
  steepest: 4,
})

export const saw = oscillator({
  name: 'saw',
  description: 'Climbs at constant speed from low to high and drops back at once, again and again.',
  example: { part: 'Carousel', property: 'rotation', text: 'saw(every: 2s, low: 0deg, high: 60deg)' },
  wave: p => 2 * p - 1,
  upTo: p => p * p - p,
  corners: [0],
  exactly: p => minus(plus(p, p), ONE),
  steepest: 2,
})

const DUTY = parameter({ name: 'duty', description: 'what share of the time it is high', kind: PLAIN, initial: 0.5 })

/** Where a square leaps: at whole phases, and where the part passes its duty. */
function leaps(call: CallWith<'duty'>): Bends {
  const duty = call.args.duty
  const fixed = constantOf(duty)
  const own = bendsOfArgs(valueArguments(call))
  if (fixed) return joined(own, cornered(call, [0, toNumber(fixed)]))
  const share = bySecond(duty, call.frameRate)
  const part = bySecond({ at: m => call.phase.splitAt(m).part }, call.frameRate)
  const inner = joined(call.phase.passing(0), call.phase.bends(), duty.facts().bends)
  return joined(
    own,
    passing(
      t => part(t) - share(t),
      inner,
      v => (v < 0 ? 0 : 1),
    ),
  )
}

/** Whether a square is high at a moment: exactly, where its part and its duty are fractions. */
function isHigh(call: CallWith<'duty'>): (m: Parameters<Exactly>[0]) => boolean {
  const { duty } = call.args
  const { exactly } = call.phase
  return m => {
    const [part, share] = [call.phase.splitAt(m).part, duty.at(m)]
    if (hardlyApart(part, share, m) || part < 1e-9 || part > 1 - 1e-9) {
      const [t, d] = [exactly?.(m), duty.exactly?.(m)]
      if (t && d) return compare(fraction(t), d) < 0
    }
    return part < share
  }
}

export const square = entry(
  {
    name: 'square',
    group: 'source',
    description: 'Jumps between high and low; duty is the share of the time it is high.',
    example: { part: 'Lantern', property: 'opacity', text: 'square(every: 1s, duty: 0.3, low: 20%, high: 100%)' },
    parameters: [FREQ, AMP, OFFSET, PHASE, DUTY, EVERY, LOW, HIGH],
    alternatives: [[['freq'], ['every']], SWING],
    result: 'result',
    pace: { freq: 'freq', every: 'every', phase: 'phase' },
  },
  {
    at: call => {
      const high = isHigh(call)
      return swing(call, m => (high(m) ? 1 : -1))
    },
    exactly: call => {
      const high = isHigh(call)
      return exactSwing(call, m => (high(m) ? ONE : negate(ONE)))
    },
    integral: call => {
      const share = constantOf(call.args.duty)
      if (!share) return null
      const d = Math.min(1, Math.max(0, toNumber(share)))
      return swingIntegral(call, (whole, p) => whole * (2 * d - 1) + (p < d ? p : 2 * d - p))
    },
    kernel: call => {
      if (!call.phase) return null
      const part = waveOf(call.phase, p => p)
      // Too near an edge it is decided exactly.
      const high = pointwise([part, call.args.duty], call.lanes, (p, d, t) =>
        isNear(p, d, t) || p < 1e-9 || p > 1 - 1e-9 ? NaN : p < d ? 1 : -1,
      )
      return swingLanes(call, high)
    },
  },
  { bounds: call => swingBounds(call), repeats: swingRepeats, slope: call => swingSlope(call, 0), bends: leaps },
)
