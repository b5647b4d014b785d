/** Pictures become parts: each in the size it has, all in one place, so that layers of one drawing stay in register. */
import { propertyKey } from '../../piece/drive-key.ts'
import { freshId } from '../../acts/ids.ts'
import { addPart, freeName } from '../../acts/parts.ts'
import { operation, type Operation, type Put } from '../../piece/operation.ts'
import type { Piece } from '../../piece/schema.ts'
import type { Head } from './head.ts'

export interface AddedPicture {
  readonly name: string
  /** The first half of the SHA-256 of its bytes, in hexadecimal. */
  readonly hash: string
  readonly bytes: number
  readonly head: Head
}

/** Puts pictures on the stage, the first at the bottom; larger than the stage they are all shrunk alike. */
export function addPictures(piece: Piece, all: readonly AddedPicture[]): { ids: string[]; op: Operation } {
  const wide = Math.max(...all.map(p => p.head.width))
  const high = Math.max(...all.map(p => p.head.height))
  const share = Math.min(1, piece.stage.width / wide, piece.stage.height / high)
  const puts: Put[] = []
  const ids: string[] = []
  let grown = piece
  for (const { name, hash, bytes, head } of all) {
    const { type, width, height } = head
    if (!grown.assets[hash]) puts.push({ in: 'assets', id: hash, value: { type, bytes } })
    const called = freeName(grown, plain(name))
    const made = addPart(grown, { type: 'picture', asset: hash }, { name: called })
    const id = ids.includes(made.id) ? freshId(grown.parts, 'p') : made.id
    const [put] = made.op.puts
    puts.push(put!)
    grown = { ...grown, parts: { ...grown.parts, [id]: (put as { value: Piece['parts'][string] }).value } }
    for (const [property, value] of [
      ['width', width * share],
      ['height', height * share],
    ] as const)
      puts.push({ in: 'bases', id: propertyKey(id, property), value: { value: Number(value.toFixed(3)) } })
    ids.push(id)
  }
  return { ids, op: operation(all.length === 1 ? `add ${all[0]!.name}` : `add ${all.length} pictures`, ...puts) }
}

/** A name from that of a file. */
const plain = (file: string): string =>
  file
    .replace(/\.[A-Za-z0-9]{1,5}$/, '')
    .replace(/[`\p{Control}\p{Surrogate}]/gu, ' ')
    .trim()
    .slice(0, 56) || 'Picture'
