import { boardPort, watchBoard } from '../../device/board'

/** What the simulated board shows, as it comes (server-sent events). */
export default defineEventHandler(async event => {
  const stream = createEventStream(event)
  void stream.push(JSON.stringify({ port: boardPort() }))
  const end = watchBoard(messages => void stream.push(JSON.stringify(messages)))
  stream.onClosed(async () => {
    end()
    await stream.close()
  })
  return stream.send()
})
