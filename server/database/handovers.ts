/**
 * Hand-overs: a piece as it stood, under a token of 128 bits that is kept only as its hash. What the receiver tunes is held to
 * the locks here, whatever the page sends, and lies under the hand-over, never in the piece.
 */
import { createHash, randomBytes } from 'node:crypto'
import { and, desc, eq, isNull } from 'drizzle-orm'
import { sharedPiece } from '../../core/acts/shared-piece'
import type { Handover, Received } from '../../core/piece/api'
import { limitToLent, type DialLoan } from '../../core/piece/lent'
import type { Piece } from '../../core/piece/schema'
import { shownIn } from '../../core/formats/piece-file/piece-file'
import type { Database } from './database'
import { pack, unpack } from './packed'
import { handovers, pieces } from './schema'

/** What is kept of a token. */
export const hashOfToken = (token: string): string => createHash('sha256').update(token).digest('hex')
/** 16 bytes in base 64 for addresses. */
const TOKEN = /^[A-Za-z0-9_-]{22}$/

export interface NewHandover {
  readonly lent: readonly DialLoan[]
  readonly formats: readonly string[]
  readonly until: Date | null
}

/** @returns the token, which is told this once */
export async function handOver(
  db: Database,
  piece: string,
  document: Piece,
  { lent, formats, until }: NewHandover,
): Promise<string> {
  const token = randomBytes(16).toString('base64url')
  await db
    .insert(handovers)
    .values({ hash: hashOfToken(token), piece, packed: pack(document), lent: [...lent], formats: [...formats], until })
  return token
}

type Row = typeof handovers.$inferSelect

/** What stands under a token, while it is good. */
async function opened(db: Database, token: string): Promise<Row | null> {
  if (!TOKEN.test(token)) return null
  const [found] = await db
    .select({ row: handovers })
    .from(handovers)
    .innerJoin(pieces, eq(pieces.id, handovers.piece))
    .where(and(eq(handovers.hash, hashOfToken(token)), isNull(pieces.deleted)))
  const row = found?.row
  if (!row || row.withdrawn || (row.until && row.until.getTime() <= Date.now())) return null
  return row
}

export async function received(db: Database, token: string): Promise<Received | null> {
  const row = await opened(db, token)
  return (
    row && {
      document: sharedPiece(unpack(row.packed), row.lent),
      lent: row.lent,
      formats: row.formats,
      tuned: row.tuned,
    }
  )
}

/** Whether a token opens anything now. */
export const isGood = async (db: Database, token: string): Promise<boolean> => (await opened(db, token)) !== null

/** Whether a picture belongs to what was handed over. */
export async function mayShow(db: Database, token: string, hash: string): Promise<boolean> {
  const row = await opened(db, token)
  return row !== null && shownIn(unpack(row.packed)).includes(hash)
}

export type TunedDials = { readonly tuned: Readonly<Record<string, number>> } | { readonly says: string } | null

/** Keeps what the receiver tuned: all of it or, where one value is not allowed, nothing. Null when the token is not good. */
export async function tune(db: Database, token: string, values: Readonly<Record<string, number>>): Promise<TunedDials> {
  const row = await opened(db, token)
  if (!row) return null
  const { dials } = unpack(row.packed)
  const tuned: Record<string, number> = {}
  for (const [id, value] of Object.entries(values)) {
    const lent = row.lent.find(l => l.dial === id)
    const dial = Object.hasOwn(dials, id) ? dials[id] : undefined
    if (!lent || !dial) return { says: 'This dial isn’t shared.' }
    if (limitToLent(dial, lent, value) !== value) return { says: `${lent.says} goes from ${lent.low} to ${lent.high}.` }
    tuned[id] = value
  }
  await db.update(handovers).set({ tuned, tunedAt: new Date() }).where(eq(handovers.id, row.id))
  return { tuned }
}

export async function handoversOf(db: Database, piece: string): Promise<Handover[]> {
  const rows = await db.select().from(handovers).where(eq(handovers.piece, piece)).orderBy(desc(handovers.id))
  return rows.map(({ hash: _, packed: __, piece: ___, ...row }) => ({
    ...row,
    tunedAt: row.tunedAt?.toISOString() ?? null,
    made: row.made.toISOString(),
    until: row.until?.toISOString() ?? null,
    withdrawn: row.withdrawn?.toISOString() ?? null,
  }))
}

export async function withdraw(db: Database, piece: string, id: number): Promise<boolean> {
  const gone = await db
    .update(handovers)
    .set({ withdrawn: new Date() })
    .where(and(eq(handovers.piece, piece), eq(handovers.id, id), isNull(handovers.withdrawn)))
    .returning({ id: handovers.id })
  return gone.length > 0
}
