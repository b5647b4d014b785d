/**
 * A form: a piece of formula made ready to be read at moments. Forms that are steady in time stay exact
 * (`exact`); all give a double at a moment, and facts about all moments when asked.
 */
import { AffineReader, add, constant, isConstant, opposite, type Affine } from '../time/affine.ts'
import type { Moment } from '../time/moment.ts'
import { fromNumber, toNumber, type Rational } from '../time/rational.ts'
import * as E from '../insight/edges.ts'
import * as I from '../insight/interval.ts'
import * as R from '../insight/repeats.ts'
import type { Dialled } from './dialled.ts'
import { affineIntegral, scaledIntegral, sumIntegral } from './integral.ts'

export interface Facts {
  /** Lowest and highest value over all time. */
  readonly bounds: I.Interval
  readonly repeats: R.Repeats
  /** Where the value may leap. */
  readonly edges: E.Edges
}

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
  /** Its integral from second 0, where there is a closed form. */
  readonly integral?: ((m: Moment) => number) | null
}

/** What a form may be besides its value. */
export type Nature = Partial<Pick<Form, 'perLap' | 'dials' | 'ofTime'>>

/** A form that is no steady growth. */
export function form(at: (m: Moment) => number, facts: () => Facts, integral: Form['integral'] = null): Form {
  let known: Facts | null = null
  return { at, exact: null, perLap: false, dials: null, ofTime: false, facts: () => (known ??= facts()), integral }
}

/** A form that is exactly rate · t + base. */
export function steady(exact: Affine, frameRate: Rational, nature: Nature = {}): Form {
  const reader = new AffineReader(exact, frameRate)
  const facts = (): Facts => {
    const bounds = isConstant(exact) ? I.point(toNumber(exact.base)) : I.ALL
    return { bounds, repeats: R.growing(exact.rate), edges: E.NONE }
  }
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
    : form(
        () => x,
        () => ({ bounds: I.ALL, repeats: R.ALWAYS, edges: E.NONE }),
      )

/** The constant a form is, exactly, or null. */
export const constantOf = (f: Form): Rational | null => (f.exact && isConstant(f.exact) ? f.exact.base : null)

export function sum(a: Form, b: Form, frameRate: Rational): Form {
  const exact = a.exact && b.exact && add(a.exact, b.exact)
  if (exact) {
    const ofTime = (a.ofTime || b.ofTime) && (a.ofTime || isConstant(a.exact!)) && (b.ofTime || isConstant(b.exact!))
    return steady(exact, frameRate, { perLap: a.perLap && b.perLap, ofTime })
  }
  return form(
    m => a.at(m) + b.at(m),
    () => both(a, b, I.plus, R.plus),
    sumIntegral(a, b),
  )
}

export function negated(a: Form, frameRate: Rational): Form {
  if (a.exact) return steady(opposite(a.exact), frameRate, { perLap: a.perLap, ofTime: a.ofTime })
  return form(
    m => -a.at(m),
    () => ({ ...a.facts(), bounds: I.negative(a.facts().bounds), repeats: R.negative(a.facts().repeats) }),
    scaledIntegral(a, -1),
  )
}

/** Facts of something made of two forms. */
export function both(
  a: Form,
  b: Form,
  bounds: (x: I.Interval, y: I.Interval) => I.Interval,
  repeats: (x: R.Repeats, y: R.Repeats) => R.Repeats,
): Facts {
  const x = a.facts()
  const y = b.facts()
  return {
    bounds: bounds(x.bounds, y.bounds),
    repeats: repeats(x.repeats, y.repeats),
    edges: E.joined(x.edges, y.edges),
  }
}
