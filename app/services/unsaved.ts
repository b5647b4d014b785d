/** What is not on the server's disk yet waits in this browser's own store, so that nothing is lost with a tab. */
import { createStore, del, entries, get, promisifyRequest, type UseStore } from 'idb-keyval'
import type { Piece } from '~~/core/piece/schema.ts'
import { documentText } from '~~/core/piece/document-text.ts'

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

/**
 * As it lies in the browser: documents as their text, which is handed over many times faster than an object of many entries.
 * Earlier versions kept the objects themselves.
 */
interface Kept {
  readonly revision: number
  readonly document: string | Piece
  readonly sent: { readonly document: string | Piece; readonly save: string } | null
}

const read = (document: string | Piece): Piece =>
  typeof document === 'string' ? (JSON.parse(document) as Piece) : document

const taken = ({ revision, document, sent }: Kept): Unsaved => ({
  revision,
  document: read(document),
  sent: sent && { document: read(sent.document), save: sent.save },
})

/** @returns milliseconds of the main thread that writing and handing over the text took */
export async function keepUnsaved(id: string, { revision, document, sent }: Unsaved): Promise<number> {
  const began = performance.now()
  const kept: Kept = {
    revision,
    document: documentText(document),
    sent: sent && { document: documentText(sent.document), save: sent.save },
  }
  let took = performance.now() - began
  const put = (to: IDBObjectStore) => {
    const handed = performance.now()
    to.put(kept, id)
    took += performance.now() - handed
    return promisifyRequest(to.transaction)
  }
  await tried(() => store()('readwrite', put), undefined)
  return took
}
export const unsavedOf = (id: string): Promise<Unsaved | null> =>
  tried(() => get<Kept>(id, store()).then(kept => (kept ? taken(kept) : null)), null)
export const allUnsaved = (): Promise<[string, Unsaved][]> =>
  tried(async () => {
    const all = await entries<string, Kept>(store())
    return all.map(([id, kept]) => [id, taken(kept)])
  }, [])
export const forgetUnsaved = (id: string): Promise<void> => tried(() => del(id, store()), undefined)
