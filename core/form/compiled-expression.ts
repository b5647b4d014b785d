/**
 * An expression: a piece of formula made ready to be read at moments. Expressions that are steady in time stay exact
 * (`exact`); all give a double at a moment, and facts about all moments when asked.
 */
import { AffineReader, add, constant, evaluateAffine, isConstant, opposite, type Affine } from '../time/affine.ts'
import { momentNear, momentOfSeconds, type Moment } from '../time/moment.ts'
import {
  ONE,
  ZERO,
  fromNumber,
  negate,
  plus,
  toNumber,
  within,
  type Rational,
  commonMeasure,
  isZero,
} from '../time/rational.ts'
import * as B from '../facts/bends.ts'
import * as I from '../facts/interval.ts'
import * as R from '../facts/repeats.ts'
import { FREE, costOf } from '../facts/cost.ts'
import { facts as known, type Facts, type FactSources } from '../facts/facts.ts'
import type { ActiveClock } from './active-clock.ts'
import type { DialFactors } from './dial-factors.ts'
import { ofEveryCopy } from './differs-by-copy.ts'
import type { WorkQueue } from './work-queue.ts'
import { affineIntegral, scaledIntegral, sumIntegral, type Integral } from './integral.ts'

export interface CompiledExpression {
  readonly at: (m: Moment) => number
  /** When not null, the value is exactly this. */
  readonly exact: Affine | null
  /** A constant rate or time that was written in laps: it counts from the start of the lap. */
  readonly perLap: boolean
  /** For a constant: how dials make it what it is; null when none does. */
  readonly dials: DialFactors | null
  /** Made of the time names and constants alone: multiplied with a pace, it is integrated. */
  readonly ofTime: boolean
  readonly facts: () => Facts
  /** Time on a clock that is not steady: what it is in the clock's seconds. */
  readonly onClock?: { readonly affine: Affine; readonly beat: ActiveClock }
  /** How it is made of others, where that matters to adding it up over time. */
  readonly rate?: Rate
  /** Its integral from second 0, where there is a closed form. */
  readonly integral?: Integral | null
  /** Its value as a fraction, exactly, where it is made of straight pieces and whole steps; it may be null at a moment. */
  readonly exactly?: Exactly | null
  /** What all its values are whole multiples of, where there is such a step. */
  readonly grid?: Rational | null
}

export type Exactly = (m: Moment) => Rational | null

/** A sum, or a constant factor (dials in it, or none) before something that moves. */
export type Rate =
  | { readonly type: 'sum'; readonly a: CompiledExpression; readonly b: CompiledExpression }
  | {
      readonly type: 'scaled'
      readonly by: Rational
      readonly dials: DialFactors | null
      readonly of: CompiledExpression
    }

/** What an expression may be besides its value. */
export type Nature = Partial<Pick<CompiledExpression, 'perLap' | 'dials' | 'ofTime'>>

/** An expression that is no steady growth. */
export function expressionOf(
  at: (m: Moment) => number,
  facts: FactSources,
  more: Pick<CompiledExpression, 'integral' | 'exactly' | 'grid' | 'rate'> = {},
): CompiledExpression {
  return { at, exact: null, perLap: false, dials: null, ofTime: false, facts: once(facts), ...more }
}

/** What is made of the exact values of expressions, where all of them have one. */
export function exactlyOf(
  of: readonly CompiledExpression[],
  fold: (...values: Rational[]) => Rational | null,
): Exactly | null {
  if (!of.every(f => f.exactly)) return null
  return m => {
    const values: Rational[] = []
    for (const f of of) {
      const v = f.exactly!(m)
      if (!v) return null
      values.push(v)
    }
    const folded = fold(...values)
    return folded && within(folded) ? folded : null
  }
}

/** The step of sums of two values. */
export const gridOf = (a: CompiledExpression, b: CompiledExpression): Rational | null =>
  a.grid && b.grid ? (isZero(a.grid) ? b.grid : isZero(b.grid) ? a.grid : commonMeasure(a.grid, b.grid)) : null

/** Whether two values are so near at a moment that rounding may have put them on the wrong sides of each other. */
export const hardlyApart = (a: number, b: number, m: Moment): boolean => isNear(a, b, m.seconds)
/** The same at a second. */
export const isNear = (a: number, b: number, seconds: number): boolean =>
  Math.abs(a - b) <= 1e-9 * (1 + Math.abs(a) + Math.abs(seconds))

/** An expression's value by the seconds of the piece. */
export const bySecond =
  (f: Pick<CompiledExpression, 'at'>, frameRate: Rational) =>
  (t: number): number =>
    f.at(momentNear(t, frameRate))

function once(ways: FactSources): () => Facts {
  let made: Facts | null = null
  return () => (made ??= known(ways))
}

/** An expression that is exactly rate · t + base. */
export function steadyExpression(exact: Affine, frameRate: Rational, nature: Nature = {}): CompiledExpression {
  const reader = new AffineReader(exact, frameRate)
  const facts = once({
    bounds: () => (isConstant(exact) ? I.point(toNumber(exact.base)) : I.ALL),
    repeats: () => R.growing(exact.rate),
    bends: () => B.SMOOTH,
    cost: () => (isConstant(exact) ? FREE : costOf(1, [])),
    finite: () => true,
    slope: () => I.point(toNumber(exact.rate)),
  })
  return {
    at: m => reader.at(m),
    exact,
    perLap: false,
    dials: null,
    ofTime: false,
    facts,
    integral: affineIntegral(exact.rate, exact.base),
    exactly: m => evaluateAffine(exact, m),
    grid: isConstant(exact) ? exact.base : null,
    ...nature,
  }
}

export const constantExpression = (value: Rational, frameRate: Rational, nature: Nature = {}): CompiledExpression =>
  steadyExpression(constant(value), frameRate, nature)

/** A constant from a double; one that is not finite stays a plain expression. */
export const constantNumber = (x: number, frameRate: Rational): CompiledExpression =>
  Number.isFinite(x)
    ? constantExpression(fromNumber(x), frameRate)
    : expressionOf(() => x, {
        bounds: () => I.ALL,
        repeats: () => R.ALWAYS,
        bends: () => B.SMOOTH,
        cost: () => FREE,
        finite: () => false,
      })

/** The constant an expression is, exactly, or null. */
export const constantOf = (f: CompiledExpression): Rational | null =>
  f.exact && isConstant(f.exact) ? f.exact.base : null

export function sum(a: CompiledExpression, b: CompiledExpression, frameRate: Rational): CompiledExpression {
  const exact = a.exact && b.exact && add(a.exact, b.exact)
  if (exact) {
    const ofTime = (a.ofTime || b.ofTime) && (a.ofTime || isConstant(a.exact)) && (b.ofTime || isConstant(b.exact))
    return steadyExpression(exact, frameRate, { perLap: a.perLap && b.perLap, ofTime })
  }
  const { bends, leaps, reach, cost, finite } = natureOf([a, b])
  return expressionOf(
    m => a.at(m) + b.at(m),
    {
      bends,
      leaps,
      reach,
      cost,
      finite,
      bounds: () => I.plus(bounds(a), bounds(b)),
      repeats: () => R.plus(repeats(a), repeats(b)),
      slope: () => I.plus(slope(a), slope(b)),
    },
    {
      integral: sumIntegral(a, b),
      exactly: exactlyOf([a, b], plus),
      grid: gridOf(a, b),
      rate: { type: 'sum', a, b },
    },
  )
}

export function negateExpression(a: CompiledExpression, frameRate: Rational): CompiledExpression {
  if (a.exact) return steadyExpression(opposite(a.exact), frameRate, { perLap: a.perLap, ofTime: a.ofTime })
  const less = expressionOf(
    m => -a.at(m),
    {
      ...natureOf([a]),
      bounds: () => I.negative(bounds(a)),
      repeats: () => R.negative(repeats(a)),
      slope: () => I.negative(slope(a)),
    },
    { integral: scaledIntegral(a, -1), exactly: exactlyOf([a], negate), grid: a.grid },
  )
  return { ...less, rate: { type: 'scaled', by: negate(ONE), dials: null, of: a } }
}

export const bounds = (f: CompiledExpression): I.Interval => f.facts().bounds
export const repeats = (f: CompiledExpression): R.Repeats => f.facts().repeats
export const slope = (f: CompiledExpression): I.Interval => f.facts().slope
export const bends = (f: CompiledExpression): B.Bends => f.facts().bends
export const leaps = (f: CompiledExpression): B.Bends => f.facts().leaps

/** The value at which an expression rests from some moment on; null when it does not, or each copy at another. */
export function restOf(f: CompiledExpression, frameRate: Rational, queue: WorkQueue): number | null {
  const r = repeats(f)
  if (!R.rests(r)) return null
  return ofEveryCopy(() => queue.settle(() => f.at(momentOfSeconds(plus(r.from ?? ZERO, ONE), frameRate))))
}

/** What something made of expressions has of them by one operation: it repeats when all do, leaps where one may, and so on. */
export const natureOf = (of: readonly CompiledExpression[]) => ({
  repeats: () => R.together(of.map(repeats)),
  bends: () => B.joined(...of.map(bends)),
  leaps: () => B.joined(...of.map(leaps)),
  reach: () => Math.min(...of.map(f => f.facts().reach)),
  cost: () =>
    costOf(
      1,
      of.map(f => f.facts()),
    ),
  finite: () => of.every(f => f.facts().finite),
})
