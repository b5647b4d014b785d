/**
 * Stills of pieces, drawn one after another in a worker that has its limits: whatever a document asks for, saves and
 * openings go on meanwhile, and a piece that cannot be drawn gets a card that says so. Kept by revision.
 */
import { Beside } from '../bounded-worker.ts'
import type { StillRequest, DrawnStill } from './worker.ts'

const worker = new Beside<StillRequest, DrawnStill>('still.mjs', 'server/stills/worker.ts', {
  time: 8000,
  memory: 384,
  heavy: 'This piece takes too long to draw.',
  large: 'This piece takes too much memory to draw.',
})
/** Largest picture, and all that are kept, in characters. */
const LARGEST = 4_000_000
const KEPT = 24_000_000

/** Milliseconds after which a drawing that timed out is tried again; the machine may have been busy. */
const TRIED_AGAIN = 60_000

/** `givenUp`: drawing took too long or too much memory, which may be different next time. */
export type Still = { readonly svg: string } | { readonly svg: null; readonly why: string; readonly givenUp: boolean }

const kept = new Map<string, { readonly still: Still; readonly until: number }>()
let size = 0
const begun = new Map<string, Promise<Still>>()

/** The picture of a piece at a revision; `read` gives its document as text, with the pictures it shows. */
export function still(
  id: string,
  revision: number,
  read: () => Promise<StillRequest>,
  now: () => number = Date.now,
): Promise<Still> {
  const key = `${id} ${revision}`
  const known = kept.get(key)
  if (known && now() < known.until) return Promise.resolve(known.still)
  let drawing = begun.get(key)
  if (!drawing) {
    drawing = drawn(read).then(made => keep(key, made, now()))
    begun.set(key, drawing)
    const over = () => void begun.delete(key)
    drawing.then(over, over)
  }
  return drawing
}

const lengthOf = ({ svg }: Still): number => svg?.length ?? 0

function keep(key: string, still: Still, now: number): Still {
  const givenUp = still.svg === null && still.givenUp
  kept.set(key, { still, until: givenUp ? now + TRIED_AGAIN : Infinity })
  size += lengthOf(still)
  for (const [old, it] of kept) {
    if (size <= KEPT && kept.size <= 400) break
    kept.delete(old)
    size -= lengthOf(it.still)
  }
  return still
}

async function drawn(read: () => Promise<StillRequest>): Promise<Still> {
  const { answer, why } = await worker.ask(read)
  if (answer === null) return { svg: null, why, givenUp: true }
  if (answer.svg === undefined) return { svg: null, why: answer.why, givenUp: false }
  return answer.svg.length > LARGEST
    ? { svg: null, why: 'Its picture is too large.', givenUp: false }
    : { svg: answer.svg }
}

export const stopStills = (): Promise<void> => worker.stop()
