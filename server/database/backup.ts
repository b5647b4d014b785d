/**
 * A copy of all pieces with their kept states in one file: lines of JSON, packed (gzip). It is read back by
 * `./open-tide restore`, into an embedded database or on a PostgreSQL server.
 */
import { createHash } from 'node:crypto'
import { closeSync, fsyncSync, mkdirSync, openSync, renameSync, rmSync, writeSync } from 'node:fs'
import { join } from 'node:path'
import { gunzipSync, gzipSync } from 'node:zlib'
import { asc, eq, gt } from 'drizzle-orm'
import { copiesIn, copyNames } from './folder'
import type { Database } from './database'
import { assets, devices, handovers, patterns, pieces, revisions } from './schema'

const FORMAT = 'open-tide-backup'
const VERSION = 1
/** Rows read at once. */
const BATCH = 200
/** Daily copies that are kept. */
const KEPT = 7

type Row = Record<string, unknown>

/** The copy in parts, each a gzip member of its own; together one gzip file. The last line tells how many rows there are. */
export async function* copyOf(db: Database): AsyncGenerator<Uint8Array> {
  const sum = createHash('sha256')
  let rows = 0
  const part = (lines: readonly unknown[]): Uint8Array => {
    const text = lines.map(l => `${JSON.stringify(l)}\n`).join('')
    sum.update(text)
    return gzipSync(text, { level: 1 })
  }
  yield part([{ [FORMAT]: VERSION, made: new Date().toISOString() }])
  for (const piece of await db.select().from(pieces)) {
    rows++
    yield part([{ piece: plain(piece) }])
  }
  // One at a time: pictures are large.
  for (const { hash } of await db.select({ hash: assets.hash }).from(assets)) {
    const [row] = await db.select().from(assets).where(eq(assets.hash, hash))
    if (!row) continue
    rows++
    yield part([{ asset: { ...row, bytes: Buffer.from(row.bytes).toString('base64') } }])
  }
  for (const row of await db.select().from(handovers)) {
    rows++
    yield part([{ handover: plain(row) }])
  }
  for (const row of await db.select().from(devices)) {
    rows++
    yield part([{ device: row }])
  }
  for (const row of await db.select().from(patterns)) {
    rows++
    yield part([{ pattern: plain(row) }])
  }
  for (let after = 0; ;) {
    const some = await db
      .select()
      .from(revisions)
      .where(gt(revisions.id, after))
      .orderBy(asc(revisions.id))
      .limit(BATCH)
    if (some.length === 0) break
    after = some.at(-1)!.id
    rows += some.length
    yield part(some.map(r => ({ revision: plain(r) })))
  }
  yield gzipSync(`${JSON.stringify({ rows, sum: sum.digest('hex') })}\n`)
}

const plain = ({ document: _, packed, ...row }: Row): Row => ({
  ...row,
  packed: Buffer.from(packed as Uint8Array).toString('base64'),
})

/** Writes a copy to a file, whole or not at all. */
export async function backup(db: Database, file: string): Promise<void> {
  const half = `${file}.half`
  const out = openSync(half, 'w', 0o600)
  try {
    for await (const part of copyOf(db)) writeSync(out, part)
    fsyncSync(out)
    closeSync(out)
    renameSync(half, file)
  } catch (e) {
    rmSync(half, { force: true })
    throw e
  }
}

/** A file that is no whole copy, told in a sentence. */
export class NoCopy extends Error {}

interface Copy {
  readonly pieces: Row[]
  readonly revisions: Row[]
  readonly assets: Row[]
  readonly devices: Row[]
  readonly handovers: Row[]
  readonly patterns: Row[]
}

/** Reads a copy, checked to its end. Throws `NoCopy`. */
export function readCopy(bytes: Uint8Array): Copy {
  let text: string
  try {
    text = gunzipSync(bytes).toString('utf8')
  } catch {
    throw new NoCopy('This file isn’t an Open Tide backup, or it’s damaged.')
  }
  const end = text.lastIndexOf('\n', text.length - 2) + 1
  const [head, ...lines] = text.slice(0, end).trimEnd().split('\n').map(parsed)
  if (head?.[FORMAT] !== VERSION) throw new NoCopy('This version of Open Tide can’t read this backup.')
  const last = parsed(text.slice(end))
  if (last.rows !== lines.length || last.sum !== createHash('sha256').update(text.slice(0, end)).digest('hex'))
    throw new NoCopy('This backup isn’t complete: its end is missing, or part of it was changed.')
  return {
    pieces: lines.flatMap(l => (l.piece ? [l.piece as Row] : [])),
    revisions: lines.flatMap(l => (l.revision ? [l.revision as Row] : [])),
    assets: lines.flatMap(l => (l.asset ? [l.asset as Row] : [])),
    devices: lines.flatMap(l => (l.device ? [l.device as Row] : [])),
    handovers: lines.flatMap(l => (l.handover ? [l.handover as Row] : [])),
    patterns: lines.flatMap(l => (l.pattern ? [l.pattern as Row] : [])),
  }
}

function parsed(line: string): Row {
  try {
    return JSON.parse(line) as Row
  } catch {
    throw new NoCopy('This backup is damaged.')
  }
}

const dates = (row: Row): Row =>
  Object.fromEntries(
    Object.entries(row).map(([k, v]) => [
      k,
      k === 'packed' || k === 'bytes'
        ? new Uint8Array(Buffer.from(v as string, 'base64'))
        : /^(created|changed|deleted|at|made|until|withdrawn|tunedAt)$/.test(k) && v
          ? new Date(v as string)
          : v,
    ]),
  )

/** Puts a copy in the place of all that is there, in one transaction. Gives how many pieces came back. */
export async function restore(db: Database, bytes: Uint8Array): Promise<number> {
  const copy = readCopy(bytes)
  await db.transaction(async tx => {
    await tx.delete(pieces)
    await tx.delete(assets)
    for (const row of copy.assets) await tx.insert(assets).values(dates(row) as typeof assets.$inferInsert)
    await tx.delete(patterns)
    for (const row of copy.patterns) await tx.insert(patterns).values(dates(row) as typeof patterns.$inferInsert)
    for (const row of copy.pieces) await tx.insert(pieces).values(dates(row) as typeof pieces.$inferInsert)
    for (const { id: _, ...row } of copy.revisions)
      await tx.insert(revisions).values(dates(row) as typeof revisions.$inferInsert)
    for (const row of copy.devices) await tx.insert(devices).values(row as typeof devices.$inferInsert)
    for (const { id: _, ...row } of copy.handovers)
      await tx.insert(handovers).values(dates(row) as typeof handovers.$inferInsert)
  })
  return copy.pieces.length
}

/** The copy of the day, made once; the last seven stay. */
export async function dailyCopy(db: Database, folder: string, today = new Date()): Promise<void> {
  const name = `${today.toISOString().slice(0, 10)}.tide-backup`
  const there = copyNames(folder)
  if (!there.includes(name)) {
    mkdirSync(copiesIn(folder), { recursive: true, mode: 0o700 })
    await backup(db, join(copiesIn(folder), name))
    there.push(name)
  }
  for (const old of there.sort().slice(0, -KEPT)) rmSync(join(copiesIn(folder), old), { force: true })
}
