/** What is not on the server's disk yet waits in this browser's own store, so that nothing is lost with a tab. */
import { createStore, del, entries, get, set, type UseStore } from 'idb-keyval'
import type { Piece } from '~~/core/piece/schema.ts'

/** A state on its way to the server, under the name of its save. */
export interface Sent {
  readonly document: Piece
  readonly save: string
}

export interface Unsaved {
  /** The revision it was made from. */
  readonly revision: number
  /** The newest state. */
  readonly document: Piece
  /** What was sent and not answered: it may be on the server's disk, or never have come there. */
  readonly sent: Sent | null
}

let opened: UseStore | null = null
const store = () => (opened ??= createStore('open-tide', 'unsaved'))
/** A browser that keeps nothing (blocked site data, a full disk) is no reason to stop: opening its store may throw at once. */
export async function tried<T>(act: () => Promise<T>, otherwise: T): Promise<T> {
  try {
    return await act()
  } catch {
    return otherwise
  }
}

/** @returns whether it is kept in this browser */
export const keepUnsaved = (id: string, unsaved: Unsaved): Promise<boolean> =>
  tried(() => set(id, unsaved, store()).then(() => true), false)
export const unsavedOf = (id: string): Promise<Unsaved | null> =>
  tried(() => get<Unsaved>(id, store()).then(u => u ?? null), null)
export const allUnsaved = (): Promise<[string, Unsaved][]> => tried(() => entries<string, Unsaved>(store()), [])
export const forgetUnsaved = (id: string): Promise<void> => tried(() => del(id, store()), undefined)
