/** Several parts at once: the properties that all of them have, and setting one of these for all. */
import { propertyKey } from '../piece/drive-key.ts'
import { initialOf, propertiesOf, type Property } from '../piece/properties.ts'
import type { Piece } from '../piece/schema.ts'
import { operation, type Operation } from '../piece/operation.ts'
import { hidesHand } from './sources.ts'
import { setByHand } from './text-parts.ts'

const parted = (piece: Piece, ids: readonly string[]) => ids.filter(id => piece.parts[id])

/** Properties that every one of these parts has, in table order. */
export function sharedProperties(piece: Piece, ids: readonly string[]): readonly Property[] {
  const [first, ...rest] = parted(piece, ids).map(id => propertiesOf(piece.parts[id]!.shape.type))
  return (first ?? []).filter(p => rest.every(list => list.includes(p)))
}

/** The set value that all have, in the property's unit; null where they differ; and how many are driven or keyed. */
export function sharedValue(
  piece: Piece,
  ids: readonly string[],
  property: Property,
): { readonly value: number | null; readonly driven: number } {
  const all = parted(piece, ids)
  const values = all.map(
    id => piece.bases[propertyKey(id, property.name)]?.value ?? initialOf(property, piece.parts[id]!.shape.type),
  )
  return {
    value: values.every(v => v === values[0]) ? (values[0] ?? null) : null,
    driven: all.filter(id => moves(piece, id, property)).length,
  }
}

const moves = (piece: Piece, id: string, property: Property): boolean => {
  const key = propertyKey(id, property.name)
  return piece.drives[key]?.off === false || piece.bases[key]?.keys !== undefined
}

/** Whether what is set shows nowhere. */
function hides(piece: Piece, id: string, property: Property): boolean {
  const key = propertyKey(id, property.name)
  return piece.bases[key]?.keys !== undefined || hidesHand(piece.drives[key])
}

/** Sets it for all; `left` names those whose formula does not read the set value, or that have keyframes. */
export function setShared(
  piece: Piece,
  ids: readonly string[],
  property: Property,
  value: number,
): { readonly op: Operation; readonly left: readonly string[] } {
  const all = parted(piece, ids)
  return {
    op: operation(
      `set ${property.name} of ${all.length} parts`,
      ...all.flatMap(id => setByHand(piece, id, property.name, value).puts),
    ),
    left: all.filter(id => hides(piece, id, property)).map(id => piece.parts[id]!.name),
  }
}
