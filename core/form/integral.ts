/**
 * The integral of an expression from second 0. Closed forms come first (`integral` of an expression); sums and constant factors
 * split; what comes back is added up over one period and counted, what rests from its rest on; a polynomial between a
 * few bends takes one step from each to the next. The rest is added up cell by cell, each cut where the value leaps or
 * bends, by Gauss and Kronrod's rule (Kronrod, 1965: weights above 0, so that a rate that is never below 0 never
 * runs back), halved until seven points and fifteen agree to 1e-13 of a unit. Kept sums never change a result.
 */
import {
  ZERO,
  fromNumber,
  compare,
  floor,
  fraction,
  fromFinite,
  isZero,
  minus,
  over,
  plus,
  rational,
  times,
  toNumber,
  type Rational,
} from '../time/rational.ts'
import { momentOfSeconds, type Moment } from '../time/moment.ts'
import { Cells } from './cells.ts'
import type { Facts } from '../facts/facts.ts'
import { PENDING, type WorkQueue } from './work-queue.ts'

export interface Integral {
  (m: Moment): number
  /** Seconds to either side up to which it is there, where that has an end. */
  readonly reach?: number
}

/** What can be added up over time: a value at moments, what is known of it, its closed form where it has one. */
export interface IntegralTerm {
  readonly at: (m: Moment) => number
  readonly facts: () => Facts
  readonly integral?: Integral | null
  readonly rate?:
    | { readonly type: 'sum'; readonly a: IntegralTerm; readonly b: IntegralTerm }
    | { readonly type: 'scaled'; readonly by: Rational; readonly of: IntegralTerm }
}

/** Cells of the longest period that is added up once and counted. */
const LONGEST_PERIOD = 400_000

/** How a summand is added up. */
type Way =
  | { readonly type: 'closed'; readonly integral: Integral }
  | { readonly type: 'sum'; readonly a: IntegralTerm; readonly b: IntegralTerm }
  | { readonly type: 'scaled'; readonly by: Rational; readonly of: IntegralTerm }
  | Rounds
  | { readonly type: 'rests'; readonly from: Rational }
  | { readonly type: 'pieces' }
  | { readonly type: 'cells' }

/** Comes back after so long, each time so much further, from a second on. */
interface Rounds {
  readonly type: 'rounds'
  readonly every: Rational
  readonly gain: Rational
  readonly from: Rational
}

function wayOf(f: IntegralTerm): Way {
  if (f.integral) return { type: 'closed', integral: f.integral }
  if (f.rate?.type === 'scaled' && !isZero(f.rate.by)) return { type: 'scaled', by: f.rate.by, of: f.rate.of }
  const { every, gain, from } = f.facts().repeats
  const { grain, all, only } = f.facts().bends
  if (grain === Infinity && all && only) return { type: 'pieces' }
  if (every && isZero(every) && isZero(gain) && from) return { type: 'rests', from }
  if (every && !isZero(every) && toNumber(every) / Cells.lengthFor(f) < LONGEST_PERIOD) {
    return { type: 'rounds', every, gain, from: from ?? ZERO }
  }
  if (f.rate?.type === 'sum') return { type: 'sum', a: f.rate.a, b: f.rate.b }
  return { type: 'cells' }
}

/**
 * Seconds to either side of second 0 up to which an expression is added up; Infinity for one that rests, comes back or has a
 * closed form.
 */
export function integralReach(f: IntegralTerm): number {
  const way = wayOf(f)
  if (way.type === 'scaled') return integralReach(way.of)
  if (way.type === 'sum') return Math.min(integralReach(way.a), integralReach(way.b))
  if (way.type === 'closed') return way.integral.reach ?? Infinity
  return way.type === 'cells' ? Cells.reachOf(f) : Infinity
}

/** ∫ f from one second of the piece to another; NaN while it is being worked out, and beyond its end. */
export type Between = (from: Rational, to: Rational) => number

export function integralOf(f: IntegralTerm, frameRate: Rational, queue: WorkQueue): Integral {
  const way = wayOf(f)
  switch (way.type) {
    case 'closed':
      return holding(way.integral, way.integral.reach ?? Infinity)
    case 'scaled': {
      const of = integralOf(way.of, frameRate, queue)
      const by = toNumber(way.by)
      return m => by * of(m)
    }
    case 'sum': {
      const [a, b] = [integralOf(way.a, frameRate, queue), integralOf(way.b, frameRate, queue)]
      return m => a(m) + b(m)
    }
    default: {
      const to = betweenOf(f, way, frameRate, queue)
      return holding(m => to(ZERO, m.exactSeconds), way.type === 'cells' ? Cells.reachOf(f) : Infinity)
    }
  }
}

/** A sum from second 0 that stays, beyond the seconds it is added up for, at what it came to by then. */
function holding(sum: Integral, reach: number): Integral {
  if (!Number.isFinite(reach) || reach === 0) return sum
  const end = fromNumber(reach)
  const held = (m: Moment): Moment => {
    if (m.seconds > reach) return momentOfSeconds(end, m.rate)
    return m.seconds < -reach ? momentOfSeconds(minus(ZERO, end), m.rate) : m
  }
  return m => sum(held(m))
}

/** The integral between two moments, without what lies before both: exact far away too. */
export function integralBetween(f: IntegralTerm, frameRate: Rational, queue: WorkQueue): Between {
  const way = wayOf(f)
  if (way.type === 'scaled') {
    const of = integralBetween(way.of, frameRate, queue)
    const by = toNumber(way.by)
    return (from, to) => by * of(from, to)
  }
  return betweenOf(f, way, frameRate, queue)
}

function betweenOf(f: IntegralTerm, way: Way, frameRate: Rational, queue: WorkQueue): Between {
  const cells = new Cells(f, frameRate, queue)
  switch (way.type) {
    case 'pieces':
      return asWide((from, to) => cells.direct(from, to))
    case 'rests': {
      const start = toNumber(way.from)
      const resting = () => f.at(momentOfSeconds(plus(way.from, rational(1)), frameRate))
      const rest = (from: Rational, to: Rational): number =>
        compare(to, from) <= 0 ? 0 : resting() * toNumber(minus(to, from))
      const least = (a: Rational) => (compare(a, way.from) < 0 ? toNumber(a) : start)
      const most = (a: Rational) => (compare(a, way.from) < 0 ? way.from : a)
      const up = (from: Rational, to: Rational) => cells.between(least(from), least(to)) + rest(most(from), most(to))
      return (from, to) => (compare(from, to) <= 0 ? up(from, to) : -up(to, from))
    }
    case 'rounds':
      return rounds(cells, way, queue)
    default:
      return asWide((from, to) => cells.between(from, to))
  }
}

/** Far from second 0 two doubles are not quite as far apart as the moments are: the sum is stretched by what they lack. */
const asWide =
  (sum: (from: number, to: number) => number): Between =>
  (from, to) => {
    const [a, b] = [toNumber(from), toNumber(to)]
    const wide = b - a
    return wide === 0 ? 0 : sum(a, b) * (toNumber(minus(to, from)) / wide)
  }

/**
 * Whole periods counted, then the rest; each period a growing rate gains more than the one before:
 * ∫ over n periods = n·W + gain·P²·n(n − 1)/2. Before `from` it is added up as it is.
 */
function rounds(cells: Cells, { every, gain, from }: Rounds, queue: WorkQueue): Between {
  const start = toNumber(from)
  const length = toNumber(every)
  let whole: number | undefined
  const period = () => {
    if (whole !== undefined) return whole
    const w = queue.attempt(() => cells.between(start, start + length))
    if (w === PENDING) return NaN
    if (!Number.isNaN(w)) whole = w
    return w
  }
  /** From `from` to a second at or after it (or anywhere, where it always comes back). */
  const upTo = (t: Rational): number => {
    const laps = over(minus(t, from), every)
    const n = floor(laps)
    const rest = toNumber(times(fraction(laps), every))
    let sum = cells.between(start, start + rest)
    if (n !== 0n) sum += Number(n) * period()
    if (isZero(gain) || n === 0n) return sum
    const grown = plus(
      times(times(every, every), rational(n * (n - 1n), 2n)),
      times(times(rational(n), every), fromFinite(rest)),
    )
    return sum + toNumber(times(gain, grown))
  }
  const always = isZero(from)
  const reach = (t: Rational): number =>
    !always && compare(t, from) < 0 ? -cells.between(toNumber(t), start) : upTo(t)
  return (a, b) => {
    if (!isZero(gain) || !always) return reach(b) - reach(a)
    // Both are counted from the period in which the first lies, so that large sums do not eat up small differences.
    const off = times(rational(floor(over(a, every))), every)
    const [x, y] = [minus(a, off), minus(b, off)]
    return compare(minus(b, a), every) < 0 ? cells.between(toNumber(x), toNumber(y)) : upTo(y) - upTo(x)
  }
}

/** The integral of a + b and of a · k, where the parts have one. */
export const sumIntegral = (a: IntegralTerm, b: IntegralTerm): Integral | null =>
  a.integral && b.integral
    ? integralWithin(m => a.integral!(m) + b.integral!(m), a.integral.reach, b.integral.reach)
    : null

/** An integral that reaches as far as the nearest of several ends. */
export const integralWithin = (of: (m: Moment) => number, ...reach: readonly (number | undefined)[]): Integral =>
  Object.assign(of, { reach: Math.min(...reach.map(r => r ?? Infinity)) })
export const scaledIntegral = (a: IntegralTerm, by: number): Integral | null =>
  a.integral ? integralWithin(m => a.integral!(m) * by, a.integral.reach) : null

/** rate · t² ÷ 2 + base · t, exact until it is rounded once. */
export function affineIntegral(rate: Rational, base: Rational): Integral {
  return m => {
    const t = m.exactSeconds
    return toNumber(plus(times(times(rate, times(t, t)), rational(1, 2)), times(base, t)))
  }
}
