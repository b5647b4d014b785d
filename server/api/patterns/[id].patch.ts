import * as v from 'valibot'
import { database, wrote } from '../../database/current'
import { retitlePattern } from '../../database/patterns'
import { Title, bodyOf, idOf, refuse } from '../../request'

/** Another name for a pattern. */
export default defineEventHandler(async event => {
  const { title } = await bodyOf(event, v.strictObject({ title: Title }))
  if (!(await retitlePattern(await database(), idOf(event), title))) throw refuse(404, 'There’s no such pattern.')
  wrote()
  return { title }
})
