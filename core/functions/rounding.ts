/** Whole steps: round, floor, ceil, fract, mod, wrap, mirror. What grows steadily is cut exactly. */
import { ALL, interval, isBounded, minus, plus, point, times, union, type Interval } from '../facts/interval.ts'
import { SMOOTH, joined, passing, steadily, type Bends } from '../facts/bends.ts'
import { ALWAYS, NEVER, everySeconds, together, wholeRounds, type Repeats } from '../facts/repeats.ts'
import { bends, bySecond, constantOf, hardlyApart, type Form } from '../form/form.ts'
import { AffineReader, add, constant, scale, type Affine, type Split } from '../time/affine.ts'
import type { Moment } from '../time/moment.ts'
import {
  ONE,
  ZERO,
  absolute,
  commonMeasure,
  compare,
  floor as floorOf,
  fraction,
  isWhole,
  isZero,
  minus as less,
  negate,
  over,
  plus as and,
  rational,
  times as by,
  toNumber,
  type Rational,
} from '../time/rational.ts'
import {
  boundsOf,
  folding,
  leapsOfArgs,
  never0,
  repeatsOfArgs,
  slopeOf,
  type Call,
  type Entry,
  type Parameter,
} from './entry.ts'

const X: Parameter = { name: 'x', says: 'the value', kind: 'result', required: true, valuePlace: true }
const TO: Parameter = { name: 'to', says: 'the step', kind: 'result', valuePlace: true }

/** How many steps of a size a value makes: whole ones and a part. */
interface Steps {
  readonly at: (m: Moment) => Split
  /** The same when it is steady. */
  readonly affine: Affine | null
  readonly size: (m: Moment) => number
  /** Whether the whole steps are right whatever the rounding. */
  readonly sure: boolean
}

/** x in steps of `size` (1 when not given), counted from `from`. */
function steps(x: Form, size: Form | undefined, from: Form | undefined, frameRate: Rational): Steps {
  const s = size ? constantOf(size) : ONE
  const f = from ? constantOf(from) : ZERO
  const sizeAt = size ? size.at : () => 1
  if (x.exact && s && f && !isZero(s)) {
    const moved = add(x.exact, constant(negate(f)))
    const affine = moved && scale(moved, over(ONE, s))
    if (affine) {
      const reader = new AffineReader(affine, frameRate)
      return { at: m => reader.splitAt(m), affine, size: sizeAt, sure: true }
    }
  }
  const out: Split = { whole: 0, part: 0 }
  const at = (m: Moment): Split => {
    const v = (x.at(m) - (from ? from.at(m) : 0)) / sizeAt(m)
    out.whole = Math.floor(v)
    out.part = v - out.whole
    return out
  }
  return { at, affine: null, size: sizeAt, sure: false }
}

/** Where the value passes whole steps, `ahead` steps before them. */
function stepBends(call: Call, s: Steps, sizes: readonly (Form | undefined)[], ahead = 0): Bends {
  const x = call.args.x!
  if (constantOf(x)) return SMOOTH
  if (s.affine) return steadily(toNumber(s.affine.rate), toNumber(s.affine.base) + ahead, [0])
  const value = bySecond(
    {
      at: m => {
        const { whole, part } = s.at(m)
        return whole + part + ahead
      },
    },
    call.frameRate,
  )
  return passing(value, joined(bends(x), ...sizes.map(f => (f ? bends(f) : SMOOTH))), Math.floor)
}

/** Whether rounding may have put a number of steps on the wrong side of where it is cut. */
const unsure = (s: Steps, { whole, part }: Split, at: number, m: Moment): boolean =>
  !s.sure && (hardlyApart(whole + part, whole + at, m) || hardlyApart(whole + part, whole + at + 1, m))

/** Of what grows by so much with each round: it comes back when it has grown by whole sizes. */
function rounded(call: Call): Repeats {
  const { x, to, by: size, low, high } = call.args
  const own = x!.facts().repeats
  const [l, h] = [low && constantOf(low), high && constantOf(high)]
  const step = low ? l && h && less(h, l) : (constantOf(to ?? size ?? x!) ?? (to || size ? null : ONE))
  if (isZero(own.gain) || !own.every || isZero(own.every) || !step || isZero(step)) return repeatsOfArgs(call)
  return wholeRounds({ ...own, gain: over(own.gain, step) })
}

/** Repeats of what only depends on the part of a step. */
function cyclic(call: Call, s: Steps): Repeats {
  if (!s.affine) return rounded(call)
  return isZero(s.affine.rate) ? ALWAYS : everySeconds(absolute(over(ONE, s.affine.rate)))
}

/** Repeats of whole steps: of a steady growth each step gains one. */
function stepping(call: Call, s: Steps): Repeats {
  const { x, to } = call.args
  if (!s.affine) {
    const own = x!.facts().repeats
    const step = to ? constantOf(to) : ONE
    if (isZero(own.gain) || !own.every || isZero(own.every) || !step || isZero(step)) return repeatsOfArgs(call)
    // With each round it gains so many steps; after as many rounds as make them whole it is cut the same again.
    return { ...own, every: by(own.every, rational(over(by(own.gain, own.every), step).d)) }
  }
  if (isZero(s.affine.rate)) return ALWAYS
  return constantOf(to ?? x!) || !to
    ? { every: absolute(over(ONE, s.affine.rate)), gain: x!.exact!.rate, from: null }
    : NEVER
}

interface Cut {
  readonly name: string
  readonly says: string
  readonly example: string
  /** Whole steps of a split. */
  readonly cut: (whole: number, part: number) => number
  readonly exact: (steps: Rational) => Rational
  /** How far from the value it may be, in steps. */
  readonly off: Interval
  /** Steps before a whole one at which it leaps. */
  readonly ahead: Rational
}

function cutting({ name, says, example, cut, exact, off, ahead }: Cut): Entry {
  const read = (call: Call) => steps(call.args.x!, call.args.to, undefined, call.frameRate)
  return {
    name,
    group: 'shape',
    says,
    example: { part: 'Carousel', property: 'rotation', text: example },
    takes: [X, TO],
    result: 'result',
    plainUnless: 'to',
    value: call => {
      const s = read(call)
      const half = toNumber(ahead)
      return m => {
        const at = s.at(m)
        const surely = unsure(s, at, half, m) ? call.exactly?.(m) : null
        return surely ? toNumber(surely) : cut(at.whole, at.part) * s.size(m)
      }
    },
    fold: call => {
      const of = (x: Rational, to: Rational = ONE) => (isZero(to) ? null : by(exact(over(x, to)), to))
      return folding(call, call.args.to ? ['x', 'to'] : ['x'], of)
    },
    grid: call => (call.args.to ? constantOf(call.args.to) : ONE),
    slope: call => (!call.args.to || constantOf(call.args.to) ? point(0) : ALL),
    finite: call => !call.args.to || never0(call, 'to'),
    bounds: call => {
      const x = boundsOf(call, 'x')
      const size = call.args.to ? boundsOf(call, 'to') : point(1)
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
  }
}

export const round = cutting({
  name: 'round',
  says: 'The nearest whole number, or the nearest multiple of `to`; halves go up.',
  example: 'round(time * 45deg/s, to: 15deg)',
  cut: (whole, part) => (part >= 0.5 ? whole + 1 : whole),
  exact: s => rational(floorOf(and(s, rational(1, 2)))),
  off: interval(-0.5, 0.5),
  ahead: rational(1, 2),
})
export const floor = cutting({
  name: 'floor',
  says: 'The whole number below, or the multiple of `to` below.',
  example: 'floor(time * 45deg/s, to: 30deg)',
  cut: whole => whole,
  exact: s => rational(floorOf(s)),
  off: interval(-1, 0),
  ahead: ZERO,
})
export const ceil = cutting({
  name: 'ceil',
  says: 'The whole number above, or the multiple of `to` above.',
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

/** What is left of a value after whole steps. */
function leftOver(name: 'fract' | 'mod', says: string, example: string, size: 'to' | 'by'): Entry {
  const read = (call: Call) => steps(call.args.x!, call.args[size], undefined, call.frameRate)
  return {
    name,
    group: 'shape',
    says,
    example: { part: 'Carousel', property: 'rotation', text: example },
    takes: [X, name === 'fract' ? TO : { ...TO, name: 'by', says: 'what it is counted in', required: true }],
    result: 'result',
    ...(name === 'fract' ? { plainUnless: 'to' } : {}),
    value: call => {
      const s = read(call)
      const { x } = call.args
      return m => {
        const at = s.at(m)
        const surely = unsure(s, at, 0, m) ? call.exactly?.(m) : null
        if (surely) return toNumber(surely)
        return s.sure ? at.part * s.size(m) : remainder(x!.at(m), s.size(m))
      }
    },
    fold: call => {
      const of = (x: Rational, to: Rational = ONE) => (isZero(to) ? null : by(fraction(over(x, to)), to))
      return folding(call, call.args[size] ? ['x', size] : ['x'], of)
    },
    finite: call => !call.args[size] || never0(call, size),
    grid: call => {
      const { x } = call.args
      const to = call.args[size] ? constantOf(call.args[size]) : ONE
      return x!.grid && to && !isZero(to) ? (isZero(x!.grid) ? to : commonMeasure(x!.grid, to)) : null
    },
    slope: call => (!call.args[size] || constantOf(call.args[size]) ? slopeOf(call, 'x') : ALL),
    bounds: call => {
      const to = call.args[size] ? constantOf(call.args[size]) : ONE
      const { grid } = call.args.x!
      // Whole steps within a whole size stop one short of it.
      if (grid && !isZero(grid) && to && to.n > 0n && isWhole(over(to, grid)))
        return interval(0, toNumber(less(to, absolute(grid))))
      return call.args[size] ? union(point(0), boundsOf(call, size)) : interval(0, 1)
    },
    repeats: call => cyclic(call, read(call)),
    bends: call => stepBends(call, read(call), [call.args[size]]),
  }
}
export const fract = leftOver(
  'fract',
  'What is left after the whole number, or after whole multiples of `to`: never below 0.',
  'fract(time / 4s) * 90deg',
  'to',
)
export const mod = leftOver(
  'mod',
  'What is left of x after whole multiples of `by`; below 0 it counts on from above.',
  'mod(time * 45deg/s, 90deg)',
  'by',
)

const ENDS: readonly Parameter[] = [
  { name: 'low', says: 'the low end', kind: 'result', required: true, valuePlace: true },
  { name: 'high', says: 'the high end', kind: 'result', required: true, valuePlace: true },
]

/** x in lengths of the range between two ends. */
function inRange(call: Call): Steps {
  const { x, low, high } = call.args
  const [l, h] = [constantOf(low!), constantOf(high!)]
  if (x!.exact && l && h && compare(h, l) !== 0) {
    const affine = scale(add(x!.exact, constant(negate(l))) ?? x!.exact, over(ONE, less(h, l)))
    if (affine) {
      const reader = new AffineReader(affine, call.frameRate)
      const size = toNumber(less(h, l))
      return { at: m => reader.splitAt(m), affine, size: () => size, sure: true }
    }
  }
  const out: Split = { whole: 0, part: 0 }
  const at = (m: Moment): Split => {
    const from = low!.at(m)
    const v = (x!.at(m) - from) / (high!.at(m) - from)
    out.whole = Math.floor(v)
    out.part = v - out.whole
    return out
  }
  return { at, affine: null, size: m => high!.at(m) - low!.at(m), sure: false }
}

export const wrap: Entry = {
  name: 'wrap',
  group: 'shape',
  says: 'Keeps a value between two ends: beyond the high one it begins again at the low one.',
  example: { part: 'Mount', property: 'x', text: 'wrap(time * 40px/s, -100px, 100px)' },
  takes: [X, ...ENDS],
  result: 'result',
  value: call => {
    const s = inRange(call)
    const { low } = call.args
    return m => {
      const at = s.at(m)
      const surely = unsure(s, at, 0, m) ? call.exactly?.(m) : null
      return surely ? toNumber(surely) : low!.at(m) + at.part * s.size(m)
    }
  },
  fold: call =>
    folding(call, ['x', 'low', 'high'], (x, l, h) =>
      compare(l, h) === 0 ? null : and(l, by(fraction(over(less(x, l), less(h, l))), less(h, l))),
    ),
  slope: call => (constantOf(call.args.low!) && constantOf(call.args.high!) ? slopeOf(call, 'x') : ALL),
  finite: call => apart(boundsOf(call, 'low'), boundsOf(call, 'high')),
  bounds: call => ends(call),
  repeats: call =>
    together([cyclic(call, inRange(call)), call.args.low!.facts().repeats, call.args.high!.facts().repeats]),
  bends: call => stepBends(call, inRange(call), [call.args.low, call.args.high]),
}

export const mirror: Entry = {
  ...wrap,
  name: 'mirror',
  leaps: leapsOfArgs,
  slope: call => {
    const x = slopeOf(call, 'x')
    return constantOf(call.args.low!) && constantOf(call.args.high!) ? union(x, times(x, point(-1))) : ALL
  },
  says: 'Keeps a value between two ends: at either it turns back.',
  example: { part: 'Mount', property: 'x', text: 'mirror(time * 40px/s, -100px, 100px)' },
  value: call => {
    const s = inRange(call)
    const { low } = call.args
    return m => {
      const { whole, part } = s.at(m)
      return low!.at(m) + (whole % 2 === 0 ? part : 1 - part) * s.size(m)
    }
  },
  fold: call =>
    folding(call, ['x', 'low', 'high'], (x, l, h) => {
      if (compare(l, h) === 0) return null
      const ranges = over(less(x, l), less(h, l))
      const part = fraction(ranges)
      return and(l, by(floorOf(ranges) % 2n === 0n ? part : less(ONE, part), less(h, l)))
    }),
  repeats: call => {
    const { every, from } = cyclic(call, inRange(call))
    const twice: Repeats =
      every && !isZero(every) && inRange(call).affine
        ? everySeconds(by(every, rational(2)))
        : { every, gain: ZERO, from }
    return together([twice, call.args.low!.facts().repeats, call.args.high!.facts().repeats])
  },
}

const apart = (a: Interval, b: Interval): boolean => a.high < b.low || a.low > b.high

function ends(call: Call): Interval {
  const both = union(boundsOf(call, 'low'), boundsOf(call, 'high'))
  const size = minus(point(both.high), point(both.low))
  return isBounded(both) ? plus(both, times(size, interval(-1e-15, 1e-15))) : both
}
