import * as v from 'valibot'
import { DOCUMENT } from '../../reading/reading'
import { rolesOf } from '../../../core/acts/patterns'
import { database, wrote } from '../../database/current'
import { keepPattern } from '../../database/patterns'
import { bodyOf, documentOf, refuse } from '../../request'

/** Keeps a pattern. */
export default defineEventHandler(async event => {
  const { document } = await bodyOf(event, v.strictObject({ document: v.unknown() }), DOCUMENT)
  const pattern = documentOf(document)
  if (rolesOf(pattern).every(r => r.driven.length === 0))
    throw refuse(422, 'This has no drive in it, so it isn’t a pattern.')
  const id = await keepPattern(await database(), pattern)
  if (id === null) throw refuse(422, 'There are already 500 patterns. Delete some first.')
  wrote()
  setResponseStatus(event, 201)
  return { id }
})
