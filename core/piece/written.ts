/**
 * The JSON text of a piece. Pieces share with the one before all that an operation doesn't name, so the text of each collection
 * and entry is kept: of a piece of which one entry has changed, only that is written again.
 */
import type { Piece } from './schema.ts'

const texts = new WeakMap<object, string>()

/** Collections, and their entries. */
const KEPT = 2

/** As `JSON.stringify` has it. */
export const documentText = (piece: Piece): string => textOf(piece, 0)

function textOf(value: object, depth: number): string {
  const known = depth === 0 ? undefined : texts.get(value)
  if (known !== undefined) return known
  let text: string
  if (depth === KEPT || Array.isArray(value)) text = JSON.stringify(value)
  else {
    const parts: string[] = []
    for (const [key, of] of Object.entries(value) as [string, unknown][]) {
      const part = typeof of === 'object' && of !== null ? textOf(of, depth + 1) : JSON.stringify(of)
      // What is undefined has no text.
      if (part !== undefined) parts.push(`${JSON.stringify(key)}:${part}`)
    }
    text = `{${parts.join(',')}}`
  }
  if (depth > 0) texts.set(value, text)
  return text
}
