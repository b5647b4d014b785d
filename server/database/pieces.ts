/** What the server does with pieces. A save is answered only when it is in the database. */
import { and, desc, eq, isNull, isNotNull, lt, sql } from 'drizzle-orm'
import { nanoid } from 'nanoid'
import { headOf } from '../../core/formats/pictures/head'
import type { Packed } from '../../core/formats/piece-file/piece-file'
import { emptyPiece, type Piece } from '../../core/piece/schema'
import type { PieceSummary, Stored, Version } from '../../core/piece/api'
import type { Database } from './database'
import { pack, unpack, unpackText } from './packed'
import { assets, pieces, revisions } from './schema'
import { thin } from './thinning'

const card = {
  id: pieces.id,
  title: pieces.title,
  revision: pieces.revision,
  changed: pieces.changed,
  folder: pieces.folder,
}
const standing = (id: string) => and(eq(pieces.id, id), isNull(pieces.deleted))

type Writing = Pick<Database, 'insert' | 'update' | 'select' | 'execute'>

export async function listPieces(db: Database): Promise<PieceSummary[]> {
  const rows = await db.select(card).from(pieces).where(isNull(pieces.deleted)).orderBy(desc(pieces.changed), pieces.id)
  return rows.map(r => ({ ...r, changed: r.changed.toISOString() }))
}

/** Those that were deleted and can be brought back, with when that was in `changed`. */
export async function listDeleted(db: Database): Promise<PieceSummary[]> {
  const rows = await db
    .select({ ...card, changed: pieces.deleted })
    .from(pieces)
    .where(isNotNull(pieces.deleted))
    .orderBy(desc(pieces.deleted), pieces.id)
  return rows.map(r => ({ ...r, changed: r.changed!.toISOString() }))
}

/** A piece with its document as text, which nothing here needs to read. */
export async function readPieceText(db: Database, id: string): Promise<{ revision: number; text: string } | null> {
  const [row] = await db.select().from(pieces).where(standing(id))
  return row ? { revision: row.revision, text: unpackText(row.packed!) } : null
}

export async function readStored(db: Database, id: string): Promise<Stored | null> {
  const found = await readPieceText(db, id)
  return found && { id, revision: found.revision, document: JSON.parse(found.text) as Piece }
}

export async function revisionOf(db: Pick<Database, 'select'>, id: string): Promise<number | null> {
  const [row] = await db.select({ revision: pieces.revision }).from(pieces).where(standing(id))
  return row?.revision ?? null
}

export async function createPiece(db: Database, document: Piece, id = nanoid(12)): Promise<Stored> {
  await db.transaction(tx => insertPiece(tx, document, id))
  return { id, revision: 1, document }
}

/** A piece from a file with its pictures, in one transaction. */
export async function takeIn(db: Database, { piece, pictures }: Packed): Promise<Stored> {
  const document = { ...piece, title: await freeTitle(db, piece.title) }
  const id = nanoid(12)
  await db.transaction(async tx => {
    for (const [hash, bytes] of pictures) {
      const head = headOf(bytes)
      if (!('says' in head)) await tx.insert(assets).values({ hash, type: head.type, bytes }).onConflictDoNothing()
    }
    await insertPiece(tx, document, id)
  })
  return { id, revision: 1, document }
}

/** Puts a piece into a folder of the harbour. */
export async function moveTo(db: Database, id: string, folder: string): Promise<boolean> {
  const done = await db.update(pieces).set({ folder }).where(standing(id)).returning({ id: pieces.id })
  return done.length > 0
}

/** The rows of a new piece, within a transaction. */
export async function insertPiece(tx: Writing, document: Piece, id: string, changed = new Date()): Promise<void> {
  const packed = pack(document)
  await tx.insert(pieces).values({ id, title: document.title, packed, revision: 1, changed })
  await tx.insert(revisions).values({ piece: id, revision: 1, packed, state: 'saved' })
}

/** A new piece with nothing in it. Its seed comes from its id, so that its noise is its own. */
export function newPiece(title: string): Piece {
  let seed = 0
  for (const c of nanoid()) seed = (Math.imul(seed, 31) + c.charCodeAt(0)) >>> 0
  return emptyPiece(title, seed)
}

/** Longest title, in characters. */
const LONGEST_TITLE = 120

/** A title that no other piece has: `Lantern Pier 2`, cut where the number would not fit. */
export async function freeTitle(db: Database, wish: string): Promise<string> {
  const taken = new Set((await listPieces(db)).map(c => c.title))
  for (let n = 1; ; n++) {
    const end = n === 1 ? '' : ` ${n}`
    const title = firstCharacters(wish, LONGEST_TITLE - end.length) + end
    if (!taken.has(title)) return title
  }
}

/** The first characters of a text, whole ones. */
export const firstCharacters = (text: string, most: number): string =>
  text.length <= most
    ? text
    : text
        .slice(0, most)
        .replace(/[\uD800-\uDBFF]$/, '')
        .trimEnd()

export type Saved =
  | { saved: true; revision: number }
  /** `newest` is null where there is no such piece, or it was deleted. */
  | { saved: false; newest: number | null }

/**
 * Saves a document made from a revision. When that is no longer the newest, the document is kept aside as a
 * refused revision, the stored piece stays, and the newest revision's number comes back.
 * @param save the save's own name: repeated with the same name it does nothing more and answers alike
 */
export async function savePiece(
  db: Database,
  id: string,
  from: number,
  document: Piece,
  save: string | null = null,
): Promise<Saved> {
  return db.transaction(async tx => {
    const next = from + 1
    if (save !== null) {
      const same = and(eq(revisions.piece, id), eq(revisions.save, save))
      const [known] = await tx
        .select({ revision: revisions.revision, state: revisions.state })
        .from(revisions)
        .where(same)
      if (known?.state === 'saved') return { saved: true, revision: known.revision } as const
      if (known) return { saved: false, newest: await revisionOf(tx, id) } as const
    }
    const packed = pack(document)
    const changed = await tx
      .update(pieces)
      .set({ packed, title: document.title, revision: next, changed: new Date() })
      .where(and(standing(id), eq(pieces.revision, from)))
      .returning({ revision: pieces.revision })
    if (changed.length > 0) {
      await tx.insert(revisions).values({ piece: id, revision: next, packed, state: 'saved', save })
      if (next % THIN_EVERY === 0) await thin(tx, id)
      return { saved: true, revision: next } as const
    }
    const [row] = await tx.select({ id: pieces.id }).from(pieces).where(eq(pieces.id, id))
    if (row) await tx.insert(revisions).values({ piece: id, revision: from, packed, state: 'refused', save })
    return { saved: false, newest: await revisionOf(tx, id) } as const
  })
}

/** Saves after which old ones are thinned. */
const THIN_EVERY = 40

export async function retitle(db: Database, id: string, title: string): Promise<Saved> {
  const stored = await readStored(db, id)
  if (!stored) return { saved: false, newest: null }
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

/** The kept states of a piece, the newest first. */
export async function listVersions(db: Database, id: string): Promise<Version[] | null> {
  if ((await revisionOf(db, id)) === null) return null
  const rows = await db
    .select({ version: revisions.id, revision: revisions.revision, state: revisions.state, at: revisions.at })
    .from(revisions)
    .where(eq(revisions.piece, id))
    .orderBy(desc(revisions.id))
  return rows.map(r => ({ ...r, at: r.at.toISOString() }))
}

export async function readVersion(db: Database, id: string, version: number): Promise<Piece | null> {
  const [row] = await db
    .select({ packed: revisions.packed })
    .from(revisions)
    .where(and(eq(revisions.piece, id), eq(revisions.id, version)))
  return row ? unpack(row.packed!) : null
}
