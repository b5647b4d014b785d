/** Shape functions: what one value becomes by another. */
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
import { joined, passing as passingRanges, type Bends } from '../facts/bends.ts'
import { EASING_NAMES } from '../signal/easing.ts'
import { bends, bySecond, constantOf, fixed, gridOf, hardlyApart, type Form } from '../form/form.ts'
import { passing } from '../form/operators.ts'
import { AffineReader, add, opposite } from '../time/affine.ts'
import {
  ONE,
  ZERO,
  absolute,
  compare,
  minus as less,
  negate,
  over,
  plus as and,
  rational,
  times as by,
  toNumber,
  type Rational,
} from '../time/rational.ts'
import { PLAIN } from '../units/kinds.ts'
import { settledBy } from '../form/beat.ts'
import {
  boundsOf,
  folding,
  leapsOfArgs,
  repeatsOfArgs,
  settledBetween,
  slopeOf,
  type Call,
  type Entry,
  type Parameter,
} from './entry.ts'

const X: Parameter = { name: 'x', says: 'the value', kind: 'result', required: true, valuePlace: true }

/** Where x passes one of two ends. */
const passingEnds = (call: Call, x: string, low: string, high: string): Bends => {
  const [v, l, h] = [x, low, high].map(n => call.args[n]!) as [Form, Form, Form]
  return joined(passing(v, l, call.frameRate), passing(v, h, call.frameRate), bends(v), bends(l), bends(h))
}

const soft = (s: number): number => (s <= 0 ? 0 : s >= 1 ? 1 : s * s * (3 - 2 * s))

export const smoothstep: Entry = {
  name: 'smoothstep',
  group: 'shape',
  says: 'Goes from 0 to 1 softly while x goes from low to high.',
  example: { part: 'Carousel', property: 'opacity', text: 'smoothstep(1s, 4s, time)' },
  takes: [
    { name: 'low', says: 'where it is still 0', kind: 'other', required: true },
    { name: 'high', says: 'where it is 1', kind: 'other', required: true },
    { name: 'x', says: 'the value', kind: 'other', required: true },
  ],
  result: PLAIN,
  value: call => {
    const { low, high, x } = call.args
    return m => {
      const l = low!.at(m)
      const h = high!.at(m)
      const v = x!.at(m)
      if (l === h) return v < l ? 0 : 1
      const s = (v - l) / (h - l)
      return soft(s)
    }
  },
  bounds: call => {
    const [l, h, x] = ['low', 'high', 'x'].map(n => boundsOf(call, n))
    if (!(l!.high < h!.low)) return interval(0, 1)
    const share = quotient(minus(x!, l!), minus(h!, l!))
    // It never falls; its last bits may.
    return meet(plus(interval(soft(share.low), soft(share.high)), interval(-1e-15, 1e-15)), 0, 1)
  },
  repeats: call => settledBetween(call, 'x', 'low', 'high'),
  slope: call => {
    const [l, h] = [constantOf(call.args.low!), constantOf(call.args.high!)]
    if (!l || !h || compare(l, h) === 0) return ALL
    return union(point(0), times(slopeOf(call, 'x'), point(toNumber(over(rational(3, 2), less(h, l))))))
  },
  leaps: leapsOfArgs,
  bends: call => passingEnds(call, 'x', 'low', 'high'),
  fold: call =>
    folding(call, ['low', 'high', 'x'], (l, h, x) => {
      if (compare(l, h) === 0) return compare(x, l) < 0 ? ZERO : ONE
      const share = within1(over(less(x, l), less(h, l)))
      return by(by(share, share), less(rational(3), by(rational(2), share)))
    }),
}

const within1 = (share: Rational): Rational => (compare(share, ZERO) < 0 ? ZERO : compare(share, ONE) > 0 ? ONE : share)

export const clamp: Entry = {
  name: 'clamp',
  group: 'shape',
  says: 'Keeps a value between two ends.',
  example: { part: 'Swing', property: 'rotation', text: 'clamp(noise(1Hz, 60), -45, 45)' },
  takes: [
    X,
    { name: 'low', says: 'the lowest it may be', kind: 'result', required: true, valuePlace: true },
    { name: 'high', says: 'the highest it may be', kind: 'result', required: true, valuePlace: true },
  ],
  result: 'result',
  value: call => {
    const { x, low, high } = call.args
    return m => {
      const v = x!.at(m)
      const l = low!.at(m)
      const h = high!.at(m)
      return v < l ? l : v > h ? h : v
    }
  },
  fold: call => folding(call, ['x', 'low', 'high'], (x, l, h) => (compare(x, l) < 0 ? l : compare(x, h) > 0 ? h : x)),
  leaps: leapsOfArgs,
  bends: call => passingEnds(call, 'x', 'low', 'high'),
  bounds: call => {
    const l = boundsOf(call, 'low')
    const h = boundsOf(call, 'high')
    return l.high <= h.low ? meet(boundsOf(call, 'x'), l.low, h.high) : union(union(l, h), boundsOf(call, 'x'))
  },
  slope: call => ['x', 'low', 'high'].map(name => slopeOf(call, name)).reduce(union),
  repeats: call => settledBetween(call, 'x', 'low', 'high'),
}

export const mix: Entry = {
  name: 'mix',
  group: 'shape',
  says: 'Goes from a to b as the share goes from 0 to 100 %.',
  example: { part: 'Lantern', property: 'opacity', text: 'mix(20%, 100%, dusk)' },
  takes: [
    { name: 'a', says: 'the value at 0 %', kind: 'result', required: true, valuePlace: true },
    { name: 'b', says: 'the value at 100 %', kind: 'result', required: true, valuePlace: true },
    { name: 'share', says: 'how much of b', kind: PLAIN, required: true },
  ],
  result: 'result',
  value: call => {
    const { a, b, share } = call.args
    return m => {
      const from = a!.at(m)
      return from + (b!.at(m) - from) * share!.at(m)
    }
  },
  slope: call => {
    const [a, b, s] = ['a', 'b', 'share'].map(n => boundsOf(call, n)) as [Interval, Interval, Interval]
    const [da, db, ds] = ['a', 'b', 'share'].map(n => slopeOf(call, n)) as [Interval, Interval, Interval]
    return plus(da, plus(times(minus(db, da), s), times(minus(b, a), ds)))
  },
  fold: call => folding(call, ['a', 'b', 'share'], (a, b, s) => and(a, by(less(b, a), s))),
  bounds: call => {
    const a = boundsOf(call, 'a')
    const b = boundsOf(call, 'b')
    const s = boundsOf(call, 'share')
    // Within 0 … 1 a mix lies between its ends, which is tighter than the sum of its terms.
    return s.low >= 0 && s.high <= 1 ? plus(union(a, b), interval(0, 0)) : plus(a, times(minus(b, a), s))
  },
}

const extreme = (name: 'min' | 'max'): Entry => {
  const first = name === 'min' ? (a: number, b: number) => a < b : (a: number, b: number) => a > b
  const pick = name === 'min' ? Math.min : Math.max
  return {
    name,
    group: 'shape',
    says: `The ${name === 'min' ? 'lowest' : 'highest'} of several values.`,
    example: { part: 'Mount', property: 'y', text: `${name}(0px, sine(every: 2s, amp: 24px))` },
    takes: [{ name: 'x', says: 'a value', kind: 'result', required: true, valuePlace: true }],
    many: true,
    result: 'result',
    value: call => {
      const all = call.many
      return m => {
        let best = all[0]!.at(m)
        for (let i = 1; i < all.length; i++) {
          const v = all[i]!.at(m)
          if (first(v, best) || Number.isNaN(v)) best = v
        }
        return best
      }
    },
    fold: call => {
      const wanted = name === 'min' ? -1 : 1
      return { of: call.many, by: (...all) => all.reduce((a, b) => (compare(b, a) === wanted ? b : a)) }
    },
    grid: call =>
      call.many.slice(1).reduce<Rational | null>((g, f) => gridOf({ ...f, grid: g }, f), call.many[0]!.grid ?? null),
    leaps: leapsOfArgs,
    bends: call =>
      joined(...call.many.flatMap((a, i) => call.many.slice(i + 1).map(b => passing(a, b, call.frameRate)))),
    bounds: call => {
      const all = call.many.map(f => f.facts().bounds)
      return { low: pick(...all.map(b => b.low)), high: pick(...all.map(b => b.high)) }
    },
    slope: call => call.many.map(f => f.facts().slope).reduce(union),
  }
}
export const min = extreme('min')
export const max = extreme('max')

export const abs: Entry = {
  name: 'abs',
  group: 'shape',
  says: 'The value without its sign.',
  example: { part: 'Mount', property: 'y', text: 'abs(sine(every: 2s, amp: 24px))' },
  takes: [X],
  result: 'result',
  value: call => {
    const { x } = call.args
    return m => Math.abs(x!.at(m))
  },
  grid: call => call.args.x!.grid ?? null,
  fold: call => folding(call, ['x'], absolute),
  leaps: leapsOfArgs,
  bends: call => passing(call.args.x!, fixed(ZERO, call.frameRate), call.frameRate),
  bounds: call => {
    const x = boundsOf(call, 'x')
    return x.low >= 0 ? x : x.high <= 0 ? negative(x) : { low: 0, high: Math.max(-x.low, x.high) }
  },
  slope: call => union(slopeOf(call, 'x'), negative(slopeOf(call, 'x'))),
}

export const sign: Entry = {
  name: 'sign',
  group: 'shape',
  says: '1 above 0, −1 below, and 0 at 0.',
  example: { part: 'Mount', property: 'scale', text: '100% + sign(own.y) * 10%' },
  takes: [{ name: 'x', says: 'the value', kind: 'any', required: true }],
  result: PLAIN,
  value: call => {
    const { x } = call.args
    return m => {
      const v = x!.at(m)
      const surely = hardlyApart(v, 0, m) ? call.exactly?.(m) : null
      if (surely) return Number(surely.n)
      return v > 0 ? 1 : v < 0 ? -1 : v === 0 ? 0 : NaN
    }
  },
  bounds: call => {
    const { low, high } = boundsOf(call, 'x')
    const of = (v: number) => (v > 0 ? 1 : v < 0 ? -1 : 0)
    return interval(of(low), of(high))
  },
  repeats: call => (call.args.x!.exact ? settledBy(call.args.x!.exact, ZERO, ZERO) : repeatsOfArgs(call)),
  slope: () => point(0),
  fold: call => folding(call, ['x'], x => (x.n > 0n ? ONE : x.n < 0n ? negate(ONE) : ZERO)),
  bends: call => passing(call.args.x!, fixed(ZERO, call.frameRate), call.frameRate),
}

export const step: Entry = {
  name: 'step',
  group: 'shape',
  says: '0 while x is below the edge, 1 from the edge on.',
  example: { part: 'Carousel', property: 'opacity', text: 'step(3s, time)' },
  takes: [
    { name: 'edge', says: 'where it becomes 1', kind: 'other', required: true },
    { name: 'x', says: 'the value', kind: 'other', required: true },
  ],
  result: PLAIN,
  value: call => {
    const { edge, x } = call.args
    const difference = x!.exact && edge!.exact && add(x!.exact, opposite(edge!.exact))
    if (!difference) {
      return m => {
        const [v, e] = [x!.at(m), edge!.at(m)]
        const surely = hardlyApart(v, e, m) ? call.exactly?.(m) : null
        return surely ? Number(surely.n) : v >= e ? 1 : 0
      }
    }
    const reader = new AffineReader(difference, call.frameRate)
    return m => (reader.signAt(m) >= 0 ? 1 : 0)
  },
  bounds: call => {
    const [edge, x] = [boundsOf(call, 'edge'), boundsOf(call, 'x')]
    return x.low >= edge.high ? point(1) : x.high < edge.low ? point(0) : interval(0, 1)
  },
  slope: () => point(0),
  fold: call => folding(call, ['edge', 'x'], (e, x) => (compare(x, e) < 0 ? ZERO : ONE)),
  bends: call => passing(call.args.x!, call.args.edge!, call.frameRate),
  repeats: call => settledBetween(call, 'x', 'edge', 'edge'),
}

export const remap: Entry = {
  name: 'remap',
  group: 'shape',
  says: 'Takes a value from one range to another; with `limit: yes` it stays within the new range.',
  example: { part: 'Mount', property: 'opacity', text: 'remap(own.y, -24px, 24px, 40%, 100%, limit: yes)' },
  takes: [
    { name: 'x', says: 'the value', kind: 'other', required: true },
    { name: 'inLow', says: 'the low end of its range', kind: 'other', required: true },
    { name: 'inHigh', says: 'the high end of its range', kind: 'other', required: true },
    { name: 'outLow', says: 'what the low end becomes', kind: 'result', required: true, valuePlace: true },
    { name: 'outHigh', says: 'what the high end becomes', kind: 'result', required: true, valuePlace: true },
    { name: 'limit', says: 'whether it stays within the new range', kind: PLAIN, words: () => ['no', 'yes'] },
  ],
  result: 'result',
  value: call => {
    const { x, inLow, inHigh, outLow, outHigh } = call.args
    const limit = call.words.limit?.name === 'yes'
    return m => {
      const low = inLow!.at(m)
      const share = (x!.at(m) - low) / (inHigh!.at(m) - low)
      const held = limit ? (share < 0 ? 0 : share > 1 ? 1 : share) : share
      const [a, b] = [outLow!.at(m), outHigh!.at(m)]
      // At the ends it is the end itself, to the bit.
      return held === 1 ? b : a + (b - a) * held
    }
  },
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
    const all = ['inLow', 'inHigh', 'outLow', 'outHigh'].map(n => constantOf(call.args[n]!))
    if (all.some(c => !c) || compare(all[0]!, all[1]!) === 0) return ALL
    const factor = toNumber(over(less(all[3]!, all[2]!), less(all[1]!, all[0]!)))
    const own = times(slopeOf(call, 'x'), point(factor))
    return call.words.limit?.name === 'yes' ? union(point(0), own) : own
  },
  fold: call =>
    folding(call, ['x', 'inLow', 'inHigh', 'outLow', 'outHigh'], (x, l, h, a, b) => {
      if (compare(l, h) === 0) return null
      const share = over(less(x, l), less(h, l))
      return and(a, by(less(b, a), call.words.limit?.name === 'yes' ? within1(share) : share))
    }),
  leaps: leapsOfArgs,
  bends: call => {
    const outer = [call.args.outLow!, call.args.outHigh!].map(bends)
    if (call.words.limit?.name === 'yes') return joined(passingEnds(call, 'x', 'inLow', 'inHigh'), ...outer)
    return joined(bends(call.args.x!), bends(call.args.inLow!), bends(call.args.inHigh!), ...outer)
  },
}

export const ease: Entry = {
  name: 'ease',
  group: 'shape',
  says: 'Bends a share from 0 to 1 along an easing; before 0 and after 1 it holds.',
  example: { part: 'Carousel', property: 'scale', text: 'ease(lapProgress, elasticOut(1.2))' },
  takes: [
    { name: 'x', says: 'the share, 0 to 1', kind: PLAIN, required: true },
    { name: 'curve', says: 'the easing', kind: PLAIN, words: () => EASING_NAMES, easing: true, required: true },
  ],
  result: PLAIN,
  value: call => {
    const { x } = call.args
    const bend = call.easing('curve').ease
    return m => {
      const v = x!.at(m)
      return bend(v < 0 ? 0 : v > 1 ? 1 : v)
    }
  },
  bounds: call => {
    const { low, high } = call.easing('curve')
    return interval(low, high)
  },
  leaps: leapsOfArgs,
  bends: call => {
    const { knots } = call.easing('curve')
    const x = call.args.x!
    const all = [0, ...knots, 1]
    return passingRanges(bySecond(x, call.frameRate), bends(x), v => all.filter(k => k <= v).length)
  },
}
