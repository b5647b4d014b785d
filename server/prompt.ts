/** `open-tide backup FILE` and `open-tide restore FILE`: a copy of all pieces, and its way back. */
import { existsSync, readFileSync, readdirSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { NoCopy, backup, restore } from './database/backup'
import { FolderTrouble, reason } from './database/folder'
import { FolderInUse } from './database/lock'
import { openDatabase, type Migrations } from './database/open'
import { openServer } from './database/outside'

const HELP = `open-tide backup FILE    a copy of all pieces and their kept versions in one file
open-tide restore FILE   puts such a copy in the place of all that is there; what was there is copied first
Both use OPEN_TIDE_DATA, or the server of DATABASE_URL. Open Tide has to be closed; while it runs, the same copy
is at /api/backup.`

function migrations(): Migrations {
  const root = join(import.meta.dirname, 'database/migrations')
  const files = readdirSync(root, { recursive: true, withFileTypes: true }).filter(f => f.isFile())
  return Object.fromEntries(
    files.map(f => {
      const path = join(f.parentPath, f.name)
      return [path.slice(root.length + 1), readFileSync(path, 'utf8')]
    }),
  )
}

const folder = resolve(process.env.OPEN_TIDE_DATA || '.data')

async function run([command, file, ...more]: string[]): Promise<number> {
  if (command === '--help' || file === '--help') {
    console.log(HELP)
    return 0
  }
  if (!file || more.length > 0) {
    console.error(HELP)
    return 2
  }
  const url = process.env.DATABASE_URL
  const open = () => (url ? openServer(url, migrations(), async () => {}) : openDatabase(folder, migrations()))
  if (command === 'backup') {
    if (!url && !existsSync(join(folder, 'database'))) throw new FolderTrouble(`There are no pieces in ${folder} yet.`)
    const { db, close } = await open()
    await backup(db, resolve(file)).finally(close)
    console.log(`All pieces are in ${file}.`)
    return 0
  }
  const bytes = readFileSync(file)
  const { db, close } = await open()
  try {
    const before = resolve(`${file}.before`)
    await backup(db, before)
    const count = await restore(db, bytes)
    console.log(`${count} pieces came back. What was there before is in ${before}.`)
  } finally {
    await close()
  }
  return 0
}

run(process.argv.slice(2)).then(
  code => process.exit(code),
  (e: Error) => {
    const known = e instanceof NoCopy || e instanceof FolderTrouble || e instanceof FolderInUse
    console.error(known ? e.message : `This did not work: ${reason(e)}`)
    process.exit(1)
  },
)
