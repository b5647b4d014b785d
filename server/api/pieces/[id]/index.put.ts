import * as v from 'valibot'
import { database } from '../../../database/current'
import { savePiece } from '../../../database/pieces'
import { bodyOf, documentOf, idOf, refuse } from '../../../request'

const Save = v.strictObject({ revision: v.pipe(v.number(), v.integer()), document: v.unknown() })

/** Saves a document made from a revision. 409 when that is not the newest: both versions are kept. */
export default defineEventHandler(async event => {
  const { revision, document } = await bodyOf(event, Save)
  const saved = await savePiece(await database(), idOf(event), revision, documentOf(document))
  if (saved.saved) return { revision: saved.revision }
  if (saved.revision === null) throw refuse(404, 'There is no such piece. It may have been deleted.')
  throw refuse(409, 'This piece was changed elsewhere since it was opened here. Both versions are kept.', {
    revision: saved.revision,
  })
})
