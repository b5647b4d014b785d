/** Drawn curves and cues: what is drawn plays over time, or lands on marks. */
import { interval, point, times, union, type Interval } from '../facts/interval.ts'
import { joined } from '../facts/bends.ts'
import { curveBends } from '../form/drawing.ts'
import { ALWAYS, NEVER, everySeconds, onlyFrom } from '../facts/repeats.ts'
import { AFTER, beyond, type After } from '../signal/drawn.ts'
import type { Mark } from '../signal/marks.ts'
import type { Moment } from '../time/moment.ts'
import { constantOf } from '../form/form.ts'
import {
  ONE,
  ZERO,
  compare,
  fromNumber,
  isZero,
  minus,
  negate,
  over,
  plus,
  rational,
  times as by,
  toNumber,
  type Rational,
} from '../time/rational.ts'
import { PLAIN, TIME, TRUTH } from '../units/kinds.ts'
import { afterMarks, marksBends, type Call, type Entry, type Parameter } from './entry.ts'

const CURVE: Parameter = { name: 'curve', says: 'the drawn curve', kind: 'any', thing: 'curve', required: true }
const CUE: Parameter = { name: 'cue', says: 'the marks it plays on', kind: 'any', thing: 'cue', required: true }
const CHANNEL: Parameter = {
  name: 'channel',
  says: 'which of its channels; the first unless named',
  kind: 'any',
  free: true,
}

const bounds = (call: Call): Interval =>
  times(interval(call.curve!.drawn.low, call.curve!.drawn.high), point(call.curve!.size))
const after = (call: Call): After => (call.words.after?.name as After | undefined) ?? 'hold'

/** Lengths of the curve that have gone by. */
function run(call: Call) {
  const { start, end } = call.curve!.drawn
  const length = end > start ? minus(fromNumber(end), fromNumber(start)) : ONE
  return call.read({ rate: over(ONE, length), base: negate(over(fromNumber(start), length)) })
}

export const curve: Entry = {
  name: 'curve',
  group: 'source',
  says: 'Follows a drawn curve. After its last point it holds, repeats, comes back mirrored, or repeats and carries on from its end value.',
  example: { part: 'Tombola drum', property: 'rotation', text: 'curve(rocking, after: repeat)' },
  takes: [
    { ...CURVE, name: 'name' },
    CHANNEL,
    { name: 'after', says: 'what happens after its last point', kind: PLAIN, words: () => AFTER },
  ],
  result: 'curve',
  value: call => {
    const { drawn, size } = call.curve!
    const read = run(call)
    const mode = after(call)
    return m => {
      const { whole, part } = read.splitAt(m)
      return beyond(drawn, mode, whole, part) * size
    }
  },
  bounds: call =>
    after(call) === 'carry' && call.curve!.drawn.first !== call.curve!.drawn.last
      ? interval(-Infinity, Infinity)
      : bounds(call),
  repeats: call => {
    const { drawn, size } = call.curve!
    const read = run(call)
    const every = read.cyclic.every
    if (drawn.end <= drawn.start || drawn.low === drawn.high) return ALWAYS
    if (after(call) === 'hold') return read.between(...pointsOf(call))
    if (!every) return read.once
    if (after(call) === 'mirror') return everySeconds(by(every, rational(2)))
    if (after(call) === 'repeat') return read.cyclic
    const gain = over(by(minus(fromNumber(drawn.last), fromNumber(drawn.first)), fromNumber(size)), every)
    return { every, gain, from: null }
  },
  bends: call => curveBends(call.curve!.drawn, after(call), run(call)),
  leaps: call => {
    const { drawn } = call.curve!
    const seam = after(call) === 'repeat' && drawn.first !== drawn.last
    return seam || drawn.leaps.length > 0 ? curveBends(drawn, after(call), run(call)) : call.beat.bends
  },
}

/** The shares of the curve at which its channel has its first and last point. */
function pointsOf(call: Call): [Rational, Rational] {
  const { drawn } = call.curve!
  const share = (t: number) =>
    over(minus(fromNumber(t), fromNumber(drawn.start)), minus(fromNumber(drawn.end), fromNumber(drawn.start)))
  return [share(drawn.times[0]!), share(drawn.times.at(-1)!)]
}

/** How long before a mark the gesture sets off, so that the curve's hit lands on it, less its shift. */
function leadOf(call: Call): Rational {
  const { hit, drawn } = call.curve!
  const shift = call.args.shift ? (constantOf(call.args.shift) ?? ZERO) : ZERO
  return minus(minus(fromNumber(hit), fromNumber(drawn.start)), shift)
}

/** The gestures under way at a moment of the clock: each with the seconds since its curve began. */
function gestures(call: Call, m: Moment): { latest: Rational | null; mark: Mark | null; t: Rational; lead: Rational } {
  const lead = leadOf(call)
  const t = call.beat.seconds(m)
  const mark = call.cue!.latest(plus(t, lead))
  return { latest: mark && minus(plus(t, lead), mark.at), mark, t, lead }
}

export const play: Entry = {
  name: 'play',
  group: 'source',
  says: 'Plays a drawn curve on each mark of a cue, so that its hit point lands on the mark. A new gesture cuts the one before, or is added to it.',
  example: { part: 'Mallet', property: 'rotation', text: 'play(swing, blow, channel: arm)' },
  takes: [
    CURVE,
    CUE,
    CHANNEL,
    { name: 'shift', says: 'how much later this channel starts', kind: TIME, initial: 0, steady: true },
    { name: 'overlap', says: 'what a new gesture does to one under way', kind: PLAIN, words: () => ['cut', 'add'] },
  ],
  result: 'curve',
  value: call => {
    const { drawn, size } = call.curve!
    const add = call.words.overlap?.name === 'add'
    return m => {
      const { latest, mark, t, lead } = gestures(call, m)
      if (!latest || !mark) return drawn.first * size
      if (!add) return drawn.at(drawn.start + toNumber(latest)) * size
      const length = drawn.end - drawn.start
      let sum = drawn.first
      let ended = 0
      for (let at: Mark | null = mark; at; at = call.cue!.before(at)) {
        const since = toNumber(minus(plus(t, lead), at.at))
        if (since >= length) {
          ended = at.nth + 1
          break
        }
        sum += drawn.at(drawn.start + since) - drawn.first
      }
      return (sum + ended * (drawn.last - drawn.first)) * size
    }
  },
  bounds: call => {
    if (call.words.overlap?.name === 'add') return interval(-Infinity, Infinity)
    return bounds(call)
  },
  repeats: call => {
    const { drawn } = call.curve!
    const added = call.words.overlap?.name === 'add'
    // Gestures that are added leave something behind when they do not end where they began.
    if (added && drawn.first !== drawn.last && call.cue!.every) return NEVER
    // It rests from its own last point on, though its curve may go on.
    const length = minus(fromNumber(drawn.times.at(-1)!), fromNumber(drawn.start))
    const { every } = call.cue!
    const played = afterMarks(call, leadOf(call), length)
    // Added ones reach into those that follow, so it comes back only when the first of them is over.
    return added && every && played.from
      ? onlyFrom(played, plus(played.from, over(length, call.beat.steady!.rate)))
      : played
  },
  bends: call => {
    const { drawn } = call.curve!
    const lead = toNumber(leadOf(call))
    return marksBends(call, ...drawn.bends.map(t => t - drawn.start - lead), -lead)
  },
}

/** Seconds since the latest mark; before the first, until it. */
function sinceMark(call: Call, m: Moment): Rational {
  const t = call.beat.seconds(m)
  return minus(t, call.cue!.latest(t)?.at ?? call.cue!.first!)
}

export const since: Entry = {
  name: 'since',
  group: 'source',
  says: 'Seconds since the latest mark of a cue; below 0 before the first.',
  example: { part: 'Lantern', property: 'opacity', text: 'smoothstep(0s, 2s, since(blow))' },
  takes: [CUE],
  result: TIME,
  finite: call => !call.cue!.none,
  value: call => m => (call.cue!.none ? -Infinity : toNumber(sinceMark(call, m))),
  bounds: () => interval(-Infinity, Infinity),
  repeats: call => {
    const played = afterMarks(call, ZERO, ZERO)
    // After the last of marks that do not come again the seconds grow.
    return call.cue!.every || !call.beat.steady || call.cue!.none ? played : { ...played, gain: call.beat.steady.rate }
  },
  bends: call => joined(call.beat.bends, marksBends(call)),
  exactly: call => (call.cue!.none ? null : m => sinceMark(call, m)),
}

export const fires: Entry = {
  name: 'fires',
  group: 'source',
  says: 'Yes during the frame that contains a mark of a cue, otherwise no.',
  example: { part: 'Lantern', property: 'opacity', text: 'if fires(blow) then 100% else 30%' },
  takes: [CUE],
  result: TRUTH,
  value: call => m => {
    const t = call.beat.seconds(m)
    const mark = call.cue!.latest(t)
    return mark && compare(minus(t, mark.at), over(ONE, call.frameRate)) < 0 ? 1 : 0
  },
  bounds: () => union(point(0), point(1)),
  repeats: call => afterMarks(call, ZERO, over(ONE, call.frameRate)),
  bends: call => marksBends(call, toNumber(over(ONE, call.frameRate))),
}

export const count: Entry = {
  name: 'count',
  group: 'source',
  says: 'How many marks of a cue there have been so far.',
  example: { part: 'Lantern', property: 'rotation', text: 'count(blow) * 30deg' },
  takes: [CUE],
  result: PLAIN,
  value: call => m => marksSoFar(call, m),
  exactly: call => m => rational(marksSoFar(call, m)),
  bounds: call => interval(0, call.cue!.every ? Infinity : call.cue!.seconds.length),
  repeats: call => {
    const { seconds, every } = call.cue!
    const played = afterMarks(call, ZERO, ZERO)
    if (!every || !played.every || isZero(played.every)) return played
    return { ...played, gain: over(rational(seconds.length), played.every) }
  },
  slope: () => point(0),
  bends: call => marksBends(call),
}

const marksSoFar = (call: Call, m: Moment): number => {
  const mark = call.cue!.latest(call.beat.seconds(m))
  return mark ? mark.nth + 1 : 0
}

export const until: Entry = {
  name: 'until',
  group: 'source',
  says: 'Seconds until the next mark of a cue; below 0 after the last one.',
  example: { part: 'Lantern', property: 'opacity', text: 'smoothstep(2s, 0s, until(blow))' },
  takes: [CUE],
  result: TIME,
  finite: call => !call.cue!.none,
  value: call => m => (call.cue!.none ? Infinity : toNumber(untilMark(call, m))),
  exactly: call => (call.cue!.none ? null : m => untilMark(call, m)),
  bounds: () => interval(-Infinity, Infinity),
  repeats: call => {
    const played = afterMarks(call, ZERO, ZERO)
    return call.cue!.every || !call.beat.steady || call.cue!.none
      ? played
      : { ...played, gain: negate(call.beat.steady.rate) }
  },
  bends: call => joined(call.beat.bends, marksBends(call)),
}

/** Seconds until the next mark; after the last, until that one. */
function untilMark(call: Call, m: Moment): Rational {
  const t = call.beat.seconds(m)
  const latest = call.cue!.latest(t)
  const next = latest ? call.cue!.after(latest) : null
  return minus(next?.at ?? (latest ? call.cue!.last! : call.cue!.first!), t)
}
