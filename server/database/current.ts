/** The server's one database: opened at start, with the demo in it the first time, closed at the end. */
import { sql } from 'drizzle-orm'
import { dailyCopy } from './backup'
import { seedDemo } from './demo'
import { hasRoom } from './folder'
import { openDatabase, type Database, type Migrations, type Opened } from './open'
import { openServer } from './outside'

let opening: Promise<Opened> | null = null
let ready = false

/**
 * @param url a PostgreSQL server's address; null for the embedded database
 * @param folder where the embedded database and the copies lie
 */
export function startDatabase(
  url: string | null,
  folder: string,
  migrations: () => Promise<Migrations>,
  demo: () => Promise<Record<string, unknown>>,
): Promise<Opened> {
  opening ??= (async () => {
    const begin = (db: Database) => seedDemo(db, demo)
    const opened = url
      ? await openServer(url, await migrations(), begin)
      : await openDatabase(folder, await migrations(), begin)
    ready = true
    // A copy that fails is said, and harms nothing.
    if (opened.folder) await dailyCopy(opened.db, folder).catch(e => console.error(`No copy was made today. ${e}`))
    return opened
  })()
  return opening
}

/** The database once it can answer. Throws while the server has none. */
export async function database(): Promise<Database> {
  if (!opening) throw new Error('The database has not been started.')
  return (await opening).db
}

/** Whether there is room on the disk to write so much; a server of its own looks after itself. */
export async function roomFor(bytes: number): Promise<boolean> {
  const folder = (await opening)?.folder
  return !folder || hasRoom(folder, bytes)
}

/** Writes after which space that old states left is given back. */
const TIDY_EVERY = 250
let writes = 0

/** To be called after a write: tidies up now and then, when nothing waits for it. */
export function wrote(): void {
  if (++writes % TIDY_EVERY !== 0) return
  void opening?.then(
    async ({ db, folder }) => {
      if (!folder) return
      await db.execute(sql`vacuum`)
      await db.execute(sql`checkpoint`)
    },
    () => {},
  )
}

export const databaseReady = (): boolean => ready

export async function stopDatabase(): Promise<void> {
  ready = false
  await (await opening)?.close()
  opening = null
}
