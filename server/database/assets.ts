/** Pictures by what they hold: each once, whatever pieces show it. */
import { createHash } from 'node:crypto'
import { eq } from 'drizzle-orm'
import { headOf } from '../../core/formats/pictures/head'
import type { Database } from './database'
import { assets } from './schema'

/** The first half of the SHA-256 of some bytes, in hexadecimal. */
export const hashOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex').slice(0, 32)

/** Keeps a picture and gives its hash; a sentence when it is none that can be taken. */
export async function keepAsset(db: Database, bytes: Uint8Array): Promise<{ hash: string } | { says: string }> {
  const head = headOf(bytes)
  if ('says' in head) return head
  const hash = hashOf(bytes)
  await db.insert(assets).values({ hash, type: head.type, bytes }).onConflictDoNothing()
  return { hash }
}

export async function readAsset(db: Database, hash: string): Promise<{ type: string; bytes: Uint8Array } | null> {
  const [row] = await db.select().from(assets).where(eq(assets.hash, hash))
  return row ? { type: row.type, bytes: row.bytes } : null
}

/** Bytes of pictures that a still carries, most. */
const CARRIED = 2_500_000

/** The pictures that a document shows, as data addresses by their hashes: as far as they fit. */
export async function picturesIn(db: Database, text: string): Promise<[string, string][]> {
  const named = [...text.matchAll(/"asset":"([A-Za-z0-9_]{1,32})"/g)].map(m => m[1]!)
  const found: [string, string][] = []
  let room = CARRIED
  for (const hash of new Set(named)) {
    const it = await readAsset(db, hash)
    if (!it || it.bytes.length > room) continue
    room -= it.bytes.length
    found.push([hash, `data:${it.type};base64,${Buffer.from(it.bytes).toString('base64')}`])
  }
  return found
}
