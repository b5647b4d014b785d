import * as v from 'valibot'
import { database, wrote } from '../../../database/current'
import { moveTo, retitle } from '../../../database/pieces'
import { Title, bodyOf, idOf, refuse } from '../../../request'

const Folder = v.pipe(
  v.string(),
  v.trim(),
  v.maxLength(60, 'A folder can have up to 60 characters.'),
  v.check(s => !/\p{Surrogate}|\p{Control}/u.test(s), 'A folder can’t contain control characters.'),
)

/** Another title for a piece, or another folder. */
export default defineEventHandler(async event => {
  const body = await bodyOf(event, v.union([v.strictObject({ title: Title }), v.strictObject({ folder: Folder })]))
  const db = await database()
  if ('folder' in body) {
    if (!(await moveTo(db, idOf(event), body.folder))) throw refuse(404, 'There’s no such piece.')
    wrote()
    return body
  }
  const saved = await retitle(db, idOf(event), body.title)
  wrote()
  if (!saved.saved)
    throw refuse(
      saved.newest === null ? 404 : 409,
      'The piece couldn’t be renamed: it was deleted or just changed. Try again.',
    )
  return { revision: saved.revision }
})
