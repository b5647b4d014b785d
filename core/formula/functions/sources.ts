/** Sources: functions that move by themselves. */
import { sineOfPart } from '../../signal/sine.ts'
import { hashUnit } from '../../signal/hash.ts'
import { octaveNoise, octavesOf } from '../../signal/noise.ts'
import { EASING_NAMES, easingNamed } from '../../signal/easing.ts'
import { plus, times, minus, union, interval, type Interval } from '../../insight/interval.ts'
import { NEVER, everySeconds, together } from '../../insight/repeats.ts'
import { AffineReader, add, opposite, scale } from '../../time/affine.ts'
import { ONE, compare, over, rational, times as by, toNumber, ZERO } from '../../time/rational.ts'
import { constantOf } from '../../engine/form.ts'
import { ANGLE, FREQUENCY, PLAIN, TIME } from '../../units/kinds.ts'
import type { Moment } from '../../time/moment.ts'
import { boundsOf, repeatsOfArgs, type Call, type Entry, type Parameter } from './entry.ts'

const FREQ: Parameter = { name: 'freq', says: 'how many times a second', kind: FREQUENCY, required: true }
const EVERY: Parameter = { name: 'every', says: 'how long one takes', kind: TIME, required: true, positive: true }
const AMP: Parameter = { name: 'amp', says: 'how far to either side', kind: 'result', initial: 1, valuePlace: true }
const OFFSET: Parameter = { name: 'offset', says: 'what it swings round', kind: 'result', initial: 0, valuePlace: true }
const PHASE: Parameter = { name: 'phase', says: 'how far ahead it is', kind: ANGLE, initial: 0 }
const LOW: Parameter = { name: 'low', says: 'the lowest value', kind: 'result', required: true, valuePlace: true }
const HIGH: Parameter = { name: 'high', says: 'the highest value', kind: 'result', required: true, valuePlace: true }
const SEED: Parameter = { name: 'seed', says: 'a number that is shared to share the chance', kind: PLAIN, steady: true }
const SWING = [
  ['amp', 'offset'],
  ['low', 'high'],
] as const

/** The value of a swing between −1 and 1, from amp and offset or low and high. */
function swing(call: Call, unit: (m: Moment) => number): (m: Moment) => number {
  const { amp, offset, low, high } = call.args
  if (call.given.has('low') || call.given.has('high')) {
    return m => {
      const l = low!.at(m)
      const h = high!.at(m)
      const y = (l + h) / 2 + ((h - l) / 2) * unit(m)
      // Rounding must not carry it over the ends that were promised.
      return l <= h ? (y < l ? l : y > h ? h : y) : y < h ? h : y > l ? l : y
    }
  }
  return m => offset!.at(m) + amp!.at(m) * unit(m)
}

function swingBounds(call: Call): Interval {
  if (call.given.has('low') || call.given.has('high')) return union(boundsOf(call, 'low'), boundsOf(call, 'high'))
  return plus(boundsOf(call, 'offset'), times(boundsOf(call, 'amp'), interval(-1, 1)))
}

const swingRepeats = (call: Call) => together([call.phase.repeats(), repeatsOfArgs(valuesOf(call))])
/** The call without the arguments that only set pace: those are in its phase. */
const valuesOf = (call: Call): Call => {
  const { freq: _f, every: _e, phase: _p, rate: _r, seed: _s, ...args } = call.args
  return { ...call, args }
}

export const sine: Entry = {
  name: 'sine',
  group: 'source',
  says: 'Swings smoothly to both sides of an offset, again and again.',
  example: { part: 'Mount', property: 'y', text: 'sine(every: 2s, amp: 24px)' },
  takes: [FREQ, AMP, OFFSET, PHASE, EVERY, LOW, HIGH],
  either: [[['freq'], ['every']], SWING],
  result: 'result',
  pace: { freq: 'freq', every: 'every', phase: 'phase' },
  value: call => swing(call, m => sineOfPart(call.phase.splitAt(m).part)),
  bounds: swingBounds,
  repeats: swingRepeats,
}

const whole = (call: Call, name: string, fallback: number, low: number, high: number): number => {
  const c = call.args[name] && constantOf(call.args[name])
  return c ? Math.min(high, Math.max(low, Math.round(toNumber(c)))) : fallback
}

/** Most octaves a noise may have. */
export const MOST_OCTAVES = 8

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
    const rough = constantOf(call.args.roughness!)
    const octaves = octavesOf(
      call.seed,
      whole(call, 'octaves', 1, 1, MOST_OCTAVES),
      rough ? Math.min(1, Math.max(0, toNumber(rough))) : 0.5,
    )
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
  bounds: swingBounds,
  repeats: call => {
    if (call.args.at || call.phase.still) return repeatsOfArgs(valuesOf(call))
    if (!call.phase.wrap) return NEVER
    const cell = call.phase.repeats().every
    if (!cell) return NEVER
    return together([everySeconds(by(cell, rational(call.phase.wrap))), repeatsOfArgs(valuesOf(call))])
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
  bounds: call => union(boundsOf(call, 'low'), boundsOf(call, 'high')),
  repeats: call => {
    if (call.phase.still) return repeatsOfArgs(valuesOf(call))
    const step = call.phase.repeats().every
    if (!call.phase.wrap || !step) return NEVER
    return together([everySeconds(by(step, rational(call.phase.wrap))), repeatsOfArgs(valuesOf(call))])
  },
  leaps: call => !call.phase.still || valuesLeap(call),
}
const valuesLeap = (call: Call) => Object.values(valuesOf(call).args).some(f => f?.facts().leaps)

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
    { name: 'ease', says: 'the curve it follows', kind: PLAIN, words: () => EASING_NAMES },
    { name: 'after', says: 'what comes after', kind: PLAIN, words: () => ['hold', 'repeat', 'mirror'] },
    { name: 'end', says: 'when it arrives, instead of its length', kind: TIME, required: true, steady: true },
  ],
  either: [[['length'], ['end']]],
  result: 'result',
  value: call => {
    const { from, to } = call.args
    const share = rampShare(call)
    const ease = easeOf(call).ease
    return m => {
      const a = from!.at(m)
      return a + (to!.at(m) - a) * ease(share(m))
    }
  },
  bounds: call => {
    const { low, high } = easeOf(call)
    const span = minus(boundsOf(call, 'to'), boundsOf(call, 'from'))
    return plus(boundsOf(call, 'from'), times(span, interval(low, high)))
  },
  repeats: call => {
    const after = call.words.after?.name ?? 'hold'
    const length = rampLength(call)
    const { start: _s, length: _l, end: _e, ...args } = call.args
    const rest = repeatsOfArgs({ ...call, args })
    if (after === 'hold' || !length) return NEVER
    return together([everySeconds(after === 'mirror' ? by(length, rational(2)) : length), rest])
  },
  leaps: call => call.words.after?.name === 'repeat' || valuesLeap(call),
}

const easeOf = (call: Call) => easingNamed(call.words.ease?.name ?? 'linear', call.words.ease?.strength)!

/** The exact length of a ramp in seconds; null when it is no constant or not more than 0. */
function rampLength(call: Call) {
  const start = constantOf(call.args.start!)
  const end = call.given.has('end') && call.args.end ? constantOf(call.args.end) : null
  const length = call.given.has('end')
    ? start && end && add({ rate: ZERO, base: end }, opposite({ rate: ZERO, base: start }))?.base
    : constantOf(call.args.length!)
  return length && compare(length, ZERO) > 0 ? length : null
}

/** How far along the ramp is, 0 … 1, exact at its ends. */
function rampShare(call: Call): (m: Moment) => number {
  const length = rampLength(call)
  const start = constantOf(call.args.start!)
  if (!length || !start) return () => NaN
  const along = scale({ rate: ONE, base: { n: -start.n, d: start.d } }, over(ONE, length))!
  const reader = new AffineReader(along, call.frameRate)
  const after = call.words.after?.name ?? 'hold'
  if (after === 'hold') {
    return m => {
      const { whole, part } = reader.splitAt(m)
      return whole < 0 ? 0 : whole >= 1 ? 1 : part
    }
  }
  if (after === 'repeat') return m => reader.splitAt(m).part
  return m => {
    const { whole, part } = reader.splitAt(m)
    return whole % 2 === 0 ? part : 1 - part
  }
}
