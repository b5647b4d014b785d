/** Making a piece what another state of it was, as one operation that can be taken back. */
import { alike } from '../piece/alike.ts'
import type { Collection, Operation, Put, Setting } from '../piece/operation.ts'
import type { Piece } from '../piece/schema.ts'

const COLLECTIONS: readonly Collection[] = [
  'parts',
  'drives',
  'bases',
  'signals',
  'dials',
  'clocks',
  'cues',
  'curves',
  'ties',
  'slips',
  'assets',
]
const SETTINGS: readonly Setting[] = ['title', 'seed', 'frameRate', 'lap', 'stretch', 'stage', 'camera']

/** What turns `now` into `then`; entries that are alike stay the very same. */
export function takeBack(now: Piece, then: Piece, says: string): Operation {
  const settings = SETTINGS.filter(s => !alike(now[s], then[s])).map(s => ({ set: s, value: then[s] }) as Put)
  const entries = COLLECTIONS.flatMap(c =>
    [...new Set([...Object.keys(now[c]), ...Object.keys(then[c])])]
      .filter(id => !alike(now[c][id], then[c][id]))
      .map(id => ({ in: c, id, value: then[c][id] ?? null }) as Put),
  )
  return { undoLabel: `restore the version of ${says}`, puts: [...settings, ...entries] }
}
