/** From nothing to all: a step, a soft step, and a share bent along an easing. */
import { ALL, interval, meet, minus, over as quotient, plus, point, times, union } from '../facts/interval.ts'
import { columnwise, pointwise } from '../columns/column.ts'
import { joined, type Bends, passing as passingRanges } from '../facts/bends.ts'
import { EASING_NAMES } from '../signal/easing.ts'
import { bends, bySecond, constantOf, hardlyApart, isNear } from '../form/compiled-expression.ts'
import { crossings } from '../form/operators.ts'
import { AffineReader, add, opposite } from '../time/affine.ts'
import {
  ONE,
  ZERO,
  compare,
  minus as less,
  over,
  rational,
  times as by,
  toNumber,
  type Rational,
} from '../time/rational.ts'
import { PLAIN } from '../units/kinds.ts'
import { type CallWith, boundsOf, folding, leapsOfArgs, settledBetween, slopeOf } from './prepared-call.ts'
import { entry } from './entry.ts'

/** Where x passes one of two ends. */
export const passingEnds = <N extends string>(call: CallWith<N>, x: N, low: N, high: N): Bends => {
  const { [x]: v, [low]: l, [high]: h } = call.args
  return joined(crossings(v, l, call.frameRate), crossings(v, h, call.frameRate), bends(v), bends(l), bends(h))
}

const soft = (s: number): number => (s <= 0 ? 0 : s >= 1 ? 1 : s * s * (3 - 2 * s))

const softly = (l: number, h: number, v: number): number => (l === h ? (v < l ? 0 : 1) : soft((v - l) / (h - l)))

export const smoothstep = entry(
  {
    name: 'smoothstep',
    group: 'shape',
    description: 'Goes smoothly from 0 to 1 while x goes from low to high.',
    example: { part: 'Carousel', property: 'opacity', text: 'smoothstep(1s, 4s, time)' },
    parameters: [
      { name: 'low', description: 'where it is still 0', kind: 'other', required: true },
      { name: 'high', description: 'where it is 1', kind: 'other', required: true },
      { name: 'x', description: 'the value', kind: 'other', required: true },
    ],
    result: PLAIN,
  },
  {
    at: call => {
      const { low, high, x } = call.args
      return m => softly(low.at(m), high.at(m), x.at(m))
    },
    kernel: ({ args, lanes }) =>
      columnwise([args.low, args.high, args.x], lanes, ([low, high, x], count, out) => {
        for (let i = 0; i < count; i++) out[i] = softly(low[i]!, high[i]!, x[i]!)
      }),
    fold: call =>
      folding(call, ['low', 'high', 'x'], (l, h, x) => {
        if (compare(l, h) === 0) return compare(x, l) < 0 ? ZERO : ONE
        const share = within1(over(less(x, l), less(h, l)))
        return by(by(share, share), less(rational(3), by(rational(2), share)))
      }),
  },
  {
    bounds: call => {
      const [l, h, x] = ['low', 'high', 'x'].map(n => boundsOf(call, n))
      if (!(l!.high < h!.low)) return interval(0, 1)
      const share = quotient(minus(x!, l!), minus(h!, l!))
      // It never falls; its last bits may.
      return meet(plus(interval(soft(share.low), soft(share.high)), interval(-1e-15, 1e-15)), 0, 1)
    },
    repeats: call => settledBetween(call, 'x', 'low', 'high'),
    slope: call => {
      const [l, h] = [constantOf(call.args.low), constantOf(call.args.high)]
      if (!l || !h || compare(l, h) === 0) return ALL
      return union(point(0), times(slopeOf(call, 'x'), point(toNumber(over(rational(3, 2), less(h, l))))))
    },
    leaps: leapsOfArgs,
    bends: call => passingEnds(call, 'x', 'low', 'high'),
  },
)

export const within1 = (share: Rational): Rational =>
  compare(share, ZERO) < 0 ? ZERO : compare(share, ONE) > 0 ? ONE : share

export const step = entry(
  {
    name: 'step',
    group: 'shape',
    description: '0 while x is below the edge, 1 from there on.',
    example: { part: 'Carousel', property: 'opacity', text: 'step(3s, time)' },
    parameters: [
      { name: 'edge', description: 'where it becomes 1', kind: 'other', required: true },
      { name: 'x', description: 'the value', kind: 'other', required: true },
    ],
    result: PLAIN,
  },
  {
    at: call => {
      const { edge, x } = call.args
      const difference = x.exact && edge.exact && add(x.exact, opposite(edge.exact))
      if (!difference) {
        return m => {
          const [v, e] = [x.at(m), edge.at(m)]
          const surely = hardlyApart(v, e, m) ? call.exactly?.(m) : null
          return surely ? Number(surely.n) : v >= e ? 1 : 0
        }
      }
      const reader = new AffineReader(difference, call.frameRate)
      return m => (reader.signAt(m) >= 0 ? 1 : 0)
    },
    kernel: ({ args, lanes }) =>
      pointwise([args.x, args.edge], lanes, (v, e, t) => (isNear(v, e, t) ? NaN : v >= e ? 1 : 0)),
    fold: call => folding(call, ['edge', 'x'], (e, x) => (compare(x, e) < 0 ? ZERO : ONE)),
  },
  {
    bounds: call => {
      const [edge, x] = [boundsOf(call, 'edge'), boundsOf(call, 'x')]
      return x.low >= edge.high ? point(1) : x.high < edge.low ? point(0) : interval(0, 1)
    },
    slope: () => point(0),
    bends: call => crossings(call.args.x, call.args.edge, call.frameRate),
    repeats: call => settledBetween(call, 'x', 'edge', 'edge'),
  },
)

export const ease = entry(
  {
    name: 'ease',
    group: 'shape',
    description: 'Eases a value from 0 to 1 along a curve; below 0 and above 1 it holds.',
    example: { part: 'Carousel', property: 'scale', text: 'ease(lapProgress, elasticOut(1.2))' },
    parameters: [
      { name: 'x', description: 'the share, 0 to 1', kind: PLAIN, required: true },
      {
        name: 'curve',
        description: 'the easing',
        kind: PLAIN,
        words: () => EASING_NAMES,
        easing: true,
        required: true,
      },
    ],
    result: PLAIN,
  },
  {
    at: call => {
      const { x } = call.args
      const bend = call.easing('curve').ease
      return m => {
        const v = x.at(m)
        return bend(v < 0 ? 0 : v > 1 ? 1 : v)
      }
    },
    kernel: ({ args, first, lanes }) => {
      const bend = first.easing('curve').ease
      return pointwise([args.x], lanes, v => bend(v < 0 ? 0 : v > 1 ? 1 : v))
    },
  },
  {
    bounds: call => {
      const { low, high } = call.easing('curve')
      return interval(low, high)
    },
    leaps: leapsOfArgs,
    bends: call => {
      const { knots } = call.easing('curve')
      const x = call.args.x
      const all = [0, ...knots, 1]
      return passingRanges(bySecond(x, call.frameRate), bends(x), v => all.filter(k => k <= v).length)
    },
  },
)
