/** In which order the slots of a program are run into a snapshot: each after all that it reads. */
import type { Form } from '../form/form.ts'
import type { Moment } from '../time/moment.ts'
import type { Lags } from './lags.ts'
import type { Slot } from './slot.ts'

interface Step {
  readonly of: readonly Slot[]
  /** Whether each of them may be run apart. */
  readonly alone?: true
  readonly run: (m: Moment, out: Float64Array) => void
}

export class RunOrder {
  private readonly steps: readonly Step[]

  /**
   * @param slots in their order; @param offsets where the values of each begin
   * @param lags what is worked out before all others, since it reads none of their values
   */
  constructor(slots: readonly Slot[], offsets: ReadonlyMap<string, number>, lags: Lags | null = null) {
    const steps: Step[] = lags ? [{ of: lags.slots, run: (m, out) => lags.run(m, out, offsets) }] : []
    const done = new Set(lags?.slots)
    let single: Slot[] = []
    const close = () => {
      if (single.length > 0) steps.push(oneByOne(single))
      single = []
    }
    for (const slot of slots) {
      if (slot.offset < 0 || done.has(slot)) continue
      const step = slot.plan ? inColumns(slot, offsets) : alike(slot)
      if (!step) single.push(slot)
      else {
        close()
        steps.push(step)
      }
    }
    close()
    this.steps = steps
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
})

/** Copies that are the very same form, such as what is set of one that cannot run: read once. */
function alike(slot: Slot): Step | null {
  const { readers, offset, count } = slot
  const [first] = readers
  if (count < 2 || readers.some(r => r !== first)) return null
  return { of: [slot], run: (m, out) => out.fill(first!.at(m), offset, offset + count) }
}

/** Copies of several slots that are read one by one, side by side. */
function oneByOne(slots: readonly Slot[]): Step {
  const readers: Form[] = slots.flatMap(s => s.readers)
  const targets = Int32Array.from(slots.flatMap(s => s.readers.map((_, i) => s.offset + i)))
  return {
    of: slots,
    alone: true,
    run: (m, out) => {
      for (let i = 0; i < readers.length; i++) out[targets[i]!] = readers[i]!.at(m)
    },
  }
}
