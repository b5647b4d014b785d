/** The server's one database: opened at start, with the demo in it the first time, closed at the end. */
import { seedDemo } from './demo'
import { openDatabase, type Database, type Opened } from './open'

let opening: Promise<Opened> | null = null
let ready = false

export function startDatabase(
  folder: string,
  migrations: () => Promise<Record<string, string>>,
  demo: () => Promise<Record<string, unknown>>,
): Promise<Opened> {
  opening ??= (async () => {
    const opened = await openDatabase(folder, await migrations())
    await seedDemo(opened.db, demo)
    ready = true
    return opened
  })()
  return opening
}

/** The database once it can answer. Throws while the server has none. */
export async function database(): Promise<Database> {
  if (!opening) throw new Error('The database has not been started.')
  return (await opening).db
}

export const databaseReady = (): boolean => ready

export async function stopDatabase(): Promise<void> {
  ready = false
  await (await opening)?.close()
  opening = null
}
