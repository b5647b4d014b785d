/** What a formula is made ready with: its surroundings, and how it says that it cannot run. */
import type { Call } from '../functions/prepared-call.ts'
import { problem, type Problem } from '../formula/problem.ts'
import type { Marks } from '../signal/marks.ts'
import { fromNumber, times, type Rational } from '../time/rational.ts'
import type { Measures } from '../units/units.ts'
import type { ActiveClock } from '../form/active-clock.ts'
import { dialFactor } from '../form/dial-factors.ts'
import { constantExpression, type CompiledExpression } from '../form/compiled-expression.ts'
import type { ProductContext } from '../form/product.ts'

/** What a formula reads of its place and of the piece. */
export interface Env extends ProductContext, Measures {
  /** Tells this formula at this copy from all others. */
  readonly place: string
  /** The value of a word of the language here. */
  readonly builtin: (name: string, beat: ActiveClock) => CompiledExpression
  readonly dial: (id: string) => CompiledExpression
  readonly signal: (id: string) => CompiledExpression
  /** A property of a part; `copy` picks one of its innermost copies. Null when there is no such copy. */
  readonly property: (part: string, property: string, copy: number | 'before' | null) => CompiledExpression | null
  /** A part and feature as written: the part's id and the property's name, or the value of a fixed setting. */
  readonly feature: (
    of: string,
    name: string,
    relative: boolean,
  ) => { part: string; property: string } | { setting: number } | null
  readonly clock: (name: string) => ActiveClock
  readonly cue: (name: string) => Marks
  /** A channel of a curve (its first when none is named); null when there is no such channel. */
  readonly curve: (name: string, channel: string | null) => Call['curve']
  readonly gear: (name: string) => NonNullable<Call['gear']>
  readonly surface: (name: string) => Omit<NonNullable<Call['surface']>, 'lap'>
  /** Where a copy of a part stands; null when there is no such copy. */
  readonly spot: (of: string, relative: boolean, copy: number | null) => Call['spot']
  readonly hasCurve: (name: string) => boolean
  readonly channels: (name: string) => readonly string[]
  readonly windows: Call['windows']
  /** The seed of the n-th call of a function in the text, with no seed of its own; null where all copies are looked at together and each has another. */
  readonly seed: (name: string, nth: number, forAll?: boolean) => number | null
}

/** Thrown where a formula cannot run though its kinds are right. */
export class CannotRun extends Error {
  constructor(readonly problem: Problem) {
    super(problem.message)
  }
}

export const cannotRun = (...args: Parameters<typeof problem>): never => {
  throw new CannotRun(problem(...args))
}

/** A dial's value as a constant that knows its dial. */
export const dialExpression = (id: string, value: Rational, frameRate: Rational): CompiledExpression =>
  constantExpression(value, frameRate, { dials: dialFactor(id) })
/** A set value, exact as typed, in base measure. */
export const setValueExpression = (value: number, size: Rational, frameRate: Rational): CompiledExpression =>
  constantExpression(times(fromNumber(value), size), frameRate)
