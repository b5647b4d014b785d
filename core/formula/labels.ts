/** Drives and signals as they are written in a formula. */
import { drivenPart, drivenSignal, isSignal, splitDriveKey } from '../piece/drive-key.ts'
import type { Piece } from '../piece/schema.ts'
import { levelsOf } from './scope.ts'
import { quotedName } from './words.ts'

/** The same as another part reads it: of copies that it does not stand among, the first. */
export function labelFor(piece: Piece, key: string, reader: string | null): string {
  const label = driveLabel(piece, key)
  if (isSignal(key)) return label
  const part = drivenPart(key)
  const shared = new Set(reader === null || !piece.parts[reader] ? [] : levelsOf(piece, reader).map(l => l.part))
  const alone = !piece.parts[part] || levelsOf(piece, part).every(l => shared.has(l.part))
  const at = label.lastIndexOf('.')
  return alone ? label : `${label.slice(0, at)}[0]${label.slice(at)}`
}

/** `carousel.rotation`, `` `Ticket arch`.y ``, or a signal's name for its key `~id`. */
export function driveLabel(piece: Piece, key: string): string {
  if (isSignal(key)) return quotedName(piece.signals[drivenSignal(key)]?.name ?? key)
  const [part, property] = splitDriveKey(key)
  return `${quotedName(piece.parts[part]?.name ?? part)}.${property}`
}
