/** The marks of a cue: moments in seconds, in order, and repeated for ever when it has a period. */
import { compare, floor, fromNumber, minus, over, plus, rational, times, type Rational } from '../time/rational.ts'

export interface Mark {
  /** Which mark, counted from 0; repeats count on. */
  readonly nth: number
  readonly at: Rational
}

export class Marks {
  private readonly marks: readonly Rational[]
  private readonly every: Rational | null

  constructor(marks: readonly number[], every: number | null) {
    this.marks = [...new Set(marks)].sort((a, b) => a - b).map(fromNumber)
    this.every = every === null ? null : fromNumber(every)
  }

  get none(): boolean {
    return this.marks.length === 0
  }

  get first(): Rational | null {
    return this.marks[0] ?? null
  }

  /** The latest mark at or before a moment in seconds; null when there is none. */
  latest(t: Rational): Mark | null {
    const first = this.marks[0]
    if (!first || compare(t, first) < 0) return null
    let rounds = 0
    let rest = t
    if (this.every) {
      const n = floor(over(minus(t, first), this.every))
      rounds = Number(n)
      rest = minus(t, times(rational(n), this.every))
    }
    let [low, high] = [0, this.marks.length - 1]
    while (low < high) {
      const middle = (low + high + 1) >> 1
      if (compare(this.marks[middle]!, rest) <= 0) low = middle
      else high = middle - 1
    }
    const at = this.every ? plus(this.marks[low]!, times(rational(rounds), this.every)) : this.marks[low]!
    return { nth: rounds * this.marks.length + low, at }
  }

  /** The mark before another; null before the first. */
  before(mark: Mark): Mark | null {
    if (mark.nth === 0) return null
    return this.nth(mark.nth - 1)
  }

  private nth(nth: number): Mark {
    const [round, k] = [Math.floor(nth / this.marks.length), nth % this.marks.length]
    const at = this.every ? plus(this.marks[k]!, times(rational(round), this.every)) : this.marks[k]!
    return { nth, at }
  }

  /** The mark after another; null after the last. */
  after(mark: Mark): Mark | null {
    const nth = mark.nth + 1
    return this.every || nth < this.marks.length ? this.nth(nth) : null
  }

  /** All marks that are not repeats, with the period when there is one. */
  all(): { readonly marks: readonly Rational[]; readonly every: Rational | null } {
    return { marks: this.marks, every: this.every }
  }
}
