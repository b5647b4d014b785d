/** Drawn curves: what is drawn plays over time, or lands on the marks of a cue. */
import { interval, point, times, type Interval } from '../facts/interval.ts'
import { curveBends } from '../form/curve-bends.ts'
import { ALWAYS, NEVER, everySeconds, onlyFrom } from '../facts/repeats.ts'
import { moving, scratch } from '../columns/column.ts'
import { negatedLanes, shiftedLanes, uniform } from '../columns/fractions.ts'
import { AFTER, beyond, type After } from '../signal/drawn.ts'
import type { Mark } from '../signal/marks.ts'
import type { Affine } from '../time/affine.ts'
import type { Moment } from '../time/moment.ts'
import { constantOf } from '../form/compiled-expression.ts'
import {
  ONE,
  ZERO,
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
import { PLAIN, TIME } from '../units/kinds.ts'
import { afterMarks, marksBends, type Call, type CallOnCue } from './prepared-call.ts'
import { entry } from './entry.ts'
import { parameter } from './parameter.ts'

import { CUE, marksOn } from './cues.ts'

const CURVE = parameter({ name: 'curve', description: 'the drawn curve', kind: 'any', thing: 'curve', required: true })
const CHANNEL = parameter({
  name: 'channel',
  description: 'which of its channels; the first unless named',
  kind: 'any',
  free: true,
})

/** A call that reads a drawn curve. */
type OnCurve = Call & { readonly curve: NonNullable<Call['curve']> }

const bounds = (call: OnCurve): Interval =>
  times(interval(call.curve.drawn.low, call.curve.drawn.high), point(call.curve.size))
const after = (call: Call): After => (call.words.after?.name as After | undefined) ?? 'hold'

/** Lengths of the curve that have gone by, as it grows. */
function runOf(call: OnCurve): Affine {
  const { start, end } = call.curve.drawn
  const length = end > start ? minus(fromNumber(end), fromNumber(start)) : ONE
  return { rate: over(ONE, length), base: negate(over(fromNumber(start), length)) }
}
const run = (call: OnCurve) => call.read(runOf(call))

export const curve = entry(
  {
    name: 'curve',
    group: 'source',
    description:
      'Follows a drawn curve. After its last point it holds, repeats, comes back mirrored, or repeats and carries on from its end value.',
    example: { part: 'Tombola drum', property: 'rotation', text: 'curve(rocking, after: repeat)' },
    parameters: [
      { ...CURVE, name: 'name' },
      CHANNEL,
      { name: 'after', description: 'what happens after its last point', kind: PLAIN, words: () => AFTER },
    ],
    result: 'curve',
  },
  {
    at: call => {
      const { drawn, size } = call.curve
      const read = run(call)
      const mode = after(call)
      return m => {
        const { whole, part } = read.splitAt(m)
        return beyond(drawn, mode, whole, part) * size
      }
    },
    kernel: ({ first, lanes, steady }) => {
      const { drawn, size } = first.curve
      const { rate, base } = runOf(first)
      const read = steady(uniform(rate, lanes), uniform(base, lanes))
      const [mode, [whole]] = [after(first), scratch(1, lanes)]
      return (
        read &&
        moving((now, from, count, out) => {
          read.split(now.moment, from, count, out, whole)
          for (let i = 0; i < count; i++) out[i] = beyond(drawn, mode, whole[i]!, out[i]!) * size
        })
      )
    },
  },
  {
    bounds: call =>
      after(call) === 'carry' && call.curve.drawn.first !== call.curve.drawn.last
        ? interval(-Infinity, Infinity)
        : bounds(call),
    repeats: call => {
      const { drawn, size } = call.curve
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
    bends: call => curveBends(call.curve.drawn, after(call), run(call)),
    leaps: call => {
      const { drawn } = call.curve
      const seam = after(call) === 'repeat' && drawn.first !== drawn.last
      return seam || drawn.leaps.length > 0 ? curveBends(drawn, after(call), run(call)) : call.beat.bends
    },
  },
)

/** The shares of the curve at which its channel has its first and last point. */
function pointsOf(call: OnCurve): [Rational, Rational] {
  const { drawn } = call.curve
  const share = (t: number) =>
    over(minus(fromNumber(t), fromNumber(drawn.start)), minus(fromNumber(drawn.end), fromNumber(drawn.start)))
  return [share(drawn.times[0]!), share(drawn.times.at(-1)!)]
}

/** How long before a mark the gesture sets off, so that the curve's hit lands on it, less its shift. */
function leadOf(call: OnCurve): Rational {
  const shift = call.args.shift ? (constantOf(call.args.shift) ?? ZERO) : ZERO
  return minus(toHit(call), shift)
}

/** Seconds from the curve's beginning to its hit. */
const toHit = ({ curve }: OnCurve): Rational => minus(fromNumber(curve.hit), fromNumber(curve.drawn.start))

/** The gestures under way at a moment of the clock: each with the seconds since its curve began. */
function gestures(
  call: OnCurve & CallOnCue,
  m: Moment,
): { latest: Rational | null; mark: Mark | null; t: Rational; lead: Rational } {
  const lead = leadOf(call)
  const t = call.beat.seconds(m)
  const mark = call.cue.latest(plus(t, lead))
  return { latest: mark && minus(plus(t, lead), mark.at), mark, t, lead }
}

export const play = entry(
  {
    name: 'play',
    group: 'source',
    description:
      'Plays a drawn curve on each mark of a cue, so that its hit point lands on the mark. A new gesture cuts the one before, or is added to it.',
    example: { part: 'Mallet', property: 'rotation', text: 'play(swing, blow, channel: arm)' },
    parameters: [
      CURVE,
      CUE,
      CHANNEL,
      { name: 'shift', description: 'how much later this channel starts', kind: TIME, initial: 0, steady: true },
      {
        name: 'overlap',
        description: 'what a new gesture does to one under way',
        kind: PLAIN,
        words: () => ['cut', 'add'],
      },
    ],
    result: 'curve',
  },
  {
    at: call => {
      const { drawn, size } = call.curve
      const add = call.words.overlap?.name === 'add'
      return m => {
        const { latest, mark, t, lead } = gestures(call, m)
        if (!latest || !mark) return drawn.first * size
        if (!add) return drawn.at(drawn.start + toNumber(latest)) * size
        const length = drawn.end - drawn.start
        let sum = drawn.first
        let ended = 0
        for (let at: Mark | null = mark; at; at = call.cue.before(at)) {
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
    kernel: call => {
      const { drawn, size } = call.first.curve
      const shift = call.constant('shift')
      const lead = shift && shiftedLanes(negatedLanes(shift), toHit(call.first))
      const marks = lead && marksOn(call, lead)
      if (!marks) return null
      const [nth, since] = scratch(2, call.lanes)
      const add = call.first.words.overlap?.name === 'add'
      const length = drawn.end - drawn.start
      return moving((now, from, count, out) => {
        marks.latest(now, from, count, nth, since)
        for (let i = 0; i < count; i++) {
          if (nth[i]! < 0) out[i] = drawn.first * size
          else if (!add) out[i] = drawn.at(drawn.start + since[i]!) * size
          else {
            let [sum, ended] = [drawn.first, 0]
            for (let k = nth[i]!; k >= 0; k--) {
              const seconds = k < nth[i]! ? marks.ago(k, now, from + i) : since[i]!
              if (seconds >= length) {
                ended = k + 1
                break
              }
              sum += drawn.at(drawn.start + seconds) - drawn.first
            }
            out[i] = (sum + ended * (drawn.last - drawn.first)) * size
          }
        }
      })
    },
  },
  {
    bounds: call => {
      if (call.words.overlap?.name === 'add') return interval(-Infinity, Infinity)
      return bounds(call)
    },
    repeats: call => {
      const { drawn } = call.curve
      const added = call.words.overlap?.name === 'add'
      // Gestures that are added leave something behind when they do not end where they began.
      if (added && drawn.first !== drawn.last && call.cue.every) return NEVER
      // It rests from its own last point on, though its curve may go on.
      const length = minus(fromNumber(drawn.times.at(-1)!), fromNumber(drawn.start))
      const { every } = call.cue
      const played = afterMarks(call, call.cue, leadOf(call), length)
      // Added ones reach into those that follow, so it comes back only when the first of them is over.
      return added && every && played.from
        ? onlyFrom(played, plus(played.from, over(length, call.beat.steady!.rate)))
        : played
    },
    bends: call => {
      const { drawn } = call.curve
      const lead = toNumber(leadOf(call))
      return marksBends(call, call.cue, ...drawn.bends.map(t => t - drawn.start - lead), -lead)
    },
  },
)
