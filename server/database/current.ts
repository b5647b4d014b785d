/** The server's one database: opened at start, with the demo in it the first time, closed at the end. */
import { sql } from 'drizzle-orm'
import { createError } from 'h3'
import { dailyCopy } from './backup'
import { seedDemo } from './demo'
import { hasRoom } from './folder'
import type { Database } from './database'
import { openDatabase, type Migrations, type Opened } from './open'
import { openServer } from './outside'

let opening: Promise<Opened> | null = null
let ready = false

/**
 * @param url a PostgreSQL server's address; null for the embedded database
 * @param folder where the embedded database and the copies lie
 * @param first where a new database lies ready, if it was made with the build
 */
export function startDatabase(
  url: string | null,
  folder: string,
  migrations: () => Promise<Migrations>,
  demo: () => Promise<Record<string, unknown>>,
  first: string,
): Promise<Opened> {
  opening ??= (async () => {
    const begin = (db: Database) => seedDemo(db, demo)
    const opened = url
      ? await openServer(url, await migrations(), begin)
      : await openDatabase(folder, await migrations(), begin, first)
    ready = true
    // A copy that fails is said, and harms nothing.
    if (opened.folder) await dailyCopy(opened.db, folder).catch(e => console.error(`No backup was made today. ${e}`))
    return opened
  })()
  return opening
}

/** The database once it can answer. Throws 503 while it does not. */
export async function database(): Promise<Database> {
  if (!opening) throw new Error('The database has not been started.')
  const { db, folder } = await opening
  // A server of its own may have gone; the embedded database is here as long as we are.
  if (folder === null && !(await answers(db))) throw away()
  return db
}

/** What every request is told while a PostgreSQL server is away. */
export const AWAY = {
  statusCode: 503,
  message: 'The database isn’t responding. Nothing was saved; try again in a moment.',
} as const
const away = () => createError(AWAY)

/** Whether a database answers now. */
const answers = (db: Database): Promise<boolean> =>
  db.execute(sql`select 1`).then(
    () => true,
    () => false,
  )

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

/** Whether the database answers now. */
export async function databaseReady(): Promise<boolean> {
  const opened = ready && opening ? await opening.catch(() => null) : null
  return opened !== null && (opened.folder !== null || answers(opened.db))
}

export async function stopDatabase(): Promise<void> {
  ready = false
  await (await opening)?.close()
  opening = null
}
