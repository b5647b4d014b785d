import * as v from 'valibot'
import { DOCUMENT } from '../../../reading/reading'
import { database, wrote } from '../../../database/current'
import { savePiece } from '../../../database/pieces'
import { bodyOf, documentOf, idOf, refuse } from '../../../request'

const Save = v.strictObject({
  revision: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(2147483646)),
  document: v.unknown(),
  /** The save's own name; one that is sent again is not saved twice. */
  save: v.optional(v.pipe(v.string(), v.regex(/^[A-Za-z0-9_-]{1,40}$/, 'A save’s name must be letters and digits.'))),
})

/** Saves a document made from a revision. 409 when that is not the newest: both versions are kept. */
export default defineEventHandler(async event => {
  const { revision, document, save } = await bodyOf(event, Save, DOCUMENT)
  const saved = await savePiece(await database(), idOf(event), revision, documentOf(document), save ?? null)
  wrote()
  if (saved.saved) return { revision: saved.revision }
  if (saved.newest === null) throw refuse(404, 'This piece no longer exists: it was deleted.')
  throw refuse(409, 'This piece was changed elsewhere since it was opened here. Both versions are kept.', {
    revision: saved.newest,
  })
})
