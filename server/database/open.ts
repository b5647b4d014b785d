/** Opens the database: embedded in a data folder (locked), or on a PostgreSQL server; migrated and ready. */
import { cpSync, existsSync, mkdirSync, mkdtempSync, renameSync, rmSync, rmdirSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { PGlite } from '@electric-sql/pglite'
import { sql } from 'drizzle-orm'
import { drizzle } from 'drizzle-orm/pglite'
import { migrate } from 'drizzle-orm/pglite/migrator'
import * as schema from './schema'
import type { Database } from './database'
import { databaseIn, databaseStands, damaged, needRoom, newDatabaseIn, prepareFolder, reason } from './folder'
import { takeLock } from './lock'
import { packOld } from './packed'

export interface Opened {
  readonly db: Database
  /** Where its files lie; null on a server of its own. */
  readonly folder: string | null
  readonly close: () => Promise<void>
}

/** Each file of the migrations by its path below their folder. */
export type Migrations = Readonly<Record<string, string>>

/** Settings of the embedded database: its log stays small, since one process writes a little at a time. */
const SETTINGS = ['max_wal_size = 64MB', 'min_wal_size = 32MB', 'wal_recycle = on']

/**
 * @param folder where the data lies; made when it is not there
 * @param begin what a new database begins with; it is there whole or not at all
 * @param first a database as it is made anew, closed: a new one is a copy of it where it is there
 * Throws `FolderInUse` when another server holds the folder, `FolderTrouble` when it cannot be used.
 */
export async function openDatabase(
  folder: string,
  migrations: Migrations,
  begin: (db: Database) => Promise<void> = async () => {},
  first: string | null = null,
): Promise<Opened> {
  prepareFolder(folder)
  const release = takeLock(folder)
  try {
    if (!databaseStands(folder))
      await newDatabase(folder, at =>
        first && existsSync(first) ? cpSync(first, at, { recursive: true }) : makeDatabase(at, migrations, begin),
      )
    const { client, db } = await opened(databaseIn(folder)).catch(e => {
      throw damaged(folder, said(e))
    })
    try {
      await inFolder(migrations, at => migrate(db, { migrationsFolder: at }))
      await packOld(db)
      await db.execute(sql`vacuum`)
    } catch (e) {
      await client.close().catch(() => {})
      throw damaged(folder, said(e))
    }
    return {
      db,
      folder,
      close: async () => {
        await client.close()
        release()
      },
    }
  } catch (e) {
    release()
    throw e
  }
}

async function opened(at: string) {
  const client = await PGlite.create({ dataDir: at, postgresqlconf: SETTINGS })
  const db = drizzle(client, { schema })
  // A database that answers is one that was read.
  await db.execute(sql`select 1`)
  return { client, db }
}

/** A database is made beside its place, filled, closed, and only then moved there: one that was interrupted is not seen. */
async function newDatabase(folder: string, make: (at: string) => Promise<void> | void): Promise<void> {
  needRoom(folder)
  const at = newDatabaseIn(folder)
  await make(at)
  // Only an empty folder may stand in its place.
  if (existsSync(databaseIn(folder))) rmdirSync(databaseIn(folder))
  renameSync(at, databaseIn(folder))
}

/** Makes a database in a folder that is not there yet, and closes it: a quarter of a minute of the processor. */
export async function makeDatabase(
  at: string,
  migrations: Migrations,
  begin: (db: Database) => Promise<void>,
): Promise<void> {
  const { client, db } = await opened(at)
  try {
    await inFolder(migrations, files => migrate(db, { migrationsFolder: files }))
    await begin(db)
  } finally {
    await client.close()
  }
}

/** Does something with the migrations as files. */
export async function inFolder<T>(migrations: Migrations, use: (at: string) => Promise<T>): Promise<T> {
  const copies = mkdtempSync(join(tmpdir(), 'open-tide-'))
  try {
    for (const [path, text] of Object.entries(migrations)) {
      mkdirSync(dirname(join(copies, path)), { recursive: true })
      writeFileSync(join(copies, path), text)
    }
    return await use(copies)
  } finally {
    rmSync(copies, { recursive: true, force: true })
  }
}

/** What the database said, in a sentence. */
const said = (e: unknown): string =>
  /Aborted|unreachable|RuntimeError/.test(String(e)) ? 'Its files are damaged.' : `It says: ${reason(e)}`
