/**
 * The shape of an entry in the function table: its signature, how it is evaluated, and what is known of its values for
 * all time. Parser, checker, engine, insight, completion and manual read everything they know of a function from its
 * one entry.
 */
import type { Column } from '../columns/column.ts'
import type { Elsewhere, LaneCall } from '../columns/kernel.ts'
import type { Bends } from '../facts/bends.ts'
import type { Cost } from '../facts/cost.ts'
import type { Interval } from '../facts/interval.ts'
import type { Repeats } from '../facts/repeats.ts'
import type { Accumulation } from '../form/accumulation.ts'
import type { CompiledExpression, Exactly } from '../form/compiled-expression.ts'
import type { Integral } from '../form/integral.ts'
import type { Pacing } from '../form/phase.ts'
import type { Affine } from '../time/affine.ts'
import type { Moment } from '../time/moment.ts'
import type { Rational } from '../time/rational.ts'
import type { Kind } from '../units/kinds.ts'
import type { Call, Fold } from './prepared-call.ts'
import type { Parameter } from './parameter.ts'

/** How it is written, and what the manual says about it. */
export interface FunctionSignature {
  readonly name: string
  readonly group: 'source' | 'time' | 'shape' | 'angle' | 'rig'
  readonly description: string
  readonly example: { readonly part: string; readonly property: string; readonly text: string }
  /** In the order in which arguments without a name fill them. */
  readonly parameters: readonly Parameter[]
  /** The last parameter may be repeated. */
  readonly variadic?: true
  /** Pairs of `alternatives` that may also be given together. */
  readonly together?: readonly (readonly [string, string])[]
  /** Two ways of saying the same: giving some of both is an error. */
  readonly alternatives?: readonly (readonly [readonly string[], readonly string[]])[]
  /** `curve`: of the unit of the curve it reads. `rate`: the kind of `x` per time. */
  readonly result: Kind | 'result' | 'curve' | 'rate'
  /** Sources with a phase: the parameters that set their pace. */
  readonly pace?: Pacing
  /** What is not plain needs this argument. */
  readonly plainUnless?: string
  /** Draws on a seed. */
  readonly seeded?: true
}

/** @template C one call @template L the call on many lanes */
interface Evaluation<C, L> {
  readonly at: (call: C) => (m: Moment) => number
  /** When the whole call is a steady growth or a constant by other means than `fold`. */
  readonly exact?: (call: C) => Affine | null
  /**
   * The value as a fraction, from those of some arguments: so it is exact where they are, constant where they are
   * constants. It gives null where there is none.
   */
  readonly fold?: (call: C) => Fold | null
  /** The same where it is more than arguments that decide, such as a phase. */
  readonly exactly?: (call: C) => Exactly | null
  /** Its integral from second 0, where there is a closed form for these arguments. */
  readonly integral?: (call: C) => Integral | null
  /** The value on many lanes at a time, to the bit; without one it is read lane by lane. Null where only that can follow. */
  readonly kernel?: (call: L) => Column | null
}

interface FactRules<C> {
  readonly bounds: (call: C) => Interval
  /** When not given: it repeats when its arguments do. */
  readonly repeats?: (call: C) => Repeats
  /** When not given: it may jump or bend where an argument does. */
  readonly bends?: (call: C) => Bends
  /** Those at which it may jump: when not given, where an argument may, or, with bends of its own, all of them. */
  readonly leaps?: (call: C) => Bends
  /** Whether it surely has a value wherever its arguments have one. When not given: it does. */
  readonly finite?: (call: C) => boolean
  /** Lowest and highest speed, per second, leaps aside. When not given: not known. */
  readonly slope?: (call: C) => Interval
  /** Operations a value takes. When not given: one more than its arguments. */
  readonly cost?: (call: C) => Cost
  /** What all its values are whole multiples of. */
  readonly grid?: (call: C) => Rational | null
}

export interface Entry extends FunctionSignature {
  readonly evaluation: Evaluation<Call, LaneCall<Call>>
  readonly facts: FactRules<Call>
}

/** Parameters that one of two ways of saying the same leaves out. */
type LeftOut<S extends FunctionSignature> = S extends {
  readonly alternatives: NonNullable<FunctionSignature['alternatives']>
}
  ? S['alternatives'][number][0 | 1][number]
  : never

/** Arguments by parameter name: which of them are surely there follows from the signature. */
type ArgumentsOf<S extends FunctionSignature> = S extends { readonly variadic: true }
  ? Call['args']
  : {
      readonly [P in S['parameters'][number] as P['name']]: P extends { readonly initial: number }
        ? CompiledExpression
        : P extends { readonly thing: string } | { readonly words: unknown } | { readonly free: true }
          ? undefined
          : P extends { readonly required: true }
            ? P['name'] extends LeftOut<S>
              ? CompiledExpression | undefined
              : CompiledExpression
            : CompiledExpression | undefined
    }

/** What is surely there where a parameter demands it. */
type Demanding<S extends FunctionSignature, Demand, There> = [Extract<S['parameters'][number], Demand>] extends [never]
  ? unknown
  : There
type Naming<S extends FunctionSignature, Thing, Key extends keyof Call> = Demanding<
  S,
  { readonly thing: Thing; readonly required: true },
  { readonly [K in Key]: NonNullable<Call[K]> }
>

/** A call of what has this signature. */
type CallOf<S extends FunctionSignature> = Omit<Call, 'args'> & { readonly args: ArgumentsOf<S> } & Naming<
    S,
    'cue',
    'cue'
  > &
  Naming<S, 'curve', 'curve'> &
  Naming<S, 'gear', 'gear'> &
  Naming<S, 'part', 'spot'> &
  Naming<S, 'waves', 'surface'> &
  Demanding<S, { readonly kind: 'perSecond' }, { readonly accumulation: Accumulation }>

type ColumnOf<E> = E extends undefined ? undefined : Column

type LaneCallOf<S extends FunctionSignature> = Omit<LaneCall<CallOf<S>>, 'args'> & {
  readonly args: {
    readonly [N in keyof ArgumentsOf<S>]: N extends Extract<
      S['parameters'][number],
      { readonly readAt: string }
    >['name']
      ? undefined
      : ColumnOf<ArgumentsOf<S>[N]>
  }
} & Demanding<S, { readonly readAt: string }, { readonly elsewhere: Elsewhere }>

/** Makes an entry. The signature types the arguments. */
export function entry<const S extends FunctionSignature>(
  signature: S,
  evaluation: Evaluation<CallOf<S>, LaneCallOf<S>>,
  facts: FactRules<CallOf<S>>,
): Entry {
  // `CallCompiler.prepared` supplies what the signature requires.
  return { ...signature, evaluation, facts } as unknown as Entry
}
