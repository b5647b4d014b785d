/** Other pages open in the same browser must not reach this server: the name it is called by and the origin of a change must be its own. */
import { refuse } from '../request'
import { names } from '../door'

export default defineEventHandler(event => {
  const host = getRequestHeader(event, 'host') ?? ''
  const name = host
    .replace(/:\d+$/, '')
    .replace(/^\[|\]$/g, '')
    .toLowerCase()
  if (!names().includes(name)) throw refuse(403, `Open Tide is not served under the name ${name.slice(0, 80)}.`)
  if (event.method === 'GET' || event.method === 'HEAD') return
  const origin = getRequestHeader(event, 'origin')
  if (origin !== undefined && origin !== `http://${host}` && origin !== `https://${host}`)
    throw refuse(403, 'Only pages of this Open Tide may change its pieces.')
})
