import { database } from '../../../database/current'
import { received } from '../../../database/handovers'
import { notHanded, tokenOf } from '../../../request'

/** What was handed over, by its token. */
export default defineEventHandler(async event => {
  const found = await received(await database(), tokenOf(event))
  if (!found) throw notHanded()
  setResponseHeader(event, 'cache-control', 'no-store')
  return found
})
