import { stillSvg } from '../../../../core/formats/svg'
import { rational } from '../../../../core/time/rational'
import { database } from '../../../database/current'
import { readStored } from '../../../database/pieces'
import { idOf, refuse } from '../../../request'

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
  return stillSvg(stored.document, rational(5, 4))
})
