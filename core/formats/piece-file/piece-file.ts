/**
 * A piece in one file with all its pictures: a packed folder (ZIP) of `piece.json` and `pictures/HASH`. What comes in is
 * checked like anything from outside, whole, before any of it is taken.
 */
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import { readPiece } from '../../piece/migrate.ts'
import type { Piece } from '../../piece/schema.ts'
import { headOf } from '../pictures/head.ts'

export const PIECE_END = 'tide'
export const PIECE_TYPE = 'application/zip'

/** Bytes of a file, and of what is packed in it, most. */
export const LARGEST_FILE = 64 * 1024 * 1024
const LARGEST_INSIDE = 160 * 1024 * 1024
const LARGEST_DOCUMENT = 8 * 1024 * 1024
const MOST_PICTURES = 400

const DOCUMENT = 'piece.json'
const FOLDER = 'pictures/'
/** The time that stands on what is packed: the same piece is the same file. */
const NEVER = new Date(1980, 0, 1)

export interface Packed {
  readonly piece: Piece
  readonly pictures: ReadonlyMap<string, Uint8Array>
}

/** The pictures that a piece shows, by hash. */
export const shownIn = ({ parts }: Piece): string[] => [
  ...new Set(Object.values(parts).flatMap(({ shape }) => (shape.type === 'picture' ? [shape.asset] : []))),
]

export function packPiece({ piece, pictures }: Packed): Uint8Array<ArrayBuffer> {
  const files: Record<string, [Uint8Array, { level: 0 | 6; mtime: Date }]> = {
    [DOCUMENT]: [strToU8(JSON.stringify(piece)), { level: 6, mtime: NEVER }],
  }
  for (const hash of shownIn(piece)) {
    const bytes = pictures.get(hash)
    // Pictures are packed already.
    if (bytes) files[`${FOLDER}${hash}`] = [bytes, { level: 0, mtime: NEVER }]
  }
  return zipSync(files) as Uint8Array<ArrayBuffer>
}

/**
 * Reads a file; a sentence when it is none. A plain JSON document is taken too.
 * @param hash the name of a picture by its bytes
 */
export function unpackPiece(
  bytes: Uint8Array,
  hash: (bytes: Uint8Array) => string,
): Packed | { readonly says: string } {
  if (bytes.length > LARGEST_FILE) return says('A piece file can have up to 64 MB.')
  if (bytes[0] === 0x7b) return document(bytes, new Map())
  const files = unpacked(bytes)
  if (typeof files === 'string') return says(files)
  const text = files[DOCUMENT]
  if (!text) return says('This isn’t an Open Tide piece: there’s no piece.json in it.')
  const pictures = new Map<string, Uint8Array>()
  for (const [name, picture] of Object.entries(files)) {
    if (name === DOCUMENT) continue
    const called = name.slice(FOLDER.length)
    const head = headOf(picture)
    if ('says' in head) return says(`The picture ${called.slice(0, 32)} in it: ${head.says}`)
    if (hash(picture) !== called) return says(`The picture ${called.slice(0, 32)} in it is damaged.`)
    pictures.set(called, picture)
  }
  return document(text, pictures)
}

/** What is in it by name; a sentence when it cannot be read. */
function unpacked(bytes: Uint8Array): Record<string, Uint8Array> | string {
  let [inside, count] = [0, 0]
  try {
    return unzipSync(bytes, {
      // What is not asked for is not unpacked; what says it is too large neither.
      filter: ({ name, originalSize }) => {
        if (name !== DOCUMENT && !/^pictures\/[0-9a-f]{32}$/.test(name)) return false
        inside += originalSize
        if (++count > MOST_PICTURES + 1 || inside > LARGEST_INSIDE) throw new Error('large')
        return true
      },
    })
  } catch (e) {
    return (e as Error).message === 'large'
      ? 'This file contains more than a piece can hold.'
      : 'This file couldn’t be read: it’s cut short, damaged, or not an Open Tide piece.'
  }
}

function document(text: Uint8Array, pictures: Packed['pictures']): Packed | { says: string } {
  if (text.length > LARGEST_DOCUMENT) return says('The piece in this file is larger than 8 MB.')
  let value: unknown
  try {
    value = JSON.parse(strFromU8(text))
  } catch {
    return says('The piece in this file isn’t valid JSON: it’s cut short or damaged.')
  }
  const inner = typeof value === 'object' && value !== null && 'document' in value ? value.document : value
  const { piece, problem } = readPiece(inner)
  if (!piece) return says(problem)
  const missing = shownIn(piece).filter(h => !pictures.has(h))
  if (missing.length > 0 && pictures.size > 0)
    return says(
      `${missing.length === 1 ? 'A picture' : `${missing.length} pictures`} of the piece ${missing.length === 1 ? 'is' : 'are'} not in the file.`,
    )
  return { piece, pictures }
}

const says = (text: string) => ({ says: text })
