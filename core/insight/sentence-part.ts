/** The parts of a sentence whose numbers and choices can be edited, each with the operation that an edit makes. */
import type { Operation } from '../piece/operation.ts'

export type SentencePart =
  | { readonly is: 'text'; readonly says: string }
  | {
      readonly is: 'number'
      readonly label: string
      readonly value: number
      readonly unit: string
      /** What one step of a drag adds. */
      readonly stride: number
      readonly low?: number
      readonly set: (value: number) => Operation
      /** Taken out of the sentence; only where it can be. */
      readonly remove?: Operation
    }
  | {
      readonly is: 'choice'
      readonly label: string
      readonly value: string
      readonly of: readonly { readonly value: string; readonly says: string }[]
      readonly set: (value: string) => Operation
    }

export const plainText = (says: string): SentencePart => ({ is: 'text', says })
/** The least length of what repeats, in seconds. */
export const SHORTEST = 0.001

/** Things with a name, to choose from. */
export const named = (entries: Readonly<Record<string, { readonly name: string }>>) =>
  Object.entries(entries).map(([value, e]) => ({ value, says: e.name }))
