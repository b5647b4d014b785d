/**
 * Easings: curves from 0 at 0 to 1 at 1. Each family is given by its `In` form; `Out` is it turned about the
 * middle and `InOut` both halves. The families and their default strengths are the trade's common ones
 * (after the easing equations of R. Penner, 2001).
 */
import { sineOfTurns } from './sine.ts'
import { power, twoTo } from './maths.ts'

export type Ease = (x: number) => number

interface Family {
  readonly name: string
  readonly says: string
  /** Default strength when the family takes one. */
  readonly strength?: number
  readonly make: (strength: number) => Ease
  /** How far beyond 0 … 1 its `In` form may go at a strength. */
  readonly overshoot?: (strength: number) => number
  /** Where its `In` form bends between 0 and 1. */
  readonly knots?: readonly number[]
}

const bounceOut: Ease = x => {
  const n = 7.5625
  if (x < 1 / 2.75) return n * x * x
  const foot = x < 2 / 2.75 ? 1.5 / 2.75 : x < 2.5 / 2.75 ? 2.25 / 2.75 : 2.625 / 2.75
  const top = x < 2 / 2.75 ? 0.75 : x < 2.5 / 2.75 ? 0.9375 : 0.984375
  return n * (x - foot) * (x - foot) + top
}

const elastic =
  (s: number): Ease =>
  x =>
    s * twoTo(10 * x - 10) * -sineOfTurns((x * 10 - 10.75) / 3) * x + (1 - s) * x * x

/** Looks by which the lowest value of an elastic easing is found. */
const LOOKS = 2048
const below = new Map<number, number>()
/** How far below 0 an elastic easing goes: looked for, with as much more as it may fall between two looks. */
function elasticBelow(s: number): number {
  const known = below.get(s)
  if (known !== undefined) return known
  const ease = elastic(s)
  let low = 0
  for (let k = 0; k <= LOOKS; k++) low = Math.min(low, ease(k / LOOKS))
  // It climbs by at most 10 ln 2 + 20 π / 3 + 1 for its waves, and 2 for the rest.
  const steep = 28.9 * Math.abs(s) + 2 * Math.abs(1 - s)
  if (below.size > 100) below.clear()
  below.set(s, steep / (2 * LOOKS) - low)
  return below.get(s)!
}

export const FAMILIES: readonly Family[] = [
  { name: 'quad', says: 'the square', make: () => x => x * x },
  { name: 'cubic', says: 'the cube', make: () => x => x * x * x },
  { name: 'quart', says: 'the fourth power', make: () => x => x * x * x * x },
  { name: 'quint', says: 'the fifth power', make: () => x => x * x * x * x * x },
  { name: 'pow', says: 'any power', strength: 2, make: p => x => power(x, p) },
  { name: 'sine', says: 'a quarter of a sine wave', make: () => x => 1 - sineOfTurns(0.25 - x / 4) },
  { name: 'expo', says: 'doubling again and again', make: () => x => (twoTo(10 * x) - 1) / 1023 },
  { name: 'circ', says: 'a quarter of a circle', make: () => x => 1 - Math.sqrt(Math.max(0, 1 - x * x)) },
  {
    name: 'back',
    says: 'pulls back first',
    strength: 1.70158,
    make: s => x => x * x * ((s + 1) * x - s),
    overshoot: s => (4 * s * s * s) / (27 * (s + 1) * (s + 1)),
  },
  {
    name: 'elastic',
    says: 'swings wider and wider',
    strength: 1,
    make: elastic,
    overshoot: elasticBelow,
  },
  {
    name: 'bounce',
    knots: [0.25 / 2.75, 0.75 / 2.75, 1.75 / 2.75],
    says: 'bounces, the last one highest',
    strength: 1,
    // The strength is how high it bounces: 0 not at all, 4 back to where it came from.
    make: s => x => {
      const height = Math.min(4, Math.max(0, s))
      return 1 - x < 1 / 2.75 ? 1 - bounceOut(1 - x) : height * (1 - bounceOut(1 - x))
    },
  },
]

const linear: Ease = x => x
const smooth: Ease = x => x * x * (3 - 2 * x)
const out =
  (ease: Ease): Ease =>
  x =>
    1 - ease(1 - x)
const inOut =
  (ease: Ease): Ease =>
  x =>
    x < 0.5 ? ease(2 * x) / 2 : 1 - ease(2 - 2 * x) / 2

/** Every easing's name, as written in formulas. */
export const EASING_NAMES: readonly string[] = [
  'linear',
  'smooth',
  ...FAMILIES.flatMap(f => [`${f.name}In`, `${f.name}Out`, `${f.name}InOut`]),
]

export interface NamedEase {
  readonly ease: Ease
  /** Lowest and highest value on 0 … 1. */
  readonly low: number
  readonly high: number
  /** Where it bends between 0 and 1. */
  readonly knots: readonly number[]
}

/** Whether an easing takes a strength, `backOut(2)`. */
export function takesStrength(name: string): boolean {
  return family(name)?.[0].strength !== undefined
}

function family(name: string): [Family, string] | undefined {
  const lower = name.toLowerCase()
  for (const f of FAMILIES)
    for (const end of ['InOut', 'In', 'Out']) if (lower === f.name + end.toLowerCase()) return [f, end]
  return undefined
}

/** The easing of a name, whatever its capitals, with its strength; undefined when there is none. */
export function easingNamed(name: string, strength?: number): NamedEase | undefined {
  const lower = name.toLowerCase()
  if (lower === 'linear') return { ease: linear, low: 0, high: 1, knots: [] }
  if (lower === 'smooth') return { ease: smooth, low: 0, high: 1, knots: [] }
  const found = family(name)
  if (!found) return undefined
  const [f, end] = found
  const used = strength ?? f.strength ?? 1
  const base = f.make(used)
  const beyond = f.overshoot ? Math.abs(f.overshoot(used)) : 0
  const low = end === 'In' ? -beyond : end === 'InOut' ? -beyond / 2 : 0
  const high = end === 'In' ? 1 : end === 'InOut' ? 1 + beyond / 2 : 1 + beyond
  const inner = f.knots ?? []
  const outer = inner.map(k => 1 - k)
  const knots =
    end === 'In' ? inner : end === 'Out' ? outer : [...inner.map(k => k / 2), 0.5, ...outer.map(k => (1 + k) / 2)]
  return { ease: end === 'In' ? base : end === 'Out' ? out(base) : inOut(base), low, high, knots }
}
