import { database } from '../../../../database/current'
import { mayShow } from '../../../../database/handovers'
import { sentPicture } from '../../../../pictures'
import { idOf, refuse, tokenOf } from '../../../../request'

/** A picture of what was handed over. */
export default defineEventHandler(async event => {
  const hash = idOf(event)
  if (!(await mayShow(await database(), tokenOf(event), hash))) throw refuse(404, 'There’s no such picture.')
  return sentPicture(event, hash)
})
