/** What moves or gathers time: any formula, later, held, at another moment, its rate, its average, its sum. */
import { costAnew } from '../facts/cost.ts'
import { ALL, interval, isBounded, negative, plus, point, times, union, type Interval } from '../facts/interval.ts'
import { isExact, pointwise } from '../columns/column.ts'
import { uniform } from '../columns/fractions.ts'
import { steadily, SMOOTH, UNKNOWN, joined, later, type Bends } from '../facts/bends.ts'
import { ALWAYS, NEVER, delayed, everySeconds, onlyFrom, stands, together, type Repeats } from '../facts/repeats.ts'
import { bends, constantOf, type CompiledExpression } from '../form/compiled-expression.ts'
import { ofEveryCopy } from '../form/differs-by-copy.ts'
import { momentOfSeconds, type Moment } from '../time/moment.ts'
import {
  ONE,
  ZERO,
  absolute,
  compare,
  floor,
  fromNumber,
  isZero,
  minus,
  negate,
  over,
  plus as and,
  rational,
  times as by,
  toNumber,
  type Rational,
} from '../time/rational.ts'
import { FREQUENCY, TIME } from '../units/kinds.ts'
import { momentBefore, readAtShiftedMoment, momentAtVaryingSecond } from './shifted-moments.ts'
import { boundsElsewhere, repeatsOfArgs, slopeOf, type CallWith } from './prepared-call.ts'
import { entry } from './entry.ts'
import { parameter } from './parameter.ts'

const X = parameter({ name: 'x', description: 'any formula', kind: 'result', required: true, valuePlace: true })

export const delay = entry(
  {
    name: 'delay',
    group: 'time',
    description: 'Any formula, links included, delayed.',
    example: { part: 'Flag', property: 'rotation', text: 'delay(carousel.rotation, 120ms) * 0.8' },
    parameters: [
      { ...X, readAt: 'earlier' },
      { name: 'by', description: 'the delay', kind: TIME, required: true },
    ],
    result: 'result',
  },
  {
    at: call => {
      const { x, by: lag } = call.args
      const fixed = constantOf(lag)
      return readAtShiftedMoment(x, call.queue, m => {
        if (fixed) return momentBefore(m, fixed)
        return momentAtVaryingSecond(-lag.at(m), m, m)
      })
    },
    kernel: ({ constant, elsewhere }) => {
      const lag = constant('by')
      return lag && elsewhere.earlier(lag)
    },
    exact: call => {
      const { exact } = call.args.x
      const lag = constantOf(call.args.by)
      return exact && lag ? { rate: exact.rate, base: minus(exact.base, by(exact.rate, lag)) } : null
    },
    exactly: call => {
      const { x, by: lag } = call.args
      return x.exactly && lag.exactly
        ? m => {
            const seconds = lag.exactly!(m)
            return seconds && x.exactly!(momentBefore(m, seconds))
          }
        : null
    },
  },
  {
    bounds: call => boundsElsewhere(call, 'x'),
    slope: call => (constantOf(call.args.by) ? slopeOf(call, 'x') : ALL),
    cost: call => {
      const lag = constantOf(call.args.by)
      return costAnew(1, call.args.x.facts(), 1, lag && toNumber(lag))
    },
    repeats: call => {
      const { x, by: lag } = call.args
      const fixed = constantOf(lag)
      if (fixed) return delayed(x.facts().repeats, fixed)
      // What comes back only from a moment on does so as much later as it is ever read earlier.
      const { high } = boundsElsewhere(call, 'by')
      const { from } = x.facts().repeats
      if (from && !Number.isFinite(high)) return NEVER
      const late = from && delayed(x.facts().repeats, fromNumber(Math.max(high, 0)))
      const own = lag.facts().repeats
      if (stands(own)) return late ?? x.facts().repeats
      return late ? onlyFrom(repeatsOfArgs(call), late.from) : repeatsOfArgs(call)
    },
    bends: call => {
      const lag = constantOf(call.args.by)
      return lag ? later(bends(call.args.x), toNumber(lag)) : elsewhere(call.args.x, call.args.by)
    },
    leaps: call => {
      const lag = constantOf(call.args.by)
      const x = call.args.x.facts().leaps
      return lag
        ? later(x, toNumber(lag))
        : x === SMOOTH
          ? call.args.by.facts().leaps
          : elsewhere(call.args.x, call.args.by)
    },
  },
)

/** Bends of what is read at moments that vary: not all are known. */
const elsewhere = (x: CompiledExpression, when: CompiledExpression): Bends =>
  constantOf(x) ? bends(when) : joined({ ...UNKNOWN, grain: Math.min(UNKNOWN.grain, bends(x).grain) }, bends(when))

/** The last reading before a moment, of so many a second. */
const heldAt = (m: Moment, rate: Rational): Moment =>
  momentOfSeconds(over(rational(floor(by(m.exactSeconds, rate))), rate), m.rate)

export const hold = entry(
  {
    name: 'hold',
    group: 'time',
    description: 'Any formula, read a fixed number of times per second and held in between.',
    example: { part: 'Dynamo needle', property: 'rotation', text: 'hold(noise(4Hz, 30deg), 10Hz)' },
    parameters: [
      { ...X, readAt: 'anywhere' },
      {
        name: 'rate',
        description: 'how many times per second it’s read',
        kind: FREQUENCY,
        required: true,
        steady: true,
      },
    ],
    result: 'result',
  },
  {
    at: call => {
      const rate = constantOf(call.args.rate)
      if (!rate || compare(rate, ZERO) <= 0) return call.args.x.at
      return readAtShiftedMoment(call.args.x, call.queue, m => heldAt(m, rate))
    },
    kernel: ({ common, elsewhere }) => {
      const rate = common('rate')
      return rate && compare(rate, ZERO) > 0 && elsewhere.at ? elsewhere.at(m => heldAt(m, rate)) : null
    },
    exactly: call => {
      const { x } = call.args
      const rate = constantOf(call.args.rate)
      return x.exactly && rate && compare(rate, ZERO) > 0 ? m => x.exactly!(heldAt(m, rate)) : null
    },
  },
  {
    bounds: call => {
      const all = boundsElsewhere(call, 'x')
      const read = ofEveryCopy(() => readings(call))
      return read ? interval(Math.max(all.low, read.low), Math.min(all.high, read.high)) : all
    },
    cost: call => costAnew(1, call.args.x.facts()),
    repeats: call => {
      const rate = constantOf(call.args.rate)
      const { every, gain, from } = call.args.x.facts().repeats
      if (!rate || isZero(rate) || every === null) return NEVER
      // The first reading after that moment may be a whole step later.
      const late = from && and(from, absolute(over(ONE, rate)))
      const step = everySeconds(absolute(over(ONE, rate)))
      if (isZero(gain)) return onlyFrom(isZero(every) ? ALWAYS : together([step, everySeconds(every)]), late)
      return isZero(every) ? { every: step.every, gain, from: late } : NEVER
    },
    slope: () => point(0),
    bends: call => {
      const rate = constantOf(call.args.rate)
      if (!rate || rate.n <= 0n) return bends(call.args.x)
      // Where a value leaps at moments that are no fractions, a reading may fall on either side.
      const sure = call.args.x.exactly !== null || !mayLeap(call.args.x)
      return { ...steadily(toNumber(rate), 0, [0]), all: sure }
    },
  },
)

/** Readings of a held value that are looked at one by one, at most. */
const MOST_READINGS = 1024

/** Of a value that comes back: the lowest and highest of all the readings it is ever held at; else null. */
function readings(call: CallWith<'x' | 'rate'>): Interval | null {
  const rate = constantOf(call.args.rate)
  const { x } = call.args
  const { every, gain, from } = x.facts().repeats
  // A leap at a moment that is no fraction may fall on either side of a reading, time and again.
  if (!x.exactly && !x.facts().bends.only && x.facts().bends.often > 0) return null
  if (!rate || compare(rate, ZERO) <= 0 || !every || isZero(every) || !isZero(gain) || from) return null
  const round = together([everySeconds(over(ONE, rate)), everySeconds(every)]).every
  const count = round && toNumber(by(round, rate))
  if (!count || count > MOST_READINGS) return null
  let all: Interval | null = null
  for (let k = 0; k < count; k++) {
    const v = point(call.queue.settle(() => x.at(momentOfSeconds(over(rational(k), rate), call.frameRate))))
    if (!isBounded(v)) return null
    all = all ? union(all, v) : v
  }
  // A pace that is added up comes back with other last bits: after a year, of a ten-millionth of a turn.
  const reach = x.facts().bounds
  return all && plus(all, times(plus(union(reach, point(0)), negative(union(reach, point(0)))), interval(-1e-6, 1e-6)))
}

export const at = entry(
  {
    name: 'at',
    group: 'time',
    description: 'Any formula at another moment of the piece.',
    example: { part: 'Carousel', property: 'rotation', text: 'at(noise(1Hz, 20deg), 2s)' },
    parameters: [
      { ...X, readAt: 'anywhere' },
      { name: 'time', description: 'the moment, in seconds of the piece', kind: TIME, required: true },
    ],
    result: 'result',
  },
  {
    at: call => {
      const { x, time } = call.args
      const fixed = constantOf(time)
      return readAtShiftedMoment(x, call.queue, m => {
        if (fixed || time.exact) {
          const seconds = exactAt(time, m)
          return seconds && momentOfSeconds(seconds, m.rate)
        }
        return momentAtVaryingSecond(time.at(m), m, null)
      })
    },
    kernel: ({ common, elsewhere, first }) => {
      const seconds = common('time')
      const there = seconds && momentOfSeconds(seconds, first.frameRate)
      return there && elsewhere.at ? elsewhere.at(() => there) : null
    },
    exactly: call => {
      const { x, time } = call.args
      return x.exactly && time.exactly
        ? m => {
            const seconds = time.exactly!(m)
            return seconds && x.exactly!(momentOfSeconds(seconds, m.rate))
          }
        : null
    },
  },
  {
    bounds: call => boundsElsewhere(call, 'x'),
    cost: call => costAnew(1, call.args.x.facts()),
    repeats: call => readAt(call.args.x.facts().repeats, call.args.time),
    bends: call => {
      const time = call.args.time
      if (constantOf(time)) return SMOOTH
      if (!time.exact) return elsewhere(call.args.x, time)
      // A moment that grows steadily passes the bends of x one after another.
      const [rate, base] = [toNumber(time.exact.rate), toNumber(time.exact.base)]
      const x = bends(call.args.x)
      const there = (a: number, b: number) => x.between(Math.min(a, b), Math.max(a, b)).map(t => (t - base) / rate)
      return {
        all: x.all,
        often: x.often * Math.abs(rate),
        grain: x.grain / Math.abs(rate),
        between: (from, to) => there(rate * from + base, rate * to + base),
      }
    },
  },
)

/** How a value comes back that is read at moments which come back, or which grow steadily: then as fast as they do. */
function readAt(x: Repeats, time: CompiledExpression): Repeats {
  if (constantOf(time)) return ALWAYS
  if (!time.exact) return isZero(time.facts().repeats.gain) ? time.facts().repeats : NEVER
  const { rate, base } = time.exact
  if (x.every === null) return NEVER
  const every = absolute(over(x.every, rate))
  const gain = by(x.gain, rate)
  if (!x.from) return { every, gain, from: null }
  // Backwards it comes back only until a moment, which is not said.
  return rate.n > 0n ? { every, gain, from: over(minus(x.from, base), rate) } : NEVER
}

const exactAt = (f: CompiledExpression, m: Moment): Rational => and(by(f.exact!.rate, m.exactSeconds), f.exact!.base)

/** The step of the one-sided difference, in seconds: its square is far below and its rounding far above a double's. */
const STEP = rational(1, 8192)
/** How much earlier the two later readings are. */
const [SECOND, THIRD] = [negate(STEP), negate(rational(1, 4096))]
const TWICE = 2 * toNumber(STEP)

/** The one-sided difference of second order, from this moment on, so that a leap behind is not seen. */
const speed = (a: number, b: number, c: number): number => (-3 * a + 4 * b - c) / TWICE

export const rateOf = entry(
  {
    name: 'rateOf',
    group: 'time',
    description: 'How fast any formula changes from this moment on, per second.',
    example: { part: 'Mount', property: 'rotation', text: 'rateOf(own.y) / 80px/s * 10deg' },
    parameters: [{ ...X, kind: 'any', readAt: 'earlier' }],
    result: 'rate',
  },
  {
    at: call => {
      const x = call.args.x
      const { exact } = x
      if (exact) {
        const rate = toNumber(exact.rate)
        return () => rate
      }
      return m => speed(x.at(m), x.at(momentBefore(m, SECOND)), x.at(momentBefore(m, THIRD)))
    },
    kernel: ({ lanes, elsewhere }) => {
      const all = [ZERO, SECOND, THIRD].map(s => elsewhere.earlier(uniform(s, lanes)))
      // Of what grows steadily the rate is known exactly.
      return all.some(isExact) ? null : pointwise(all, lanes, speed)
    },
    exact: call => {
      const { exact } = call.args.x
      return exact && { rate: ZERO, base: exact.rate }
    },
  },
  {
    bounds: call => {
      const { exact } = call.args.x
      if (exact) return point(toNumber(exact.rate))
      const { slope, bounds: all } = call.args.x.facts()
      if (mayLeap(call.args.x) || !isBounded(slope) || !isBounded(all)) return ALL
      // Twice the mean speed over one step less the mean over two: of both it is only known that they are within.
      const [low, high] = [2 * slope.low - slope.high, 2 * slope.high - slope.low]
      const rounding = 1e-11 * Math.max(Math.abs(all.low), Math.abs(all.high))
      return interval(low - rounding, high + rounding)
    },
    cost: call => costAnew(3, call.args.x.facts(), call.args.x.exact ? 0 : 3),
    repeats: call => ({ ...call.args.x.facts().repeats, gain: ZERO }),
    // The difference looks a little ahead: what bends there bends it a little before.
    bends: call => (call.args.x.exact ? SMOOTH : rateBends(call.args.x)),
  },
)

/** Whether a value may jump at all: there are moments at which it may do more than turn. */
export const mayLeap = (x: CompiledExpression): boolean => {
  const { often, all, only } = x.facts().leaps
  return often > 0 || !all || (only ?? []).length > 0
}

function rateBends(x: CompiledExpression): Bends {
  const h = toNumber(STEP)
  return joined(bends(x), later(bends(x), -h), later(bends(x), -2 * h))
}
