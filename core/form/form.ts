/**
 * A form: a piece of formula made ready to be read at moments. Forms that are steady in time stay exact
 * (`exact`); all give a double at a moment, and facts about all moments when asked.
 */
import { AffineReader, add, constant, isConstant, opposite, type Affine } from '../time/affine.ts'
import { momentOfSeconds, type Moment } from '../time/moment.ts'
import { ONE, ZERO, fromNumber, negate, plus, toNumber, type Rational } from '../time/rational.ts'
import * as E from '../facts/edges.ts'
import * as I from '../facts/interval.ts'
import * as R from '../facts/repeats.ts'
import { FREE, costOf, facts as known, type Facts, type Known } from '../facts/facts.ts'
import type { Beat } from './beat.ts'
import type { Dialled } from './dialled.ts'
import { affineIntegral, scaledIntegral, sumIntegral } from './integral.ts'

export interface Form {
  readonly at: (m: Moment) => number
  /** When not null, the value is exactly this. */
  readonly exact: Affine | null
  /** A constant rate or time that was written in laps: it counts from the start of the lap. */
  readonly perLap: boolean
  /** For a constant: how dials make it what it is; null when none does. */
  readonly dials: Dialled | null
  /** Made of the time names and constants alone: multiplied with a pace, it is integrated. */
  readonly ofTime: boolean
  readonly facts: () => Facts
  /** Time on a clock that is not steady: what it is in the clock's seconds. */
  readonly onClock?: { readonly affine: Affine; readonly beat: Beat }
  /** How it is made of others, where that matters to adding it up over time. */
  readonly rate?: Rate
  /** Its integral from second 0, where there is a closed form. */
  readonly integral?: ((m: Moment) => number) | null
}

/** A sum, or a constant factor (dials in it, or none) before something that moves. */
export type Rate =
  | { readonly type: 'sum'; readonly a: Form; readonly b: Form }
  | { readonly type: 'scaled'; readonly by: Rational; readonly dials: Dialled | null; readonly of: Form }

/** What a form may be besides its value. */
export type Nature = Partial<Pick<Form, 'perLap' | 'dials' | 'ofTime'>>

/** A form that is no steady growth. */
export function form(at: (m: Moment) => number, facts: Known, integral: Form['integral'] = null): Form {
  return { at, exact: null, perLap: false, dials: null, ofTime: false, facts: once(facts), integral }
}

function once(ways: Known): () => Facts {
  let made: Facts | null = null
  return () => (made ??= known(ways))
}

/** A form that is exactly rate · t + base. */
export function steady(exact: Affine, frameRate: Rational, nature: Nature = {}): Form {
  const reader = new AffineReader(exact, frameRate)
  const facts = once({
    bounds: () => (isConstant(exact) ? I.point(toNumber(exact.base)) : I.ALL),
    repeats: () => R.growing(exact.rate),
    edges: () => E.NONE,
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
    ...nature,
  }
}

export const fixed = (value: Rational, frameRate: Rational, nature: Nature = {}): Form =>
  steady(constant(value), frameRate, nature)

/** A constant from a double; one that is not finite stays a plain form. */
export const fixedNumber = (x: number, frameRate: Rational): Form =>
  Number.isFinite(x)
    ? fixed(fromNumber(x), frameRate)
    : form(() => x, {
        bounds: () => I.ALL,
        repeats: () => R.ALWAYS,
        edges: () => E.NONE,
        cost: () => FREE,
        finite: () => false,
      })

/** The constant a form is, exactly, or null. */
export const constantOf = (f: Form): Rational | null => (f.exact && isConstant(f.exact) ? f.exact.base : null)

export function sum(a: Form, b: Form, frameRate: Rational): Form {
  const exact = a.exact && b.exact && add(a.exact, b.exact)
  if (exact) {
    const ofTime = (a.ofTime || b.ofTime) && (a.ofTime || isConstant(a.exact!)) && (b.ofTime || isConstant(b.exact!))
    return steady(exact, frameRate, { perLap: a.perLap && b.perLap, ofTime })
  }
  const both = form(
    m => a.at(m) + b.at(m),
    {
      ...made([a, b]),
      bounds: () => I.plus(bounds(a), bounds(b)),
      repeats: () => R.plus(repeats(a), repeats(b)),
      slope: () => I.plus(slope(a), slope(b)),
    },
    sumIntegral(a, b),
  )
  return { ...both, rate: { type: 'sum', a, b } }
}

export function negated(a: Form, frameRate: Rational): Form {
  if (a.exact) return steady(opposite(a.exact), frameRate, { perLap: a.perLap, ofTime: a.ofTime })
  const less = form(
    m => -a.at(m),
    {
      ...made([a]),
      bounds: () => I.negative(bounds(a)),
      repeats: () => R.negative(repeats(a)),
      slope: () => I.negative(slope(a)),
    },
    scaledIntegral(a, -1),
  )
  return { ...less, rate: { type: 'scaled', by: negate(ONE), dials: null, of: a } }
}

export const bounds = (f: Form): I.Interval => f.facts().bounds
export const repeats = (f: Form): R.Repeats => f.facts().repeats
export const slope = (f: Form): I.Interval => f.facts().slope

/** The value at which a form rests from some moment on; null when it does not. */
export function restOf(f: Form, frameRate: Rational): number | null {
  const r = repeats(f)
  return R.rests(r) ? f.at(momentOfSeconds(plus(r.from ?? ZERO, ONE), frameRate)) : null
}

/** What something made of forms has of them by one operation: it repeats when all do, leaps where one may, and so on. */
export const made = (of: readonly Form[]): Omit<Known, 'bounds'> => ({
  repeats: () => R.together(of.map(repeats)),
  edges: () => E.joined(...of.map(f => f.facts().edges)),
  cost: () =>
    costOf(
      1,
      of.map(f => f.facts()),
    ),
  finite: () => of.every(f => f.facts().finite),
})
