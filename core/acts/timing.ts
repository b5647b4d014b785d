/** Operations on what shapes time: clocks, cues, drawn curves. */
import { operation, type Operation } from '../piece/operation.ts'
import { freshId } from './ids.ts'
import type { Clock, Cue, Curve, Piece } from '../piece/schema.ts'

const last = (entries: Readonly<Record<string, { order: number }>>) =>
  Math.max(0, ...Object.values(entries).map(e => e.order))

/** A clock; the piece's own time at its own pace unless said otherwise. */
export function addClock(piece: Piece, given: Partial<Clock> & { name: string }): { id: string; op: Operation } {
  const id = freshId(piece.clocks, 'k')
  const way = { type: 'steady', rate: 1, ahead: 0 } as const
  const value: Clock = { order: last(piece.clocks) + 1, on: null, way, hold: null, ...given }
  return { id, op: operation(`add clock ${value.name}`, { in: 'clocks', id, value }) }
}

export function addCue(piece: Piece, given: Partial<Cue> & { name: string }): { id: string; op: Operation } {
  const id = freshId(piece.cues, 'q')
  const value: Cue = { order: last(piece.cues) + 1, marks: [], every: null, ...given }
  return { id, op: operation(`add cue ${value.name}`, { in: 'cues', id, value }) }
}

export function addCurve(
  piece: Piece,
  given: Partial<Curve> & { name: string; channels: Curve['channels'] },
): { id: string; op: Operation } {
  const id = freshId(piece.curves, 'v')
  const value: Curve = { order: last(piece.curves) + 1, unit: '', hit: 0, ...given }
  return { id, op: operation(`add curve ${value.name}`, { in: 'curves', id, value }) }
}
