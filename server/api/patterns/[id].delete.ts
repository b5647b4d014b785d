import { database, wrote } from '../../database/current'
import { dropPattern } from '../../database/patterns'
import { idOf, refuse } from '../../request'

/** Takes a pattern away; who asked has it still, and can give it back. */
export default defineEventHandler(async event => {
  if (!(await dropPattern(await database(), idOf(event)))) throw refuse(404, 'There’s no such pattern.')
  wrote()
  return { deleted: true }
})
