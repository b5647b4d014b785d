/** A value kept between two ends: beyond them it begins again, or turns back. */
import { pointwise } from '../columns/column.ts'
import { cyclic, stepBends, stepLanes, unsure, type Steps } from './whole-steps.ts'
import { ALL, interval, isBounded, minus, plus, point, times, union, type Interval } from '../facts/interval.ts'
import { together, type Repeats } from '../facts/repeats.ts'
import { constantOf } from '../form/compiled-expression.ts'
import { AffineReader, add, constant, scale, type Split } from '../time/affine.ts'
import type { Moment } from '../time/moment.ts'
import {
  ONE,
  compare,
  floor as floorOf,
  fraction,
  minus as less,
  negate,
  over,
  plus as and,
  rational,
  times as by,
  toNumber,
} from '../time/rational.ts'
import { boundsOf, folding, leapsOfArgs, slopeOf, type CallWith } from './prepared-call.ts'
import { entry } from './entry.ts'
import { parameter } from './parameter.ts'

const X = parameter({ name: 'x', description: 'the value', kind: 'result', required: true, valuePlace: true })
const ENDS = [
  parameter({ name: 'low', description: 'the low end', kind: 'result', required: true, valuePlace: true }),
  parameter({ name: 'high', description: 'the high end', kind: 'result', required: true, valuePlace: true }),
] as const

type Ranged = CallWith<'x' | 'low' | 'high'>

/** x in lengths of the range between two ends. */
function inRange(call: Ranged): Steps {
  const { x, low, high } = call.args
  const [l, h] = [constantOf(low), constantOf(high)]
  if (x.exact && l && h && compare(h, l) !== 0) {
    const affine = scale(add(x.exact, constant(negate(l))) ?? x.exact, over(ONE, less(h, l)))
    if (affine) {
      const reader = new AffineReader(affine, call.frameRate)
      const size = toNumber(less(h, l))
      return { at: m => reader.splitAt(m), affine, size: () => size, sure: true }
    }
  }
  const out: Split = { whole: 0, part: 0 }
  const at = (m: Moment): Split => {
    const from = low.at(m)
    const v = (x.at(m) - from) / (high.at(m) - from)
    out.whole = Math.floor(v)
    out.part = v - out.whole
    return out
  }
  return { at, affine: null, size: m => high.at(m) - low.at(m), sure: false }
}

/** How far into the range. */
const along = (_: number, part: number, size: number): number => part * size
const thereAndBack = (whole: number, part: number, size: number): number => (whole % 2 === 0 ? part : 1 - part) * size

const endsRepeats = ({ args: { low, high } }: Ranged): Repeats[] => [low.facts().repeats, high.facts().repeats]

/** Bounds between both ends. */
function endBounds(call: Ranged): Interval {
  const both = union(boundsOf(call, 'low'), boundsOf(call, 'high'))
  const size = minus(point(both.high), point(both.low))
  return isBounded(both) ? plus(both, times(size, interval(-1e-15, 1e-15))) : both
}
const apart = (a: Interval, b: Interval): boolean => a.high < b.low || a.low > b.high
/** What both know of their values. */
const BETWEEN_ENDS = {
  finite: (call: Ranged) => apart(boundsOf(call, 'low'), boundsOf(call, 'high')),
  bounds: endBounds,
  bends: (call: Ranged) => stepBends(call, inRange(call), [call.args.low, call.args.high]),
}

export const wrap = entry(
  {
    name: 'wrap',
    group: 'shape',
    description: 'Keeps a value within a range: beyond the high end it starts again at the low end.',
    example: { part: 'Mount', property: 'x', text: 'wrap(time * 40px/s, -100px, 100px)' },
    parameters: [X, ...ENDS],
    result: 'result',
  },
  {
    at: call => {
      const s = inRange(call)
      const { low } = call.args
      return m => {
        const at = s.at(m)
        const surely = unsure(s, at, 0, m) ? call.exactly?.(m) : null
        return surely ? toNumber(surely) : low.at(m) + at.part * s.size(m)
      }
    },
    kernel: call => {
      const part = stepLanes(call, ['', 'low', 'high'], 0, { sure: along, unsure: along })
      return part && pointwise([call.args.low, part], call.lanes, (l, p) => l + p)
    },
    fold: call =>
      folding(call, ['x', 'low', 'high'], (x, l, h) =>
        compare(l, h) === 0 ? null : and(l, by(fraction(over(less(x, l), less(h, l))), less(h, l))),
      ),
  },
  {
    slope: call => (constantOf(call.args.low) && constantOf(call.args.high) ? slopeOf(call, 'x') : ALL),
    ...BETWEEN_ENDS,
    repeats: call => together([cyclic(call, inRange(call)), ...endsRepeats(call)]),
  },
)

export const mirror = entry(
  {
    name: 'mirror',
    group: 'shape',
    description: 'Keeps a value within a range: it turns back at both ends.',
    example: { part: 'Mount', property: 'x', text: 'mirror(time * 40px/s, -100px, 100px)' },
    parameters: [X, ...ENDS],
    result: 'result',
  },
  {
    at: call => {
      const s = inRange(call)
      const { low } = call.args
      return m => {
        const { whole, part } = s.at(m)
        return low.at(m) + (whole % 2 === 0 ? part : 1 - part) * s.size(m)
      }
    },
    kernel: call => {
      const part = stepLanes(call, ['', 'low', 'high'], null, { sure: thereAndBack, unsure: thereAndBack })
      return part && pointwise([call.args.low, part], call.lanes, (l, p) => l + p)
    },
    fold: call =>
      folding(call, ['x', 'low', 'high'], (x, l, h) => {
        if (compare(l, h) === 0) return null
        const ranges = over(less(x, l), less(h, l))
        const part = fraction(ranges)
        return and(l, by(floorOf(ranges) % 2n === 0n ? part : less(ONE, part), less(h, l)))
      }),
  },
  {
    ...BETWEEN_ENDS,
    leaps: leapsOfArgs,
    slope: call => {
      const x = slopeOf(call, 'x')
      return constantOf(call.args.low) && constantOf(call.args.high) ? union(x, times(x, point(-1))) : ALL
    },
    repeats: call => together([cyclic(call, inRange(call), rational(2)), ...endsRepeats(call)]),
  },
)
