/** In which order the slots of a program are run into a snapshot: each after all that it reads. */
import type { CompiledExpression } from '../form/compiled-expression.ts'
import type { Moment } from '../time/moment.ts'
import type { Batch } from './batches.ts'
import type { Lags } from './lags.ts'
import type { Slot } from './slot.ts'

interface Step {
  readonly of: readonly Slot[]
  /** Whether each of them may be run apart. */
  readonly alone?: true
  readonly run: (m: Moment, out: Float64Array) => void
  /** The same step where some of its slots have become others; null where these are run in another way. */
  readonly renewed?: (others: ReadonlyMap<string, Slot>) => Step | null
}

export class RunOrder {
  private constructor(private readonly steps: readonly Step[]) {}

  /**
   * @param slots each after all that it reads; @param offsets where the values of each begin
   * @param lags what is worked out before all others, since it reads none of their values
   */
  static of(
    slots: readonly Slot[],
    offsets: ReadonlyMap<string, number>,
    lags: Lags | null = null,
    batches: readonly Batch[] = [],
  ): RunOrder {
    const steps: Step[] = lags ? [{ of: lags.slots, run: (m, out) => lags.run(m, out, offsets) }] : []
    const done = new Set(lags?.slots)
    const levels = levelsOf(slots)
    const ranked: Slot[][] = []
    for (const slot of slots) if (slot.offset >= 0 && !done.has(slot)) (ranked[levels.get(slot.key)!] ??= []).push(slot)
    const ready: Step[][] = []
    const byKey = batches.length > 0 ? new Map(slots.map(s => [s.key, s])) : null
    for (const batch of batches) {
      const lanes = batch.keys.map(key => (key === null ? null : (byKey!.get(key) ?? null)))
      const level = levelOfAll(lanes, levels)
      // Where they no longer stand on one level, one may read another: they are read one by one.
      if (level === null) continue
      const left = lanes.map(slot => (slot && !done.has(slot) ? slot : null))
      for (const slot of left) if (slot) done.add(slot)
      if (left.some(slot => slot)) (ready[level] ??= []).push(together(batch, left, offsets))
    }
    for (let level = 0; level < Math.max(ranked.length, ready.length); level++) {
      steps.push(...(ready[level] ?? []))
      const single: Slot[] = []
      for (const slot of ranked[level] ?? []) {
        if (done.has(slot)) continue
        const step = slot.plan ? inColumns(slot, offsets) : alike(slot)
        if (step) steps.push(step)
        else single.push(slot)
      }
      if (single.length > 0) steps.push(oneByOne(single))
    }
    return new RunOrder(steps)
  }

  /** The same where some slots have become others that read the same; null where it has to be made anew. */
  renewed(others: ReadonlyMap<string, Slot>): RunOrder | null {
    const steps: Step[] = []
    for (const step of this.steps) {
      const touched = step.of.some(slot => others.has(slot.key))
      const now = touched ? (step.renewed?.(others) ?? null) : step
      if (!now) return null
      steps.push(now)
    }
    return new RunOrder(steps)
  }

  run(m: Moment, out: Float64Array): void {
    for (const step of this.steps) step.run(m, out)
  }

  /** The same, and what each slot took of it in milliseconds; those that are run together share alike. */
  timed(m: Moment, out: Float64Array, took: (slot: Slot, ms: number) => void, now: () => number): void {
    for (const { of, run } of this.steps.flatMap(apart)) {
      const begun = now()
      run(m, out)
      const each = (now() - begun) / of.length
      for (const slot of of) took(slot, each)
    }
  }
}

/** What is read one by one, a step a slot. */
const apart = (step: Step): Step[] => (step.alone ? step.of.map(s => oneByOne([s])) : [step])

const inColumns = (slot: Slot, offsets: ReadonlyMap<string, number>): Step => ({
  of: [slot],
  run: (m, out) => slot.plan!.run(m, out, slot.offset, offsets, i => slot.readers[i]!.at(m)),
  renewed: others => {
    const now = others.get(slot.key)!
    return now.plan ? inColumns(now, offsets) : null
  },
})

/** How many others each reads in a row at most, itself not counted. */
function levelsOf(slots: readonly Slot[]): ReadonlyMap<string, number> {
  const levels = new Map<string, number>()
  for (const { key, slots: reads } of slots) {
    let level = 0
    for (const read of reads) level = Math.max(level, (levels.get(read) ?? -1) + 1)
    levels.set(key, level)
  }
  return levels
}

function levelOfAll(slots: readonly (Slot | null)[], levels: ReadonlyMap<string, number>): number | null {
  let level: number | null = null
  for (const slot of slots) {
    if (!slot) continue
    const own = levels.get(slot.key)!
    if (level !== null && own !== level) return null
    level = own
  }
  return level
}

/** Drives of one shape. */
function together(batch: Batch, lanes: readonly (Slot | null)[], offsets: ReadonlyMap<string, number>): Step {
  const { plan } = batch
  const places = Int32Array.from(lanes, slot => (slot ? slot.offset : -1))
  return {
    of: lanes.filter(slot => slot !== null),
    run: (m, out) => plan.run(m, out, places, offsets, lane => lanes[lane]!.readers[0]!.at(m)),
    renewed: others =>
      together(
        batch,
        lanes.map(slot => slot && (others.get(slot.key) ?? slot)),
        offsets,
      ),
  }
}

/** Copies that are the very same expression, such as what is set of one that cannot run: read once. */
function alike(slot: Slot): Step | null {
  const { readers, offset, count } = slot
  const [first] = readers
  if (count < 2 || readers.some(r => r !== first)) return null
  return { of: [slot], run: (m, out) => out.fill(first!.at(m), offset, offset + count) }
}

/** Copies of several slots that are read one by one, side by side. */
function oneByOne(slots: readonly Slot[]): Step {
  const readers: CompiledExpression[] = slots.flatMap(s => s.readers)
  const targets = Int32Array.from(slots.flatMap(s => s.readers.map((_, i) => s.offset + i)))
  return {
    of: slots,
    alone: true,
    run: (m, out) => {
      for (let i = 0; i < readers.length; i++) out[targets[i]!] = readers[i]!.at(m)
    },
    renewed: others => {
      const now = slots.map(slot => others.get(slot.key) ?? slot)
      return now.some(slot => slot.plan || alike(slot)) ? null : oneByOne(now)
    },
  }
}
