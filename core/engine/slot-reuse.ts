/** What a new program takes over from the one before. */
import type { Piece } from '../piece/schema.ts'
import type { LiveMarks } from './live-marks.ts'
import type { Meanings } from './meaning.ts'
import type { Slot } from './slot.ts'

/** What is looked at of a program, the new one and the one before. */
interface Made {
  readonly piece: Piece
  readonly live: LiveMarks
  readonly meanings: Meanings
  readonly slots: ReadonlyMap<string, Slot>
  readonly resting: ReadonlyMap<string, string>
}

/** Which slots of the program before still stand. */
export class SlotReuse {
  private readonly kept = new Map<string, boolean>()
  private readonly possible: boolean
  /** Whether the same properties and signals have formulas as before. */
  private readonly sameKeys: boolean

  constructor(
    private readonly now: Made,
    private readonly earlier: Made | null,
  ) {
    const [a, b] = [earlier?.piece, now.piece]
    this.possible =
      a !== undefined &&
      earlier!.live === now.live &&
      (['parts', 'frameRate', 'lap', 'stretch', 'clocks', 'cues', 'curves'] as const).every(c => a[c] === b[c])
    this.sameKeys = earlier?.meanings.order === now.meanings.order
  }

  slot(key: string): Slot | null {
    return this.stands(key) ? this.before(key) : null
  }

  /** What a slot is itself, where that stands whatever has become of those that it reads; else something new. */
  own(key: string): object {
    return this.standsItself(key) ? this.before(key).own : {}
  }

  /** A slot of the program before that stands. */
  before(key: string): Slot {
    return this.earlier!.slots.get(key)!
  }

  /** Whether a slot and all that it reads stand. */
  stands(key: string): boolean {
    if (!this.possible) return false
    const known = this.kept.get(key)
    if (known !== undefined) return known
    this.kept.set(key, false)
    let stands = this.standsItself(key)
    const { slots } = stands ? this.before(key) : NOTHING
    if (slots.size > 0) for (const other of slots) stands &&= this.stands(other)
    this.kept.set(key, stands)
    return stands
  }

  /** Whether a slot stands, whatever has become of those that it reads. */
  standsItself(key: string): boolean {
    if (!this.possible) return false
    const [a, b] = [this.earlier!, this.now]
    const slot = a.slots.get(key)
    const [was, is] = [a.meanings.all.get(key), b.meanings.all.get(key)]
    return (
      slot !== undefined &&
      was !== undefined &&
      is !== undefined &&
      (was === is || (was.source === is.source && was.running === is.running && was.text === is.text)) &&
      a.resting.get(key) === b.resting.get(key) &&
      (this.sameKeys || this.readsAsBefore(slot)) &&
      (slot.problems.length === 0 || !slot.problems.some(p => p.code === 'heavy' && !a.resting.has(key))) &&
      (a.piece.dials === b.piece.dials || alikeIn(slot.dials, a.piece.dials, b.piece.dials)) &&
      (a.piece.bases === b.piece.bases || alikeIn(slot.setValueKeys, a.piece.bases, b.piece.bases)) &&
      (a.piece.slips === b.piece.slips || alikeIn(slot.paces.keys(), a.piece.slips, b.piece.slips))
    )
  }

  /** Whether what it reads as set is set still, and what it reads as driven is driven. */
  private readsAsBefore({ setValueKeys, slots }: Slot): boolean {
    const [was, is] = [this.earlier!.meanings.all, this.now.meanings.all]
    for (const key of setValueKeys) if (was.has(key) !== is.has(key)) return false
    for (const key of slots) if (!is.has(key)) return false
    return true
  }
}

const NOTHING: Pick<Slot, 'slots'> = { slots: new Set() }

/** Whether some of what two collections hold is the same. */
function alikeIn(keys: Iterable<string>, a: Readonly<Record<string, unknown>>, b: typeof a): boolean {
  for (const key of keys) if (a[key] !== b[key]) return false
  return true
}
