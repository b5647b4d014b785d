/** What an argument of a function may be. */
import type { Kind } from '../units/kinds.ts'

/**
 * `result`: of the kind the call gives. `other`: of any kind, but all `other` arguments of one. `perSecond`: the
 * result's kind per time. `any`: whatever it is.
 */
export type ParameterKind = Kind | 'result' | 'other' | 'perSecond' | 'any'

export interface Parameter {
  readonly name: string
  readonly description: string
  readonly kind: ParameterKind
  /** In base measure, when left out; `required` when it must be given (unless one of the `alternatives` leaves it out). */
  readonly initial?: number
  readonly required?: true
  /** A bare number here takes the driven property's unit, when the call stands in a value place. */
  readonly valuePlace?: true
  /** Words that may be written here, looked up before any name. */
  readonly words?: () => readonly string[]
  /** Its words are the easings, and any curve of the piece may be one. */
  readonly easing?: true
  /** The name of a thing of the piece. */
  readonly thing?: 'cue' | 'curve' | 'gear' | 'waves' | 'part'
  /** Any one word, such as the name of a channel. */
  readonly free?: true
  /** Must be more than 0 wherever it is known. */
  readonly positive?: true
  /** Must not change with time. */
  readonly steady?: true
  /**
   * Read at other moments than the call: a kernel has it by its `elsewhere` alone. `earlier`: so many seconds away,
   * whatever the moment of the call, so that a timetable follows them.
   */
  readonly readAt?: 'earlier' | 'anywhere'
}

/** A parameter whose name and demands are known to the compiler, which types the arguments of an entry by them. */
export const parameter = <const P extends Parameter>(p: P): P => p
