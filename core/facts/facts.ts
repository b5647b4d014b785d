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
export type FactSources = {
  readonly [fact in Exclude<keyof Facts, 'slope' | 'bends' | 'leaps' | 'reach'>]: () => Facts[fact]
} & {
  readonly slope?: () => Interval
  readonly bends?: () => Bends
  /** When not given: wherever it bends. */
  readonly leaps?: () => Bends
  /** When not given: for all time. */
  readonly reach?: () => number
}

export const facts = (known: FactSources): Facts => new FactsWhenAsked(known)

/** One object an expression: expressions are many, and most of their facts are never asked for. */
class FactsWhenAsked implements Facts {
  private knownBounds: Interval | undefined
  private knownRepeats: Repeats | undefined
  private knownBends: Bends | undefined
  private knownLeaps: Bends | undefined
  private knownCost: Cost | undefined
  private knownReach: number | undefined
  private knownFinite: boolean | undefined
  private knownSlope: Interval | undefined

  constructor(private readonly known: FactSources) {}

  get bounds(): Interval {
    return supposed(this, this.known.bounds) ?? (this.knownBounds ??= this.known.bounds())
  }
  get repeats(): Repeats {
    return (this.knownRepeats ??= this.known.repeats())
  }
  get bends(): Bends {
    return (this.knownBends ??= this.known.bends?.() ?? UNKNOWN)
  }
  get leaps(): Bends {
    // What stands still for all time never leaps, whatever it is made of.
    return (this.knownLeaps ??= stands(this.repeats) ? SMOOTH : (this.known.leaps?.() ?? this.bends))
  }
  get cost(): Cost {
    return (this.knownCost ??= this.known.cost())
  }
  get reach(): number {
    return (this.knownReach ??= this.known.reach?.() ?? Infinity)
  }
  get finite(): boolean {
    return (this.knownFinite ??= this.known.finite())
  }
  get slope(): Interval {
    return (this.knownSlope ??= outside(() => this.known.slope?.() ?? ALL))
  }
}
