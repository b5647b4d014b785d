/**
 * The JSON text of a piece. A piece shares with the one before all collections that an operation doesn't name, so the text of
 * each is kept: of a piece in which one drive has changed, only the drives are written again.
 */
import type { Piece } from './schema.ts'

const texts = new WeakMap<object, string>()

/** As `JSON.stringify` has it. */
export function documentText(piece: Piece): string {
  const parts: string[] = []
  for (const [key, value] of Object.entries(piece) as [string, unknown][])
    // What is undefined has no text.
    if (value !== undefined) parts.push(`${JSON.stringify(key)}:${textOf(value)}`)
  return `{${parts.join(',')}}`
}

function textOf(value: unknown): string {
  if (typeof value !== 'object' || value === null) return JSON.stringify(value)
  let text = texts.get(value)
  if (text === undefined) texts.set(value, (text = JSON.stringify(value)))
  return text
}
