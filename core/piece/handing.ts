/** What server and app say to each other about what was handed over. */
import type { DialLoan } from './lent.ts'
import type { Piece } from './schema.ts'

/** As its maker sees it. Times are ISO 8601. */
export interface Handover {
  readonly id: number
  readonly lent: readonly DialLoan[]
  readonly formats: readonly string[]
  /** Values as the receiver left them, by the dial's id. */
  readonly tuned: Readonly<Record<string, number>>
  readonly tunedAt: string | null
  readonly made: string
  readonly until: string | null
  readonly withdrawn: string | null
}

/** As its receiver gets it: the piece as it was handed over, and what was tuned of it. */
export interface Received {
  readonly document: Piece
  readonly lent: readonly DialLoan[]
  readonly formats: readonly string[]
  readonly tuned: Readonly<Record<string, number>>
}

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
