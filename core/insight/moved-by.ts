/** What moves a part that has no formula of its own, in one sentence. */
import { followingFormulas, tiedTo } from '../acts/ties.ts'
import { sourceName } from '../acts/sources.ts'
import type { Piece } from '../piece/schema.ts'

/** What the driven one of a tied group is that a property without a formula follows; null where it follows none. */
export function followedBy(piece: Piece, key: string): string | null {
  if (piece.drives[key]) return null
  return [...tiedTo(piece, key).keys()].find(k => piece.drives[k]) ?? null
}

const BY_ITSELF: Partial<Record<Piece['parts'][string]['shape']['type'], string>> = {
  waves: 'It moves by itself, like water.',
  emitter: 'Its particles move by themselves.',
}

export function movesBy(piece: Piece, id: string): string {
  const of = (key: string) => key.startsWith(`${id}.`)
  const tied = [...followingFormulas(piece).keys()].find(of)
  if (tied) return `Its ${tied.slice(id.length + 1)} follows ${sourceName(piece, followedBy(piece, tied)!)}.`
  const keyed = Object.keys(piece.bases).filter(key => of(key) && piece.bases[key]!.keys)
  if (keyed.length > 0) return `Keyframes move its ${keyed.map(key => key.slice(id.length + 1)).join(' and ')}.`
  const { shape } = piece.parts[id]!
  const itself = BY_ITSELF[shape.type]
  if (itself) return itself
  if (shape.type === 'trace' && shape.of && piece.parts[shape.of]) return `It traces ${piece.parts[shape.of]!.name}.`
  for (let at = piece.parts[id]!.parent; at !== null; at = piece.parts[at]?.parent ?? null)
    if (Object.values(piece.drives).some(d => d.part === at)) return `It moves with ${piece.parts[at]!.name}.`
  return 'Nothing moves here yet.'
}
