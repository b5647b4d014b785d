import { database } from '../../../database/current'
import { picturesIn } from '../../../database/assets'
import { readPieceText, revisionOf } from '../../../database/pieces'
import { packedFor } from '../../../packing'
import { idOf, refuse } from '../../../request'
import { still } from '../../../stills/stills'

const FRAME = 'xmlns="http://www.w3.org/2000/svg" viewBox="-64 -36 128 72" width="1280" height="720"'
/** Of a piece with nothing on it: three faint waves. */
const EMPTY = `<svg ${FRAME} fill="none" stroke="#8fa5a4" stroke-opacity="0.5" stroke-linecap="round"><path d="M-9-4c3-3 6-3 9 0s6 3 9 0M-9 0c3-3 6-3 9 0s6 3 9 0M-9 4c3-3 6-3 9 0s6 3 9 0"/></svg>`

/** Of a piece that cannot be drawn, with the reason. */
const notDrawn = (why: string): string => {
  const plain = why.slice(0, 90).replace(/[&<>]/g, c => `&#${c.charCodeAt(0)};`)
  return `<svg ${FRAME}><g font-family="sans-serif" font-size="4" fill="#56676a" text-anchor="middle"><text y="-2">This piece isn’t drawn here.</text><text y="5" font-size="2.6">${plain}</text></g></svg>`
}

/** A piece as a still picture, at the moment that stands for it. */
export default defineEventHandler(async event => {
  const db = await database()
  const id = idOf(event)
  const revision = await revisionOf(db, id)
  if (revision === null) throw refuse(404, 'There’s no such piece.')
  const tag = `"${id}-${revision}"`
  setResponseHeaders(event, {
    'content-type': 'image/svg+xml',
    etag: tag,
    'cache-control': 'no-cache',
    'content-security-policy': "default-src 'none'; img-src data:; style-src 'unsafe-inline'",
  })
  if (getRequestHeader(event, 'if-none-match') === tag) {
    setResponseStatus(event, 304)
    return null
  }
  const made = await still(id, revision, async () => {
    const text = (await readPieceText(db, id))?.text ?? '{}'
    return { text, pictures: await picturesIn(db, text) }
  })
  if (made.svg === null) {
    // Not cached: the next request tries to draw it again.
    if (made.givenUp) removeResponseHeader(event, 'etag')
    return notDrawn(made.why)
  }
  if (!/<(path|text|image)/.test(made.svg)) return EMPTY
  return packedFor(event, made.svg)
})
