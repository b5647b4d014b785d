/** Beyond this machine: nothing without the key. */
import { isOpen, needsNoKey, page, tryKey } from '../door'
import { refuse } from '../request'

export default defineEventHandler(async event => {
  if (isOpen(getCookie(event, 'open-tide-key') ?? '')) return
  const { pathname } = getRequestURL(event)
  if (needsNoKey(pathname)) return
  if (pathname === '/api/enter') {
    const body = await readFormData(event).catch(() => null)
    const found = tryKey(String(body?.get('key') ?? ''))
    if (found.let) {
      setCookie(event, 'open-tide-key', found.cookie, {
        httpOnly: true,
        sameSite: 'strict',
        path: '/',
        maxAge: 30 * 86400,
      })
      return sendRedirect(event, '/', 303)
    }
    setResponseStatus(event, found.wait ? 429 : 401)
    return send(event, page(found.says), 'text/html')
  }
  if (pathname.startsWith('/api/'))
    throw refuse(401, 'Open Tide asks for its key. Open its page in this browser and enter it.')
  setResponseStatus(event, 401)
  return send(event, page(''), 'text/html')
})
