/** A part copied with all it carries: its formulas mean the same about the copy, and draw their own chance. */
import { seedOf } from '../signal/hash.ts'
import { operation, type Operation, type Put } from '../piece/operation.ts'
import { freshId } from './ids.ts'
import { renamedIn } from '../formula/renaming.ts'
import { freeName, withCarried } from './parts.ts'
import { propertyKey, type Piece, type Shape } from '../piece/schema.ts'

/** How far the copy is set beside what it is a copy of, px, so that it is seen. */
const ASIDE = [
  ['x', 24],
  ['y', -24],
] as const

/** A trace of something that was copied along follows the copy. */
const followed = (shape: Shape, ids: ReadonlyMap<string, string>): Shape =>
  shape.type === 'trace' && shape.of !== null ? { ...shape, of: ids.get(shape.of) ?? shape.of } : shape

/** The copy stands on the same parent, above its siblings; ties are not copied. */
export function duplicatePart(piece: Piece, id: string): { id: string; op: Operation } {
  const carried = withCarried(piece, id)
  const ids = new Map<string, string>()
  const names = new Map<string, string>()
  let parts = piece.parts
  const puts: Put[] = []
  for (const old of carried) {
    const part = piece.parts[old]!
    const fresh = freshId(parts, 'p')
    const name = freeName({ ...piece, parts }, part.name.replace(/\d+$/, '') || part.name)
    const parent = part.parent !== null ? (ids.get(part.parent) ?? part.parent) : null
    const siblings = Object.values(parts).filter(p => p.parent === parent)
    const order = old === id ? Math.max(...siblings.map(p => p.order)) + 1 : part.order
    const value = { ...part, name, parent, order, shape: followed(part.shape, ids) }
    parts = { ...parts, [fresh]: value }
    ids.set(old, fresh)
    names.set(part.name, name)
    puts.push({ in: 'parts', id: fresh, value })
  }
  const about = (text: string) => [...names].reduce((t, [from, to]) => renamedIn(t, from, to), text)
  for (const [old, fresh] of ids) {
    for (const drive of Object.values(piece.drives).filter(d => d.part === old)) {
      const key = propertyKey(fresh, drive.property)
      const value = {
        ...drive,
        part: fresh,
        text: about(drive.text),
        good: about(drive.good),
        takes: drive.takes.map(t => ({ ...t, text: about(t.text) })),
        seed: seedOf(piece.seed, fresh, drive.property),
      }
      puts.push({ in: 'drives', id: key, value })
    }
    for (const [key, base] of Object.entries(piece.bases)) {
      if (key.startsWith(`${old}.`)) puts.push({ in: 'bases', id: `${fresh}${key.slice(old.length)}`, value: base })
    }
  }
  const copy = ids.get(id)!
  for (const [property, by] of ASIDE) {
    const key = propertyKey(copy, property)
    const base = piece.bases[propertyKey(id, property)] ?? { value: 0 }
    puts.push({ in: 'bases', id: key, value: { ...base, value: base.value + by } })
  }
  return { id: copy, op: operation(`duplicate ${piece.parts[id]!.name}`, ...puts) }
}
