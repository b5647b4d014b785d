/** What server and app say to each other about pieces. */
import type { Piece } from './schema.ts'

/** A piece as the harbour shows it. `changed` is ISO 8601. */
export interface Card {
  readonly id: string
  readonly title: string
  readonly revision: number
  readonly changed: string
}

/** A piece with its document, and the revision it is. */
export interface Stored {
  readonly id: string
  readonly revision: number
  readonly document: Piece
}
