/** The marks of a cue: moments in seconds, in order, and repeated for ever when it has a period. */
import {
  compare,
  floor,
  fromNumber,
  minus,
  over,
  plus,
  rational,
  times,
  toNumber,
  type Rational,
} from '../time/rational.ts'

export interface Mark {
  /** Which mark, counted from 0; repeats count on. */
  readonly nth: number
  readonly at: Rational
}

/** Two doubles further apart than this share of their size stand for moments in the same order. */
const CLOSE = 1e-12
/** How far apart seconds near these are that stand for moments in the same order. */
export const near = (seconds: number): number => CLOSE * (1 + Math.abs(seconds))

export class Marks {
  /** In order, none twice. */
  readonly seconds: readonly number[]
  readonly every: Rational | null
  /** The same exactly, made when it is asked for. */
  private readonly exact: Rational[] = []

  constructor(marks: readonly number[], every: number | null) {
    this.seconds = [...new Set(marks)].sort((a, b) => a - b)
    this.every = every === null ? null : fromNumber(every)
  }

  get none(): boolean {
    return this.seconds.length === 0
  }

  get first(): Rational | null {
    return this.none ? null : this.at(0)
  }

  /** Of those that are not repeats. */
  get last(): Rational | null {
    return this.none ? null : this.at(this.seconds.length - 1)
  }

  private at(k: number): Rational {
    return (this.exact[k] ??= fromNumber(this.seconds[k]!))
  }

  /** The latest mark at or before a moment in seconds; null when there is none. */
  latest(t: Rational): Mark | null {
    const { first } = this
    if (!first || compare(t, first) < 0) return null
    let rounds = 0
    let rest = t
    if (this.every) {
      const n = floor(over(minus(t, first), this.every))
      rounds = Number(n)
      rest = minus(t, times(rational(n), this.every))
    }
    const seconds = toNumber(rest)
    const reached = (k: number): boolean => {
      const mark = this.seconds[k]!
      return Math.abs(mark - seconds) > near(seconds) ? mark < seconds : compare(this.at(k), rest) <= 0
    }
    let [low, high] = [0, this.seconds.length - 1]
    while (low < high) {
      const middle = (low + high + 1) >> 1
      if (reached(middle)) low = middle
      else high = middle - 1
    }
    return this.mark(rounds * this.seconds.length + low)
  }

  /** The mark before another; null before the first. */
  before(mark: Mark): Mark | null {
    if (mark.nth === 0) return null
    return this.mark(mark.nth - 1)
  }

  /** A mark by its count. */
  mark(nth: number): Mark {
    const { length } = this.seconds
    const [round, k] = [Math.floor(nth / length), nth % length]
    const at = this.every ? plus(this.at(k), times(rational(round), this.every)) : this.at(k)
    return { nth, at }
  }

  /** The mark after another; null after the last. */
  after(mark: Mark): Mark | null {
    const nth = mark.nth + 1
    return this.every || nth < this.seconds.length ? this.mark(nth) : null
  }
}

const made = new WeakMap<readonly number[], Map<number | null, Marks>>()

/** The marks of a cue as they stand in a document: the same for all that read it, since a document never changes. */
export function marksOf(marks: readonly number[], every: number | null): Marks {
  const known = made.get(marks) ?? new Map<number | null, Marks>()
  made.set(marks, known)
  if (!known.has(every)) known.set(every, new Marks(marks, every))
  return known.get(every)!
}
