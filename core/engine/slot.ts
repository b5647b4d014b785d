/** What a program holds of each driven property. */
import type { Problem } from '../formula/problem.ts'
import type { Form } from '../form/form.ts'
import type { Moment } from '../time/moment.ts'
import type { Rational } from '../time/rational.ts'
import type { DeferredCopies } from './deferred.ts'
import type { Running } from './meaning.ts'
import type { Plan } from './plan/plan.ts'

/** A pace made of dials that a formula uses: its value now, and what it is multiplied by at a moment. */
export interface Pace {
  readonly pace: Rational
  readonly run: (m: Moment) => Rational
}

/** A driven property (or a signal, with one instance), ready to run. */
export interface Slot {
  readonly key: string
  /** How its copies are run in columns; null where each is read by itself. */
  readonly plan: Plan | null
  readonly forms: readonly Form[]
  /** The same, held to the hand value where a value is not finite, and worked out once a moment. */
  readonly readers: readonly Form[]
  /** How many copies it has. */
  readonly count: number
  readonly running: Running
  readonly problems: readonly Problem[]
  readonly paces: ReadonlyMap<string, Pace>
  readonly dials: ReadonlySet<string>
  readonly slots: ReadonlySet<string>
  /** Hand values by their keys that it reads, its own among them. */
  readonly hands: ReadonlySet<string>
  /** Whether its copies read those before them. */
  readonly chained: boolean
  /** Where its first instance stands in a snapshot; −1 for a signal. */
  readonly offset: number
  /** How many pieces of formula were compiled for it, those of every copy counted. */
  readonly pieces: number
  /** The forms of copies that something has asked for, of a slot in columns; all of another. */
  readonly compiled: readonly Form[]
}

/** What is compiled of a slot. */
export type Compiled = Pick<Slot, 'plan' | 'forms' | 'readers' | 'count' | 'compiled'>

export const compiledEach = (forms: readonly Form[], readers: readonly Form[]): Compiled => ({
  ...{ plan: null, forms, readers, count: readers.length },
  compiled: readers,
})

/** A slot of what was compiled and all else that is known of it. */
export class MadeSlot implements Slot {
  readonly key!: string
  readonly running!: Running
  readonly problems!: readonly Problem[]
  readonly paces!: ReadonlyMap<string, Pace>
  readonly dials!: ReadonlySet<string>
  readonly slots!: ReadonlySet<string>
  readonly hands!: ReadonlySet<string>
  readonly chained!: boolean
  readonly pieces!: number

  constructor(
    private readonly made: Compiled | { readonly plan: Plan; readonly copies: DeferredCopies },
    private readonly known: Omit<Slot, keyof Compiled | 'offset'>,
    readonly offset: number,
  ) {
    Object.assign(this, known)
  }

  /** The same where its values begin elsewhere in a snapshot. */
  at(offset: number): MadeSlot {
    return offset === this.offset ? this : new MadeSlot(this.made, this.known, offset)
  }

  private get lists(): Pick<Compiled, 'forms' | 'readers' | 'count' | 'compiled'> {
    return 'copies' in this.made ? this.made.copies : this.made
  }
  get plan(): Plan | null {
    return this.made.plan
  }
  get forms(): readonly Form[] {
    return this.lists.forms
  }
  get readers(): readonly Form[] {
    return this.lists.readers
  }
  get count(): number {
    return this.lists.count
  }
  get compiled(): readonly Form[] {
    return this.lists.compiled
  }
}
