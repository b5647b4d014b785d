/** Answering with a picture: it never changes, and is nothing but a picture. */
import type { H3Event } from 'h3'
import { readAsset } from './database/assets'
import { database } from './database/current'
import { refuse } from './request'

export async function sentPicture(event: H3Event, hash: string): Promise<Buffer> {
  const found = await readAsset(await database(), hash)
  if (!found) throw refuse(404, 'There’s no such picture.')
  setResponseHeaders(event, {
    'content-type': found.type,
    'cache-control': 'private, max-age=31536000, immutable',
    'x-content-type-options': 'nosniff',
    'content-security-policy': "default-src 'none'; sandbox",
  })
  return Buffer.from(found.bytes)
}
