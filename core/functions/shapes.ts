/** Shape functions: what one value becomes by another. */
import { interval, meet, minus, negative, over as quotient, plus, point, times, union } from '../facts/interval.ts'
import { NONE, atZero } from '../facts/edges.ts'
import { EASING_NAMES, easingNamed } from '../signal/easing.ts'
import { constantOf } from '../form/form.ts'
import { AffineReader, add, constant, opposite } from '../time/affine.ts'
import { ZERO, absolute, compare, minus as less, plus as and, times as by, type Rational } from '../time/rational.ts'
import { PLAIN } from '../units/kinds.ts'
import { settledBy } from '../form/beat.ts'
import { boundsOf, folded, repeatsOfArgs, settledBetween, slopeOf, type Entry, type Parameter } from './entry.ts'

const X: Parameter = { name: 'x', says: 'the value', kind: 'result', required: true, valuePlace: true }

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
  exact: call => folded(call, ['a', 'b', 'share'], (a, b, s) => and(a, by(less(b, a), s))),
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
  exact: call => folded(call, ['x'], absolute),
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
      return v > 0 ? 1 : v < 0 ? -1 : v === 0 ? 0 : NaN
    }
  },
  bounds: call => {
    const { low, high } = boundsOf(call, 'x')
    const of = (v: number) => (v > 0 ? 1 : v < 0 ? -1 : 0)
    return interval(of(low), of(high))
  },
  repeats: call => (call.args.x!.exact ? settledBy(call.args.x!.exact, ZERO, ZERO) : repeatsOfArgs(call)),
  edges: call => {
    const x = call.args.x!
    return constantOf(x) ? NONE : x.exact ? atZero(x.exact) : ['anywhere']
  },
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
    if (!difference) return m => (x!.at(m) >= edge!.at(m) ? 1 : 0)
    const reader = new AffineReader(difference, call.frameRate)
    return m => (reader.signAt(m) >= 0 ? 1 : 0)
  },
  bounds: call => {
    const [edge, x] = [boundsOf(call, 'edge'), boundsOf(call, 'x')]
    return x.low >= edge.high ? point(1) : x.high < edge.low ? point(0) : interval(0, 1)
  },
  edges: call => {
    const { edge, x } = call.args
    const difference = x!.exact && edge!.exact && add(x!.exact, opposite(edge!.exact))
    return difference ? atZero(difference) : ['anywhere']
  },
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
}

export const ease: Entry = {
  name: 'ease',
  group: 'shape',
  says: 'Bends a share from 0 to 1 along an easing; before 0 and after 1 it holds.',
  example: { part: 'Carousel', property: 'scale', text: 'ease(lapProgress, elasticOut(1.2))' },
  takes: [
    { name: 'x', says: 'the share, 0 to 1', kind: PLAIN, required: true },
    { name: 'curve', says: 'the easing', kind: PLAIN, words: () => EASING_NAMES, required: true },
  ],
  result: PLAIN,
  value: call => {
    const { x } = call.args
    const bend = easingNamed(call.words.curve!.name, call.words.curve!.strength)!.ease
    return m => {
      const v = x!.at(m)
      return bend(v < 0 ? 0 : v > 1 ? 1 : v)
    }
  },
  bounds: call => {
    const { low, high } = easingNamed(call.words.curve!.name, call.words.curve!.strength)!
    return interval(low, high)
  },
}
