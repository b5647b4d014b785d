/** Bodies as values: their shape is bounded before they are parsed, and large ones are parsed and checked in a worker. */
import { Beside } from '../bounded-worker.ts'
import type { ReadBody } from './worker.ts'

/** Of the text of a body, at most: bytes, how deep it is nested, how many values it holds. */
export interface Bounds {
  readonly bytes: number
  readonly depth: number
  readonly count: number
}

/** What a request takes that is no document. */
export const SMALL_BODY: Bounds = { bytes: 256 * 1024, depth: 8, count: 20_000 }
/** A request with a document: 2,000 keyframes on each of 85 properties and more. */
export const DOCUMENT: Bounds = { bytes: 8 * 1024 * 1024, depth: 24, count: 2_500_000 }

/** Characters beyond which a body is read in the worker. */
const LARGE = 200_000

const worker = new Beside<string, ReadBody>('reading.mjs', 'server/reading/worker.ts', {
  time: 10_000,
  memory: 512,
  heavy: 'This takes too long to read. Nothing was saved.',
  large: 'This takes too much memory to read. Nothing was saved.',
})

/** How deep a text of JSON is nested and how many values it holds; counted only as far as the bounds. */
export function isWithin(text: string, { depth, count }: Bounds): boolean {
  let [deep, values, quoted] = [0, 1, false]
  for (let k = 0; k < text.length; k++) {
    const c = text.charCodeAt(k)
    if (quoted) {
      if (c === 0x5c) k++
      else if (c === 0x22) quoted = false
    } else if (c === 0x22) quoted = true
    else if (c === 0x5b || c === 0x7b) {
      if (++deep > depth) return false
    } else if (c === 0x5d || c === 0x7d) deep--
    else if (c === 0x2c && ++values > count) return false
  }
  return true
}

/** Reads a text of JSON that is within its bounds. */
export async function readJsonText(text: string): Promise<ReadBody> {
  if (text.length <= LARGE) {
    try {
      return { value: JSON.parse(text) as unknown, checked: false }
    } catch {
      return { status: 400, says: 'The request isn’t valid JSON.' }
    }
  }
  const { answer, why } = await worker.ask(() => text)
  return answer ?? { status: 422, says: why }
}

export const stopReading = (): Promise<void> => worker.stop()
