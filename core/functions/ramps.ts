/** Ramps: from one value to another. */
import { EASING_NAMES } from '../signal/easing.ts'
import { ALL, interval, minus, plus, times, union } from '../facts/interval.ts'
import { joined } from '../facts/bends.ts'
import { NEVER, everySeconds, onlyFrom, together, type Repeats } from '../facts/repeats.ts'
import { moving, pointwise, scratch } from '../columns/column.ts'
import { negatedLanes, overLanes, plusLanes, signsOf, timesLanes, uniform } from '../columns/fractions.ts'
import { constantOf } from '../form/compiled-expression.ts'
import type { Moment } from '../time/moment.ts'
import {
  ONE,
  ZERO,
  compare,
  isZero,
  minus as less,
  floor,
  fraction,
  negate,
  over as divided,
  plus as and,
  rational,
  times as by,
  toNumber,
  type Rational,
} from '../time/rational.ts'
import { PLAIN, TIME } from '../units/kinds.ts'
import { boundsOf, bendsOfArgs, leapsOfArgs, repeatsOfArgs, withoutArguments, type CallWith } from './prepared-call.ts'
import { entry } from './entry.ts'
import { parameter } from './parameter.ts'

export const EASE = parameter({
  name: 'ease',
  description: 'the curve it follows',
  kind: PLAIN,
  words: () => EASING_NAMES,
  easing: true,
})

const TIMING = ['start', 'length', 'end'] as const

export const ramp = entry(
  {
    name: 'ramp',
    group: 'source',
    description: 'Goes from one value to another over a length of time and then holds, starts again, or comes back.',
    example: { part: 'Lantern', property: 'opacity', text: 'ramp(start: 1s, length: 3s, ease: cubicOut)' },
    parameters: [
      { name: 'start', description: 'when it starts', kind: TIME, initial: 0, steady: true },
      { name: 'length', description: 'how long it takes', kind: TIME, required: true, positive: true, steady: true },
      { name: 'from', description: 'the value before', kind: 'result', initial: 0, valuePlace: true },
      { name: 'to', description: 'the value after', kind: 'result', initial: 1, valuePlace: true },
      EASE,
      { name: 'after', description: 'what happens afterwards', kind: PLAIN, words: () => ['hold', 'repeat', 'mirror'] },
      { name: 'end', description: 'when it arrives, instead of its length', kind: TIME, required: true, steady: true },
    ],
    alternatives: [[['length'], ['end']]],
    result: 'result',
  },
  {
    at: call => {
      const { from, to } = call.args
      const share = rampShare(call)
      const { ease } = call.easing('ease')
      return m => {
        const a = from.at(m)
        return a + (to.at(m) - a) * ease(share(m))
      }
    },
    kernel: call => {
      const { start, from, to } = call.args
      const end = call.first.given.has('end')
      const [s, e] = [call.constant('start'), call.constant(end ? 'end' : 'length')]
      const length = s && e && (end ? plusLanes(e, negatedLanes(s)) : e)
      if (!start || !length || signsOf(length).some(x => x <= 0)) return null
      const rate = overLanes(uniform(ONE, call.lanes), length)
      const base = rate && timesLanes(negatedLanes(s), rate)
      const read = base && call.steady(rate, base)
      if (!read) return null
      const after = call.first.words.after?.name ?? 'hold'
      const { ease } = call.first.easing('ease')
      const [whole] = scratch(1, call.lanes)
      const share = moving((now, first, n, out) => {
        read.split(now.moment, first, n, out, whole)
        for (let i = 0; i < n; i++) out[i] = ease(shareIn(after, whole[i]!, out[i]!))
      })
      return pointwise([from, to, share], call.lanes, (a, b, x) => a + (b - a) * x)
    },
    exactly: call => {
      const read = along(call)
      const { from, to } = call.args
      if (!read || !from.exactly || !to.exactly || (call.words.ease?.name ?? 'linear').toLowerCase() !== 'linear')
        return null
      return m => {
        const [a, b] = [from.exactly!(m), to.exactly!(m)]
        return a && b && and(a, by(less(b, a), shareOf(call, read.exactAt(m))))
      }
    },
  },
  {
    bounds: call => {
      const { low, high } = call.easing('ease')
      const [a, b] = [boundsOf(call, 'from'), boundsOf(call, 'to')]
      // Between two constants it is monotone in its share, roundings too, and ends exactly at both.
      const plain = low === 0 && high === 1 && a.low === a.high && b.low === b.high
      if (plain && a.low + (b.low - a.low) === b.low) return union(a, b)
      const span = minus(boundsOf(call, 'to'), boundsOf(call, 'from'))
      return plus(boundsOf(call, 'from'), times(span, interval(low, high)))
    },
    repeats: call => {
      const after = call.words.after?.name ?? 'hold'
      const read = along(call)
      const rest = repeatsOfArgs(withoutArguments(call, ...TIMING))
      if (!read) return NEVER
      if (after === 'hold') return together([read.between(ZERO, ONE), rest])
      // Before its start it rests: it comes back only from there on.
      const start = read.affine && read.affine.rate.n > 0n ? divided(negate(read.affine.base), read.affine.rate) : null
      const round = after === 'mirror' ? doubled(read.cyclic) : read.cyclic
      if (read.affine && !start) return NEVER
      // On a clock that grows by steps, from when that has reached the start.
      const { gain, every } = call.beat.repeats
      if (!read.affine && !isZero(gain)) {
        if (gain.n < 0n || !every) return NEVER
        const begun = and(divided(constantOf(call.args.start) ?? ZERO, gain), every)
        return onlyFrom(together([round, rest]), begun)
      }
      return onlyFrom(together([round, rest]), start)
    },
    slope: call => {
      const read = along(call)
      const [a, b] = [boundsOf(call, 'from'), boundsOf(call, 'to')]
      const still = [call.args.from, call.args.to].every(f => constantOf(f))
      if (!read?.affine || !still || (call.words.ease?.name ?? 'linear').toLowerCase() !== 'linear') return ALL
      const pace = Math.abs(toNumber(read.affine.rate)) * Math.max(Math.abs(b.high - a.low), Math.abs(b.low - a.high))
      return interval(-pace, pace)
    },
    leaps: call => {
      const rest = joined(leapsOfArgs(withoutArguments(call, ...TIMING)), call.beat.bends)
      const read = along(call)
      return read && call.words.after?.name === 'repeat' ? joined(rest, read.passing(0)) : rest
    },
    bends: call => {
      const rest = bendsOfArgs(withoutArguments(call, ...TIMING))
      const read = along(call)
      if (!read) return rest
      const knots = [0, ...call.easing('ease').knots, 1]
      const after = call.words.after?.name ?? 'hold'
      if (after === 'hold') return joined(rest, read.reaching(...knots))
      return joined(
        rest,
        read.reaching(0),
        read.passing(...knots, ...(after === 'mirror' ? knots.map(k => 1 - k) : [])),
      )
    },
  },
)

/** The share of a ramp that has gone by, from how many ramps have. */
function shareOf(call: Timed, ramps: Rational): Rational {
  const after = call.words.after?.name ?? 'hold'
  if (compare(ramps, ZERO) <= 0) return ZERO
  if (after === 'hold') return compare(ramps, ONE) < 0 ? ramps : ONE
  const part = fraction(ramps)
  return after === 'repeat' || floor(ramps) % 2n === 0n ? part : less(ONE, part)
}

const doubled = (r: Repeats): Repeats => (r.every && !isZero(r.every) ? everySeconds(by(r.every, rational(2))) : r)

type Timed = CallWith<'start', 'length' | 'end'>

/** How far along the ramp the time is, in ramps; null when its length is not more than 0. */
function along(call: Timed) {
  const start = constantOf(call.args.start)
  const [until, lasting] = [call.args.end, call.args.length]
  const end = until && constantOf(until)
  const length = until ? start && end && less(end, start) : lasting && constantOf(lasting)
  if (!start || !length || compare(length, ZERO) <= 0) return null
  return call.read({ rate: divided(ONE, length), base: negate(divided(start, length)) })
}

function rampShare(call: Timed): (m: Moment) => number {
  const read = along(call)
  if (!read) return () => NaN
  const after = call.words.after?.name ?? 'hold'
  return m => {
    const { whole, part } = read.splitAt(m)
    return shareIn(after, whole, part)
  }
}

/** The share of a ramp that has gone by. Before its start it holds what it sets off from, whatever comes after. */
function shareIn(after: string, whole: number, part: number): number {
  if (whole < 0) return 0
  if (after === 'hold') return whole >= 1 ? 1 : part
  return after === 'repeat' || whole % 2 === 0 ? part : 1 - part
}
