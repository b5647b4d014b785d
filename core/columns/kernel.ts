/** What an entry of the function table makes its column from: its arguments as columns, and all that is one for all copies. */
import type { Fractions } from './fractions.ts'
import type { Column } from './column.ts'
import type { Moment } from '../time/moment.ts'
import type { Rational } from '../time/rational.ts'
import type { PhaseLanes } from './phase-columns.ts'
import type { SteadyLanes } from './steady.ts'

/** @template C what the call is on one lane, for the words, curves and easings that are the same on all */
export interface LaneCall<C> {
  readonly lanes: number
  readonly args: Readonly<Record<string, Column | undefined>>
  readonly many: readonly Column[]
  /** The call on the first lane. */
  readonly first: C
  /** Null where it has none that columns can follow. */
  readonly phase: PhaseLanes | null
  /** The seed of each lane, where it draws on chance. */
  readonly seeds: readonly number[]
  /** What an argument is on each lane, where it is a constant. */
  readonly constant: (name: string) => Fractions | null
  /** Steady growth on the clock in force. */
  readonly steady: (rate: Fractions, base: Fractions) => SteadyLanes | null
  /** The one fraction that an argument is on every lane; null where it moves. Lanes on which it differs are planned apart. */
  readonly common: (name: string) => Rational | null
  /** The argument that the entry reads at other moments. */
  readonly elsewhere: Elsewhere | null
}

/** What is read at other moments than that of the plan. */
export interface Elsewhere {
  /** So many seconds earlier on each lane. */
  readonly earlier: (seconds: Fractions) => Column
  /** At a moment that is made of that of the plan, one for all lanes; null where lanes are moments themselves. */
  readonly at: ((to: (m: Moment) => Moment) => Column) | null
}
