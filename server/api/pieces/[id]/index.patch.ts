import * as v from 'valibot'
import { database, wrote } from '../../../database/current'
import { retitle } from '../../../database/pieces'
import { Title, bodyOf, idOf, refuse } from '../../../request'

/** Another title for a piece. */
export default defineEventHandler(async event => {
  const { title } = await bodyOf(event, v.strictObject({ title: Title }))
  const saved = await retitle(await database(), idOf(event), title)
  wrote()
  if (!saved.saved)
    throw refuse(
      saved.newest === null ? 404 : 409,
      'The piece could not be renamed: it was deleted or just changed. Try again.',
    )
  return { revision: saved.revision }
})
