/** Shape functions: what one value becomes by another. */
import { ALL, interval, meet, plus, times, minus, union, isBounded, negative } from '../../insight/interval.ts'
import { NEVER } from '../../insight/repeats.ts'
import { constantOf } from '../../engine/form.ts'
import { constant } from '../../time/affine.ts'
import {
  ONE,
  absolute,
  compare,
  floor,
  isZero,
  minus as less,
  over,
  plus as and,
  rational,
  times as by,
  type Rational,
} from '../../time/rational.ts'
import { PLAIN } from '../../units/kinds.ts'
import { boundsOf, repeatsOfArgs, type Call, type Entry, type Parameter } from './entry.ts'

const X: Parameter = { name: 'x', says: 'the value', kind: 'result', required: true, valuePlace: true }

/** The call when all its arguments are constants. */
function folded(call: Call, names: readonly string[], fold: (...values: Rational[]) => Rational | null) {
  const values = names.map(n => call.args[n] && constantOf(call.args[n]))
  if (values.some(v => !v)) return null
  const result = fold(...(values as Rational[]))
  return result && constant(result)
}

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
      return s <= 0 ? 0 : s >= 1 ? 1 : s * s * (3 - 2 * s)
    }
  },
  bounds: () => interval(0, 1),
}

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
  exact: call => folded(call, ['x', 'low', 'high'], (x, l, h) => (compare(x, l) < 0 ? l : compare(x, h) > 0 ? h : x)),
  bounds: call => {
    const l = boundsOf(call, 'low')
    const h = boundsOf(call, 'high')
    return l.high <= h.low ? meet(boundsOf(call, 'x'), l.low, h.high) : union(union(l, h), boundsOf(call, 'x'))
  },
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
  exact: call => folded(call, ['a', 'b', 'share'], (a, b, s) => and(a, by(less(b, a), s))),
  bounds: call => {
    const a = boundsOf(call, 'a')
    const b = boundsOf(call, 'b')
    const s = boundsOf(call, 'share')
    // Within 0 … 1 a mix lies between its ends, which is tighter than the sum of its terms.
    return s.low >= 0 && s.high <= 1 ? plus(union(a, b), interval(0, 0)) : plus(a, times(minus(b, a), s))
  },
}

/** Nearest whole multiple, halves upwards. */
const roundTo = (x: Rational, to: Rational): Rational | null =>
  isZero(to) ? null : by(rational(floor(and(over(x, to), rational(1, 2)))), to)

export const round: Entry = {
  name: 'round',
  group: 'shape',
  says: 'The nearest whole number, or the nearest multiple of `to`; halves go up.',
  example: { part: 'Strength counter', property: 'rotation', text: 'round(time * 45deg/s, to: 15deg)' },
  takes: [X, { name: 'to', says: 'the step to round to', kind: 'result', valuePlace: true }],
  result: 'result',
  value: call => {
    const { x, to } = call.args
    if (!to) return m => Math.floor(x!.at(m) + 0.5)
    const cx = x!.exact
    const ct = constantOf(to)
    if (cx && ct && !isZero(ct)) {
      // Steady growth is rounded exactly, so that a frame on a step lies on its right side.
      return m => {
        const t = m.exactSeconds
        const v = and(by(cx.rate, t), cx.base)
        const r = roundTo(v, ct)!
        return Number(r.n) / Number(r.d)
      }
    }
    return m => {
      const step = to.at(m)
      return Math.floor(x!.at(m) / step + 0.5) * step
    }
  },
  exact: call => folded(call, call.args.to ? ['x', 'to'] : ['x'], (x, to) => roundTo(x, to ?? ONE)),
  bounds: call => {
    const x = boundsOf(call, 'x')
    if (!call.args.to) return { low: Math.floor(x.low + 0.5), high: Math.floor(x.high + 0.5) }
    const half = times(call.args.to.facts().bounds, interval(-0.5, 0.5))
    return isBounded(half) ? plus(x, half) : ALL
  },
  repeats: call => (call.args.x!.exact && constantOf(call.args.x!) === null ? NEVER : repeatsOfArgs(call)),
  leaps: call => constantOf(call.args.x!) === null,
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
    exact: call => {
      const all = call.many.map(constantOf)
      if (all.some(c => !c)) return null
      const wanted = name === 'min' ? -1 : 1
      return constant((all as Rational[]).reduce((a, b) => (compare(b, a) === wanted ? b : a)))
    },
    bounds: call => {
      const all = call.many.map(f => f.facts().bounds)
      return { low: pick(...all.map(b => b.low)), high: pick(...all.map(b => b.high)) }
    },
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
  exact: call => folded(call, ['x'], absolute),
  bounds: call => {
    const x = boundsOf(call, 'x')
    return x.low >= 0 ? x : x.high <= 0 ? negative(x) : { low: 0, high: Math.max(-x.low, x.high) }
  },
}
