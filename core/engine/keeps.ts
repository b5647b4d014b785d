/** What a new program takes over from the one before. */
import type { Piece } from '../piece/schema.ts'
import type { Live } from './live.ts'
import type { Meanings } from './meaning.ts'
import type { Slot } from './slot.ts'

/** What is looked at of a program, the new one and the one before. */
interface Made {
  readonly piece: Piece
  readonly live: Live
  readonly meanings: Meanings
  readonly slots: ReadonlyMap<string, Slot>
  readonly resting: ReadonlyMap<string, string>
}

/** Which slots of the program before still stand. */
export class Keeps {
  private readonly kept = new Map<string, boolean>()
  private readonly possible: boolean

  constructor(
    private readonly now: Made,
    private readonly before: Made | null,
  ) {
    const [a, b] = [before?.piece, now.piece]
    this.possible =
      a !== undefined &&
      before!.live === now.live &&
      (['parts', 'frameRate', 'lap', 'stretch', 'clocks', 'cues', 'curves'] as const).every(c => a[c] === b[c])
  }

  slot(key: string): Slot | null {
    return this.possible && this.stands(key) ? this.before!.slots.get(key)! : null
  }

  private stands(key: string): boolean {
    const known = this.kept.get(key)
    if (known !== undefined) return known
    this.kept.set(key, false)
    const [a, b] = [this.before!, this.now]
    const slot = a.slots.get(key)
    const [was, is] = [a.meanings.all.get(key), b.meanings.all.get(key)]
    const stands =
      slot !== undefined &&
      was !== undefined &&
      is !== undefined &&
      was.source === is.source &&
      was.running === is.running &&
      a.resting.get(key) === b.resting.get(key) &&
      was.text === is.text &&
      !slot.problems.some(p => p.code === 'heavy' && !a.resting.has(key)) &&
      [...slot.dials].every(id => a.piece.dials[id] === b.piece.dials[id]) &&
      [...slot.hands].every(k => a.piece.bases[k] === b.piece.bases[k]) &&
      [...slot.paces.keys()].every(k => a.piece.slips[k] === b.piece.slips[k]) &&
      [...slot.slots].every(k => this.stands(k))
    this.kept.set(key, stands)
    return stands
  }
}
