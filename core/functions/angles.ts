/** Sine and its kin of angles, and angles of sides. */
import { ALL, interval, isBounded, plus, point, times, union, type Interval } from '../facts/interval.ts'
import { atanTurns, expOf, logOf, power } from '../signal/maths.ts'
import { sineOfPart, sineOfTurns } from '../signal/sine.ts'
import { moving, pointwise, type Column } from '../columns/column.ts'
import { SteadyLanes } from '../columns/steady.ts'
import { SMOOTH, joined, passing, steadily, turning, type Bends } from '../facts/bends.ts'
import { wholeRounds, type Repeats } from '../facts/repeats.ts'
import { bends, bySecond, type CompiledExpression } from '../form/compiled-expression.ts'
import { AffineReader } from '../time/affine.ts'
import type { Moment } from '../time/moment.ts'
import { ONE, ZERO, absolute, fraction, isZero, over, toNumber, type Rational } from '../time/rational.ts'
import { ANGLE, PLAIN } from '../units/kinds.ts'
import { bendsOfArgs, boundsOf, leapsOfArgs, slopeOf, type CallWith } from './prepared-call.ts'
import { type Entry, entry } from './entry.ts'
import { ofOne, ofTwo } from './of-values.ts'
import { parameter } from './parameter.ts'

const ANGLE_X = parameter({ name: 'x', description: 'the angle', kind: ANGLE, required: true })
const PLAIN_X = parameter({ name: 'x', description: 'the value', kind: PLAIN, required: true })
const SIDE = <const N extends string>(name: N, description: string) =>
  parameter({ name, description, kind: 'other', required: true })
/** The last bits of a polynomial or of the machine's own functions. */
const SLACK = 1e-14
/** How far beyond the ends of its range rounding may carry a value. */
const BEYOND = 1e-12

/** Whether a range lies within the ends of what a function takes, as far as rounding goes. */
const isWithin = (x: Interval, low: number, high: number): boolean => x.low >= low - BEYOND && x.high <= high + BEYOND
/** A range cut to the ends of what a function takes. */
const inRange = (x: Interval, low: number, high: number): [number, number] => [
  Math.max(low, x.low),
  Math.min(high, x.high),
]

/** A function of one value that never falls: its bounds are those of its ends. */
function rising(
  name: string,
  description: string,
  example: string,
  of: (x: number) => number,
  result: Entry['result'],
  low = -Infinity,
  high = Infinity,
): Entry {
  return entry(
    {
      name,
      group: result === ANGLE ? 'angle' : 'shape',
      description,
      example: { part: 'Carousel', property: result === ANGLE ? 'rotation' : 'scale', text: example },
      parameters: [PLAIN_X],
      result,
    },
    ofOne('x', of),
    {
      finite: call => {
        const x = boundsOf(call, 'x')
        return isWithin(x, low, high) && inRange(x, low, high).every(end => Number.isFinite(of(end)))
      },
      bounds: call => {
        const x = boundsOf(call, 'x')
        if (!isWithin(x, low, high)) return ALL
        const [a, b] = inRange(x, low, high).map(of) as [number, number]
        return Number.isNaN(a) || Number.isNaN(b)
          ? ALL
          : interval(a - Math.abs(a) * SLACK - 1e-300, b + Math.abs(b) * SLACK + 1e-300)
      },
    },
  )
}

/** The part of a turn an angle stands at: exactly, where it is a fraction, so that a growing angle stays right. */
function partOf(x: CompiledExpression, frameRate: Rational): (m: Moment) => number {
  if (x.exact) {
    const reader = new AffineReader(x.exact, frameRate)
    return m => reader.splitAt(m).part
  }
  return m => {
    const v = x.at(m)
    const exact = Math.abs(v) > FEW_TURNS ? x.exactly?.(m) : null
    return exact ? toNumber(fraction(exact)) : v - Math.floor(v)
  }
}

/** The same on many lanes; far out, where a double has lost its part, it cannot tell. */
function partLanes(x: Column, lanes: number, frameRate: Rational): Column {
  const exact = x.type === 'steady' ? x.lanes : x.type === 'fixed' ? new SteadyLanes(ZERO, x.exact, frameRate) : null
  if (!exact) {
    // What is one for all and grows is split exactly by the plain evaluator alone.
    const few = (v: number): number => (Math.abs(v) > FEW_TURNS ? NaN : v - Math.floor(v))
    return pointwise([x], lanes, x.type === 'one' && x.form.exact ? () => NaN : few)
  }
  return moving((now, from, count, out) => exact.split(now.moment, from, count, out, null))
}

/** Turns up to which a double holds the part of a turn well enough. */
const FEW_TURNS = 64

/** How a function of an angle comes back: with every whole turn. */
function perTurn(call: CallWith<'x'>): Repeats {
  const x = call.args.x.facts().repeats
  if (isZero(x.gain)) return x
  return x.every && isZero(x.every) ? { every: absolute(over(ONE, x.gain)), gain: ZERO, from: x.from } : wholeRounds(x)
}

/** How fast a wave on an angle turns, and where the angle itself bends. */
function turns(call: CallWith<'x'>): Bends {
  const x = call.args.x
  const { low, high } = slopeOf(call, 'x')
  const pace = Math.max(Math.abs(low), Math.abs(high))
  if (x.exact && isZero(x.exact.rate)) return SMOOTH
  return joined(bends(x), turning(Number.isFinite(pace) ? pace : 64))
}

/** @param ahead the part of a turn that is added, so that a cosine is a sine */
function wave(name: string, description: string, example: string, ahead: number): Entry {
  const of = (part: number): number => sineOfPart(part + ahead < 1 ? part + ahead : part + ahead - 1)
  return entry(
    {
      name,
      group: 'angle',
      description,
      example: { part: 'Mount', property: 'x', text: example },
      parameters: [ANGLE_X],
      result: PLAIN,
    },
    {
      at: call => {
        const part = partOf(call.args.x, call.frameRate)
        return m => of(part(m))
      },
      kernel: ({ args, lanes, first }) => {
        const part = partLanes(args.x, lanes, first.frameRate)
        return pointwise([part], lanes, p => of(p))
      },
    },
    {
      bounds: call => sineBounds(boundsOf(call, 'x'), ahead),
      slope: call => times(slopeOf(call, 'x'), interval(-TURN, TURN)),
      repeats: perTurn,
      bends: turns,
      leaps: leapsOfArgs,
    },
  )
}

const TURN = 2 * Math.PI * (1 + 1e-12)

/** The range of a sine over a range of angles: its ends, and ±1 where a crest or trough lies between. */
function sineBounds(x: Interval, ahead: number): Interval {
  const [a, b] = [x.low + ahead, x.high + ahead]
  if (!(b - a < 1) || !isBounded(x)) return interval(-1, 1)
  const passes = (part: number) => Math.floor(b - part) > Math.floor(a - part) || a === part
  const [p, q] = [sineOfTurns(a), sineOfTurns(b)]
  const low = passes(0.75) ? -1 : Math.min(p, q) - 1e-14
  const high = passes(0.25) ? 1 : Math.max(p, q) + 1e-14
  return interval(Math.max(-1, low), Math.min(1, high))
}

export const sin = wave('sin', 'The sine of an angle.', 'sin(time * 90deg/s) * 24px', 0)
export const cos = wave('cos', 'The cosine of an angle.', 'cos(time * 90deg/s) * 24px', 0.25)

export const tan = entry(
  {
    name: 'tan',
    group: 'angle',
    description: 'The tangent of an angle.',
    example: { part: 'Mount', property: 'x', text: 'tan(30deg) * 24px' },
    parameters: [ANGLE_X],
    result: PLAIN,
  },
  {
    at: call => {
      const part = partOf(call.args.x, call.frameRate)
      return m => {
        const p = part(m)
        return sineOfPart(p) / sineOfTurns(p + 0.25)
      }
    },
    kernel: ({ args, lanes, first }) =>
      pointwise([partLanes(args.x, lanes, first.frameRate)], lanes, p => sineOfPart(p) / sineOfTurns(p + 0.25)),
  },
  {
    bounds: call => {
      const { low, high } = boundsOf(call, 'x')
      // Within a quarter turn to either side it never falls.
      if (!(low > -0.2499 && high < 0.2499)) return ALL
      const of = (x: number) => sineOfTurns(x) / sineOfTurns(x + 0.25)
      return interval(of(low) - Math.abs(of(low)) * SLACK, of(high) + Math.abs(of(high)) * SLACK)
    },
    repeats: perTurn,
    finite: call => boundsOf(call, 'x').low > -0.2499 && boundsOf(call, 'x').high < 0.2499,
    // It leaps a quarter turn after each half.
    bends: call => {
      const x = call.args.x
      if (x.exact) return steadily(2 * toNumber(x.exact.rate), 2 * toNumber(x.exact.base), [0.5])
      return passing(bySecond(x, call.frameRate), turns(call), v => Math.floor(2 * v - 0.5))
    },
  },
)

/** The other side of a right triangle over 1; a value a bit beyond 1 by rounding is 1. */
const side = (x: number): number => Math.sqrt(x > 1 && x < 1 + BEYOND ? 0 : x < -1 && x > -1 - BEYOND ? 0 : 1 - x * x)
const asinOf = (x: number): number => atanTurns(x, side(x))
export const asin = rising('asin', 'The angle between −90° and 90° with this sine.', 'asin(0.5)', asinOf, ANGLE, -1, 1)
const acosOf = (x: number): number => atanTurns(side(x), x)
export const acos = entry(
  {
    name: 'acos',
    group: 'angle',
    description: 'The angle between 0° and 180° with this cosine.',
    example: { part: 'Carousel', property: 'rotation', text: 'acos(0.5)' },
    parameters: [PLAIN_X],
    result: ANGLE,
  },
  ofOne('x', acosOf),
  {
    finite: call => isWithin(boundsOf(call, 'x'), -1, 1),
    bounds: call => {
      const x = boundsOf(call, 'x')
      if (!isWithin(x, -1, 1)) return ALL
      // It never rises.
      const [low, high] = inRange(x, -1, 1)
      return interval(acosOf(high) - SLACK, acosOf(low) + SLACK)
    },
  },
)

export const atan2 = entry(
  {
    name: 'atan2',
    group: 'angle',
    description: 'The direction of a point from its y and x: 0 to the right, positive anticlockwise.',
    example: { part: 'Carousel', property: 'rotation', text: 'atan2(flag[0].y, flag[0].x)' },
    parameters: [SIDE('y', 'the height'), SIDE('x', 'the width')],
    result: ANGLE,
  },
  ofTwo('y', 'x', atanTurns),
  {
    bounds: call => {
      const [x, y] = [boundsOf(call, 'x'), boundsOf(call, 'y')]
      if (x.low <= 0) return interval(-0.5, 0.5)
      if (!isBounded(x) || !isBounded(y)) return interval(-0.25, 0.25)
      const corners = [x.low, x.high].flatMap(w => [y.low, y.high].map(h => atanTurns(h, w)))
      return plus(interval(Math.min(...corners), Math.max(...corners)), interval(-1e-15, 1e-15))
    },
    // To the right of the middle it is smooth; behind it, it jumps from half a turn to less.
    bends: call => {
      if (boundsOf(call, 'x').low > 0) return bendsOfArgs(call)
      const { x, y } = call.args
      const [w, h] = [bySecond(x, call.frameRate), bySecond(y, call.frameRate)]
      const side = (v: number) => (v < 0 ? -1 : 1)
      return joined(passing(w, bends(x), side), passing(h, bends(y), side))
    },
  },
)

export const exp = rising('exp', 'e to the power of x: exponential growth.', 'exp(-time / 4s)', expOf, PLAIN)
export const log = rising(
  'log',
  'The natural logarithm: the inverse of exp.',
  'log(1 + abs(time / 1s))',
  logOf,
  PLAIN,
  0,
)

export const sqrt: Entry = rising('sqrt', 'The square root.', 'sqrt(lapProgress)', x => Math.sqrt(x), PLAIN, 0)

export const pow = entry(
  {
    name: 'pow',
    group: 'shape',
    description: 'x to a power; the same as x ^ power.',
    example: { part: 'Carousel', property: 'scale', text: 'pow(lapProgress, 2.5)' },
    parameters: [PLAIN_X, { name: 'power', description: 'the power', kind: PLAIN, required: true }],
    result: PLAIN,
  },
  ofTwo('x', 'power', power),
  { bounds: call => powBounds(call), finite: call => isBounded(powBounds(call)) },
)

function powBounds(call: CallWith<'x' | 'power'>): Interval {
  const [x, n] = [boundsOf(call, 'x'), boundsOf(call, 'power')]
  if (!(x.low >= 0) || !(n.low >= 0) || !isBounded(x) || !isBounded(n)) return ALL
  const corners = [power(x.low, n.low), power(x.low, n.high), power(x.high, n.low), power(x.high, n.high)]
  const b = corners.reduce((b, c) => union(b, point(c)), point(corners[0]!))
  return interval(b.low * (1 - SLACK), b.high * (1 + SLACK))
}

export const hypot = entry(
  {
    name: 'hypot',
    group: 'angle',
    description: 'The distance of a point from the origin, from its x and y.',
    example: { part: 'Mount', property: 'y', text: 'hypot(3px, 4px)' },
    parameters: [
      { name: 'x', description: 'the width', kind: 'result', required: true, valuePlace: true },
      { name: 'y', description: 'the height', kind: 'result', required: true, valuePlace: true },
    ],
    result: 'result',
  },
  ofTwo('x', 'y', (a, b) => Math.sqrt(a * a + b * b)),
  {
    bounds: call => {
      const most = (b: Interval) => Math.max(Math.abs(b.low), Math.abs(b.high))
      const [a, b] = [most(boundsOf(call, 'x')), most(boundsOf(call, 'y'))]
      return { low: 0, high: Math.sqrt(a * a + b * b) * (1 + SLACK) }
    },
  },
)
