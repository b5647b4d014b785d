/** In which order the slots of a program are run into a snapshot: each after all that it reads. */
import type { Form } from '../form/form.ts'
import type { Moment } from '../time/moment.ts'
import type { Slot } from './slot.ts'

type Step = (m: Moment, out: Float64Array) => void

export class RunOrder {
  private readonly steps: readonly Step[]

  /** @param slots in their order; @param offsets where the values of each begin */
  constructor(slots: readonly Slot[], offsets: ReadonlyMap<string, number>) {
    const steps: Step[] = []
    let single: Slot[] = []
    const close = () => {
      if (single.length > 0) steps.push(oneByOne(single))
      single = []
    }
    for (const slot of slots) {
      if (slot.offset < 0) continue
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
    for (const step of this.steps) step(m, out)
  }
}

const inColumns =
  (slot: Slot, offsets: ReadonlyMap<string, number>): Step =>
  (m, out) =>
    slot.plan!.run(m, out, slot.offset, offsets, i => slot.readers[i]!.at(m))

/** Copies that are the very same form, such as what is set of one that cannot run: read once. */
function alike({ readers, offset, count }: Slot): Step | null {
  const [first] = readers
  if (count < 2 || readers.some(r => r !== first)) return null
  return (m, out) => out.fill(first!.at(m), offset, offset + count)
}

/** Copies of several slots that are read one by one, side by side. */
function oneByOne(slots: readonly Slot[]): Step {
  const readers: Form[] = slots.flatMap(s => s.readers)
  const targets = Int32Array.from(slots.flatMap(s => s.readers.map((_, i) => s.offset + i)))
  return (m, out) => {
    for (let i = 0; i < readers.length; i++) out[targets[i]!] = readers[i]!.at(m)
  }
}
