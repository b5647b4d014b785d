/** What a program holds of each driven property. */
import type { Problem } from '../formula/problem.ts'
import type { Form } from '../form/form.ts'
import type { Moment } from '../time/moment.ts'
import type { Rational } from '../time/rational.ts'
import type { Running } from './meaning.ts'

/** A pace made of dials that a formula uses: its value now, and what it is multiplied by at a moment. */
export interface Pace {
  readonly pace: Rational
  readonly run: (m: Moment) => Rational
}

/** A driven property (or a signal, with one instance), ready to run. */
export interface Slot {
  readonly key: string
  readonly forms: readonly Form[]
  /** The same, held to the hand value where a value is not finite, and worked out once a moment. */
  readonly readers: readonly Form[]
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
}
