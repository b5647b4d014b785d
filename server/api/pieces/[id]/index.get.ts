import { database } from '../../../database/current'
import { readPieceText } from '../../../database/pieces'
import { packedFor } from '../../../packing'
import { idOf, refuse } from '../../../request'

/** A piece with its document and revision. */
export default defineEventHandler(async event => {
  const id = idOf(event)
  const stored = await readPieceText(await database(), id)
  if (!stored) throw refuse(404, 'There’s no such piece. It may have been deleted.')
  setResponseHeader(event, 'content-type', 'application/json')
  return packedFor(event, `{"id":${JSON.stringify(id)},"revision":${stored.revision},"document":${stored.text}}`)
})
