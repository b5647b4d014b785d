import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { dailyCopy } from './backup'
import { FolderTrouble, copyNames, hasRoom } from './folder'
import { openDatabase } from './open'
import { createPiece, listPieces, newPiece } from './pieces'
import { migrationFiles } from './migration-files'

const root = mkdtempSync(join(tmpdir(), 'open-tide-folder-'))
const good = join(root, 'good')
afterAll(() => rmSync(root, { recursive: true, force: true }), 60000)

/** Every file with its size, below a folder. */
const listing = (at: string): string[] =>
  readdirSync(at, { recursive: true, withFileTypes: true })
    .filter(f => f.isFile())
    .map(f => join(f.parentPath, f.name))
    .filter(f => !/[/](lock|postmaster\.pid)/.test(f))
    .map(f => `${f.slice(at.length)} ${statSync(f).size}`)
    .sort()

beforeAll(async () => {
  const opened = await openDatabase(good, migrationFiles(), async db => {
    await createPiece(db, newPiece('Kept'), 'kept')
  })
  for (let day = 1; day <= 9; day++) await dailyCopy(opened.db, good, new Date(`2026-11-0${day}T08:00:00Z`))
  await opened.close()
}, 60000)

describe('the data folder', () => {
  it('keeps the copies of seven days', () => {
    expect(copyNames(good)).toEqual([3, 4, 5, 6, 7, 8, 9].map(d => `2026-11-0${d}.tide-backup`))
  })

  it('is the owner’s alone', () => {
    expect(statSync(good).mode & 0o077).toBe(0)
    for (const name of ['copies', 'open-tide-data']) expect(statSync(join(good, name)).mode & 0o077).toBe(0)
  })

  it('that holds other things is not touched', async () => {
    const other = join(root, 'other')
    mkdirSync(other)
    writeFileSync(join(other, 'thesis.txt'), 'mine')
    await expect(openDatabase(other, migrationFiles())).rejects.toThrow(
      /contains other files \(thesis.txt\) and wasn’t touched/,
    )
    expect(readdirSync(other)).toEqual(['thesis.txt'])
    const file = join(other, 'thesis.txt')
    await expect(openDatabase(file, migrationFiles())).rejects.toThrow(FolderTrouble)
    expect(readFileSync(file, 'utf8')).toBe('mine')
  })

  it('a database that was only begun is made anew, whole', async () => {
    const half = join(root, 'half')
    cpSync(good, half, { recursive: true })
    rmSync(join(half, 'database'), { recursive: true })
    mkdirSync(join(half, 'database.new/base'), { recursive: true })
    writeFileSync(join(half, 'database.new/PG_VERSION'), '17\n')
    const begun = await openDatabase(
      half,
      migrationFiles(),
      async db => void (await createPiece(db, newPiece('New'), 'new')),
    )
    expect((await listPieces(begun.db)).map(c => c.id)).toEqual(['new'])
    await begun.close()
    expect(existsSync(join(half, 'database.new'))).toBe(false)
  }, 60000)

  it('a new database is a copy of one that lies ready, with what that holds', async () => {
    const copied = join(root, 'copied')
    const begin = () => Promise.reject(new Error('made anew'))
    const opened = await openDatabase(copied, migrationFiles(), begin, join(good, 'database'))
    expect((await listPieces(opened.db)).map(c => c.id)).toEqual(['kept'])
    await createPiece(opened.db, newPiece('Another'), 'another')
    await opened.close()
    const again = await openDatabase(copied, migrationFiles(), begin, join(root, 'nothing there'))
    expect((await listPieces(again.db)).map(c => c.id).sort()).toEqual(['another', 'kept'])
    await again.close()
  }, 60000)

  it('a beginning that fails leaves nothing that looks like a database', async () => {
    const fails = join(root, 'fails')
    const begin = () => Promise.reject(new Error('no demo'))
    await expect(openDatabase(fails, migrationFiles(), begin)).rejects.toThrow('no demo')
    expect(existsSync(join(fails, 'database'))).toBe(false)
    expect(existsSync(join(fails, 'lock'))).toBe(false)
  }, 60000)

  it('room on a disk is told from its free space', () => {
    expect(hasRoom(root, 1000)).toBe(true)
    expect(hasRoom(root, 1e18)).toBe(false)
  })
})

describe('a damaged database', () => {
  const gone = (path: string) => (at: string) => rmSync(join(at, path), { recursive: true })
  const filled = (path: string) => (at: string) => writeFileSync(join(at, path), Buffer.alloc(8192, 0xa5))
  const emptied = (path: string) => (at: string) => writeFileSync(join(at, path), '')
  it.each([
    ['no version', gone('PG_VERSION')],
    ['no control file', gone('global/pg_control')],
    ['a spoilt control file', filled('global/pg_control')],
    ['an empty control file', emptied('global/pg_control')],
    ['no log', gone('pg_wal')],
    ['no tables', gone('base')],
    ['no global tables', gone('global')],
    ['another version', (at: string) => writeFileSync(join(at, 'PG_VERSION'), '9.6\n')],
    ['a spoilt map', filled('global/pg_filenode.map')],
    [
      'an empty log',
      (at: string) =>
        readdirSync(join(at, 'pg_wal'))
          .filter(f => /^0/.test(f))
          .forEach(f => writeFileSync(join(at, 'pg_wal', f), '')),
    ],
  ] as const)(
    'with %s is told, left as it is, and the last copy named',
    async (name, damage) => {
      const folder = join(root, name.replaceAll(' ', '-'))
      cpSync(good, folder, { recursive: true })
      damage(join(folder, 'database'))
      const before = listing(folder)
      const says = await openDatabase(folder, migrationFiles()).then(
        async opened => {
          // What it could mend by itself has to be all there.
          expect((await listPieces(opened.db)).map(c => c.id)).toEqual(['kept'])
          await opened.close()
          return null
        },
        (e: Error) => {
          expect(e).toBeInstanceOf(FolderTrouble)
          return e.message
        },
      )
      if (says === null) return
      expect(says).toMatch(/couldn’t be opened.*wasn’t changed.*2026-11-09\.tide-backup.*open-tide restore/)
      expect(says).not.toMatch(/Aborted\(\)|undefined/)
      expect(existsSync(join(folder, 'lock'))).toBe(false)
      if (name.startsWith('no ')) expect(listing(folder)).toEqual(before)
    },
    60000,
  )
})
