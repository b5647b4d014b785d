/** Shape functions: what one value becomes by another. */
import { onlyFrom, together, type Repeats } from '../facts/repeats.ts'
import { isBounded } from '../facts/interval.ts'
import { add, opposite, type Affine } from '../time/affine.ts'
import { fromFinite, isZero } from '../time/rational.ts'
import { passingEnds, within1 } from './gates.ts'
import {
  ALL,
  interval,
  meet,
  minus,
  negative,
  over as quotient,
  plus,
  point,
  times,
  union,
  type Interval,
} from '../facts/interval.ts'
import { joined } from '../facts/bends.ts'
import { columnwise, pointwise } from '../columns/column.ts'
import {
  type CompiledExpression,
  bends,
  constantOf,
  constantExpression,
  gridOf,
  hardlyApart,
  isNear,
} from '../form/compiled-expression.ts'
import { crossings } from '../form/operators.ts'
import {
  ONE,
  ZERO,
  absolute,
  compare,
  minus as less,
  negate,
  over,
  plus as and,
  times as by,
  toNumber,
  type Rational,
} from '../time/rational.ts'
import { PLAIN } from '../units/kinds.ts'
import { settledBy } from '../form/active-clock.ts'
import { boundsOf, folding, leapsOfArgs, repeatsOfArgs, settledBetween, slopeOf } from './prepared-call.ts'
import { type Entry, entry } from './entry.ts'
import { ofOne } from './of-values.ts'
import { parameter } from './parameter.ts'

const X = parameter({ name: 'x', description: 'the value', kind: 'result', required: true, valuePlace: true })

const clamped = (v: number, l: number, h: number): number => (v < l ? l : v > h ? h : v)
const mixed = (from: number, to: number, share: number): number => from + (to - from) * share

export const clamp = entry(
  {
    name: 'clamp',
    group: 'shape',
    description: 'Keeps a value within a range.',
    example: { part: 'Swing', property: 'rotation', text: 'clamp(noise(1Hz, 60), -45, 45)' },
    parameters: [
      X,
      { name: 'low', description: 'the lowest value allowed', kind: 'result', required: true, valuePlace: true },
      { name: 'high', description: 'the highest value allowed', kind: 'result', required: true, valuePlace: true },
    ],
    result: 'result',
  },
  {
    at: call => {
      const { x, low, high } = call.args
      return m => clamped(x.at(m), low.at(m), high.at(m))
    },
    kernel: ({ args, lanes }) =>
      columnwise([args.x, args.low, args.high], lanes, ([x, low, high], count, out) => {
        for (let i = 0; i < count; i++) out[i] = clamped(x[i]!, low[i]!, high[i]!)
      }),
    fold: call => folding(call, ['x', 'low', 'high'], (x, l, h) => (compare(x, l) < 0 ? l : compare(x, h) > 0 ? h : x)),
  },
  {
    leaps: leapsOfArgs,
    bends: call => passingEnds(call, 'x', 'low', 'high'),
    bounds: call => {
      const l = boundsOf(call, 'low')
      const h = boundsOf(call, 'high')
      return l.high <= h.low ? meet(boundsOf(call, 'x'), l.low, h.high) : union(union(l, h), boundsOf(call, 'x'))
    },
    slope: call => ['x', 'low', 'high'].map(name => slopeOf(call, name)).reduce(union),
    repeats: call => settledBetween(call, 'x', 'low', 'high'),
  },
)

export const mix = entry(
  {
    name: 'mix',
    group: 'shape',
    description: 'Goes from a to b as the share goes from 0 to 100 %.',
    example: { part: 'Lantern', property: 'opacity', text: 'mix(20%, 100%, dusk)' },
    parameters: [
      { name: 'a', description: 'the value at 0 %', kind: 'result', required: true, valuePlace: true },
      { name: 'b', description: 'the value at 100 %', kind: 'result', required: true, valuePlace: true },
      { name: 'share', description: 'the share of b', kind: PLAIN, required: true },
    ],
    result: 'result',
  },
  {
    at: call => {
      const { a, b, share } = call.args
      return m => mixed(a.at(m), b.at(m), share.at(m))
    },
    kernel: ({ args, lanes }) =>
      columnwise([args.a, args.b, args.share], lanes, ([a, b, share], count, out) => {
        for (let i = 0; i < count; i++) out[i] = mixed(a[i]!, b[i]!, share[i]!)
      }),
    fold: call => folding(call, ['a', 'b', 'share'], (a, b, s) => and(a, by(less(b, a), s))),
  },
  {
    slope: call => {
      const [a, b, s] = ['a', 'b', 'share'].map(n => boundsOf(call, n)) as [Interval, Interval, Interval]
      const [da, db, ds] = ['a', 'b', 'share'].map(n => slopeOf(call, n)) as [Interval, Interval, Interval]
      return plus(da, plus(times(minus(db, da), s), times(minus(b, a), ds)))
    },
    bounds: call => {
      const a = boundsOf(call, 'a')
      const b = boundsOf(call, 'b')
      const s = boundsOf(call, 'share')
      // Within 0 … 1 a mix lies between its ends, which is tighter than the sum of its terms.
      return s.low >= 0 && s.high <= 1 ? plus(union(a, b), interval(0, 0)) : plus(a, times(minus(b, a), s))
    },
  },
)

/** What is known of the best of some values so far. */
interface Best {
  readonly repeats: Repeats
  readonly bounds: Interval
  readonly exact: Affine | null
}
const whole = (f: CompiledExpression): Best => ({
  repeats: f.facts().repeats,
  bounds: f.facts().bounds,
  exact: f.exact,
})

/** Of two values of which one grows steadily one wins for good: from then on it comes back as that one does. */
function extremeRepeats(name: 'min' | 'max', a: Best, f: CompiledExpression): Best {
  const b = whole(f)
  const pick = name === 'min' ? Math.min : Math.max
  const bounds = { low: pick(a.bounds.low, b.bounds.low), high: pick(a.bounds.high, b.bounds.high) }
  const plain = { repeats: together([a.repeats, b.repeats]), bounds, exact: null }
  const difference = a.exact && b.exact && add(a.exact, opposite(b.exact))
  const grows = (x: Best) => x.exact !== null && x.exact.rate.n !== 0n
  if (difference) {
    if (isZero(difference.rate)) return plain
    const crossing = over(negate(difference.base), difference.rate)
    const first = difference.rate.n > 0n === (name === 'max')
    return { ...plain, repeats: onlyFrom((first ? a : b).repeats, crossing) }
  }
  const [x, y] = grows(a) ? [a, b] : [b, a]
  if (!grows(x) || !isBounded(y.bounds)) return plain
  const up = x.exact!.rate.n > 0n
  // From when what grows has left the other's bounds for good.
  const left = fromFinite(up ? y.bounds.high : y.bounds.low)
  const passes = over(less(left, x.exact!.base), x.exact!.rate)
  return { ...plain, repeats: onlyFrom((up === (name === 'max') ? x : y).repeats, passes) }
}

const extreme = (name: 'min' | 'max'): Entry => {
  const first = name === 'min' ? (a: number, b: number) => a < b : (a: number, b: number) => a > b
  const pick = name === 'min' ? Math.min : Math.max
  return entry(
    {
      name,
      group: 'shape',
      description: `The ${name === 'min' ? 'lowest' : 'highest'} of several values.`,
      example: { part: 'Mount', property: 'y', text: `${name}(0px, sine(every: 2s, amp: 24px))` },
      parameters: [{ name: 'x', description: 'a value', kind: 'result', required: true, valuePlace: true }],
      variadic: true,
      result: 'result',
    },
    {
      at: call => {
        const all = call.variadicArgs
        return m => {
          let best = all[0]!.at(m)
          for (let i = 1; i < all.length; i++) {
            const v = all[i]!.at(m)
            if (first(v, best) || Number.isNaN(v)) best = v
          }
          return best
        }
      },
      kernel: ({ many, lanes }) =>
        many.slice(1).reduce((a, b) => pointwise([a, b], lanes, (x, y) => (first(y, x) ? y : x)), many[0]!),
      fold: call => {
        const wanted = name === 'min' ? -1 : 1
        return { of: call.variadicArgs, by: (...all) => all.reduce((a, b) => (compare(b, a) === wanted ? b : a)) }
      },
    },
    {
      repeats: call =>
        call.variadicArgs.slice(1).reduce((r, f) => extremeRepeats(name, r, f), whole(call.variadicArgs[0]!)).repeats,
      grid: call =>
        call.variadicArgs
          .slice(1)
          .reduce<Rational | null>((g, f) => gridOf({ ...f, grid: g }, f), call.variadicArgs[0]!.grid ?? null),
      leaps: leapsOfArgs,
      bends: call =>
        joined(
          ...call.variadicArgs.flatMap((a, i) =>
            call.variadicArgs.slice(i + 1).map(b => crossings(a, b, call.frameRate)),
          ),
        ),
      bounds: call => {
        const all = call.variadicArgs.map(f => f.facts().bounds)
        return { low: pick(...all.map(b => b.low)), high: pick(...all.map(b => b.high)) }
      },
      slope: call => call.variadicArgs.map(f => f.facts().slope).reduce(union),
    },
  )
}
export const min = extreme('min')
export const max = extreme('max')

export const abs = entry(
  {
    name: 'abs',
    group: 'shape',
    description: 'The distance from 0: the value without its sign.',
    example: { part: 'Mount', property: 'y', text: 'abs(sine(every: 2s, amp: 24px))' },
    parameters: [X],
    result: 'result',
  },
  {
    ...ofOne('x', Math.abs),
    fold: call => folding(call, ['x'], absolute),
  },
  {
    grid: call => call.args.x.grid ?? null,
    leaps: leapsOfArgs,
    bends: call => crossings(call.args.x, constantExpression(ZERO, call.frameRate), call.frameRate),
    bounds: call => {
      const x = boundsOf(call, 'x')
      return x.low >= 0 ? x : x.high <= 0 ? negative(x) : { low: 0, high: Math.max(-x.low, x.high) }
    },
    slope: call => union(slopeOf(call, 'x'), negative(slopeOf(call, 'x'))),
  },
)

export const sign = entry(
  {
    name: 'sign',
    group: 'shape',
    description: '1 for values above 0, −1 below, and 0 at 0.',
    example: { part: 'Mount', property: 'scale', text: '100% + sign(own.y) * 10%' },
    parameters: [{ name: 'x', description: 'the value', kind: 'any', required: true }],
    result: PLAIN,
  },
  {
    at: call => {
      const { x } = call.args
      return m => {
        const v = x.at(m)
        const surely = hardlyApart(v, 0, m) ? call.exactly?.(m) : null
        if (surely) return Number(surely.n)
        return v > 0 ? 1 : v < 0 ? -1 : v === 0 ? 0 : NaN
      }
    },
    kernel: ({ args, lanes }) => pointwise([args.x], lanes, (x, t) => (isNear(x, 0, t) ? NaN : x > 0 ? 1 : -1)),
    fold: call => folding(call, ['x'], x => (x.n > 0n ? ONE : x.n < 0n ? negate(ONE) : ZERO)),
  },
  {
    bounds: call => {
      const { low, high } = boundsOf(call, 'x')
      const of = (v: number) => (v > 0 ? 1 : v < 0 ? -1 : 0)
      return interval(of(low), of(high))
    },
    repeats: call => (call.args.x.exact ? settledBy(call.args.x.exact, ZERO, ZERO) : repeatsOfArgs(call)),
    slope: () => point(0),
    bends: call => crossings(call.args.x, constantExpression(ZERO, call.frameRate), call.frameRate),
  },
)

const remapped =
  (limit: boolean) =>
  (x: number, low: number, high: number, a: number, b: number): number => {
    const share = (x - low) / (high - low)
    const held = limit ? (share < 0 ? 0 : share > 1 ? 1 : share) : share
    // At the ends it is the end itself, to the bit.
    return held === 1 ? b : a + (b - a) * held
  }

export const remap = entry(
  {
    name: 'remap',
    group: 'shape',
    description: 'Maps a value from one range to another; with `limit: yes` it stays within the new range.',
    example: { part: 'Mount', property: 'opacity', text: 'remap(own.y, -24px, 24px, 40%, 100%, limit: yes)' },
    parameters: [
      { name: 'x', description: 'the value', kind: 'other', required: true },
      { name: 'inLow', description: 'the low end of its range', kind: 'other', required: true },
      { name: 'inHigh', description: 'the high end of its range', kind: 'other', required: true },
      { name: 'outLow', description: 'what the low end becomes', kind: 'result', required: true, valuePlace: true },
      { name: 'outHigh', description: 'what the high end becomes', kind: 'result', required: true, valuePlace: true },
      {
        name: 'limit',
        description: 'whether the result stays within the new range',
        kind: PLAIN,
        words: () => ['no', 'yes'],
      },
    ],
    result: 'result',
  },
  {
    at: call => {
      const { x, inLow, inHigh, outLow, outHigh } = call.args
      const of = remapped(call.words.limit?.name === 'yes')
      return m => of(x.at(m), inLow.at(m), inHigh.at(m), outLow.at(m), outHigh.at(m))
    },
    kernel: ({ args, first, lanes }) => {
      const { x, inLow, inHigh, outLow, outHigh } = args
      return pointwise([x, inLow, inHigh, outLow, outHigh], lanes, remapped(first.words.limit?.name === 'yes'))
    },
    fold: call =>
      folding(call, ['x', 'inLow', 'inHigh', 'outLow', 'outHigh'], (x, l, h, a, b) => {
        if (compare(l, h) === 0) return null
        const share = over(less(x, l), less(h, l))
        return and(a, by(less(b, a), call.words.limit?.name === 'yes' ? within1(share) : share))
      }),
  },
  {
    finite: call => {
      const [l, h] = [boundsOf(call, 'inLow'), boundsOf(call, 'inHigh')]
      return l.high < h.low || l.low > h.high
    },
    bounds: call => {
      const [a, b] = [boundsOf(call, 'outLow'), boundsOf(call, 'outHigh')]
      if (call.words.limit?.name === 'yes') return plus(union(a, b), times(union(a, b), interval(-1e-15, 1e-15)))
      const low = boundsOf(call, 'inLow')
      const share = quotient(minus(boundsOf(call, 'x'), low), minus(boundsOf(call, 'inHigh'), low))
      return plus(a, times(minus(b, a), share))
    },
    repeats: call =>
      call.words.limit?.name === 'yes' ? settledBetween(call, 'x', 'inLow', 'inHigh') : repeatsOfArgs(call),
    slope: call => {
      const { inLow, inHigh, outLow, outHigh } = call.args
      const [l, h, a, b] = [constantOf(inLow), constantOf(inHigh), constantOf(outLow), constantOf(outHigh)]
      if (!l || !h || !a || !b || compare(l, h) === 0) return ALL
      const factor = toNumber(over(less(b, a), less(h, l)))
      const own = times(slopeOf(call, 'x'), point(factor))
      return call.words.limit?.name === 'yes' ? union(point(0), own) : own
    },
    leaps: leapsOfArgs,
    bends: call => {
      const outer = [call.args.outLow, call.args.outHigh].map(bends)
      if (call.words.limit?.name === 'yes') return joined(passingEnds(call, 'x', 'inLow', 'inHigh'), ...outer)
      return joined(bends(call.args.x), bends(call.args.inLow), bends(call.args.inHigh), ...outer)
    },
  },
)
