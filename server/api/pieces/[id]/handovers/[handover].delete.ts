import { database, wrote } from '../../../../database/current'
import { withdraw } from '../../../../database/handovers'
import { idOf, numberOf, refuse } from '../../../../request'

/** Withdraws what was handed over: its link opens nothing any more. */
export default defineEventHandler(async event => {
  if (!(await withdraw(await database(), idOf(event), numberOf(event, 'handover'))))
    throw refuse(404, 'It was already revoked, or doesn’t exist.')
  wrote()
  return { withdrawn: true }
})
