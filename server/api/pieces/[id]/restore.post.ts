import { database } from '../../../database/current'
import { restorePiece } from '../../../database/pieces'
import { idOf, refuse } from '../../../request'

/** Brings a deleted piece back. */
export default defineEventHandler(async event => {
  if (!(await restorePiece(await database(), idOf(event)))) throw refuse(404, 'This piece can no longer be restored.')
  return { restored: true }
})
