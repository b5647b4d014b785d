/** Sums over time: the average of a value, and a rate added up. */
import { mayLeap } from './time.ts'
import { costOf, costSummed } from '../facts/cost.ts'
import { ALL, interval, plus, point, times, union, type Interval } from '../facts/interval.ts'
import { SMOOTH, joined, later } from '../facts/bends.ts'
import { NEVER, delayed, plus as grown } from '../facts/repeats.ts'
import { bends, constantOf } from '../form/compiled-expression.ts'
import { Cells } from '../form/cells.ts'
import { integralBetween } from '../form/integral.ts'
import { ONE, ZERO, isZero, minus, over, plus as and, rational, times as by, toNumber } from '../time/rational.ts'
import { TIME } from '../units/kinds.ts'
import {
  bendsOfArgs,
  boundsElsewhere,
  boundsOf,
  leapsOfArgs,
  marksBends,
  slopeOf,
  withoutArguments,
  type CallWith,
} from './prepared-call.ts'
import { entry } from './entry.ts'
import { parameter } from './parameter.ts'

const X = parameter({ name: 'x', description: 'any formula', kind: 'result', required: true, valuePlace: true })

/** Readings that an average takes, as a figure of its cost. */
const READINGS = 30

export const average = entry(
  {
    name: 'average',
    group: 'time',
    description: 'The average of any formula over the time just passed, which smooths it.',
    example: { part: 'Dynamo needle', property: 'rotation', text: 'average(random(-30deg, 30deg, 8Hz), 0.5s)' },
    parameters: [
      X,
      {
        name: 'over',
        description: 'the length of time to average',
        kind: TIME,
        required: true,
        positive: true,
        steady: true,
      },
    ],
    result: 'result',
  },
  {
    at: call => {
      const x = call.args.x
      const length = constantOf(call.args.over) ?? ONE
      // What grows is taken off first, so that nothing large is lost in differences.
      const between = integralBetween({ ...x, integral: null }, call.frameRate, call.queue)
      const seconds = toNumber(length)
      let range: Interval | undefined
      return m => {
        const to = m.exactSeconds
        const mean = between(minus(to, length), to) / seconds
        // An average never leaves the range of what it is of; its last bits may.
        range ??= boundsElsewhere(call, 'x')
        return mean < range.low ? range.low : mean > range.high ? range.high : mean
      }
    },
    exact: call => {
      const { exact } = call.args.x
      const length = constantOf(call.args.over)
      return exact && length
        ? { rate: exact.rate, base: minus(exact.base, by(exact.rate, by(length, rational(1, 2)))) }
        : null
    },
  },
  {
    bounds: call => {
      const b = averageBounds(call)
      return plus(b, times(union(b, point(0)), interval(-1e-12, 1e-12)))
    },
    cost: call => costSummed(2, call.args.x.facts(), READINGS),
    repeats: call => delayed(call.args.x.facts().repeats, constantOf(call.args.over) ?? ZERO),
    slope: call => (mayLeap(call.args.x) ? steepAverage(call) : slopeOf(call, 'x')),
    leaps: () => SMOOTH,
    // It has no leaps; it bends where a leap or bend of the value comes in, and where it goes out again.
    bends: call => {
      const x = bends(call.args.x)
      return joined(x, later(x, toNumber(constantOf(call.args.over) ?? ONE)))
    },
    finite: call => call.args.x.facts().finite,
  },
)

/** An average climbs by at most the whole range of the value in its length. */
function steepAverage(call: CallWith<'x' | 'over'>): Interval {
  const { low, high } = boundsElsewhere(call, 'x')
  const length = toNumber(constantOf(call.args.over) ?? ONE)
  return interval(-(high - low) / length, (high - low) / length)
}

/** Operations that adding up a whole period may take, one a moment and second: what takes more is said by its range alone. */
const MOST = 20_000

/** Over whole periods of what comes back an average stands still; else it lies within the value's bounds. */
function averageBounds(call: CallWith<'x' | 'over'>): Interval {
  const x = call.args.x
  const length = constantOf(call.args.over) ?? ONE
  const { repeats, cost } = x.facts()
  const { every, gain, from } = repeats
  const all = boundsElsewhere(call, 'x')
  if (!every || isZero(every) || !isZero(gain) || from) return all
  if (cost.anew * toNumber(every) > MOST) return all
  if (over(length, every).d !== 1n || Cells.lengthFor(x) * 1000 < toNumber(every)) return all
  const mean =
    call.queue.settle(() => integralBetween({ ...x, integral: null }, call.frameRate, call.queue)(ZERO, every)) /
    toNumber(every)
  return Number.isFinite(mean) ? plus(point(mean), interval(-1e-10, 1e-10)) : all
}

export const accumulate = entry(
  {
    name: 'accumulate',
    group: 'time',
    description:
      'A rate added up over time from second 0, also when the rate itself changes; a cue resets it to `from`.',
    example: { part: 'Carousel', property: 'rotation', text: 'accumulate(30deg/s + sine(every: 4s, amp: 20deg/s))' },
    parameters: [
      { name: 'rate', description: 'the rate, per second', kind: 'perSecond', required: true },
      { name: 'from', description: 'the value it starts from', kind: 'result', initial: 0, valuePlace: true },
      { name: 'reset', description: 'a cue that resets it', kind: 'any', thing: 'cue' },
    ],
    result: 'result',
  },
  {
    at: call => {
      const from = call.args.from
      const total = call.accumulation
      const { cue } = call
      if (!cue) return m => from.at(m) + total.form.at(m)
      return m => {
        const mark = cue.latest(call.beat.seconds(m))
        return from.at(m) + total.form.at(m) - (mark ? total.by(mark.at) : 0)
      }
    },
    exact: call => {
      const base = constantOf(call.args.from)
      const total = call.accumulation.form.exact
      return base && total && !call.cue ? { rate: total.rate, base: and(base, total.base) } : null
    },
  },
  {
    bounds: call => {
      const b = boundsOf(call, 'rate')
      return b.low === 0 && b.high === 0 ? boundsOf(call, 'from') : ALL
    },
    cost: call => costOf(1, [call.args.from.facts(), call.accumulation.form.facts()]),
    finite: call => call.accumulation.form.facts().finite,
    slope: call => plus(slopeOf(call, 'from'), call.accumulation.form.facts().slope),
    repeats: call => (call.cue ? NEVER : grown(call.args.from.facts().repeats, call.accumulation.form.facts().repeats)),
    bends: call => {
      const rest = joined(bendsOfArgs(withoutArguments(call, 'rate', 'reset')), call.accumulation.form.facts().bends)
      return call.cue ? joined(rest, marksBends(call, call.cue)) : rest
    },
    leaps: call => {
      const rest = joined(leapsOfArgs(withoutArguments(call, 'rate', 'reset')), call.accumulation.form.facts().leaps)
      return call.cue ? joined(rest, marksBends(call, call.cue)) : rest
    },
  },
)
