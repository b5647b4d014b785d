/** Beyond this machine: nothing without the key. */
import { isOpen, needsNoKey, page, pageHeaders, tryKey } from '../door'
import { pathOf, refuse, textOf } from '../request'

/** A key and the name of its field. */
const ENTERING = { bytes: 4096, depth: 1, count: 10 }

/** The page that asks for the key, under the same rules as the rest. */
function ask(event: Parameters<typeof setResponseStatus>[0], status: number, says: string) {
  setResponseStatus(event, status)
  const html = page(says)
  setResponseHeaders(event, pageHeaders(html))
  return send(event, html, 'text/html; charset=utf-8')
}

export default defineEventHandler(async event => {
  if (isOpen(getCookie(event, 'open-tide-key') ?? '')) return
  const pathname = pathOf(event)
  if (needsNoKey(pathname)) return
  if (pathname === '/api/enter') {
    const body = new URLSearchParams(await textOf(event, ENTERING))
    const found = tryKey(body.get('key') ?? '', event.node.req.socket.remoteAddress ?? '')
    if (found.let) {
      setCookie(event, 'open-tide-key', found.cookie, {
        httpOnly: true,
        sameSite: 'strict',
        path: '/',
        maxAge: 30 * 86400,
      })
      return sendRedirect(event, '/', 303)
    }
    return ask(event, found.wait ? 429 : 401, found.says)
  }
  if (pathname.startsWith('/api/'))
    throw refuse(401, 'Open Tide needs its key. Open its page in this browser and enter it.')
  return ask(event, 401, '')
})
