/** Drives and signals as they are written in a formula. */
import type { Piece } from '../piece/schema.ts'
import { written } from './words.ts'

/** `carousel.rotation`, `` `Ticket arch`.y ``, or a signal's name for its key `~id`. */
export function labelOf(piece: Piece, key: string): string {
  if (key.startsWith('~')) return written(piece.signals[key.slice(1)]?.name ?? key)
  const [part, property] = key.split('.') as [string, string]
  return `${written(piece.parts[part]?.name ?? part)}.${property}`
}
