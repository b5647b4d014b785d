import { hear } from '../../../../device/devices'
import { idOf } from '../../../../request'

/** What comes in from a device, as it comes (server-sent events). */
export default defineEventHandler(async event => {
  const stream = createEventStream(event)
  const end = hear(idOf(event), what => void stream.push(JSON.stringify(what)))
  stream.onClosed(async () => {
    end()
    await stream.close()
  })
  return stream.send()
})
