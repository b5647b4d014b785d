/** Copies that lie one behind another and are joined by a skin: letters in depth, and any other filled outline. */
import { SOLID } from '../../piece/property-kinds.ts'
import type { Part } from '../../piece/schema.ts'

export interface Layers {
  /** How many instances on the next layer of the same thing is, and how many layers there are. */
  readonly stride: number
  readonly count: number
  /** How far back each instance is pushed by the thickness of the layers before it, px. */
  readonly sunk: Float64Array
}

interface Placed {
  readonly part: Part
  readonly own: number
  readonly parent: Placed | null
}

/** Whether a part may be thick. */
export const isSolid = ({ shape }: Part): boolean =>
  SOLID.includes(shape.type) && shape.type !== 'waves' && !(shape.type === 'path' && !shape.closed)

/** The layers that a body stands in, by its own copies or those of what carries it. */
export function bodyLayers(body: Placed & { readonly count: number }): Layers | null {
  if (!isSolid(body.part)) return null
  let [stride, at]: [number, Placed | null] = [1, body]
  while (at && at.part.copies?.layout !== 'layers') {
    stride *= at.own
    at = at.parent
  }
  const copies = at?.part.copies
  if (copies?.layout !== 'layers' || copies.apart) return null
  return { stride, count: copies.count, sunk: new Float64Array(body.count) }
}
