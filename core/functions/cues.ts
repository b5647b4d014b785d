/** Cues: what is counted from their marks. */
import { interval, point, union } from '../facts/interval.ts'
import { joined } from '../facts/bends.ts'
import { moving, scratch, type Column } from '../columns/column.ts'
import { uniform, type Fractions } from '../columns/fractions.ts'
import type { LaneCall } from '../columns/kernel.ts'
import { MarkLanes } from '../columns/mark-columns.ts'
import type { Marks } from '../signal/marks.ts'
import type { Moment } from '../time/moment.ts'
import { ONE, ZERO, compare, isZero, minus, negate, over, rational, toNumber, type Rational } from '../time/rational.ts'
import { PLAIN, TIME, TRUTH } from '../units/kinds.ts'
import { afterMarks, marksBends, type CallOnCue } from './prepared-call.ts'
import { entry } from './entry.ts'
import { parameter } from './parameter.ts'

export const CUE = parameter({
  name: 'cue',
  description: 'the marks it plays on',
  kind: 'any',
  thing: 'cue',
  required: true,
})
/** The marks of the cue that is named on every lane, so many seconds ahead. */
export const marksOn = (call: LaneCall<CallOnCue>, lead: Fractions = uniform(ZERO, call.lanes)): MarkLanes | null =>
  MarkLanes.of(call, call.first.cue, lead)

/**
 * The kernel of what is told of the latest mark of a cue: its count from 0, −1 for none, the seconds since it, and those
 * since any other.
 */
const ofLatest =
  (
    telling: (marks: Marks) => (nth: number, seconds: number, ago: (other: number) => number) => number,
  ): ((call: LaneCall<CallOnCue>) => Column | null) =>
  call => {
    const marks = marksOn(call)
    const tell = telling(call.first.cue)
    const [nth] = scratch(1, call.lanes)
    return (
      marks &&
      moving((now, from, count, out) => {
        marks.latest(now, from, count, nth, out)
        for (let i = 0; i < count; i++) out[i] = tell(nth[i]!, out[i]!, other => marks.ago(other, now, from + i))
      })
    )
  }

/** Seconds since the latest mark; before the first, until it. */
function sinceMark(call: CallOnCue, m: Moment): Rational {
  const t = call.beat.seconds(m)
  return minus(t, call.cue.latest(t)?.at ?? call.cue.first!)
}

export const since = entry(
  {
    name: 'since',
    group: 'source',
    description: 'Seconds since the latest mark of a cue; below 0 before the first.',
    example: { part: 'Lantern', property: 'opacity', text: 'smoothstep(0s, 2s, since(blow))' },
    parameters: [CUE],
    result: TIME,
  },
  {
    at: call => m => (call.cue.none ? -Infinity : toNumber(sinceMark(call, m))),
    kernel: ofLatest(() => (nth, seconds, ago) => (nth < 0 ? ago(0) : seconds)),
    exactly: call => (call.cue.none ? null : m => sinceMark(call, m)),
  },
  {
    finite: call => !call.cue.none,
    bounds: () => interval(-Infinity, Infinity),
    repeats: call => {
      const played = afterMarks(call, call.cue, ZERO, ZERO)
      // After the last of marks that do not come again the seconds grow.
      return call.cue.every || !call.beat.steady || call.cue.none ? played : { ...played, gain: call.beat.steady.rate }
    },
    bends: call => joined(call.beat.bends, marksBends(call, call.cue)),
  },
)

export const fires = entry(
  {
    name: 'fires',
    group: 'source',
    description: 'Yes during the frame that contains a mark of a cue, otherwise no.',
    example: { part: 'Lantern', property: 'opacity', text: 'if fires(blow) then 100% else 30%' },
    parameters: [CUE],
    result: TRUTH,
  },
  {
    at: call => m => {
      const t = call.beat.seconds(m)
      const mark = call.cue.latest(t)
      return mark && compare(minus(t, mark.at), over(ONE, call.frameRate)) < 0 ? 1 : 0
    },
    kernel: call => {
      // Within a frame of a mark another was the latest a frame ago.
      const [marks, before] = [
        marksOn(call),
        marksOn(call, uniform(negate(over(ONE, call.first.frameRate)), call.lanes)),
      ]
      const [nth, then] = scratch(2, call.lanes)
      return (
        marks &&
        before &&
        moving((now, from, count, out) => {
          before.latest(now, from, count, then, out)
          marks.latest(now, from, count, nth, out)
          for (let i = 0; i < count; i++) out[i] = nth[i] !== then[i] ? 1 : 0
        })
      )
    },
  },
  {
    bounds: () => union(point(0), point(1)),
    repeats: call => afterMarks(call, call.cue, ZERO, over(ONE, call.frameRate)),
    bends: call => marksBends(call, call.cue, toNumber(over(ONE, call.frameRate))),
  },
)

export const count = entry(
  {
    name: 'count',
    group: 'source',
    description: 'How many marks of a cue there have been so far.',
    example: { part: 'Lantern', property: 'rotation', text: 'count(blow) * 30deg' },
    parameters: [CUE],
    result: PLAIN,
  },
  {
    at: call => m => marksSoFar(call, m),
    kernel: ofLatest(() => nth => nth + 1),
    exactly: call => m => rational(marksSoFar(call, m)),
  },
  {
    bounds: call => interval(0, call.cue.every ? Infinity : call.cue.seconds.length),
    repeats: call => {
      const { seconds, every } = call.cue
      const played = afterMarks(call, call.cue, ZERO, ZERO)
      if (!every || !played.every || isZero(played.every)) return played
      return { ...played, gain: over(rational(seconds.length), played.every) }
    },
    slope: () => point(0),
    bends: call => marksBends(call, call.cue),
  },
)

const marksSoFar = (call: CallOnCue, m: Moment): number => {
  const mark = call.cue.latest(call.beat.seconds(m))
  return mark ? mark.nth + 1 : 0
}

export const until = entry(
  {
    name: 'until',
    group: 'source',
    description: 'Seconds until the next mark of a cue; below 0 after the last one.',
    example: { part: 'Lantern', property: 'opacity', text: 'smoothstep(2s, 0s, until(blow))' },
    parameters: [CUE],
    result: TIME,
  },
  {
    at: call => m => (call.cue.none ? Infinity : toNumber(untilMark(call, m))),
    kernel: ofLatest(({ every, seconds }) => {
      const last = every ? Infinity : seconds.length - 1
      return (nth, _, ago) => 0 - ago(Math.min(nth + 1, last))
    }),
    exactly: call => (call.cue.none ? null : m => untilMark(call, m)),
  },
  {
    finite: call => !call.cue.none,
    bounds: () => interval(-Infinity, Infinity),
    repeats: call => {
      const played = afterMarks(call, call.cue, ZERO, ZERO)
      return call.cue.every || !call.beat.steady || call.cue.none
        ? played
        : { ...played, gain: negate(call.beat.steady.rate) }
    },
    bends: call => joined(call.beat.bends, marksBends(call, call.cue)),
  },
)

/** Seconds until the next mark; after the last, until that one. */
function untilMark(call: CallOnCue, m: Moment): Rational {
  const t = call.beat.seconds(m)
  const latest = call.cue.latest(t)
  const next = latest ? call.cue.after(latest) : null
  return minus(next?.at ?? (latest ? call.cue.last! : call.cue.first!), t)
}
