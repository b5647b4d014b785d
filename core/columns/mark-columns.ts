/** The marks of a cue by lane: which was the latest at the moment of each, and how long ago, as `Marks` tells it, to the bit. */
import { near, type Marks } from '../signal/marks.ts'
import { minus, negate, over, toNumber, ONE } from '../time/rational.ts'
import { scratch, type Now } from './column.ts'
import { scaledLanes, shiftedLanes, uniform, type Fractions } from './fractions.ts'
import type { LaneCall } from './kernel.ts'
import type { SteadyLanes } from './steady.ts'

/** Marks that are counted from at a time, at most. */
const MOST = 64

export class MarkLanes {
  private readonly from = new Map<number, SteadyLanes>()
  private readonly block: Float64Array
  private readonly one = new Float64Array(1)
  private readonly every: number

  private constructor(
    private readonly marks: Marks,
    /** Seconds on the clock in force, by lane. */
    private readonly seconds: SteadyLanes,
    /** Of marks that are repeated, how many rounds it is since the first. */
    private readonly rounds: SteadyLanes | null,
    lanes: number,
  ) {
    this.block = scratch(1, lanes)[0]
    this.every = marks.every ? toNumber(marks.every) : 0
  }

  /**
   * @param lead seconds on the clock in force by which each lane is ahead
   * @returns null where only the plain evaluator follows, or where there is no mark
   */
  static of({ steady, lanes }: LaneCall<unknown>, marks: Marks, lead: Fractions): MarkLanes | null {
    const { first, every } = marks
    const seconds = first && steady(uniform(ONE, lanes), lead)
    if (!seconds || !every) return seconds && new MarkLanes(marks, seconds, null, lanes)
    const rate = over(ONE, every)
    const begun = shiftedLanes(lead, negate(first))
    const round = begun && scaledLanes(begun, rate)
    const rounds = round && steady(uniform(rate, lanes), round)
    return rounds && new MarkLanes(marks, seconds, rounds, lanes)
  }

  /** Fills which mark was the latest, counted from 0, −1 for none, and the seconds since it. */
  latest(now: Now, from: number, count: number, nth: Float64Array, since: Float64Array): void {
    const { marks, every, block } = this
    const { seconds } = marks
    if (this.rounds) {
      this.rounds.split(now.moment, from, count, since, nth)
      for (let i = 0; i < count; i++)
        nth[i] =
          nth[i]! < 0 ? -1 : nth[i]! * seconds.length + Math.max(0, upTo(seconds, seconds[0]! + since[i]! * every))
    } else {
      this.seconds.at(now.moment, from, count, since)
      for (let i = 0; i < count; i++) nth[i] = upTo(seconds, since[i]!)
    }
    for (let i = 0; i < count;) {
      const mark = nth[i]!
      let end = i + 1
      while (end < count && nth[end] === mark) end++
      if (mark >= 0) {
        this.lanesOf(mark).at(now.moment, from + i, end - i, block)
        for (let k = i; k < end; k++) since[k] = block[k - i]!
      }
      i = end
    }
    // Those that had just not come yet.
    for (let i = 0; i < count; i++)
      while (nth[i]! >= 0 && since[i]! < 0) {
        nth[i]!--
        if (nth[i]! >= 0) since[i] = this.ago(nth[i]!, now, from + i)
      }
  }

  /** Seconds since a mark on one lane, below 0 before it. */
  ago(nth: number, now: Now, lane: number): number {
    this.lanesOf(nth).at(now.moment, lane, 1, this.one)
    return this.one[0]!
  }

  private lanesOf(nth: number): SteadyLanes {
    const known = this.from.get(nth)
    if (known) return known
    if (this.from.size >= MOST) this.from.clear()
    const made = this.seconds.plus(negate(this.marks.mark(nth).at))!
    this.from.set(nth, made)
    return made
  }

  /** Seconds from a mark to the one after it; null where there is none. */
  until(nth: number): number | null {
    const { marks } = this
    const mark = marks.mark(nth)
    const next = marks.after(mark)
    return next && toNumber(minus(next.at, mark.at))
  }
}

/** The last of some seconds, in order, that may have come by then; −1 for none. */
function upTo(seconds: readonly number[], then: number): number {
  const late = then + near(then)
  let [low, high] = [-1, seconds.length - 1]
  while (low < high) {
    const middle = (low + high + 1) >> 1
    if (seconds[middle]! <= late) low = middle
    else high = middle - 1
  }
  return low
}
