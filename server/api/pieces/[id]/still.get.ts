import { stillSvg } from '../../../../core/formats/svg'
import { rational } from '../../../../core/time/rational'
import { database } from '../../../database/current'
import { readStored } from '../../../database/pieces'
import { idOf, refuse } from '../../../request'

/** Of a piece with nothing on it: three faint waves. */
const EMPTY = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="-64 -36 128 72" width="1280" height="720" fill="none" stroke="#8fa5a4" stroke-opacity="0.5" stroke-linecap="round"><path d="M-9-4c3-3 6-3 9 0s6 3 9 0M-9 0c3-3 6-3 9 0s6 3 9 0M-9 4c3-3 6-3 9 0s6 3 9 0"/></svg>`

/** A piece as a still picture, a little into its first lap. */
export default defineEventHandler(async event => {
  const stored = await readStored(await database(), idOf(event))
  if (!stored) throw refuse(404, 'There is no such piece.')
  const tag = `"${stored.id}-${stored.revision}"`
  setResponseHeaders(event, {
    'content-type': 'image/svg+xml',
    etag: tag,
    'cache-control': 'no-cache',
    'content-security-policy': "default-src 'none'",
  })
  if (getRequestHeader(event, 'if-none-match') === tag) {
    setResponseStatus(event, 304)
    return null
  }
  return Object.keys(stored.document.parts).length === 0 ? EMPTY : stillSvg(stored.document, rational(5, 4))
})
