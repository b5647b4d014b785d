import { Readable } from 'node:stream'
import { copyOf } from '../database/backup'
import { database } from '../database/current'

/** A copy of everything in one file, as `./open-tide backup` writes it. */
export default defineEventHandler(async event => {
  setResponseHeaders(event, {
    'content-type': 'application/octet-stream',
    'content-disposition': `attachment; filename="${new Date().toISOString().slice(0, 10)}.tide-backup"`,
  })
  return sendStream(event, Readable.from(copyOf(await database())))
})
