/** What is known of a value for all time. Each fact is worked out when it is first asked for. */
import { SMOOTH, UNKNOWN, type Bends } from './bends.ts'
import type { Cost } from './cost.ts'
import { ALL, type Interval } from './interval.ts'
import { stands, type Repeats } from './repeats.ts'
import { outside, supposed } from './suppose.ts'

export interface Facts {
  /** Lowest and highest value over all time. */
  readonly bounds: Interval
  readonly repeats: Repeats
  /** Where the value may leap or bend. */
  readonly bends: Bends
  /** Those of them at which it may leap. */
  readonly leaps: Bends
  readonly cost: Cost
  /** Seconds to either side of second 0 up to which it can be worked out; Infinity for all time. */
  readonly reach: number
  /** Whether it surely has a value at every moment: nothing is divided by 0, no root is drawn of less than 0. */
  readonly finite: boolean
  /** Lowest and highest speed, per second, from any moment on; leaps aside. */
  readonly slope: Interval
}

/** Ways of working the facts out. A speed that is not given has no bounds; where it bends is then not known. */
export type Known = {
  readonly [fact in Exclude<keyof Facts, 'slope' | 'bends' | 'leaps' | 'reach'>]: () => Facts[fact]
} & {
  readonly slope?: () => Interval
  readonly bends?: () => Bends
  /** When not given: wherever it bends. */
  readonly leaps?: () => Bends
  /** When not given: for all time. */
  readonly reach?: () => number
}

export function facts(known: Known): Facts {
  let bounds: Interval | undefined
  let repeats: Repeats | undefined
  let bends: Bends | undefined
  let leaps: Bends | undefined
  let cost: Cost | undefined
  let finite: boolean | undefined
  let reach: number | undefined
  let slope: Interval | undefined
  const self: Facts = {
    get bounds() {
      return supposed(self, known.bounds) ?? (bounds ??= known.bounds())
    },
    get repeats() {
      return (repeats ??= known.repeats())
    },
    get bends() {
      return (bends ??= known.bends?.() ?? UNKNOWN)
    },
    get leaps() {
      // What stands still for all time never leaps, whatever it is made of.
      return (leaps ??= stands(self.repeats) ? SMOOTH : (known.leaps?.() ?? self.bends))
    },
    get cost() {
      return (cost ??= known.cost())
    },
    get reach() {
      return (reach ??= known.reach?.() ?? Infinity)
    },
    get finite() {
      return (finite ??= known.finite())
    },
    get slope() {
      return (slope ??= outside(() => known.slope?.() ?? ALL))
    },
  }
  return self
}
