/** What an entry of the function table makes its column from: its arguments as columns, and all that is one for all copies. */
import type { Fractions } from './fractions.ts'
import type { Column } from './column.ts'
import type { Rational } from '../time/rational.ts'
import type { PhaseLanes } from './phase.ts'
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
  /** The argument that the entry reads at other moments, so many seconds earlier; null where lanes are copies. */
  readonly earlier: ((seconds: Rational) => Column) | null
}

/** Null where only the plain evaluator can follow. */
export type Kernel<C> = (call: LaneCall<C>) => Column | null
