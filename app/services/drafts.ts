/**
 * What is typed into a formula and not run yet, kept by this browser: a reload or a crash of the tab does not lose it.
 * A draft belongs to the text it was made from; when that is another by now, it is of no use any more.
 */
import { storage } from './storage.ts'
interface Draft {
  /** The text that ran when it was typed. */
  readonly of: string
  readonly text: string
}

const place = (piece: string, drive: string) => `open-tide draft ${piece} ${drive}`

/** A browser that keeps nothing is no reason to stop. */
function tried<T>(done: () => T, otherwise: T): T {
  try {
    return done()
  } catch {
    return otherwise
  }
}

export const keepDraft = (piece: string, drive: string, draft: Draft | null): void =>
  tried(() => {
    if (draft) storage.setItem(place(piece, drive), JSON.stringify(draft))
    else storage.removeItem(place(piece, drive))
  }, undefined)

/** The draft of a formula that runs with the text `of`; null when there is none, or it was made from another. */
export const draftOf = (piece: string, drive: string, of: string): string | null =>
  tried(() => {
    const kept = storage.getItem(place(piece, drive))
    const draft = kept === null ? null : (JSON.parse(kept) as Draft)
    return draft?.of === of && typeof draft.text === 'string' && draft.text !== of ? draft.text : null
  }, null)
