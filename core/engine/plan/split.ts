/** How planning says that it cannot go on: this piece has no column, or lanes must be planned apart. */
import { commonOf, laneOf, lanesOf, type Fractions } from '../../columns/fractions.ts'
import { equal, type Rational } from '../../time/rational.ts'

/** Thrown where only the plain evaluator can follow; whoever can read lane by lane instead catches it. */
export class NoColumn extends Error {}

export const noColumn = (): never => {
  throw new NoColumn()
}

/** Thrown where lanes mean different things for ever, such as the two branches of `if index == 0`: each kind is planned alone. */
export class SplitLanes extends Error {
  /** @param kinds 0 or 1 for each lane */
  constructor(readonly kinds: Float64Array) {
    super()
  }
}

/** The one fraction that all lanes are: those that are another are planned apart. */
export function sameOnAllLanes(exact: Fractions): Rational {
  const common = commonOf(exact)
  if (common) return common
  const first = laneOf(exact, 0)
  throw new SplitLanes(
    Float64Array.from({ length: lanesOf(exact) }, (_, i) => (equal(laneOf(exact, i), first) ? 1 : 0)),
  )
}
