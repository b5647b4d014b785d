import * as v from 'valibot'
import { database } from '../../../database/current'
import { retitle } from '../../../database/pieces'
import { bodyOf, idOf, refuse } from '../../../request'

const Title = v.strictObject({
  title: v.pipe(v.string(), v.trim(), v.minLength(1, 'A piece needs a title.'), v.maxLength(120)),
})

/** Another title for a piece. */
export default defineEventHandler(async event => {
  const { title } = await bodyOf(event, Title)
  const saved = await retitle(await database(), idOf(event), title)
  if (!saved.saved)
    throw refuse(
      saved.revision === null ? 404 : 409,
      'The piece could not be renamed: it was deleted or just changed. Try again.',
    )
  return { revision: saved.revision }
})
