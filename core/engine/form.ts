/**
 * A form: a piece of formula made ready to be read at moments. Forms that are steady in time stay exact
 * (`exact`); all give a double at a moment, and facts about all moments when asked.
 */
import { AffineReader, add, constant, isConstant, opposite, scale, type Affine } from '../time/affine.ts'
import type { Moment } from '../time/moment.ts'
import { fromNumber, isZero, over, toNumber, type Rational, ONE } from '../time/rational.ts'
import * as I from '../insight/interval.ts'
import * as R from '../insight/repeats.ts'

export interface Facts {
  /** Lowest and highest value over all time. */
  readonly bounds: I.Interval
  readonly repeats: R.Repeats
  /** Whether the value may leap from one moment to the next. */
  readonly leaps: boolean
}

export interface Form {
  readonly at: (m: Moment) => number
  /** When not null, the value is exactly this. */
  readonly exact: Affine | null
  /** A constant rate or frequency that was written per lap: it counts from the start of the lap. */
  readonly perLap: boolean
  readonly facts: () => Facts
}

/** A form that is no steady growth. */
export function form(at: (m: Moment) => number, facts: () => Facts): Form {
  let known: Facts | null = null
  return { at, exact: null, perLap: false, facts: () => (known ??= facts()) }
}

/** A form that is exactly rate · t + base. */
export function steady(exact: Affine, frameRate: Rational, perLap = false): Form {
  const reader = new AffineReader(exact, frameRate)
  const facts = (): Facts => {
    const bounds = isConstant(exact) ? I.point(toNumber(exact.base)) : I.ALL
    return { bounds, repeats: R.growing(exact.rate), leaps: false }
  }
  return { at: m => reader.at(m), exact, perLap, facts }
}

export const fixed = (value: Rational, frameRate: Rational, perLap = false): Form => steady(constant(value), frameRate, perLap)
/** A constant from a double; not finite stays a plain form. */
export const fixedNumber = (x: number, frameRate: Rational): Form =>
  Number.isFinite(x) ? fixed(fromNumber(x), frameRate) : form(() => x, () => ({ bounds: I.ALL, repeats: R.NEVER, leaps: false }))

/** The constant a form is, exactly, or null. */
export const constantOf = (f: Form): Rational | null => (f.exact && isConstant(f.exact) ? f.exact.base : null)

export function sum(a: Form, b: Form, frameRate: Rational): Form {
  const exact = a.exact && b.exact && add(a.exact, b.exact)
  if (exact) return steady(exact, frameRate, a.perLap && b.perLap)
  return form(
    m => a.at(m) + b.at(m),
    () => both(a, b, I.plus, R.plus),
  )
}

export function negated(a: Form, frameRate: Rational): Form {
  if (a.exact) return steady(opposite(a.exact), frameRate, a.perLap)
  return form(
    m => -a.at(m),
    () => ({ ...a.facts(), bounds: I.negative(a.facts().bounds), repeats: R.negative(a.facts().repeats) }),
  )
}

export function product(a: Form, b: Form, frameRate: Rational): Form {
  const ca = constantOf(a)
  const cb = constantOf(b)
  const exact = ca && b.exact ? scale(b.exact, ca) : cb && a.exact ? scale(a.exact, cb) : null
  if (exact) return steady(exact, frameRate, a.perLap !== b.perLap)
  return form(
    m => a.at(m) * b.at(m),
    () =>
      both(a, b, I.times, (x, y) =>
        ca ? R.scaled(y, ca) : cb ? R.scaled(x, cb) : R.together([x, y]),
      ),
  )
}

export function quotient(a: Form, b: Form, frameRate: Rational): Form {
  const cb = constantOf(b)
  const exact = cb && !isZero(cb) && a.exact ? scale(a.exact, over(ONE, cb)) : null
  if (exact) return steady(exact, frameRate, a.perLap !== b.perLap)
  return form(
    m => a.at(m) / b.at(m),
    () => both(a, b, I.over, (x, y) => (cb && !isZero(cb) ? R.scaled(x, over(ONE, cb)) : R.together([x, y]))),
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
  return { bounds: bounds(x.bounds, y.bounds), repeats: repeats(x.repeats, y.repeats), leaps: x.leaps || y.leaps }
}
