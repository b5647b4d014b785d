/** Saves a piece as it changes: a little after the last change, one save at a time, answered means on disk. */
import type { Piece } from '~~/core/piece/schema.ts'
import { put } from './request.ts'

export type SaveState =
  | { is: 'saved'; at: Date | null }
  | { is: 'changed' | 'saving' }
  | { is: 'failed'; says: string }
  /** Changed elsewhere: `document` is this window's version, which was refused and kept. */
  | { is: 'stale'; document: Piece }

/** Milliseconds of rest before a save, and between tries when the server cannot be reached. */
const REST = 500
const AGAIN = 4000

export class Keeper {
  private waiting: Piece | null = null
  private busy = false
  private stale = false
  private timer: ReturnType<typeof setTimeout> | null = null
  private readonly warn = (e: BeforeUnloadEvent) => {
    if (this.waiting || this.busy) e.preventDefault()
  }

  constructor(
    private readonly id: string,
    private revision: number,
    private readonly tell: (state: SaveState) => void,
  ) {
    addEventListener('beforeunload', this.warn)
  }

  changed(piece: Piece): void {
    this.waiting = piece
    if (this.stale) {
      this.tell({ is: 'stale', document: piece })
      return
    }
    if (!this.busy) this.tell({ is: 'changed' })
    this.later(REST)
  }

  private later(wait: number): void {
    if (this.timer) clearTimeout(this.timer)
    this.timer = setTimeout(() => void this.save(), wait)
  }

  async save(): Promise<void> {
    if (this.busy || this.stale || !this.waiting) return
    const piece = this.waiting
    this.waiting = null
    this.busy = true
    this.tell({ is: 'saving' })
    const answer = await put(`/api/pieces/${this.id}`, { revision: this.revision, document: piece })
    this.busy = false
    if (answer.ok) {
      this.revision = (answer.value as { revision: number }).revision
      this.tell(this.waiting ? { is: 'changed' } : { is: 'saved', at: new Date() })
      if (this.waiting) this.later(REST)
      return
    }
    this.waiting ??= piece
    if (answer.status === 409) {
      this.stale = true
      this.tell({ is: 'stale', document: this.waiting })
      return
    }
    this.tell({ is: 'failed', says: answer.says })
    if (answer.status === 0 || answer.status >= 500) this.later(AGAIN)
  }

  stop(): void {
    if (this.timer) clearTimeout(this.timer)
    void this.save()
    removeEventListener('beforeunload', this.warn)
  }
}
