/** Patterns that were saved or taken in; those that ship are no rows. */
import { desc, eq } from 'drizzle-orm'
import { nanoid } from 'nanoid'
import type { Piece } from '../../core/piece/schema'
import type { Pattern } from '../../core/piece/api'
import type { Database } from './database'
import { pack, unpack } from './packed'
import { patterns } from './schema'

/** So many are kept. */
const MOST = 500

export async function listPatterns(db: Database): Promise<Pattern[]> {
  const rows = await db.select().from(patterns).orderBy(desc(patterns.made), patterns.id)
  return rows.map(r => ({ id: r.id, document: { ...unpack(r.packed), title: r.title } }))
}

/** @returns its id; null when there are too many */
export async function keepPattern(db: Database, document: Piece, id = nanoid(12)): Promise<string | null> {
  const all = await db.select({ id: patterns.id }).from(patterns)
  if (all.length >= MOST) return null
  await db.insert(patterns).values({ id, title: document.title, packed: pack(document) })
  return id
}

export async function retitlePattern(db: Database, id: string, title: string): Promise<boolean> {
  const done = await db.update(patterns).set({ title }).where(eq(patterns.id, id)).returning({ id: patterns.id })
  return done.length > 0
}

/** @returns whether it was there */
export async function dropPattern(db: Database, id: string): Promise<boolean> {
  const gone = await db.delete(patterns).where(eq(patterns.id, id)).returning({ id: patterns.id })
  return gone.length > 0
}
