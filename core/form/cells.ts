/** Sums of a value cell by cell: each cell is worked out once, cut where the value leaps or bends. */
import { ordered } from '../facts/bends.ts'
import type { Facts } from '../facts/facts.ts'
import { momentNear, type Moment } from '../time/moment.ts'
import type { Rational } from '../time/rational.ts'
import { PENDING, RETRY, type Work, type WorkQueue } from './work-queue.ts'

/** Nodes and weights of Kronrod's fifteen points on −1 … 1, and Gauss's seven of them (0 where it has none). */
const NODES = [
  [0.9914553711208126, 0.022935322010529224, 0],
  [0.9491079123427585, 0.06309209262997856, 0.1294849661688697],
  [0.8648644233597691, 0.10479001032225019, 0],
  [0.7415311855993945, 0.14065325971552592, 0.27970539148927664],
  [0.5860872354676911, 0.1690047266392679, 0],
  [0.4058451513773972, 0.19035057806478542, 0.3818300505051189],
  [0.20778495500789848, 0.20443294007529889, 0],
] as const
const MIDDLE = [0.20948214108472782, 0.4179591836734694] as const

/** Times a piece may be halved, and how far the two rules may differ for each second of it and each unit of its size. */
const DEPTH = 24
const AGREE = 1e-13
/** How finely a double tells a second, as a share of it. */
const GRAIN = 1e-15
/** Moments that are given as doubles stand on such parts of a frame. */
const FINEST = 1 / 1_099_511_627_776

/** Cells that are worked out while whoever reads waits, and in one step of work. */
const AT_ONCE = 160
const A_STEP = 160
/** Cells away from 0 that are added up by themselves. */
const MOST_ALONE = 32_768
/** Leaps and bends of one cell, at most. */
const MOST_BENDS = 4000
/** Readings that looking for the bends of a cell takes, as a figure. */
const LOOKING = 100

/** Cells whose sums are kept. */
const KEPT = 4_000_000

interface Added {
  readonly at: (m: Moment) => number
  readonly facts: () => Facts
}

export class Cells {
  private readonly length: number
  /** Whether it leaps and bends too often to be added up at all. */
  private readonly dense: boolean
  /** Seconds that two moments differ by at least, where they are given as doubles. */
  private readonly finest: number
  private readonly up = [0]
  private readonly down = [0]
  /** Cells that were worked out by themselves, with those around them. */
  private readonly single = new Map<number, number>()
  /** Where the cell that was looked at last is cut. */
  private cut: { readonly cell: number; readonly at: readonly number[] } | null = null
  private asked = 0
  private askedDown = 0
  /** Cells by themselves that were asked for last. */
  private range: readonly [number, number] = [0, 0]
  /** One piece of work each, so that who asks again and again, as time goes on, does not fill the queue. */
  private readonly sums: Work = { go: () => this.go() }
  private readonly apart: Work = { go: () => !Number.isNaN(this.whole(...this.range)) }

  constructor(
    private readonly of: Added,
    private readonly frameRate: Rational,
    private readonly queue: WorkQueue,
  ) {
    this.length = Cells.lengthFor(of)
    this.dense = of.facts().bends.often * this.length > MOST_BENDS
    this.finest = FINEST / (Number(frameRate.n) / Number(frameRate.d))
  }

  /** Seconds of a cell: a power of two that holds few bends and no more than half a turn. */
  static lengthFor(of: Added): number {
    const { grain, often } = of.facts().bends
    const wanted = Math.min(grain / 2, often > 0 ? 4 / often : Infinity, 16)
    let length = 16
    while (length > wanted && length > 1 / 1024) length /= 2
    return length
  }

  /** Seconds up to which sums from 0 are kept. */
  static reachOf(of: Added): number {
    const length = Cells.lengthFor(of)
    return of.facts().bends.often * length > MOST_BENDS ? 0 : KEPT * length
  }

  /** ∫ from one second to another by pieces between bends, however many. */
  direct(from: number, to: number): number {
    if (to < from) return -this.direct(to, from)
    let sum = 0
    let start = from
    for (const cut of [...ordered(this.of.facts().bends, from, to), to]) {
      sum += this.piece(start, cut, DEPTH)
      start = cut
    }
    return sum
  }

  /** ∫ from one second to another over whole cells and what is left at both ends; NaN while it is worked out. */
  between(from: number, to: number): number {
    if (from === to) return 0
    if (this.dense) return NaN
    if (to < from) return -this.between(to, from)
    const [a, b] = [Math.ceil(from / this.length), Math.floor(to / this.length)]
    if (b < a) return this.within(b, from, to)
    const inner = this.whole(a, b)
    return this.within(a - 1, from, a * this.length) + inner + this.within(b, b * this.length, to)
  }

  /**
   * The cells from one on, up to another: by themselves where they are few and away from 0, else by
   * their sums from 0. Which way it is depends on the two alone, so that a value has the same bits in any order.
   */
  private whole(a: number, b: number): number {
    if (a <= 0 && b >= 0) return this.sum(b) - this.sum(a)
    if (b - a > MOST_ALONE) return this.sum(b) - this.sum(a)
    let sum = 0
    let made = 0
    for (let k = a; k < b; k++) {
      let cell = this.single.get(k)
      if (cell === undefined) {
        // Many at once are worked out bit by bit: each step of the work makes as many again.
        const alone = made === AT_ONCE ? null : this.alone(k)
        if (alone === null) {
          this.range = [a, b]
          this.queue.enqueue(this.apart)
          return NaN
        }
        cell = alone
        made++
      }
      sum += cell
    }
    return sum
  }

  /**
   * ∫ over a part of a cell, cut where the whole cell is: so what has gone by stays the same to the last bit while the
   * end moves on.
   */
  private within(cell: number, from: number, to: number): number {
    if (!(to > from)) return 0
    if (this.queue.isFarOverBudget) {
      this.queue.enqueue(RETRY)
      return NaN
    }
    if (this.cut?.cell !== cell) {
      this.queue.consume(LOOKING)
      const [start, end] = [cell * this.length, (cell + 1) * this.length]
      this.cut = { cell, at: ordered(this.of.facts().bends, start, end) }
    }
    let sum = 0
    let start = from
    for (const cut of this.cut.at) {
      if (cut <= start) continue
      if (cut >= to) break
      sum += this.piece(start, cut, DEPTH)
      start = cut
    }
    return sum + this.piece(start, to, DEPTH)
  }

  /** A cell by itself; null while something in it waits to be worked out. */
  private alone(k: number): number | null {
    if (this.single.size >= 2 * MOST_ALONE) this.single.clear()
    const made = this.cell(k)
    if (made !== null) this.single.set(k, made)
    return made
  }

  private cell(k: number): number | null {
    if (this.queue.isExhausted) return null
    // What it reads may be the set value of something that is not there yet.
    const made = this.queue.attempt(() => this.within(k, k * this.length, (k + 1) * this.length))
    return made === PENDING ? null : made
  }

  /** The sum of the cells from 0 up to one (below 0: less those from it to 0). */
  private sum(k: number): number {
    const list = k >= 0 ? this.up : this.down
    const n = Math.abs(k)
    if (n >= list.length + AT_ONCE || n > KEPT) {
      if (n > KEPT) return NaN
      if (k >= 0) this.asked = Math.max(this.asked, n)
      else this.askedDown = Math.max(this.askedDown, n)
      this.queue.enqueue(this.sums)
      return NaN
    }
    this.extend(list, k >= 0, n)
    const sum = list[n]
    if (sum !== undefined) return sum
    // Something in a cell is still being worked out.
    if (k >= 0) this.asked = Math.max(this.asked, n)
    else this.askedDown = Math.max(this.askedDown, n)
    this.queue.enqueue(this.sums)
    return NaN
  }

  private go(): boolean {
    this.extend(this.up, true, Math.min(this.asked, this.up.length + A_STEP))
    this.extend(this.down, false, Math.min(this.askedDown, this.down.length + A_STEP))
    return this.up.length > this.asked && this.down.length > this.askedDown
  }

  private extend(list: number[], up: boolean, to: number): void {
    while (list.length <= to) {
      const made = this.cell(up ? list.length - 1 : -list.length)
      if (made === null) return
      list.push(list[list.length - 1]! + (up ? 1 : -1) * made)
    }
  }

  private read(t: number): number {
    this.queue.consume()
    return this.of.at(momentNear(t, this.frameRate))
  }

  private piece(from: number, to: number, depth: number): number {
    const [middle, half] = [(from + to) / 2, (to - from) / 2]
    if (!(half > 0)) return 0
    const centre = this.read(middle)
    let fine = MIDDLE[0] * centre
    let coarse = MIDDLE[1] * centre
    let [low, high] = [centre, centre]
    for (const [x, w, g] of NODES) {
      const [a, b] = [this.read(middle - half * x), this.read(middle + half * x)]
      fine += w * (a + b)
      coarse += g * (a + b)
      if (a < low) low = a
      if (b < low) low = b
      if (a > high) high = a
      if (b > high) high = b
    }
    // A moment has only so many digits, fewer far from second 0: what the value changes within its last is no difference.
    const size = Math.max(Math.abs(low), Math.abs(high))
    const blur = ((GRAIN * (Math.abs(from) + Math.abs(to)) + this.finest) * (high - low)) / half
    if (depth === 0 || !(Math.abs(fine - coarse) > AGREE * (1 + size) + blur)) return fine * half
    return this.piece(from, middle, depth - 1) + this.piece(middle, to, depth - 1)
  }
}
