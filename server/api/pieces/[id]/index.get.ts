import { database } from '../../../database/current'
import { readStored } from '../../../database/pieces'
import { idOf, refuse } from '../../../request'

/** A piece with its document and revision. */
export default defineEventHandler(async event => {
  const stored = await readStored(await database(), idOf(event))
  if (!stored) throw refuse(404, 'There is no such piece. It may have been deleted.')
  return stored
})
