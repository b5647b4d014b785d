import { database } from '../../../../database/current'
import { readDevice } from '../../../../database/devices'
import { statusOf } from '../../../../device/devices'
import { idOf } from '../../../../request'

/** What of a piece goes to a device, and how it goes. */
export default defineEventHandler(async event => {
  const id = idOf(event)
  return { device: await readDevice(await database(), id), status: statusOf(id) }
})
