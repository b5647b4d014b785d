/** Puts the demo into a database that has never held a piece. */
import { readPiece } from '../../core/piece/migrate'
import type { Database } from './open'
import { createPiece } from './pieces'
import { pieces } from './schema'

export const DEMO_ID = 'lantern-pier'

export async function seedDemo(db: Database, demo: () => Promise<unknown>): Promise<void> {
  const [any] = await db.select({ id: pieces.id }).from(pieces).limit(1)
  if (any) return
  const { piece, problem } = readPiece(await demo())
  if (!piece) throw new Error(`The demo cannot be read. ${problem}`)
  await createPiece(db, piece, DEMO_ID)
}
