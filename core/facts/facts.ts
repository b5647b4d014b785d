/** What is known of a value for all time. Each fact is worked out when it is first asked for. */
import { UNKNOWN, type Bends } from './bends.ts'
import { ALL, type Interval } from './interval.ts'
import type { Repeats } from './repeats.ts'
import { outside, supposed } from './suppose.ts'

/** How many operations a value takes: an operator one, a source or function one, an octave one. */
export interface Cost {
  /** Where what it reads is worked out for that moment anyway. */
  readonly now: number
  /** With all that it reads, as at a moment of its own. */
  readonly anew: number
}

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
      return (leaps ??= known.leaps?.() ?? self.bends)
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

export const FREE: Cost = { now: 0, anew: 0 }
/** The cost of something made of parts by so many operations of its own. */
export const costOf = (own: number, parts: readonly { readonly cost: Cost }[]): Cost => ({
  now: parts.reduce((n, p) => n + p.cost.now, own),
  anew: parts.reduce((n, p) => n + p.cost.anew, own),
})
/** The cost of reading something at a moment of its own, so many times. */
export const costAnew = (own: number, of: { readonly cost: Cost }, times = 1): Cost => {
  const all = own + of.cost.anew * times
  return { now: all, anew: all }
}
