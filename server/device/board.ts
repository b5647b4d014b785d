/** The simulated board: it listens on its own port while somebody looks at it, and shows what comes. */
import { createSocket, type Socket } from 'node:dgram'
import { messagesIn, type Message } from '../../core/formats/osc/osc'
import { BOARD_PORT } from '../../core/piece/device'

const watchers = new Set<(messages: readonly Message[] | { says: string }) => void>()
let socket: Socket | null = null

export const boardPort = (env: NodeJS.ProcessEnv = process.env): number =>
  Number(env.OPEN_TIDE_BOARD_PORT) || BOARD_PORT

/** @returns what ends the looking */
export function watchBoard(tell: (messages: readonly Message[] | { says: string }) => void): () => void {
  watchers.add(tell)
  if (!socket) {
    socket = createSocket('udp4')
    socket.on('message', bytes => {
      const messages = messagesIn(bytes)
      if (messages) watchers.forEach(w => w(messages))
    })
    socket.on('error', e => {
      watchers.forEach(w => w({ says: `The board can’t listen on port ${boardPort()}: ${e.message}.` }))
      socket = null
    })
    socket.bind(boardPort(), '127.0.0.1')
    socket.unref()
  }
  return () => {
    watchers.delete(tell)
    if (watchers.size > 0) return
    socket?.close()
    socket = null
  }
}
