/**
 * When particles set off: particle k when the births have added up to k. What is settled at its birth is kept by columns as
 * long as it lives.
 */
import { constantOf, type CompiledExpression } from '../../form/compiled-expression.ts'
import type { Integral } from '../../form/integral.ts'
import { momentNear, momentOfSeconds, type Moment } from '../../time/moment.ts'
import { over, rational, toNumber, type Rational } from '../../time/rational.ts'

/** A birth is found to so many parts of a second. */
const PARTS = 0x1000000000

/** Finds the second at which a particle sets off. */
export class Births {
  /** What the births have added up to by whole seconds. */
  private readonly sums = new Map<number, number>()
  /** Births a second, where they are always the same and more than none. */
  private readonly steady: Rational | null

  constructor(
    births: CompiledExpression,
    private readonly born: Integral,
    private readonly frameRate: Rational,
  ) {
    const constant = constantOf(births)
    this.steady = constant && constant.n > 0n ? constant : null
  }

  /**
   * @param from a second at which there were fewer
   * @param to a second at which there were as many
   */
  secondOf(k: number, from: number, to: number): number {
    return this.steady ? toNumber(over(rational(k), this.steady)) : this.found(k, from, to)
  }

  /** The same as a moment: an exact one where births are steady. */
  momentOf(k: number, second: number): Moment {
    return this.steady ? momentOfSeconds(over(rational(k), this.steady), this.frameRate) : this.at(second)
  }

  private at(second: number): Moment {
    return momentNear(second, this.frameRate)
  }

  private sum(second: number): number {
    let known = this.sums.get(second)
    if (known === undefined) {
      known = this.born(this.at(second))
      // What is still being worked out is asked for again.
      if (known !== known) return known
      if (this.sums.size > 2048) this.sums.clear()
      this.sums.set(second, known)
    }
    return known
  }

  /** First the whole second, which is the same one whatever was asked for, then the first part of it at which there were as many. */
  private found(k: number, from: number, to: number): number {
    let [before, after] = [Math.floor(from) - 1, Math.ceil(to)]
    while (after - before > 1) {
      const middle = Math.floor((before + after) / 2)
      if (this.sum(middle) >= k) after = middle
      else before = middle
    }
    before = after - 1
    const more = (part: number): number => this.born(this.at(before + part / PARTS)) - k
    let [low, high] = [0, PARTS]
    let [under, above] = [this.sum(before) - k, this.sum(after) - k]
    // Where a straight line between both ends passes it, or, when that comes nearer from one side only, halfway.
    for (let same = 0; high - low > 1;) {
      const share = under / (under - above)
      const line = low + Math.round((high - low) * (same < 2 && share > 0 && share < 1 ? share : 0.5))
      // A little beyond the line, so that what is left lies between two that are near.
      const beyond = same === 1 ? (high - line < line - low ? -2 : 2) : 0
      const part = Math.min(high - 1, Math.max(low + 1, line + beyond))
      const there = more(part)
      const isHigh = there >= 0
      const narrower = (isHigh ? part - low : high - part) * 4 < high - low
      if (isHigh) [high, above] = [part, there]
      else [low, under] = [part, there]
      same = narrower ? 0 : same + 1
      if (same > 2) same = 0
    }
    return before + high / PARTS
  }
}

/** What is settled at birth, a column each: `towards` is the direction, as long as its share of the speed. */
const COLUMNS = ['seconds', 'x', 'y', 'z', 'towardsX', 'towardsY', 'towardsZ', 'speed', 'gone'] as const
export type Birth = { [C in (typeof COLUMNS)[number]]: number }

/** Births of the particles that are there, each in a place that it has for itself while it lives. */
export class Settled {
  /** How many fit. */
  private size = 0
  private numbers = new Float64Array(0)
  columns = columnsOf(0)

  /** Makes room for so many: those that are known stay. */
  hold(count: number): void {
    if (count <= this.size) return
    const [numbers, columns] = [this.numbers, this.columns]
    this.size = Math.max(64, this.size)
    while (this.size < count) this.size *= 2
    this.numbers = new Float64Array(this.size).fill(NaN)
    this.columns = columnsOf(this.size)
    numbers.forEach((k, from) => {
      if (k !== k) return
      const at = this.place(k)
      this.numbers[at] = k
      for (const c of COLUMNS) this.columns[c][at] = columns[c][from]!
    })
  }

  /** The place of a particle: that of the one after it is the next one, and after the last one the first. */
  place(k: number): number {
    return ((k % this.size) + this.size) % this.size
  }
  after(place: number): number {
    return place + 1 === this.size ? 0 : place + 1
  }

  /** Whether a particle's columns are in its place. */
  has(k: number, place: number): boolean {
    return this.numbers[place] === k
  }

  /** @param lasts whether it is not asked for again */
  put(k: number, place: number, birth: Birth, lasts: boolean): void {
    this.numbers[place] = lasts ? k : NaN
    for (const c of COLUMNS) this.columns[c][place] = birth[c]
  }
}

const columnsOf = (size: number) =>
  Object.fromEntries(COLUMNS.map(c => [c, new Float64Array(size)])) as Record<keyof Birth, Float64Array>
