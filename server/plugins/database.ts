/** Opens the database when the server starts and closes it when the server ends. */
import { resolve } from 'node:path'
import { startDatabase, stopDatabase } from '../database/current'
import { FolderInUse } from '../database/lock'

/** The pieces a new harbour begins with; the last is the newest. */
const DEMO = ['duck-basin', 'swing-tower', 'lantern-pier']

export default defineNitroPlugin(nitro => {
  const folder = resolve(process.env.OPEN_TIDE_DATA || '.data')
  const migrations = async () => {
    const store = useStorage('assets:migrations')
    const files: Record<string, string> = {}
    for (const key of await store.getKeys()) {
      const value = await store.getItem(key)
      files[key.replaceAll(':', '/')] = typeof value === 'string' ? value : JSON.stringify(value)
    }
    return files
  }
  const demo = async () => {
    const store = useStorage('assets:demo')
    const pieces: Record<string, unknown> = {}
    for (const id of DEMO) {
      const value = await store.getItem(`${id}.json`)
      pieces[id] = typeof value === 'string' ? JSON.parse(value) : value
    }
    return pieces
  }
  startDatabase(folder, migrations, demo).catch((e: Error) => {
    console.error(e instanceof FolderInUse ? e.message : `The database cannot be opened. ${e.message}`)
    process.exit(1)
  })
  nitro.hooks.hook('close', stopDatabase)
})
