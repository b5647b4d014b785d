/** Other pages open in the same browser must not reach this server: the name it is called by and the origin of a change must be its own. */
import { refuse } from '../request'
import { serverNames } from '../door'

export default defineEventHandler(event => {
  const host = getRequestHeader(event, 'host') ?? ''
  const [, bracketed, plain] = /^(?:\[([0-9a-f:.]+)\]|([^:[\]/@\s]+))(?::\d{1,5})?$/i.exec(host) ?? []
  const name = (bracketed ?? plain)?.toLowerCase()
  if (!name) {
    // An error would be told by its address, which has none that can be read.
    const message = `Unknown server name: ${host.slice(0, 80)}.`
    setResponseStatus(event, 400)
    return send(event, JSON.stringify({ statusCode: 400, message }), 'application/json')
  }
  if (!serverNames().includes(name)) throw refuse(403, `Open Tide isn’t served under the name ${name.slice(0, 80)}.`)
  if (event.method === 'GET' || event.method === 'HEAD') return
  const origin = getRequestHeader(event, 'origin')
  if (origin !== undefined && origin !== `http://${host}` && origin !== `https://${host}`)
    throw refuse(403, 'Only pages served by this Open Tide can change its pieces.')
})
