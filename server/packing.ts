/** Texts on their way to the browser, packed (gzip) where it can unpack them: paths and formulas shrink to a quarter. */
import { promisify } from 'node:util'
import { gzip } from 'node:zlib'
import type { H3Event } from 'h3'
import { getRequestHeader, setResponseHeader } from 'h3'

/** Packing a few characters costs more than it saves. */
const LEAST = 2000
const packed = promisify(gzip)

export async function packedFor(event: H3Event, text: string): Promise<string | Buffer> {
  setResponseHeader(event, 'vary', 'accept-encoding')
  if (text.length < LEAST || !/\bgzip\b/.test(getRequestHeader(event, 'accept-encoding') ?? '')) return text
  setResponseHeader(event, 'content-encoding', 'gzip')
  return packed(text)
}
