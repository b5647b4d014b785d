/**
 * Live marks: taps and clicks on a cue while it plays. They are marks like any other, kept in the session beside the
 * piece until they are kept in it. A mark is placed at now plus the longest lead, so that no gesture's beginning is
 * skipped.
 */
import { operation, type Operation } from '../piece/operation.ts'
import type { Piece } from '../piece/schema.ts'

/** Seconds of live marks, by the cue's id. */
export type LiveMarks = Readonly<Record<string, readonly number[]>>

export const NO_MARKS: LiveMarks = {}

/** The piece as it plays with the live marks on it. */
export function withLiveMarks(piece: Piece, live: LiveMarks): Piece {
  const added = Object.entries(live).filter(
    ([id, marks]) => marks.length > 0 && piece.cues[id] && !piece.cues[id].every,
  )
  if (added.length === 0) return piece
  const cues = { ...piece.cues }
  for (const [id, marks] of added) cues[id] = { ...cues[id]!, marks: [...cues[id]!.marks, ...marks] }
  return { ...piece, cues }
}

/** Keeps the live marks of a cue in the piece. */
export function keepLiveMarks(piece: Piece, live: LiveMarks, cue: string): Operation {
  const old = piece.cues[cue]!
  const marks = [...new Set([...old.marks, ...(live[cue] ?? [])])].sort((a, b) => a - b)
  return operation(`keep the marks of ${old.name}`, { in: 'cues', id: cue, value: { ...old, marks } })
}
