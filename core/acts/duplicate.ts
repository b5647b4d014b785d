/** A part copied with all it carries: its formulas mean the same about the copy, and draw their own chance. */
import { propertyKey } from '../piece/drive-key.ts'
import { operation, type Operation, type Put } from '../piece/operation.ts'
import type { Piece } from '../piece/schema.ts'
import { transferOf, pasteTransfer } from './transfer.ts'

/** How far the copy is set beside what it is a copy of, px, so that it is seen. */
const ASIDE = [
  ['x', 24],
  ['y', -24],
] as const

/**
 * The copy stands on the same parent, above its siblings; ties are not copied.
 *
 * @param aside whether it is set a little beside it
 */
export function duplicatePart(piece: Piece, id: string, aside = true): { id: string; op: Operation } {
  const { name, parent } = piece.parts[id]!
  const { ids, op } = pasteTransfer(piece, transferOf(piece, [id]), parent, `duplicate ${name}`)
  const copy = ids[0]!
  const puts: Put[] = (aside ? ASIDE : []).map(([property, by]) => {
    const base = piece.bases[propertyKey(id, property)] ?? { value: 0 }
    return { in: 'bases', id: propertyKey(copy, property), value: { ...base, value: base.value + by } }
  })
  return { id: copy, op: operation(op.undoLabel, ...op.puts, ...puts) }
}
