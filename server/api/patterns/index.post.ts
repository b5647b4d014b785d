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
    throw refuse(422, 'There is no drive in this: it is no pattern.')
  const id = await keepPattern(await database(), pattern)
  if (id === null) throw refuse(422, 'There are 500 patterns already. Take some away first.')
  wrote()
  setResponseStatus(event, 201)
  return { id }
})
