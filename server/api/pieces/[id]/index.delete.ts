import { database } from '../../../database/current'
import { deletePiece } from '../../../database/pieces'
import { silence } from '../../../device/devices'
import { idOf, refuse } from '../../../request'

/** Deletes a piece; it can be brought back for a month. */
export default defineEventHandler(async event => {
  if (!(await deletePiece(await database(), idOf(event)))) throw refuse(404, 'There’s no such piece.')
  // What was sent of it to a device ends with it.
  silence(idOf(event))
  return { deleted: true }
})
