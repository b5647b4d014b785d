/** In which order the slots of a program are run into a snapshot: each after all that it reads. */
import type { Form } from '../form/form.ts'
import type { Moment } from '../time/moment.ts'
import type { Slot } from './slot.ts'

/** A slot in columns, or copies that are read one by one, with where their values go. */
type Step =
  | { readonly slot: Slot; readonly readers: null }
  | { readonly slot: null; readonly readers: readonly Form[]; readonly targets: Int32Array }

export class RunOrder {
  private readonly steps: readonly Step[]

  /** @param slots in their order; @param offsets where the values of each begin */
  constructor(
    slots: readonly Slot[],
    private readonly offsets: ReadonlyMap<string, number>,
  ) {
    const steps: Step[] = []
    let readers: Form[] = []
    let targets: number[] = []
    const close = () => {
      if (readers.length > 0) steps.push({ slot: null, readers, targets: Int32Array.from(targets) })
      readers = []
      targets = []
    }
    for (const slot of slots) {
      if (slot.offset < 0) continue
      if (slot.plan) {
        close()
        steps.push({ slot, readers: null })
      } else
        slot.readers.forEach((reader, i) => {
          readers.push(reader)
          targets.push(slot.offset + i)
        })
    }
    close()
    this.steps = steps
  }

  run(m: Moment, out: Float64Array): void {
    for (const step of this.steps) {
      if (step.readers) {
        const { readers, targets } = step
        for (let i = 0; i < readers.length; i++) out[targets[i]!] = readers[i]!.at(m)
      } else {
        const { slot } = step
        slot.plan!.run(m, out, slot.offset, this.offsets, i => slot.readers[i]!.at(m))
      }
    }
  }
}
