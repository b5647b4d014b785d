/** Databases to try things on: one embedded in a folder, one on a PostgreSQL server of its own. */
import { execFileSync } from 'node:child_process'
import { chmodSync, mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { freePort } from '../free-port'
import { migrationFiles } from './migration-files'
import type { Database } from './database'
import { makeDatabase, openDatabase, type Opened } from './open'
import { openServer } from './outside'

/** The programs of the newest PostgreSQL of this machine. */
function programs(): string {
  const root = '/usr/lib/postgresql'
  const newest = readdirSync(root)
    .sort((a, b) => Number(b) - Number(a))
    .at(0)
  if (!newest) throw new Error('There’s no PostgreSQL on this machine. ./run-tests installs it.')
  return join(root, newest, 'bin')
}

export interface Postgres {
  readonly url: string
  /** Ends it at once, as when its machine is switched off; what is in it stays. */
  readonly down: () => void
  /** Starts it again where it was. */
  readonly up: () => void
  /** Ends it for good. */
  readonly stop: () => void
}

/** Starts a PostgreSQL server with nothing in it. */
export async function startPostgres(): Promise<Postgres> {
  const bin = programs()
  const folder = mkdtempSync(join(tmpdir(), 'open-tide-postgres-'))
  // The server refuses to run as root.
  const root = process.getuid?.() === 0
  const as = (command: string, ...args: string[]) =>
    root
      ? execFileSync('runuser', ['-u', 'postgres', '--', join(bin, command), ...args], { stdio: 'pipe', cwd: '/' })
      : execFileSync(join(bin, command), args, { stdio: 'pipe', cwd: '/' })
  chmodSync(folder, 0o700)
  if (root) execFileSync('chown', ['postgres', folder])
  const data = join(folder, 'data')
  as('initdb', '-D', data, '-U', 'tide', '--auth=trust', '-E', 'UTF8', '--no-sync')
  const port = await freePort()
  const settings = `-p ${port} -c listen_addresses=127.0.0.1 -k ${folder}`
  const up = () => as('pg_ctl', '-D', data, '-w', '-l', join(folder, 'log'), '-o', settings, 'start')
  const down = () => as('pg_ctl', '-D', data, '-w', '-m', 'immediate', 'stop')
  up()
  return {
    url: `postgres://tide@127.0.0.1:${port}/postgres`,
    up,
    down,
    stop: () => {
      down()
      rmSync(folder, { recursive: true, force: true })
    },
  }
}

/** An empty database, made once for all tests of a file. */
let empty: Promise<string> | null = null
const emptyDatabase = (): Promise<string> =>
  (empty ??= (async () => {
    const at = join(mkdtempSync(join(tmpdir(), 'open-tide-empty-')), 'database')
    await makeDatabase(at, migrationFiles(), async () => {})
    process.on('exit', () => rmSync(dirname(at), { recursive: true, force: true }))
    return at
  })())

/** The two kinds of database, each opened with what it begins with. */
export const DATABASES = {
  embedded: async (begin?: (db: Database) => Promise<void>): Promise<Opened> => {
    const folder = mkdtempSync(join(tmpdir(), 'open-tide-test-'))
    const opened = await openDatabase(folder, migrationFiles(), undefined, await emptyDatabase())
    await begin?.(opened.db)
    return { ...opened, close: () => opened.close().finally(() => rmSync(folder, { recursive: true, force: true })) }
  },
  server: async (begin: (db: Database) => Promise<void> = async () => {}): Promise<Opened> => {
    const { url, stop } = await startPostgres()
    const opened = await openServer(url, migrationFiles(), begin)
    return { ...opened, close: () => opened.close().finally(stop) }
  },
} as const
