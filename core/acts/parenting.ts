/** What hangs on what, and what is painted before what: all parts as a list, and moving them in it. */
import { operation, type Operation, type Put } from '../piece/operation.ts'
import { DEEPEST_PARENTING, type Piece } from '../piece/schema.ts'
import { withCarried } from './parts.ts'

export interface Listed {
  readonly id: string
  /** How many parts it hangs on, one on another. */
  readonly depth: number
}

type Parts = Pick<Piece, 'parts'>

/** What lies above comes first. */
const above =
  ({ parts }: Parts) =>
  (a: string, b: string): number =>
    parts[b]!.order - parts[a]!.order || (a < b ? 1 : -1)

const siblingsOf = (piece: Piece, parent: string | null): string[] =>
  Object.keys(piece.parts)
    .filter(id => piece.parts[id]!.parent === parent)
    .sort(above(piece))

/** All parts, what lies above first, each followed by what it carries. */
export function partsListed(piece: Parts): Listed[] {
  const below = new Map<string | null, string[]>()
  for (const id of Object.keys(piece.parts)) {
    const { parent } = piece.parts[id]!
    const of = below.get(parent)
    if (of) of.push(id)
    else below.set(parent, [id])
  }
  const list: Listed[] = []
  const add = (parent: string | null, depth: number): void => {
    for (const id of (below.get(parent) ?? []).sort(above(piece))) {
      list.push({ id, depth })
      add(id, depth + 1)
    }
  }
  add(null, 0)
  return list
}

/** The parts that another may hang on: none that it carries, and none too deep. */
export function mayHangOn(piece: Piece, id: string): string[] {
  const carried = new Set(withCarried(piece, id))
  return partsListed(piece)
    .filter(p => !carried.has(p.id) && p.depth + carried.size < DEEPEST_PARENTING)
    .map(p => p.id)
}

/** Hangs a part, with all it carries, on another (null: on the stage), above all that hangs there. It keeps its numbers. */
export function hangOn(piece: Piece, id: string, parent: string | null): Operation {
  const part = piece.parts[id]!
  const order = Math.max(0, ...siblingsOf(piece, parent).map(s => piece.parts[s]!.order)) + 1
  const where = parent === null ? 'the stage' : piece.parts[parent]!.name
  return operation(`parent ${part.name} to ${where}`, { in: 'parts', id, value: { ...part, parent, order } })
}

/** Moves a part one place up (towards the eye) or down among those beside it; null where it is the last. */
export function moveAmong(piece: Piece, id: string, by: 1 | -1): Operation | null {
  const part = piece.parts[id]!
  const list = siblingsOf(piece, part.parent)
  const at = list.indexOf(id)
  const to = at - by
  if (to < 0 || to >= list.length) return null
  list.splice(at, 1)
  list.splice(to, 0, id)
  return operation(`move ${part.name} ${by > 0 ? 'up' : 'down'}`, ...numbered(piece, list))
}

/** Every one of siblings gets a number of its own, what comes first lying above: two may have had the same. */
const numbered = (
  piece: Piece,
  list: readonly string[],
  change: Partial<Piece['parts'][string]> = {},
  of = '',
): Put[] =>
  list
    .map((id, i) => ({ id, value: { ...piece.parts[id]!, order: list.length - i, ...(id === of ? change : {}) } }))
    .filter(({ id, value }) => piece.parts[id]!.order !== value.order || piece.parts[id]!.parent !== value.parent)
    .map(({ id, value }) => ({ in: 'parts', id, value }))

/**
 * Moves a part with all it carries directly above or below another, beside it; null where that hangs on it. It keeps its
 * numbers.
 */
export function moveBeside(piece: Piece, id: string, other: string, above: boolean): Operation | null {
  const { parent } = piece.parts[other]!
  if (id === other || withCarried(piece, id).includes(other)) return null
  if (parent !== null && !mayHangOn(piece, id).includes(parent)) return null
  const list = siblingsOf(piece, parent).filter(s => s !== id)
  list.splice(list.indexOf(other) + (above ? 0 : 1), 0, id)
  const says = `move ${piece.parts[id]!.name} ${above ? 'above' : 'below'} ${piece.parts[other]!.name}`
  return operation(says, ...numbered(piece, list, { parent }, id))
}
