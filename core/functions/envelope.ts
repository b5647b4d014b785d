/** Envelopes: from nothing to all, and back. */
import { EASING_NAMES } from '../signal/easing.ts'
import { interval } from '../facts/interval.ts'
import { joined, type Bends } from '../facts/bends.ts'
import type { ClockReading } from '../form/active-clock.ts'
import { moving, scratch, type Now } from '../columns/column.ts'
import { toNumbers, uniform } from '../columns/fractions.ts'
import type { LaneCall } from '../columns/kernel.ts'
import { MarkLanes } from '../columns/mark-columns.ts'
import { constantOf, type CompiledExpression } from '../form/compiled-expression.ts'
import type { Moment } from '../time/moment.ts'
import {
  ONE,
  ZERO,
  fromNumber,
  minus as less,
  negate,
  over as divided,
  toNumber,
  type Rational,
} from '../time/rational.ts'
import { PLAIN, TIME } from '../units/kinds.ts'
import { afterMarks, type Call, type CallWith } from './prepared-call.ts'
import { entry } from './entry.ts'

import { EASE } from './ramps.ts'

const WINDOWS = ['lap', 'span', 'stretch', 'cue'] as const

export const envelope = entry(
  {
    name: 'envelope',
    group: 'source',
    description:
      'Rises from 0 to 1, holds, and falls back to 0: from time 0, after each mark of a cue, or fitted to the lap, the part’s span or the marked stretch.',
    example: {
      part: 'Exit arrow',
      property: 'opacity',
      text: 'envelope(attack: 1s, release: 2s, easeIn: cubicOut, over: lap)',
    },
    parameters: [
      { name: 'attack', description: 'how long it takes to rise', kind: TIME, initial: 0, steady: true },
      { name: 'hold', description: 'how long it stays at 1', kind: TIME, initial: 0, steady: true },
      { name: 'release', description: 'how long it takes to fall', kind: TIME, initial: 0, steady: true },
      EASE,
      { name: 'easeIn', description: 'the curve of the rise', kind: PLAIN, words: () => EASING_NAMES, easing: true },
      { name: 'easeOut', description: 'the curve of the fall', kind: PLAIN, words: () => EASING_NAMES, easing: true },
      { name: 'over', description: 'what it fits', kind: PLAIN, words: () => WINDOWS },
      { name: 'cue', description: 'the cue it plays on', kind: 'any', thing: 'cue' },
    ],
    alternatives: [[['hold'], ['over']]],
    result: PLAIN,
  },
  {
    at: call => {
      const shape = envelopeShape(call)
      const rise = call.easing(call.words.easeIn ? 'easeIn' : 'ease').ease
      const fall = call.easing(call.words.easeOut ? 'easeOut' : 'ease').ease
      return m => {
        const { x, end } = shape.where(m)
        return levelAt(x, end, shape.attack, shape.release, rise, fall)
      }
    },
    kernel: call => {
      const [attack, hold, release] = ['attack', 'hold', 'release'].map(name => {
        const seconds = call.constant(name)
        return seconds && toNumbers(seconds)
      })
      const { first, lanes } = call
      const where = attack && hold && release ? whereOn(call) : null
      if (!where) return null
      const rise = first.easing(first.words.easeIn ? 'easeIn' : 'ease').ease
      const fall = first.easing(first.words.easeOut ? 'easeOut' : 'ease').ease
      const [end] = scratch(1, lanes)
      return moving((now, from, count, out) => {
        for (let i = 0; i < count; i++) end[i] = attack![from + i]! + hold![from + i]! + release![from + i]!
        where(now, from, count, out, end)
        for (let i = 0; i < count; i++)
          out[i] = levelAt(out[i]!, end[i]!, attack![from + i]!, release![from + i]!, rise, fall)
      })
    },
  },
  {
    bounds: call => {
      const all = ['ease', 'easeIn', 'easeOut'].map(n => call.easing(n))
      return interval(Math.min(...all.map(e => e.low)), Math.max(...all.map(e => e.high)))
    },
    repeats: call => {
      const shape = envelopeShape(call)
      // Fitted to marks it stays up after the last, until there is another.
      if (call.cue) return afterMarks(call, call.cue, ZERO, fromNumber(fittedToCue(call) ? shape.attack : shape.end))
      if (shape.lap) return shape.lap.cyclic
      return shape.read!.between(ZERO, fromNumber(shape.end))
    },
    bends: call => envelopeBends(call),
  },
)

/** How high an envelope is, so many of its seconds on. */
function levelAt(
  x: number,
  end: number,
  attack: number,
  release: number,
  rise: (share: number) => number,
  fall: (share: number) => number,
): number {
  if (!(x >= 0) || x >= end) return 0
  const left = end - x
  const [rises, falls] = [x < attack, left < release]
  const up = rises ? rise(x / attack) : 1
  const down = falls ? fall(left / release) : 1
  // Cut short, the lower of the two counts; else an easing may go beyond 1 and come back.
  return rises && falls ? Math.min(up, down) : rises ? up : down
}

/** Fills, by lane, the seconds since an envelope set off, and how long it lasts now where that is not the sum of its parts. */
function whereOn(
  call: LaneCall<Call>,
): ((now: Now, from: number, count: number, x: Float64Array, end: Float64Array) => void) | null {
  const { first, lanes } = call
  const on = (rate: Rational, base: Rational) => call.steady(uniform(rate, lanes), uniform(base, lanes))
  if (first.cue) {
    const marks = MarkLanes.of(call, first.cue, uniform(ZERO, lanes))
    const fitted = fittedToCue(first)
    const [nth] = scratch(1, lanes)
    return (
      marks &&
      ((now, from, count, x, end) => {
        marks.latest(now, from, count, nth, x)
        for (let i = 0; i < count; i++) {
          if (nth[i]! < 0) x[i] = -1
          else if (fitted) end[i] = marks.until(nth[i]!) ?? Infinity
        }
      })
    )
  }
  const window = first.words.over?.name as (typeof WINDOWS)[number] | undefined
  if (!window || window === 'cue') {
    const read = on(ONE, ZERO)
    return read && ((now, from, count, x) => read.at(now.moment, from, count, x))
  }
  const [from, to] = first.windows[window]
  const span = less(to, from)
  const length = toNumber(span)
  const read = window === 'lap' ? on(divided(ONE, span), negate(divided(from, span))) : on(ONE, negate(from))
  return (
    read &&
    ((now, begin, count, x, end) => {
      end.fill(length, 0, count)
      if (window !== 'lap') return read.at(now.moment, begin, count, x)
      read.split(now.moment, begin, count, x, null)
      for (let i = 0; i < count; i++) x[i] = x[i]! * length
    })
  )
}

const fittedToCue = (call: Call): boolean => call.words.over?.name === 'cue'

/** Corners of the rise and of the fall, in seconds since it set off. */
function envelopeBends(call: Enveloped): Bends {
  const { attack, release, end, lap, read } = envelopeShape(call)
  const knots = (name: 'easeIn' | 'easeOut') => [0, ...call.easing(call.words[name] ? name : 'ease').knots, 1]
  const rise = knots('easeIn').map(k => k * attack)
  const falls = knots('easeOut').map(k => k * release)
  if (lap) return lap.passing(...[...rise, ...falls.map(f => end - f)].map(t => t / end))
  if (read) return read.reaching(...rise, ...falls.map(f => end - f))
  const { seconds: marks, every } = call.cue!
  const seconds = call.read({ rate: ONE, base: ZERO })
  const set = fittedToCue(call) ? [...rise, ...falls.map(f => -f)] : [...rise, ...falls.map(f => end - f)]
  const at = marks.flatMap(mark => set.map(t => mark + t))
  if (!every) return seconds.reaching(...at)
  const rounds = call.read({ rate: divided(ONE, every), base: ZERO })
  // Before the first mark there is none, and its own beginning is one.
  return joined(seconds.reaching(marks[0] ?? 0), rounds.passing(...at.map(t => t / toNumber(every))))
}

interface EnvelopeShape {
  readonly attack: number
  readonly release: number
  /** How long the whole of it lasts, in seconds: the longest, where that differs. */
  readonly end: number
  /** Seconds since it set off, below 0 before, and how long it lasts now. */
  readonly where: (m: Moment) => { readonly x: number; readonly end: number }
  /** The laps it comes again with, or the seconds it counts in; neither when it plays on a cue. */
  readonly lap?: ClockReading
  readonly read?: ClockReading
}

type Enveloped = CallWith<'attack' | 'hold' | 'release'>

function envelopeShape(call: Enveloped): EnvelopeShape {
  const seconds = (length: CompiledExpression) => toNumber(constantOf(length) ?? ZERO)
  const { args } = call
  const [attack, hold, release] = [seconds(args.attack), seconds(args.hold), seconds(args.release)]
  const window = call.words.over?.name as (typeof WINDOWS)[number] | undefined
  const end = attack + hold + release
  const { cue } = call
  if (cue) {
    const fitted = fittedToCue(call)
    const where = (m: Moment) => {
      const t = call.beat.seconds(m)
      const mark = cue.latest(t)
      if (!mark) return { x: -1, end }
      const next = fitted ? cue.after(mark) : null
      const until = next ? toNumber(less(next.at, mark.at)) : Infinity
      return { x: toNumber(less(t, mark.at)), end: fitted ? until : end }
    }
    return { attack, release, end, where }
  }
  if (window && window !== 'cue') {
    const [from, to] = call.windows[window]
    const length = toNumber(less(to, from))
    if (window === 'lap') {
      const lap = call.read({ rate: divided(ONE, less(to, from)), base: negate(divided(from, less(to, from))) })
      return { attack, release, end: length, where: m => ({ x: lap.splitAt(m).part * length, end: length }), lap }
    }
    const read = call.read({ rate: ONE, base: negate(from) })
    return { attack, release, end: length, where: m => ({ x: read.at(m), end: length }), read }
  }
  const read = call.read({ rate: ONE, base: ZERO })
  return { attack, release, end, where: m => ({ x: read.at(m), end }), read }
}
