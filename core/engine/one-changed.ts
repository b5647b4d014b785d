/** What a change of one drive reaches: the most frequent change of all, since a dragged number makes one at every move. */
import { entriesChanged } from '../piece/operation.ts'
import type { Piece } from '../piece/schema.ts'
import type { Slot } from './slot.ts'

/** The key of the one drive in which two pieces differ, where they differ in that alone; else null. */
export function onlyDriveChanged(was: Piece, is: Piece): string | null {
  const ids = entriesChanged(was.drives, is.drives)
  const [key] = ids ?? []
  if (ids?.length !== 1 || key === undefined || !was.drives[key] || !is.drives[key]) return null
  for (const c of Object.keys(is) as (keyof Piece)[]) if (c !== 'drives' && was[c] !== is[c]) return null
  return key
}

/** A slot and all that read it, directly or by others. */
export function slotsReading(slots: ReadonlyMap<string, Slot>, key: string): ReadonlySet<string> {
  const found = new Set([key])
  const linked = [...slots.values()].filter(slot => slot.slots.size > 0)
  for (let known = 0; known < found.size;) {
    known = found.size
    for (const slot of linked) {
      if (found.has(slot.key)) continue
      for (const read of slot.slots) if (found.has(read)) found.add(slot.key)
    }
  }
  return found
}
