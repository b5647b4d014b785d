/** Opens the database when the server starts and closes it when the server ends. */
import { rmSync, writeFileSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { isError } from 'h3'
import { AWAY, startDatabase, stopDatabase } from '../database/current'
import { DEMO } from '../database/demo'
import { FolderTrouble, addressIn, prepareFolder, reason } from '../database/folder'
import { FolderInUse } from '../database/lock'
import { wentAway } from '../database/outside'
import { stopDevices } from '../device/devices'
import { takeKey } from '../door'
import { stopReading } from '../reading/reading'
import { stopStills } from '../stills/stills'

export default defineNitroPlugin(nitro => {
  // Started by itself too, the server listens to this machine alone unless asked otherwise.
  process.env.NITRO_HOST ||= process.env.HOST || '127.0.0.1'
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
  const end = (e: Error) => {
    const known = e instanceof FolderInUse || e instanceof FolderTrouble
    console.error(known ? e.message : `The database couldn’t be opened: ${reason(e)}`)
    process.exit(1)
  }
  // A server that cannot listen ends; one error in a request never ends it.
  process.on('uncaughtException', (e: NodeJS.ErrnoException) => {
    if (e.syscall !== 'listen') return
    console.error(`Open Tide can’t listen there (${e.code}). Choose another port with PORT, or another HOST.`)
    process.exit(1)
  })
  try {
    prepareFolder(folder)
    const key = takeKey(folder)
    if (key) console.error(`Other machines can reach Open Tide. They need this key: ${key}`)
  } catch (e) {
    end(e as Error)
  }
  // It is made with the build and lies beside the built server.
  const first = join(dirname(resolve(process.argv[1] ?? '.')), 'first')
  startDatabase(process.env.DATABASE_URL || null, folder, migrations, demo, first).then(() => {
    // Commands at a prompt ask the server that runs.
    const host = /^(0\.0\.0\.0|::)$/.test(process.env.NITRO_HOST!) ? '127.0.0.1' : process.env.NITRO_HOST!
    const port = process.env.NITRO_PORT || process.env.PORT || '3000'
    writeFileSync(addressIn(folder), `http://${host.includes(':') ? `[${host}]` : host}:${port}\n`, { mode: 0o600 })
  }, end)
  // It can go in the middle of a request too: what is answered is made of this error after it was seen here.
  nitro.hooks.hook('error', e => {
    // Errors of connections come by here too, and are told apart by their own words later on.
    if (isError(e) && wentAway(e)) Object.assign(e, AWAY, { statusMessage: '', unhandled: false })
  })
  nitro.hooks.hook('close', async () => {
    stopDevices()
    await stopStills()
    await stopReading()
    rmSync(addressIn(folder), { force: true })
    await stopDatabase()
  })
})
