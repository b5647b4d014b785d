/**
 * A piece as it is shared: all that is needed to draw it and to turn the dials that were lent, and nothing of how it was
 * made. No takes, promises, notes or guides, no names of hidden parts, no ranges beyond the locks.
 */
import type { DialLoan } from '../piece/lent.ts'
import { apply } from '../piece/operation.ts'
import type { Dial, Drive, Piece, Signal } from '../piece/schema.ts'
import { freeName, rename } from './parts.ts'

/** Notes run to the end of their line; within backquotes two slashes are part of a name. */
const withoutNotes = (text: string): string =>
  text
    .replace(/`[^`]*`|\/\/[^\n]*/g, s => (s.startsWith('`') ? s : ''))
    .replace(/[ \t]+$/gm, '')
    .trim()

const withoutGuides = ({ ownGuides: _, ...stage }: Piece['stage']): Piece['stage'] => ({ ...stage, guides: false })

const each = <T>(all: Readonly<Record<string, T>>, change: (one: T, id: string) => T): Record<string, T> =>
  Object.fromEntries(Object.entries(all).map(([id, one]) => [id, change(one, id)]))

export function sharedPiece(piece: Piece, lent: readonly DialLoan[]): Piece {
  let shared: Piece = {
    ...piece,
    // What is turned off does not move: its set value stays.
    drives: Object.fromEntries(
      Object.entries(piece.drives)
        .filter(([, d]) => !d.off)
        .map(([key, d]): [string, Drive] => [
          key,
          { ...d, text: withoutNotes(d.text), good: withoutNotes(d.good), takes: [], promises: [] },
        ]),
    ),
    signals: each(piece.signals, (s): Signal => ({ ...s, text: withoutNotes(s.text), good: withoutNotes(s.good) })),
    dials: each(piece.dials, (dial, id): Dial => {
      const lock = lent.find(l => l.dial === id)
      const [low, high] = lock ? [lock.low, lock.high] : [dial.value, dial.value]
      const held = (v: number) => Math.min(high, Math.max(low, v))
      return { ...dial, low, high, initial: held(dial.initial) }
    }),
    stage: withoutGuides(piece.stage),
  }
  for (const [id, part] of Object.entries(piece.parts)) {
    if (!part.hidden) continue
    shared = apply(shared, rename(shared, 'parts', id, freeName(shared, 'Hidden')))
  }
  return shared
}
