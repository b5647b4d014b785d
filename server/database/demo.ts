/** Puts the demo into a database that has never held a piece. */
import { readPiece } from '../../core/piece/migrate'
import type { Database } from './database'
import { insertPiece } from './pieces'
import { pieces } from './schema'

/** The pieces a new harbour begins with, from `demo/`; the last is the newest. */
export const DEMO = [
  'drive-room',
  'sky-lanterns',
  'ticket-arch',
  'duck-basin',
  'ten-thousand-bulbs',
  'swing-tower',
  'lantern-pier',
]

/** `demo` gives the demo's documents by the ids they shall have; the last one is the newest. All of them or none. */
export async function seedDemo(db: Database, demo: () => Promise<Readonly<Record<string, unknown>>>): Promise<void> {
  const [any] = await db.select({ id: pieces.id }).from(pieces).limit(1)
  if (any) return
  const documents = Object.entries(await demo())
  await db.transaction(async tx => {
    const now = Date.now()
    for (const [i, [id, document]] of documents.entries()) {
      const { piece, problem } = readPiece(document)
      if (!piece) throw new Error(`The demo couldn’t be read. ${problem}`)
      await insertPiece(tx, piece, id, new Date(now + i))
    }
  })
}
