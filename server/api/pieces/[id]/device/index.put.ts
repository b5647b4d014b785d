import { DeviceSchema } from '../../../../../core/piece/device'
import { database, wrote } from '../../../../database/current'
import { keepDevice } from '../../../../database/devices'
import { revisionOf } from '../../../../database/pieces'
import { silence } from '../../../../device/devices'
import { mayReach } from '../../../../device/sender'
import { bodyOf, idOf, refuse } from '../../../../request'

/** Sets what goes to a device; what was being sent stops. */
export default defineEventHandler(async event => {
  const device = await bodyOf(event, DeviceSchema)
  const db = await database()
  const id = idOf(event)
  if ((await revisionOf(db, id)) === null) throw refuse(404, 'There’s no such piece.')
  if (!mayReach(device.host))
    throw refuse(
      403,
      `Nothing is sent to ${device.host}: start Open Tide with OPEN_TIDE_DEVICES=${device.host} to allow it.`,
    )
  silence(id)
  await keepDevice(db, id, device)
  wrote()
  return { device }
})
