/** Opens the database in a data folder: locked, migrated, ready. */
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { PGlite } from '@electric-sql/pglite'
import { drizzle } from 'drizzle-orm/pglite'
import { migrate } from 'drizzle-orm/pglite/migrator'
import * as schema from './schema'
import { takeLock } from './lock'

export type Database = ReturnType<typeof drizzle<typeof schema>>

export interface Opened {
  readonly db: Database
  readonly close: () => Promise<void>
}

/**
 * @param folder where the data lies; made when it is not there
 * @param migrations each file of the migrations by its path below their folder
 * Throws `FolderInUse` when another server holds the folder.
 */
export async function openDatabase(folder: string, migrations: Readonly<Record<string, string>>): Promise<Opened> {
  const release = takeLock(folder)
  try {
    const client = await PGlite.create(join(folder, 'database'))
    const db = drizzle(client, { schema })
    const copies = mkdtempSync(join(tmpdir(), 'open-tide-'))
    try {
      for (const [path, text] of Object.entries(migrations)) {
        mkdirSync(dirname(join(copies, path)), { recursive: true })
        writeFileSync(join(copies, path), text)
      }
      await migrate(db, { migrationsFolder: copies })
    } finally {
      rmSync(copies, { recursive: true, force: true })
    }
    return {
      db,
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
