/** What has a name of its own in a piece and is read by it: changed, taken away, and who would miss it. */
import { signalKey } from '../piece/drive-key.ts'
import { renamedIn } from '../formula/renaming.ts'
import { operation, type Operation, type Put } from '../piece/operation.ts'
import type { NAMED, Piece } from '../piece/schema.ts'
import { sourceName } from './sources.ts'

export type NamedIn = (typeof NAMED)[number]

/** Some of its settings become others. */
export function changeNamed<C extends NamedIn>(
  piece: Piece,
  collection: C,
  id: string,
  change: Partial<Piece[C][string]>,
): Operation {
  const entry = piece[collection][id]!
  return operation(`change ${entry.name}`, { in: collection, id, value: { ...entry, ...change } } as Put)
}

/** Taken away; formulas that name it keep their text, and say so. */
export function removeNamed(piece: Piece, collection: Exclude<NamedIn, 'parts'>, id: string): Operation {
  return operation(`remove ${piece[collection][id]!.name}`, { in: collection, id, value: null } as Put)
}

/** Keys of the drives and signals whose formula or takes name it. */
export function formulasNaming(piece: Piece, name: string): string[] {
  const names = (text: string): boolean => renamedIn(text, name, '_') !== text
  return [
    ...Object.entries(piece.signals).flatMap(([id, s]) => (names(s.text) ? [signalKey(id)] : [])),
    ...Object.entries(piece.drives).flatMap(([key, d]) =>
      names(d.text) || d.takes.some(t => names(t.text)) ? [key] : [],
    ),
  ]
}

/** Who reads a named thing, as people call them: formulas, and clocks that follow it. */
export function readerNames(piece: Piece, collection: NamedIn, id: string): string[] {
  const clocks = Object.values(piece.clocks).filter(({ on, way }) => {
    if (collection === 'clocks') return on === id
    if (collection === 'cues') return way.type === 'cue' && way.cue === id
    if (collection === 'curves') return way.type === 'curve' && way.curve === id
    return collection === 'dials' && way.type === 'steady' && way.dial === id
  })
  const formulas = formulasNaming(piece, piece[collection][id]!.name)
  return [...formulas.map(key => sourceName(piece, key)), ...clocks.map(c => c.name)]
}
