/** `open-tide backup FILE` and `open-tide restore FILE`: a copy of all pieces, and its way back. */
import { createWriteStream, existsSync, readFileSync, renameSync, rmSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { createInterface } from 'node:readline/promises'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { ReadableStream } from 'node:stream/web'
import { NoCopy, backup, readCopy, restore } from './database/backup'
import { FolderTrouble, addressIn, reason } from './database/folder'
import { FolderInUse } from './database/lock'
import { migrationFiles } from './database/migration-files'
import type { Database } from './database/database'
import { openDatabase } from './database/open'
import { openServer } from './database/outside'
import { listPieces } from './database/pieces'
import { cookieOf } from './door'

const HELP = `open-tide backup FILE    back up all pieces and their version history to one file
open-tide restore FILE   replace everything with such a backup; what was there is backed up first
Both use OPEN_TIDE_DATA, or the server of DATABASE_URL. A backup can be made while Open Tide runs; to restore, close it
first. Restoring says what it will replace and asks first; --yes answers.`

const folder = resolve(process.env.OPEN_TIDE_DATA || '.data')

/** The copy of a server that runs on the folder, by its own address and key. Throws what was wrong. */
async function fromServer(file: string, inUse: FolderInUse): Promise<void> {
  const read = (path: string) => (existsSync(path) ? readFileSync(path, 'utf8').trim() : '')
  const address = read(addressIn(folder))
  if (!address) throw inUse
  const key = read(join(folder, 'key'))
  const answer = await fetch(`${address}/api/backup`, {
    headers: key ? { cookie: `open-tide-key=${cookieOf(key)}` } : {},
  }).catch(() => null)
  if (!answer?.ok || !answer.body) throw inUse
  const half = `${file}.half`
  try {
    await pipeline(Readable.fromWeb(answer.body as ReadableStream), createWriteStream(half, { mode: 0o600 }))
    // What broke off on its way is not kept.
    readCopy(readFileSync(half))
    renameSync(half, file)
  } catch (e) {
    rmSync(half, { force: true })
    throw e
  }
}

/** Whether what is there may be replaced; said what it is before. */
async function mayReplace(db: Database, bytes: Uint8Array, yes: boolean): Promise<boolean> {
  const there = await listPieces(db)
  const copy = readCopy(bytes)
  const pieces = (n: number) => (n === 1 ? '1 piece' : `${n} pieces`)
  const names = there.slice(0, 5).map(p => p.title)
  console.log(
    there.length === 0
      ? `There are no pieces here yet; ${pieces(copy.pieces.length)} will be put here.`
      : `This replaces ${pieces(there.length)} (${names.join(', ')}${there.length > 5 ? ', …' : ''}), changed last on ${there[0]!.changed.slice(0, 10)}, with the ${pieces(copy.pieces.length)} of the backup.`,
  )
  if (yes || there.length === 0) return true
  if (!process.stdin.isTTY) {
    console.error('Nothing was changed. Add --yes to continue.')
    return false
  }
  const ask = createInterface({ input: process.stdin, output: process.stdout })
  const answer = await ask.question('Type yes to continue: ')
  ask.close()
  return answer.trim().toLowerCase() === 'yes'
}

async function run(words: string[]): Promise<number> {
  const yes = words.includes('--yes')
  const [command, file, ...more] = words.filter(w => w !== '--yes')
  if (command === '--help' || file === '--help') {
    console.log(HELP)
    return 0
  }
  if (!file || more.length > 0) {
    console.error(HELP)
    return 2
  }
  const url = process.env.DATABASE_URL
  const open = () => (url ? openServer(url, migrationFiles(), async () => {}) : openDatabase(folder, migrationFiles()))
  if (command === 'backup') {
    if (!url && !existsSync(join(folder, 'database'))) throw new FolderTrouble(`There are no pieces in ${folder} yet.`)
    try {
      const { db, close } = await open()
      await backup(db, resolve(file)).finally(close)
    } catch (e) {
      if (!(e instanceof FolderInUse)) throw e
      await fromServer(resolve(file), e)
    }
    console.log(`All pieces are in ${file}.`)
    return 0
  }
  const bytes = readFileSync(file)
  const { db, close } = await open()
  try {
    if (!(await mayReplace(db, bytes, yes))) return 1
    const before = resolve(`${file}.before`)
    await backup(db, before)
    const count = await restore(db, bytes)
    console.log(`${count} pieces restored. What was there before is in ${before}.`)
  } finally {
    await close()
  }
  return 0
}

run(process.argv.slice(2)).then(
  code => process.exit(code),
  (e: Error) => {
    const known = e instanceof NoCopy || e instanceof FolderTrouble || e instanceof FolderInUse
    console.error(known ? e.message : `This didn’t work: ${reason(e)}`)
    process.exit(1)
  },
)
