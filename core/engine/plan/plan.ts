/**
 * A plan: the columns of a formula on many lanes, run block by block into a snapshot. Lanes that mean different things for
 * ever are planned apart. What a kernel could not decide, and what isn't a number, the plain evaluator reads.
 */
import type { Checked } from '../../formula/check.ts'
import { everyNode } from '../../formula/tree.ts'
import type { Moment } from '../../time/moment.ts'
import { BLOCK, type Column, type Now } from '../../columns/column.ts'
import { gathered, laneOf } from '../../columns/fractions.ts'
import { ZERO } from '../../time/rational.ts'
import { exactOf, exactTogether, type Exact, type ExactLane } from './exact-lanes.ts'
import { leavesToPlain, type Planner } from './planner.ts'
import { SplitLanes } from './split.ts'

/** Lanes that are planned together, and what they are made of. */
interface Group {
  readonly lanes: readonly number[]
  /** Whether these are the lanes from `lanes[0]` on, one after another. */
  readonly dense: boolean
  readonly body: Column
}

/** Kinds of lanes that are planned apart, at most. */
const MOST_GROUPS = 8

export class Plan {
  private readonly block = new Float64Array(BLOCK)
  private readonly doubts: Uint8Array

  constructor(
    private readonly groups: readonly Group[],
    count: number,
    /** Whether no lane is read by expressions of its own. */
    readonly isWhole: boolean,
    /** What a lane takes at most, in operations. */
    readonly operations: number,
  ) {
    this.doubts = new Uint8Array(count)
  }

  /**
   * Writes the values of all lanes at a moment into `values`.
   * @param values what stands before in the order is there already
   * @param places where the first lane's value goes, those of the others after it; or where each lane's does, −1 for nowhere
   * @param offsets where the values of each driven property begin
   * @param plain the value of one lane by the plain evaluator
   */
  run(
    moment: Moment,
    values: Float64Array,
    places: number | Int32Array,
    offsets: ReadonlyMap<string, number>,
    plain: (lane: number) => number,
  ): void {
    const { block, doubts } = this
    for (const { lanes, dense, body } of this.groups) {
      const now: Now = { moment, seconds: moment.seconds, values, offsets, doubts, doubtful: false }
      for (let from = 0; from < lanes.length; from += BLOCK) {
        const count = Math.min(BLOCK, lanes.length - from)
        body.fill(now, from, count, block)
        for (let i = 0; i < count; i++) {
          const v = block[i]!
          if (v - v === 0) continue
          doubts[from + i] = 1
          now.doubtful = true
        }
        if (typeof places !== 'number') {
          for (let i = 0; i < count; i++) {
            const place = places[lanes[from + i]!]!
            if (place >= 0) values[place] = block[i]!
          }
        } else if (dense) {
          const start = places + lanes[from]!
          for (let i = 0; i < count; i++) values[start + i] = block[i]!
        } else for (let i = 0; i < count; i++) values[places + lanes[from + i]!] = block[i]!
      }
      if (now.doubtful) this.settle(lanes, values, places, plain)
    }
  }

  private settle(
    lanes: readonly number[],
    values: Float64Array,
    places: number | Int32Array,
    plain: (lane: number) => number,
  ): void {
    for (let i = 0; i < lanes.length; i++) {
      if (this.doubts[i] === 0) continue
      this.doubts[i] = 0
      const lane = lanes[i]!
      const place = typeof places === 'number' ? places + lane : places[lane]!
      if (place >= 0) values[place] = plain(lane)
    }
  }

  /** What lanes are exactly, where they stand still or grow steadily; null where they move in any other way. */
  exactOn(which: ArrayLike<number>): Exact | null {
    const [only, ...others] = this.groups
    if (others.length > 0) return exactTogether(Array.from(which, lane => this.exactLane(lane)))
    const exact = exactOf(only!.body, only!.lanes.length)
    return exact && { ...exact, rate: exact.rate && gathered(exact.rate, which), base: gathered(exact.base, which) }
  }

  /** The same of one lane. */
  exactLane(lane: number): ExactLane | null {
    const { lanes, body } = this.groups.find(g => g.lanes.includes(lane))!
    const exact = exactOf(body, lanes.length)
    const i = lanes.indexOf(lane)
    return exact && { rate: exact.rate ? laneOf(exact.rate, i) : ZERO, base: laneOf(exact.base, i), paced: exact.paced }
  }
}

/** The lanes 0 … count − 1, of the count that was asked for last. */
let all: readonly number[] = []
const allOf = (count: number): readonly number[] =>
  all.length === count ? all : (all = Array.from({ length: count }, (_, i) => i))

/** What plans some of the lanes together. */
export type LanePlanner = Planner & {
  /** Whether no lane is read by expressions of its own. */
  readonly isWhole: boolean
}

/** The plan of a formula on so many lanes; null where it is left to the plain evaluator. */
export function planOf(
  checked: Checked,
  count: number,
  plannerOf: (lanes: readonly number[]) => LanePlanner,
): Plan | null {
  const groups: Group[] = []
  let isWhole = true
  let operations = 0
  let waiting: (readonly number[])[] = [allOf(count)]
  try {
    while (waiting.length > 0) {
      if (groups.length + waiting.length > MOST_GROUPS) return null
      const [lanes, ...others] = waiting
      try {
        const planner = plannerOf(lanes!)
        const body = planner.column(planner.checked.formula.body)
        const dense = lanes!.at(-1)! - lanes![0]! === lanes!.length - 1
        groups.push({ lanes: lanes!, dense, body })
        isWhole &&= planner.isWhole
        operations = Math.max(operations, planner.operations)
        waiting = others
      } catch (e) {
        if (!(e instanceof SplitLanes)) throw e
        const kinds = [0, 1].map(k => lanes!.filter((_, i) => e.kinds[i] === k))
        waiting = [...kinds.filter(k => k.length > 0), ...others]
      }
    }
  } catch (e) {
    if (!leavesToPlain(e)) throw e
    return null
  }
  return new Plan(groups, count, isWhole, operations + everyNode(checked.formula).length)
}
