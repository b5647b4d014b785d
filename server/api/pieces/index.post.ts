import * as v from 'valibot'
import { database } from '../../database/current'
import { createPiece, freeTitle, newPiece, readStored } from '../../database/pieces'
import { bodyOf, documentOf, refuse } from '../../request'

const New = v.union([
  v.strictObject({ title: v.pipe(v.string(), v.trim(), v.minLength(1, 'A piece needs a title.'), v.maxLength(120)) }),
  v.strictObject({ copyOf: v.string() }),
  v.strictObject({ document: v.unknown() }),
])

/** A new piece: empty, a copy of another, or from a document. */
export default defineEventHandler(async event => {
  const body = await bodyOf(event, New)
  const db = await database()
  let document
  if ('title' in body) document = newPiece(await freeTitle(db, body.title))
  else if ('copyOf' in body) {
    const stored = await readStored(db, body.copyOf)
    if (!stored) throw refuse(404, 'The piece to copy is no longer there.')
    document = { ...stored.document, title: await freeTitle(db, `${stored.document.title} copy`) }
  } else {
    const given = documentOf(body.document)
    document = { ...given, title: await freeTitle(db, given.title) }
  }
  setResponseStatus(event, 201)
  return createPiece(db, document)
})
