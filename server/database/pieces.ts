/** What the server does with pieces. A save is answered only when it is in the database. */
import { and, desc, eq, isNull, isNotNull, lt, sql } from 'drizzle-orm'
import { nanoid } from 'nanoid'
import { emptyPiece, type Piece } from '../../core/piece/schema'
import type { Card, Stored } from '../../core/piece/api'
import type { Database } from './open'
import { pieces, revisions } from './schema'

const card = { id: pieces.id, title: pieces.title, revision: pieces.revision, changed: pieces.changed }
const standing = (id: string) => and(eq(pieces.id, id), isNull(pieces.deleted))

export async function listPieces(db: Database): Promise<Card[]> {
  const rows = await db.select(card).from(pieces).where(isNull(pieces.deleted)).orderBy(desc(pieces.changed), pieces.id)
  return rows.map(r => ({ ...r, changed: r.changed.toISOString() }))
}

export async function readStored(db: Database, id: string): Promise<Stored | null> {
  const [row] = await db.select().from(pieces).where(standing(id))
  return row ? { id: row.id, revision: row.revision, document: row.document } : null
}

export async function createPiece(db: Database, document: Piece, id = nanoid(12)): Promise<Stored> {
  await db.transaction(async tx => {
    await tx.insert(pieces).values({ id, title: document.title, document, revision: 1 })
    await tx.insert(revisions).values({ piece: id, revision: 1, document, state: 'saved' })
  })
  return { id, revision: 1, document }
}

/** A new piece with nothing in it. Its seed comes from its id, so that its noise is its own. */
export function newPiece(title: string): Piece {
  let seed = 0
  for (const c of nanoid()) seed = (Math.imul(seed, 31) + c.charCodeAt(0)) >>> 0
  return emptyPiece(title, seed)
}

/** A title that no other piece has: `Lantern Pier 2`. */
export async function freeTitle(db: Database, wish: string): Promise<string> {
  const taken = new Set((await listPieces(db)).map(c => c.title))
  for (let n = 1; ; n++) {
    const title = n === 1 ? wish : `${wish} ${n}`
    if (!taken.has(title)) return title
  }
}

export type Saved = { saved: true; revision: number } | { saved: false; revision: number | null }

/**
 * Saves a document made from a revision. When that is no longer the newest, the document is kept aside as a
 * refused revision, the stored piece stays, and the newest revision's number comes back (null: no such piece).
 */
export async function savePiece(db: Database, id: string, from: number, document: Piece): Promise<Saved> {
  return db.transaction(async tx => {
    const next = from + 1
    const changed = await tx
      .update(pieces)
      .set({ document, title: document.title, revision: next, changed: new Date() })
      .where(and(standing(id), eq(pieces.revision, from)))
      .returning({ revision: pieces.revision })
    if (changed.length > 0) {
      await tx.insert(revisions).values({ piece: id, revision: next, document, state: 'saved' })
      if (next % THIN_EVERY === 0) await thin(tx, id)
      return { saved: true, revision: next } as const
    }
    const [row] = await tx.select({ revision: pieces.revision }).from(pieces).where(eq(pieces.id, id))
    if (row) await tx.insert(revisions).values({ piece: id, revision: from, document, state: 'refused' })
    return { saved: false, revision: row?.revision ?? null } as const
  })
}

const THIN_EVERY = 40

/** Of saved states older than an hour one an hour stays, of those older than a day one a day; refused ones stay. */
async function thin(tx: Pick<Database, 'execute'>, id: string): Promise<void> {
  for (const [age, unit] of [
    ['1 hour', 'hour'],
    ['1 day', 'day'],
  ] as const) {
    await tx.execute(sql`
      delete from ${revisions} r where r.piece = ${id} and r.state = 'saved' and r.at < now() - ${age}::interval
      and exists (select 1 from ${revisions} l where l.piece = r.piece and l.state = 'saved' and l.id > r.id
        and date_trunc(${unit}, l.at) = date_trunc(${unit}, r.at))`)
  }
}

export async function retitle(db: Database, id: string, title: string): Promise<Saved> {
  const stored = await readStored(db, id)
  if (!stored) return { saved: false, revision: null }
  return savePiece(db, id, stored.revision, { ...stored.document, title })
}

/** How long a deleted piece can be brought back. */
const KEPT_DAYS = 30

export async function deletePiece(db: Database, id: string): Promise<boolean> {
  const gone = await db.update(pieces).set({ deleted: new Date() }).where(standing(id)).returning({ id: pieces.id })
  await db.delete(pieces).where(lt(pieces.deleted, sql`now() - ${`${KEPT_DAYS} days`}::interval`))
  return gone.length > 0
}

export async function restorePiece(db: Database, id: string): Promise<boolean> {
  const back = await db
    .update(pieces)
    .set({ deleted: null })
    .where(and(eq(pieces.id, id), isNotNull(pieces.deleted)))
    .returning({ id: pieces.id })
  return back.length > 0
}
