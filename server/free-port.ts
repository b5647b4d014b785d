/** A port of this machine that nothing listens on. */
import { createServer, type AddressInfo } from 'node:net'

export const freePort = (): Promise<number> =>
  new Promise((done, fail) => {
    const probe = createServer()
    probe.once('error', fail)
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo
      probe.close(() => done(port))
    })
  })
