/**
 * The shape of an entry in the function table. Parser, checker, engine, insight, completion and manual read
 * everything they know of a function from its one entry.
 */
import type { Form } from '../../engine/form.ts'
import type { Phase } from '../../engine/phase.ts'
import type { Interval } from '../../insight/interval.ts'
import type { Repeats } from '../../insight/repeats.ts'
import { together } from '../../insight/repeats.ts'
import type { Affine } from '../../time/affine.ts'
import type { Moment } from '../../time/moment.ts'
import type { Rational } from '../../time/rational.ts'
import type { Kind } from '../../units/kinds.ts'

/** `result`: of the kind the call gives. `other`: of any kind, but all `other` arguments of one. */
export type ParameterKind = Kind | 'result' | 'other'

export interface Parameter {
  readonly name: string
  readonly says: string
  readonly kind: ParameterKind
  /** In base measure, when left out; `required` when it must be given (unless an `either` form leaves it out). */
  readonly initial?: number
  readonly required?: true
  /** A bare number here takes the driven property's unit, when the call stands in a value place. */
  readonly valuePlace?: true
  /** Words that may be written here, looked up before any name. */
  readonly words?: () => readonly string[]
  /** Must be more than 0 wherever it is known. */
  readonly positive?: true
  /** Must not change with time. */
  readonly steady?: true
}

export interface Entry {
  readonly name: string
  readonly group: 'source' | 'shape'
  readonly says: string
  readonly example: { readonly part: string; readonly property: string; readonly text: string }
  /** In the order in which arguments without a name fill them. */
  readonly takes: readonly Parameter[]
  /** The last parameter may be given again and again. */
  readonly many?: true
  /** Two ways of saying the same: giving some of both is an error. */
  readonly either?: readonly (readonly [readonly string[], readonly string[]])[]
  readonly result: Kind | 'result'
  /** Sources with a phase: the parameters that set their pace. */
  readonly pace?: { readonly freq: string; readonly every?: string; readonly phase?: string }
  /** Draws on a seed. */
  readonly seeded?: true
  readonly value: (call: Call) => (m: Moment) => number
  /** When the whole call is a steady growth or a constant. */
  readonly exact?: (call: Call) => Affine | null
  readonly bounds: (call: Call) => Interval
  /** When not given: it repeats when its arguments do. */
  readonly repeats?: (call: Call) => Repeats
  /** When not given: it leaps when an argument does. */
  readonly leaps?: (call: Call) => boolean
}

/** A word as an argument, with the strength that may stand behind it: `elasticOut(1.4)`. */
export interface Word {
  readonly name: string
  readonly strength?: number
}

/** One call with its arguments made ready. */
export interface Call {
  /** By parameter name; those left out with an `initial` are there, others are undefined. */
  readonly args: Readonly<Record<string, Form | undefined>>
  /** Names of the arguments that were written. */
  readonly given: ReadonlySet<string>
  /** All values of the last parameter when it may be given many times. */
  readonly many: readonly Form[]
  readonly words: Readonly<Record<string, Word | undefined>>
  readonly phase: Phase
  readonly seed: number
  readonly frameRate: Rational
}

export const argsOf = (call: Call): Form[] => [
  ...Object.values(call.args).filter((f): f is Form => f !== undefined),
  ...call.many,
]
export const boundsOf = (call: Call, name: string): Interval => call.args[name]!.facts().bounds
export const repeatsOfArgs = (call: Call): Repeats => together(argsOf(call).map(f => f.facts().repeats))
export const leapsOfArgs = (call: Call): boolean => argsOf(call).some(f => f.facts().leaps)
