/** What server and app say to each other about pieces. */
import type { Piece } from './schema.ts'

/** A piece as the harbour shows it. `changed` is ISO 8601. */
export interface PieceSummary {
  readonly id: string
  readonly title: string
  readonly revision: number
  readonly changed: string
  /** Where it lies in the harbour; empty where it lies with all the others. */
  readonly folder: string
}

/** A pattern that was saved: a small piece of its own. */
export interface Pattern {
  readonly id: string
  readonly document: Piece
}

/** A kept state of a piece. */
export interface Version {
  readonly version: number
  readonly revision: number
  /** `refused`: made from a state that was no longer the newest, and kept aside. */
  readonly state: 'saved' | 'refused'
  /** ISO 8601. */
  readonly at: string
}

/** A piece with its document, and the revision it is. */
export interface Stored {
  readonly id: string
  readonly revision: number
  readonly document: Piece
}
