import * as v from 'valibot'
import { DOCUMENT } from '../../reading/reading'
import { database, wrote } from '../../database/current'
import { createPiece, firstCharacters, freeTitle, newPiece, readStored } from '../../database/pieces'
import { Title, bodyOf, documentOf, refuse } from '../../request'

const New = v.union([
  v.strictObject({ title: Title }),
  v.strictObject({ copyOf: v.string() }),
  v.strictObject({ document: v.unknown() }),
])

/** A new piece: empty, a copy of another, or from a document. */
export default defineEventHandler(async event => {
  const body = await bodyOf(event, New, DOCUMENT)
  const db = await database()
  let document
  if ('title' in body) document = newPiece(await freeTitle(db, body.title))
  else if ('copyOf' in body) {
    const stored = await readStored(db, body.copyOf)
    if (!stored) throw refuse(404, 'The piece to duplicate no longer exists.')
    document = { ...stored.document, title: await freeTitle(db, `${firstCharacters(stored.document.title, 115)} copy`) }
  } else {
    const given = documentOf(body.document)
    document = { ...given, title: await freeTitle(db, given.title) }
  }
  setResponseStatus(event, 201)
  const made = await createPiece(db, document)
  wrote()
  return made
})
