/** Parts gathered in a group, and a group given up: nothing that is seen changes by it. */
import { propertyKey } from '../piece/drive-key.ts'
import { initialOf, propertiesOf } from '../piece/properties.ts'
import { operation, type Operation, type Put } from '../piece/operation.ts'
import { DEEPEST_PARENTING, type Piece } from '../piece/schema.ts'
import { hangings } from '../piece/hangings.ts'
import { addPart } from './parts.ts'
import { hidesHand } from './sources.ts'
import { setValueOf } from './stage-edits.ts'

/**
 * Parts of one parent in a group of their own. The group stands where its parent does, so that their numbers and formulas
 * stay as they are; its pin is at their middle.
 *
 * @param middle in what they hang on, px
 */
export function group(
  piece: Piece,
  ids: readonly string[],
  middle: { readonly x: number; readonly y: number },
): { readonly id: string; readonly op: Operation } | { readonly says: string } {
  const parents = new Set(ids.map(id => piece.parts[id]!.parent))
  if (parents.size !== 1) return { says: 'Only parts with the same parent can be grouped.' }
  const deepest = Math.max(...[...(hangings(piece)?.values() ?? [])].map(h => h.depth))
  if (deepest >= DEEPEST_PARENTING) return { says: `Parts can be nested up to ${DEEPEST_PARENTING} levels deep.` }
  const [parent] = parents
  const short = (v: number) => Number(v.toFixed(2)) || 0
  const made = addPart(piece, { type: 'group' }, { parent: parent!, pivot: { x: short(middle.x), y: short(middle.y) } })
  // It lies where the uppermost of them did.
  const order = Math.max(...ids.map(id => piece.parts[id]!.order))
  const puts = made.op.puts.map(p =>
    'in' in p && p.in === 'parts' && p.value ? { ...p, value: { ...p.value, order } } : p,
  )
  const carried = ids.map((id): Put => ({ in: 'parts', id, value: { ...piece.parts[id]!, parent: made.id } }))
  return { id: made.id, op: operation(`group ${ids.length} parts`, ...puts, ...carried) }
}

/** A group is given up, and what it carries hangs on what it hung on; or why it cannot be without anything moving. */
export function ungroup(
  piece: Piece,
  id: string,
): { readonly ids: readonly string[]; readonly op: Operation } | { readonly says: string } {
  const part = piece.parts[id]!
  const own = propertiesOf(part.shape.type)
  const driven = own.filter(p => piece.drives[propertyKey(id, p.name)])
  const set = own.filter(
    p => p.name !== 'x' && p.name !== 'y' && setValueOf(piece, id, p.name) !== initialOf(p, part.shape.type),
  )
  const keyed = own.filter(p => piece.bases[propertyKey(id, p.name)]?.keys)
  const [x, y] = [setValueOf(piece, id, 'x'), setValueOf(piece, id, 'y')]
  const ids = Object.keys(piece.parts).filter(c => piece.parts[c]!.parent === id)
  const away = x !== 0 || y !== 0
  const bound = ids.filter(c =>
    ['x', 'y'].some(n => piece.bases[propertyKey(c, n)]?.keys || hidesHand(piece.drives[propertyKey(c, n)])),
  )
  const why =
    driven.length > 0 || keyed.length > 0
      ? `${[...driven, ...keyed].map(p => p.name).join(', ')} moves it`
      : part.copies
        ? 'it is copied'
        : part.span || part.hidden
          ? 'it has a span, or is hidden'
          : set.length > 0
            ? `its ${set.map(p => p.name).join(', ')} is set`
            : away && bound.length > 0
              ? `${piece.parts[bound[0]!]!.name} is positioned by its own formula`
              : ''
  if (why) return { says: `${part.name} can’t be ungrouped without a change: ${why}.` }
  const puts: Put[] = ids.flatMap((c): Put[] => [
    { in: 'parts', id: c, value: { ...piece.parts[c]!, parent: part.parent } },
    ...(away
      ? (
          [
            ['x', x],
            ['y', y],
          ] as const
        ).map(([n, by]): Put => {
          const key = propertyKey(c, n)
          return {
            in: 'bases',
            id: key,
            value: { ...piece.bases[key], value: Number((setValueOf(piece, c, n) + by).toFixed(4)) },
          }
        })
      : []),
  ])
  const gone = own.flatMap((p): Put[] => {
    const key = propertyKey(id, p.name)
    return piece.bases[key] ? [{ in: 'bases', id: key, value: null }] : []
  })
  return { ids, op: operation(`ungroup ${part.name}`, ...puts, ...gone, { in: 'parts', id, value: null }) }
}
