import { hear } from '../../../../device/devices'
import { database } from '../../../../database/current'
import { revisionOf } from '../../../../database/pieces'
import { idOf, refuse } from '../../../../request'

/** What comes in from a device, as it comes (server-sent events). */
export default defineEventHandler(async event => {
  if ((await revisionOf(await database(), idOf(event))) === null) throw refuse(404, 'There’s no such piece.')
  const stream = createEventStream(event)
  const end = hear(idOf(event), what => void stream.push(JSON.stringify(what)))
  stream.onClosed(async () => {
    end()
    await stream.close()
  })
  return stream.send()
})
