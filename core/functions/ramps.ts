/** Ramps and envelopes: from one value to another, and there and back. */
import { EASING_NAMES, easingNamed, type NamedEase } from '../signal/easing.ts'
import { interval, minus, plus, times } from '../facts/interval.ts'
import { NONE, joined } from '../facts/edges.ts'
import type { Reading } from '../form/beat.ts'
import { NEVER, everySeconds, together, type Repeats } from '../facts/repeats.ts'
import { constantOf } from '../form/form.ts'
import type { Moment } from '../time/moment.ts'
import {
  ONE,
  ZERO,
  compare,
  fromNumber,
  isZero,
  minus as less,
  negate,
  over as divided,
  rational,
  times as by,
  toNumber,
} from '../time/rational.ts'
import { PLAIN, TIME } from '../units/kinds.ts'
import {
  afterMarks,
  boundsOf,
  edgesOfArgs,
  repeatsOfArgs,
  without,
  type Call,
  type Entry,
  type Parameter,
} from './entry.ts'

const EASE: Parameter = { name: 'ease', says: 'the curve it follows', kind: PLAIN, words: () => EASING_NAMES }
const easeIn = (call: Call, name: string): NamedEase =>
  easingNamed(call.words[name]?.name ?? 'linear', call.words[name]?.strength)!

const TIMING = ['start', 'length', 'end'] as const

export const ramp: Entry = {
  name: 'ramp',
  group: 'source',
  says: 'Goes from one value to another over a length of time and then holds, begins again, or comes back.',
  example: { part: 'Lantern', property: 'opacity', text: 'ramp(start: 1s, length: 3s, ease: cubicOut)' },
  takes: [
    { name: 'start', says: 'when it sets off', kind: TIME, initial: 0, steady: true },
    { name: 'length', says: 'how long it takes', kind: TIME, required: true, positive: true, steady: true },
    { name: 'from', says: 'the value before', kind: 'result', initial: 0, valuePlace: true },
    { name: 'to', says: 'the value after', kind: 'result', initial: 1, valuePlace: true },
    EASE,
    { name: 'after', says: 'what comes after', kind: PLAIN, words: () => ['hold', 'repeat', 'mirror'] },
    { name: 'end', says: 'when it arrives, instead of its length', kind: TIME, required: true, steady: true },
  ],
  either: [[['length'], ['end']]],
  result: 'result',
  value: call => {
    const { from, to } = call.args
    const share = rampShare(call)
    const { ease } = easeIn(call, 'ease')
    return m => {
      const a = from!.at(m)
      return a + (to!.at(m) - a) * ease(share(m))
    }
  },
  bounds: call => {
    const { low, high } = easeIn(call, 'ease')
    const span = minus(boundsOf(call, 'to'), boundsOf(call, 'from'))
    return plus(boundsOf(call, 'from'), times(span, interval(low, high)))
  },
  repeats: call => {
    const after = call.words.after?.name ?? 'hold'
    const read = along(call)
    const rest = repeatsOfArgs(without(call, ...TIMING))
    if (!read) return NEVER
    if (after === 'hold') return together([read.between(ZERO, ONE), rest])
    return together([after === 'mirror' ? doubled(read.cyclic) : read.cyclic, rest])
  },
  edges: call => {
    const rest = edgesOfArgs(without(call, ...TIMING))
    return call.words.after?.name === 'repeat' ? joined(rest, along(call)?.wholes ?? NONE) : rest
  },
}

const doubled = (r: Repeats): Repeats => (r.every && !isZero(r.every) ? everySeconds(by(r.every, rational(2))) : r)

/** How far along the ramp the time is, in ramps; null when its length is not more than 0. */
function along(call: Call) {
  const start = constantOf(call.args.start!)
  const end = call.given.has('end') && call.args.end ? constantOf(call.args.end) : null
  const length = call.given.has('end') ? start && end && less(end, start) : constantOf(call.args.length!)
  if (!start || !length || compare(length, ZERO) <= 0) return null
  return call.read({ rate: divided(ONE, length), base: negate(divided(start, length)) })
}

function rampShare(call: Call): (m: Moment) => number {
  const read = along(call)
  if (!read) return () => NaN
  const after = call.words.after?.name ?? 'hold'
  if (after === 'hold') {
    return m => {
      const { whole, part } = read.splitAt(m)
      return whole < 0 ? 0 : whole >= 1 ? 1 : part
    }
  }
  if (after === 'repeat') return m => read.splitAt(m).part
  return m => {
    const { whole, part } = read.splitAt(m)
    return whole % 2 === 0 ? part : 1 - part
  }
}

const WINDOWS = ['lap', 'span', 'stretch', 'cue'] as const

export const envelope: Entry = {
  name: 'envelope',
  group: 'source',
  says: 'Rises from 0 to 1, holds, and falls back to 0: from second 0, after each mark of a cue, or fitted over the lap, the span of the part or the marked stretch.',
  example: {
    part: 'Exit arrow',
    property: 'opacity',
    text: 'envelope(attack: 1s, release: 2s, easeIn: cubicOut, over: lap)',
  },
  takes: [
    { name: 'attack', says: 'how long it rises', kind: TIME, initial: 0, steady: true },
    { name: 'hold', says: 'how long it stays at 1', kind: TIME, initial: 0, steady: true },
    { name: 'release', says: 'how long it falls', kind: TIME, initial: 0, steady: true },
    EASE,
    { name: 'easeIn', says: 'the curve of the rise', kind: PLAIN, words: () => EASING_NAMES },
    { name: 'easeOut', says: 'the curve of the fall', kind: PLAIN, words: () => EASING_NAMES },
    { name: 'over', says: 'what it is fitted to', kind: PLAIN, words: () => WINDOWS },
    { name: 'cue', says: 'the cue it plays on', kind: 'any', thing: 'cue' },
  ],
  either: [[['hold'], ['over']]],
  result: PLAIN,
  value: call => {
    const shape = envelopeShape(call)
    const rise = easeIn(call, call.words.easeIn ? 'easeIn' : 'ease').ease
    const fall = easeIn(call, call.words.easeOut ? 'easeOut' : 'ease').ease
    return m => {
      const x = shape.since(m)
      if (!(x >= 0) || x >= shape.end) return 0
      const up = shape.attack > 0 && x < shape.attack ? rise(x / shape.attack) : 1
      const left = shape.end - x
      const down = shape.release > 0 && left < shape.release ? fall(left / shape.release) : 1
      return up < down ? up : down
    }
  },
  bounds: call => {
    const all = ['ease', 'easeIn', 'easeOut'].map(n => easeIn(call, n))
    return interval(Math.min(...all.map(e => e.low)), Math.max(...all.map(e => e.high)))
  },
  repeats: call => {
    const shape = envelopeShape(call)
    if (call.cue) return afterMarks(call, ZERO, fromNumber(shape.end))
    if (shape.lap) return shape.lap.cyclic
    return shape.read!.between(ZERO, fromNumber(shape.end))
  },
  edges: call => {
    const { attack, release } = envelopeShape(call)
    return attack > 0 && release > 0 ? NONE : ['anywhere']
  },
}

interface EnvelopeShape {
  readonly attack: number
  readonly release: number
  /** How long the whole of it lasts, in seconds. */
  readonly end: number
  /** Seconds since it set off; below 0 before. */
  readonly since: (m: Moment) => number
  /** The laps it comes again with, or the seconds it counts in; neither when it plays on a cue. */
  readonly lap?: Reading
  readonly read?: Reading
}

function envelopeShape(call: Call): EnvelopeShape {
  const seconds = (name: string) => toNumber(constantOf(call.args[name]!) ?? ZERO)
  const [attack, hold, release] = [seconds('attack'), seconds('hold'), seconds('release')]
  const window = call.words.over?.name as (typeof WINDOWS)[number] | undefined
  const sinceCue = (m: Moment): number => {
    const t = call.beat.seconds(m)
    const mark = call.cue!.latest(t)
    return mark ? toNumber(less(t, mark.at)) : -1
  }
  if (call.cue) return { attack, release, end: attack + hold + release, since: sinceCue }
  if (window && window !== 'cue') {
    const [from, to] = call.windows[window]
    const length = toNumber(less(to, from))
    if (window === 'lap') {
      const lap = call.read({ rate: divided(ONE, less(to, from)), base: negate(divided(from, less(to, from))) })
      return { attack, release, end: length, since: m => lap.splitAt(m).part * length, lap }
    }
    const read = call.read({ rate: ONE, base: negate(from) })
    return { attack, release, end: length, since: m => read.at(m), read }
  }
  const read = call.read({ rate: ONE, base: ZERO })
  return { attack, release, end: attack + hold + release, since: m => read.at(m), read }
}
