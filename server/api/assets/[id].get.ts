import { database } from '../../database/current'
import { readAsset } from '../../database/assets'
import { idOf, refuse } from '../../request'

/** A picture by its hash. It never changes. */
export default defineEventHandler(async event => {
  const hash = idOf(event)
  const found = await readAsset(await database(), hash)
  if (!found) throw refuse(404, 'There is no such picture.')
  setResponseHeaders(event, {
    'content-type': found.type,
    'cache-control': 'private, max-age=31536000, immutable',
    'x-content-type-options': 'nosniff',
    'content-security-policy': "default-src 'none'; sandbox",
  })
  return Buffer.from(found.bytes)
})
