/** Whole steps: round, floor, ceil, fract, mod, wrap, mirror. What grows steadily is cut exactly. */
import { cyclic, stepLanes, steps, stepBends, stepping, unsure } from './whole-steps.ts'
import { ALL, interval, isBounded, plus, point, times, union, type Interval } from '../facts/interval.ts'
import { constantOf } from '../form/compiled-expression.ts'
import {
  ONE,
  ZERO,
  absolute,
  commonMeasure,
  floor as floorOf,
  fraction,
  isWhole,
  isZero,
  minus as less,
  over,
  plus as and,
  rational,
  times as by,
  toNumber,
  type Rational,
} from '../time/rational.ts'
import { boundsOf, never0, slopeOf, type CallWith } from './prepared-call.ts'
import { type Entry, entry } from './entry.ts'
import { parameter } from './parameter.ts'

const X = parameter({ name: 'x', description: 'the value', kind: 'result', required: true, valuePlace: true })
const BY = parameter({
  name: 'by',
  description: 'the number to divide by',
  kind: 'result',
  required: true,
  valuePlace: true,
})
const TO = parameter({ name: 'to', description: 'the step', kind: 'result', valuePlace: true })

interface Cut {
  readonly name: string
  readonly description: string
  readonly example: string
  /** Whole steps of a split. */
  readonly cut: (whole: number, part: number) => number
  readonly exact: (steps: Rational) => Rational
  /** How far from the value it may be, in steps. */
  readonly off: Interval
  /** Steps before a whole one at which it leaps. */
  readonly ahead: Rational
}

function cutting({ name, description, example, cut, exact, off, ahead }: Cut): Entry {
  const read = (call: CallWith<'x', 'to'>) => steps(call.args.x, call.args.to, undefined, call.frameRate)
  return entry(
    {
      name,
      group: 'shape',
      description,
      example: { part: 'Carousel', property: 'rotation', text: example },
      parameters: [X, TO],
      result: 'result',
      plainUnless: 'to',
    },
    {
      at: call => {
        const s = read(call)
        const half = toNumber(ahead)
        return m => {
          const at = s.at(m)
          const surely = unsure(s, at, half, m) ? call.exactly?.(m) : null
          return surely ? toNumber(surely) : cut(at.whole, at.part) * s.size(m)
        }
      },
      kernel: call => {
        const all = (whole: number, part: number, size: number) => cut(whole, part) * size
        return stepLanes(call, ['to'], toNumber(ahead), { sure: all, unsure: all })
      },
      fold: call => {
        const of = (x: Rational, to: Rational = ONE) => (isZero(to) ? null : by(exact(over(x, to)), to))
        const { x, to } = call.args
        return { of: to ? [x, to] : [x], by: of }
      },
    },
    {
      grid: call => (call.args.to ? constantOf(call.args.to) : ONE),
      slope: call => (!call.args.to || constantOf(call.args.to) ? point(0) : ALL),
      finite: call => !call.args.to || never0(call.args.to),
      bounds: call => {
        const x = boundsOf(call, 'x')
        const size = call.args.to ? call.args.to.facts().bounds : point(1)
        if (!call.args.to && isBounded(x))
          return interval(
            cut(Math.floor(x.low), x.low - Math.floor(x.low)),
            cut(Math.floor(x.high), x.high - Math.floor(x.high)),
          )
        const slack = times(size, off)
        return isBounded(slack) ? plus(x, union(slack, times(slack, point(-1)))) : ALL
      },
      repeats: call => stepping(call, read(call)),
      bends: call => stepBends(call, read(call), [call.args.to], toNumber(ahead)),
    },
  )
}

export const round = cutting({
  name: 'round',
  description: 'The nearest whole number, or the nearest multiple of `to`; halves go up.',
  example: 'round(time * 45deg/s, to: 15deg)',
  cut: (whole, part) => (part >= 0.5 ? whole + 1 : whole),
  exact: s => rational(floorOf(and(s, rational(1, 2)))),
  off: interval(-0.5, 0.5),
  ahead: rational(1, 2),
})
export const floor = cutting({
  name: 'floor',
  description: 'The whole number below, or the multiple of `to` below.',
  example: 'floor(time * 45deg/s, to: 30deg)',
  cut: whole => whole,
  exact: s => rational(floorOf(s)),
  off: interval(-1, 0),
  ahead: ZERO,
})
export const ceil = cutting({
  name: 'ceil',
  description: 'The whole number above, or the multiple of `to` above.',
  example: 'ceil(time * 45deg/s, to: 30deg)',
  cut: (whole, part) => (part > 0 ? whole + 1 : whole),
  exact: s => rational(isWhole(s) ? s.n : floorOf(s) + 1n),
  off: interval(0, 1),
  ahead: ZERO,
})

/** What is left of doubles, exactly (the remainder of doubles is one), counted from below. */
function remainder(x: number, size: number): number {
  const rest = x % size
  return rest !== 0 && rest < 0 !== size < 0 ? rest + size : rest
}

type Remaining = CallWith<'x', 'to' | 'by'>

/** What is left of a value after whole steps. */
function leftOver(name: 'fract' | 'mod', description: string, example: string, size: 'to' | 'by'): Entry {
  const read = (call: Remaining) => steps(call.args.x, call.args[size], undefined, call.frameRate)
  return entry(
    {
      name,
      group: 'shape',
      description,
      example: { part: 'Carousel', property: 'rotation', text: example },
      parameters: [X, name === 'fract' ? TO : BY],
      result: 'result',
      ...(name === 'fract' ? { plainUnless: 'to' } : {}),
    },
    {
      at: call => {
        const s = read(call)
        const { x } = call.args
        return m => {
          const at = s.at(m)
          const surely = unsure(s, at, 0, m) ? call.exactly?.(m) : null
          if (surely) return toNumber(surely)
          return s.sure ? at.part * s.size(m) : remainder(x.at(m), s.size(m))
        }
      },
      kernel: call =>
        stepLanes(call, [size], 0, {
          sure: (_, part, size) => part * size,
          unsure: (_, part, size, x) => remainder(x, size),
        }),
      fold: (call: Remaining) => {
        const of = (x: Rational, to: Rational = ONE) => (isZero(to) ? null : by(fraction(over(x, to)), to))
        const { x, [size]: to } = call.args
        return { of: to ? [x, to] : [x], by: of }
      },
    },
    {
      finite: ({ args: { [size]: to } }: Remaining) => !to || never0(to),
      grid: (call: Remaining) => {
        const { x } = call.args
        const to = call.args[size] ? constantOf(call.args[size]) : ONE
        return x.grid && to && !isZero(to) ? (isZero(x.grid) ? to : commonMeasure(x.grid, to)) : null
      },
      slope: (call: Remaining) => (!call.args[size] || constantOf(call.args[size]) ? slopeOf(call, 'x') : ALL),
      bounds: (call: Remaining) => {
        const to = call.args[size] ? constantOf(call.args[size]) : ONE
        const { grid } = call.args.x
        // Whole steps within a whole size stop one short of it.
        if (grid && !isZero(grid) && to && to.n > 0n && isWhole(over(to, grid)))
          return interval(0, toNumber(less(to, absolute(grid))))
        return call.args[size] ? union(point(0), call.args[size].facts().bounds) : interval(0, 1)
      },
      repeats: call => cyclic(call, read(call)),
      bends: (call: Remaining) => stepBends(call, read(call), [call.args[size]]),
    },
  )
}
export const fract = leftOver(
  'fract',
  'The part after the whole number, or after whole multiples of `to`: never below 0.',
  'fract(time / 4s) * 90deg',
  'to',
)
export const mod = leftOver(
  'mod',
  'The remainder of x after whole multiples of `by`; it continues evenly below 0.',
  'mod(time * 45deg/s, 90deg)',
  'by',
)
