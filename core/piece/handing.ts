/** A piece that was handed over, as its receiver tuned it. */
import type { Piece } from './schema.ts'

/** A piece with dials as they were tuned. */
export const withTuned = (piece: Piece, tuned: Readonly<Record<string, number>>): Piece => ({
  ...piece,
  dials: Object.fromEntries(
    Object.entries(piece.dials).map(([id, dial]) => [
      id,
      tuned[id] === undefined ? dial : { ...dial, value: tuned[id] },
    ]),
  ),
})
