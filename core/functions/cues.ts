/** Drawn curves and cues: what is drawn plays over time, or lands on marks. */
import { interval, point, times, union, type Interval } from '../facts/interval.ts'
import { NONE, joined, type Edge, type Edges } from '../facts/edges.ts'
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
import { afterMarks, type Call, type Entry, type Parameter } from './entry.ts'

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
    { name: 'after', says: 'what comes after its last point', kind: PLAIN, words: () => AFTER },
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
    if (after(call) === 'hold') return read.between(ZERO, ONE)
    if (!every) return read.once
    if (after(call) === 'mirror') return everySeconds(by(every, rational(2)))
    if (after(call) === 'repeat') return read.cyclic
    const gain = over(by(minus(fromNumber(drawn.last), fromNumber(drawn.first)), fromNumber(size)), every)
    return { every, gain, from: null }
  },
  edges: call => {
    const { drawn } = call.curve!
    const read = run(call)
    const seam = after(call) === 'repeat' && drawn.first !== drawn.last ? read.wholes : NONE
    if (drawn.leaps.length === 0) return seam
    const every = read.cyclic.every
    if (!read.affine || !every) return ['anywhere']
    // The piece's second at which the clock reads a time of the curve.
    const at = (time: number): Rational => {
      const share = over(
        minus(fromNumber(time), fromNumber(drawn.start)),
        minus(fromNumber(drawn.end), fromNumber(drawn.start)),
      )
      return over(minus(share, read.affine!.base), read.affine!.rate)
    }
    if (after(call) === 'mirror') return ['anywhere']
    return joined(
      seam,
      drawn.leaps.map((t): Edge => ({ at: at(t), every: after(call) === 'hold' ? null : every })),
    )
  },
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
    { name: 'shift', says: 'how much later this channel sets off', kind: TIME, initial: 0, steady: true },
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
    if (added && drawn.first !== drawn.last && call.cue!.all().every) return NEVER
    const length = minus(fromNumber(drawn.end), fromNumber(drawn.start))
    const { every } = call.cue!.all()
    const played = afterMarks(call, leadOf(call), length)
    // Added ones reach into those that follow, so it comes back only when the first of them is over.
    return added && every && played.from
      ? onlyFrom(played, plus(played.from, over(length, call.beat.steady!.rate)))
      : played
  },
  edges: call => {
    const { drawn } = call.curve!
    const { marks, every } = call.cue!.all()
    if (!call.beat.steady || drawn.leaps.length > 0) return ['anywhere']
    const lead = leadOf(call)
    const toPiece = (t: Rational): Rational => over(minus(t, call.beat.steady!.base), call.beat.steady!.rate)
    return joined(marks.map((at): Edge => ({ at: toPiece(minus(at, lead)), every })))
  },
}

export const since: Entry = {
  name: 'since',
  group: 'source',
  says: 'Seconds since the latest mark of a cue; below 0 before the first.',
  example: { part: 'Lantern', property: 'opacity', text: 'smoothstep(0s, 2s, since(blow))' },
  takes: [CUE],
  result: TIME,
  finite: call => !call.cue!.none,
  value: call => m => {
    const t = call.beat.seconds(m)
    const mark = call.cue!.latest(t)
    const from = mark?.at ?? call.cue!.first
    return from ? toNumber(minus(t, from)) : -Infinity
  },
  bounds: () => interval(-Infinity, Infinity),
  repeats: call => {
    const played = afterMarks(call, ZERO, ZERO)
    // After the last of marks that do not come again the seconds grow.
    return call.cue!.all().every || !call.beat.steady || call.cue!.none
      ? played
      : { ...played, gain: call.beat.steady.rate }
  },
  edges: call => marksAsEdges(call),
}

export const fires: Entry = {
  name: 'fires',
  group: 'source',
  says: 'Yes during the frame in which a mark of a cue lies, else no.',
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
  edges: call => {
    const { marks, every } = call.cue!.all()
    if (!call.beat.steady) return ['anywhere']
    const frame = over(ONE, call.frameRate)
    return joined(
      marks.flatMap((at): Edge[] => [
        { at, every },
        { at: plus(at, frame), every },
      ]),
    )
  },
}

function marksAsEdges(call: Call): Edges {
  const { marks, every } = call.cue!.all()
  // The first mark is no leap: the seconds until it run into the seconds since.
  const counted = every ? marks : marks.slice(1)
  return call.beat.steady ? joined(counted.map((at): Edge => ({ at, every }))) : ['anywhere']
}
