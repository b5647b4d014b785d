/** What a program holds of each driven property. */
import type { Problem } from '../formula/problem.ts'
import type { CompiledExpression } from '../form/compiled-expression.ts'
import type { Moment } from '../time/moment.ts'
import type { Rational } from '../time/rational.ts'
import type { DeferredCopies } from './deferred.ts'
import type { RunningText } from './meaning.ts'
import { exactTogether, type Exact, type ExactLane } from './plan/exact-lanes.ts'
import type { Plan } from './plan/plan.ts'

/** A pace made of dials that a formula uses: its value now, and what it is multiplied by at a moment. */
export interface Pace {
  readonly pace: Rational
  readonly run: (m: Moment) => Rational
}

/** A driven property (or a signal, with one instance), ready to run. */
export interface Slot {
  readonly key: string
  /** The same object while its formula, and all it is made of but the values that it reads, stand as they are. */
  readonly own: object
  /** How its copies are run in columns; null where each is read by itself. */
  readonly plan: Plan | null
  /** Operations of its lane, where it was planned with others of its shape; else null. */
  readonly laneOperations: number | null
  readonly forms: readonly CompiledExpression[]
  /** The same, held to the set value where a value is not finite, and worked out once a moment. */
  readonly readers: readonly CompiledExpression[]
  /** How many copies it has. */
  readonly count: number
  readonly running: RunningText
  readonly problems: readonly Problem[]
  readonly paces: ReadonlyMap<string, Pace>
  readonly dials: ReadonlySet<string>
  readonly slots: ReadonlySet<string>
  /** Set values by their keys that it reads, its own among them. */
  readonly setValueKeys: readonly string[]
  /** Whether its copies read those before them. */
  readonly chained: boolean
  /** Where its first instance stands in a snapshot; −1 for a signal. */
  readonly offset: number
  /** How many pieces of formula were compiled for it, those of every copy counted. */
  readonly pieces: number
  /** The expressions of copies that something has asked for, of a slot in columns; all of another. */
  readonly compiled: readonly CompiledExpression[]
}

/** All of a slot but what is compiled of it, and where its values begin. */
export type SlotContent = Omit<Slot, 'plan' | 'laneOperations' | 'forms' | 'readers' | 'count' | 'compiled' | 'offset'>

/** A slot of which every copy is read by itself. */
export const plainSlot = (
  known: SlotContent,
  { forms, readers }: Pick<Slot, 'forms' | 'readers'>,
  offset: number,
): Slot => ({
  // Each by its name: slots are many, and a spread in front makes the rest of it slow.
  key: known.key,
  own: known.own,
  running: known.running,
  problems: known.problems,
  paces: known.paces,
  dials: known.dials,
  slots: known.slots,
  setValueKeys: known.setValueKeys,
  chained: known.chained,
  pieces: known.pieces,
  plan: null,
  laneOperations: null,
  forms,
  readers,
  count: readers.length,
  compiled: readers,
  offset,
})

/** A slot in columns, of its own or with others of its shape: its copies are compiled when something asks for them. */
export class SlotInColumns implements Slot {
  readonly key
  readonly own
  readonly running
  readonly problems
  readonly paces
  readonly dials
  readonly slots
  readonly setValueKeys
  readonly chained
  readonly pieces

  constructor(
    known: SlotContent,
    readonly plan: Plan | null,
    readonly laneOperations: number | null,
    private readonly copies: DeferredCopies,
    readonly offset: number,
  ) {
    this.key = known.key
    this.own = known.own
    this.running = known.running
    this.problems = known.problems
    this.paces = known.paces
    this.dials = known.dials
    this.slots = known.slots
    this.setValueKeys = known.setValueKeys
    this.chained = known.chained
    this.pieces = known.pieces
  }

  get count(): number {
    return this.copies.count
  }
  get forms(): readonly CompiledExpression[] {
    return this.copies.forms
  }
  get readers(): readonly CompiledExpression[] {
    return this.copies.readers
  }
  get compiled(): readonly CompiledExpression[] {
    return this.copies.compiled
  }

  /** The same where its values begin elsewhere: its copies stay uncompiled. */
  movedTo(offset: number): SlotInColumns {
    return new SlotInColumns(this, this.plan, this.laneOperations, this.copies, offset)
  }
}

/** What an expression is exactly, or null. */
export const exactForm = ({ exact, perLap, dials }: CompiledExpression): ExactLane | null =>
  exact && { rate: exact.rate, base: exact.base, paced: perLap || dials !== null }

/** What copies of a slot are exactly; null where they move in any other way than steadily. */
export const exactOn = ({ plan, readers }: Slot, copies: Int32Array): Exact | null =>
  plan ? plan.exactOn(copies) : exactTogether(Array.from(copies, i => exactForm(readers[i]!)))

/** The same where its values begin elsewhere in a snapshot: the very same object where they do not. */
export function movedSlot(slot: Slot, offset: number): Slot {
  if (slot.offset === offset) return slot
  return slot instanceof SlotInColumns ? slot.movedTo(offset) : { ...slot, offset }
}
