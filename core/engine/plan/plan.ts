/**
 * A plan: the columns of a formula on all copies of its part, run block by block into a snapshot. Lanes that mean different
 * things for ever are planned apart. What a kernel could not decide, and what is no number, the plain evaluator reads.
 */
import type { Checked } from '../../formula/check.ts'
import { everyNode } from '../../formula/tree.ts'
import type { Moment } from '../../time/moment.ts'
import { BLOCK, type Column, type Now } from '../../columns/column.ts'
import type { Env } from '../env.ts'
import { PlannerOfCopies, type Host } from './copies.ts'
import { leavesToPlain } from './planner.ts'
import { SplitLanes } from './split.ts'

/** Lanes that are planned together, and what they are made of. */
interface Group {
  readonly instances: readonly number[]
  /** Whether these are the instances from `instances[0]` on, one after another. */
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
    /** Whether no lane is read by forms of its own. */
    readonly isWhole: boolean,
    /** What a lane takes at most, in operations. */
    readonly operations: number,
  ) {
    this.doubts = new Uint8Array(count)
  }

  /**
   * Writes the values of all copies at a moment into `values` from `offset` on.
   * @param values what stands before in the order is there already
   * @param offsets where the values of each driven property begin
   * @param plain the value of one copy by the plain evaluator
   */
  run(
    moment: Moment,
    values: Float64Array,
    offset: number,
    offsets: ReadonlyMap<string, number>,
    plain: (instance: number) => number,
  ): void {
    const { block, doubts } = this
    for (const { instances, dense, body } of this.groups) {
      const now: Now = { moment, seconds: moment.seconds, values, offsets, doubts, doubtful: false }
      const start = offset + instances[0]!
      for (let from = 0; from < instances.length; from += BLOCK) {
        const count = Math.min(BLOCK, instances.length - from)
        body.fill(now, from, count, block)
        for (let i = 0; i < count; i++) {
          const v = block[i]!
          if (!(v - v === 0)) {
            doubts[from + i] = 1
            now.doubtful = true
          }
          values[dense ? start + from + i : offset + instances[from + i]!] = v
        }
      }
      if (now.doubtful) this.settle(instances, values, offset, plain)
    }
  }

  private settle(
    instances: readonly number[],
    values: Float64Array,
    offset: number,
    plain: (i: number) => number,
  ): void {
    for (let i = 0; i < instances.length; i++) {
      if (this.doubts[i] === 0) continue
      this.doubts[i] = 0
      values[offset + instances[i]!] = plain(instances[i]!)
    }
  }
}

/** The instances 0 … count − 1, of the count that was asked for last. */
let all: readonly number[] = []
const allOf = (count: number): readonly number[] =>
  all.length === count ? all : (all = Array.from({ length: count }, (_, i) => i))

/** The plan of a formula on so many copies; null where it is left to the plain evaluator. */
export function planOf(checked: Checked, env: (instance: number) => Env, count: number, host: Host): Plan | null {
  const groups: Group[] = []
  let isWhole = true
  let waiting: (readonly number[])[] = [allOf(count)]
  try {
    while (waiting.length > 0) {
      if (groups.length + waiting.length > MOST_GROUPS) return null
      const [instances, ...others] = waiting
      try {
        const planner = new PlannerOfCopies(checked, env, instances!, host)
        const body = planner.column(checked.formula.body)
        const dense = instances!.at(-1)! - instances![0]! === instances!.length - 1
        groups.push({ instances: instances!, dense, body })
        isWhole &&= planner.isWhole
        waiting = others
      } catch (e) {
        if (!(e instanceof SplitLanes)) throw e
        const kinds = [0, 1].map(k => instances!.filter((_, i) => e.kinds[i] === k))
        waiting = [...kinds.filter(k => k.length > 0), ...others]
      }
    }
  } catch (e) {
    if (!leavesToPlain(e)) throw e
    return null
  }
  return new Plan(groups, count, isWhole, everyNode(checked.formula).length)
}
