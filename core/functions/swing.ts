/** What oscillators and noise share: amp and offset, or low and high, round a wave between −1 and 1. */
import { interval, minus, plus, point, times, union, type Interval } from '../facts/interval.ts'
import { together, type Repeats } from '../facts/repeats.ts'
import { columnwise, moving, type Column } from '../columns/column.ts'
import type { LaneCall } from '../columns/kernel.ts'
import { constantOf } from '../form/compiled-expression.ts'
import type { Moment } from '../time/moment.ts'
import { toNumber, type Rational } from '../time/rational.ts'
import { ANGLE, FREQUENCY, TIME } from '../units/kinds.ts'
import { boundsOf, repeatsOfArgs, slopeOf, withoutArguments, type Call, type CallWith } from './prepared-call.ts'
import { parameter } from './parameter.ts'

export const FREQ = parameter({
  name: 'freq',
  description: 'how many times per second',
  kind: FREQUENCY,
  required: true,
})
export const EVERY = parameter({
  name: 'every',
  description: 'the length of one cycle',
  kind: TIME,
  required: true,
  positive: true,
})
export const AMP = parameter({
  name: 'amp',
  description: 'the distance to either side',
  kind: 'result',
  initial: 1,
  valuePlace: true,
})
export const OFFSET = parameter({
  name: 'offset',
  description: 'the middle it swings around',
  kind: 'result',
  initial: 0,
  valuePlace: true,
})
export const PHASE = parameter({
  name: 'phase',
  description: 'how far into the cycle it starts',
  kind: ANGLE,
  initial: 0,
})
export const LOW = parameter({
  name: 'low',
  description: 'the lowest value',
  kind: 'result',
  required: true,
  valuePlace: true,
})
export const HIGH = parameter({
  name: 'high',
  description: 'the highest value',
  kind: 'result',
  required: true,
  valuePlace: true,
})
export const SWING = [
  ['amp', 'offset'],
  ['low', 'high'],
] as const

/** What only sets pace, and is in the phase. */
export const PACE_NAMES = ['freq', 'every', 'phase', 'rate', 'seed'] as const
export const valueArguments = (call: Call): Call => withoutArguments(call, ...PACE_NAMES)

/** A call that swings: about `offset`, or between `low` and `high` where those were written. */
export type SwingCall = CallWith<'amp' | 'offset', 'low' | 'high'>

/** The value of a swing, from its wave between −1 and 1. */
export function swing(call: SwingCall, wave: (m: Moment) => number): (m: Moment) => number {
  const { amp, offset, low, high } = call.args
  if (!low || !high) return m => offset.at(m) + amp.at(m) * wave(m)
  return m => between(low.at(m), high.at(m), wave(m))
}

/** Between two ends: rounding must not carry it over those that were promised. */
const between = (l: number, h: number, wave: number): number => {
  const y = (l + h) / 2 + ((h - l) / 2) * wave
  return l <= h ? (y < l ? l : y > h ? h : y) : y < h ? h : y > l ? l : y
}

interface SwingColumns {
  readonly amp: Column
  readonly offset: Column
  readonly low?: Column
  readonly high?: Column
}

/** The same on many lanes. */
export function swingLanes(
  { args, lanes }: Pick<LaneCall<Call>, 'lanes'> & { args: SwingColumns },
  wave: Column,
): Column {
  const { amp, offset, low, high } = args
  const byEnd = low !== undefined && high !== undefined
  const [a, b] = byEnd ? [low, high] : [offset, amp]
  const same = (c: Column): Rational | null => (c.type === 'one' ? constantOf(c.form) : null)
  const [x, y] = [same(a), same(b)]
  if (x && y) return sameSwing(wave, byEnd, toNumber(x), toNumber(y))
  return columnwise([a, b, wave], lanes, ([p, q, w], count, out) => {
    if (byEnd) for (let i = 0; i < count; i++) out[i] = between(p[i]!, q[i]!, w[i]!)
    else for (let i = 0; i < count; i++) out[i] = p[i]! + q[i]! * w[i]!
  })
}

/** The same where it swings alike on all lanes. */
function sameSwing(wave: Column, byEnd: boolean, a: number, b: number): Column {
  return moving((now, from, count, out) => {
    wave.fill(now, from, count, out)
    if (byEnd) for (let i = 0; i < count; i++) out[i] = between(a, b, out[i]!)
    else for (let i = 0; i < count; i++) out[i] = a + b * out[i]!
  })
}

/** Bounds of a swing whose wave lies within `wave`. */
export function swingBounds(call: SwingCall, wave: Interval = interval(-1, 1)): Interval {
  const { args } = call
  if (!args.low || !args.high) return plus(boundsOf(call, 'offset'), times(boundsOf(call, 'amp'), wave))
  const [low, high] = [args.low.facts().bounds, args.high.facts().bounds]
  const ends = union(low, high)
  if (wave.low <= -1 && wave.high >= 1) return ends
  const inner = plus(times(plus(low, high), point(0.5)), times(times(minus(high, low), point(0.5)), wave))
  return interval(Math.max(ends.low, inner.low), Math.min(ends.high, inner.high))
}

/** Speed of a swing whose wave climbs by at most `steepest` a turn, either way. */
export function swingSlope(call: SwingCall, steepest: number): Interval {
  const wave = times(call.phase.slope(), interval(-steepest, steepest))
  const one = interval(-1, 1)
  const { args } = call
  if (!args.low || !args.high) {
    const moved = plus(slopeOf(call, 'offset'), times(slopeOf(call, 'amp'), one))
    return plus(moved, times(boundsOf(call, 'amp'), wave))
  }
  const half = (i: Interval) => times(i, point(0.5))
  const [low, high] = [args.low.facts(), args.high.facts()]
  const moved = plus(half(plus(low.slope, high.slope)), times(half(minus(high.slope, low.slope)), one))
  return plus(moved, times(half(minus(high.bounds, low.bounds)), wave))
}

export const swingRepeats = (call: Call): Repeats =>
  together([call.phase.repeats(), repeatsOfArgs(valueArguments(call))])

/** The middle and the reach of a swing when both are constant. */
export function steadySwing(call: SwingCall): { middle: number; reach: number } | null {
  const { amp, offset, low, high } = call.args
  const byEnd = low !== undefined && high !== undefined
  const [c, d] = byEnd ? [constantOf(low), constantOf(high)] : [constantOf(offset), constantOf(amp)]
  if (!c || !d) return null
  const [a, b] = [toNumber(c), toNumber(d)]
  return byEnd ? { middle: (a + b) / 2, reach: (b - a) / 2 } : { middle: a, reach: b }
}

/**
 * The integral of a steady swing from second 0. `whole` and `upTo` give the integral of its wave over whole
 * cycles and into one, in cycles; it is the phase that is integrated, so pace and phase must be steady.
 */
export function swingIntegral(
  call: SwingCall,
  waveUpTo: (whole: number, part: number) => number,
): ((m: Moment) => number) | null {
  const turns = call.phase.affine
  const constant = steadySwing(call)
  if (!turns || !constant || turns.rate.n === 0n) return null
  const pace = toNumber(turns.rate)
  const from = toNumber(turns.base)
  const begun = waveUpTo(Math.floor(from), from - Math.floor(from))
  return m => {
    const { whole, part } = call.phase.splitAt(m)
    return constant.middle * m.seconds + (constant.reach * (waveUpTo(whole, part) - begun)) / pace
  }
}
