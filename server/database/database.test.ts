import { execFileSync, spawn } from 'node:child_process'
import { mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { lanternPier } from '../../demo/lantern-pier.ts'
import { FolderInUse, takeLock } from './lock'
import { seedDemo } from './demo'
import { openDatabase, type Opened } from './open'
import {
  createPiece,
  deletePiece,
  freeTitle,
  listPieces,
  newPiece,
  readStored,
  restorePiece,
  retitle,
  savePiece,
} from './pieces'
import { revisions } from './schema'

const folder = mkdtempSync(join(tmpdir(), 'open-tide-test-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

function migrations(): Record<string, string> {
  const root = new URL('./migrations/', import.meta.url)
  const files = (at: string): string[] =>
    readdirSync(new URL(at, root), { withFileTypes: true }).flatMap(f =>
      f.isDirectory() ? files(`${at}${f.name}/`) : [at + f.name],
    )
  return Object.fromEntries(files('./').map(f => [f.slice(2), readFileSync(new URL(f, root), 'utf8')]))
}

describe('the lock on a data folder', () => {
  const lock = join(folder, 'locked')
  it('is held by one and given back', () => {
    const release = takeLock(lock)
    expect(() => takeLock(lock)).toThrow(FolderInUse)
    expect(() => takeLock(lock)).toThrow(`in use by another Open Tide (process ${process.pid})`)
    release()
    takeLock(lock)()
  })
  it('of a process that is gone is taken over', () => {
    const gone = Number(execFileSync(process.execPath, ['-e', 'console.log(process.pid)']).toString())
    writeFileSync(join(lock, 'lock'), `${gone} 12345\n`)
    takeLock(lock)()
    // The same number, but another process by now.
    writeFileSync(join(lock, 'lock'), `${process.pid} 1\n`)
    takeLock(lock)()
  })
  it('is given to one of many that start at once', async () => {
    const race = join(folder, 'race')
    mkdirSync(race)
    writeFileSync(join(race, 'lock'), '999999999 1\n')
    const script = [
      `import { takeLock } from ${JSON.stringify(new URL('./lock.ts', import.meta.url).pathname)}`,
      `try { takeLock(${JSON.stringify(race)}); process.stdout.write('got'); setTimeout(() => {}, 2500) }`,
      `catch { process.stdout.write('no') }`,
    ].join('\n')
    const jiti = new URL('../../node_modules/jiti/lib/jiti-cli.mjs', import.meta.url).pathname
    const file = join(folder, 'race.ts')
    writeFileSync(file, script)
    const answers = await Promise.all(
      Array.from(
        { length: 4 },
        () =>
          new Promise<string>(resolve => {
            let said = ''
            const child = spawn(process.execPath, [jiti, file], { stdio: ['ignore', 'pipe', 'ignore'] })
            child.stdout.on('data', d => (said += d))
            child.on('exit', () => resolve(said))
          }),
      ),
    )
    expect(answers.filter(a => a === 'got')).toHaveLength(1)
  })
})

describe('pieces in the database', () => {
  let opened: Opened
  beforeAll(async () => {
    opened = await openDatabase(join(folder, 'data'), migrations())
  }, 60000)
  afterAll(() => opened.close())

  it('begin with the demo, once', async () => {
    const { db } = opened
    await seedDemo(db, async () => ({ 'lantern-pier': JSON.parse(JSON.stringify(lanternPier())) }))
    await seedDemo(db, async () => Promise.reject(new Error('asked twice')))
    expect((await listPieces(db)).map(c => [c.id, c.title, c.revision])).toEqual([['lantern-pier', 'Lantern Pier', 1]])
    expect((await readStored(db, 'lantern-pier'))!.document).toEqual(lanternPier())
  })

  it('are saved from their newest revision only; a stale one is kept aside', async () => {
    const { db } = opened
    const { id, document } = await createPiece(db, newPiece('Swing tower'))
    const named = (title: string) => ({ ...document, title })
    expect(await savePiece(db, id, 1, named('one'))).toEqual({ saved: true, revision: 2 })
    expect(await savePiece(db, id, 1, named('two'))).toEqual({ saved: false, revision: 2 })
    expect((await readStored(db, id))!.document.title).toBe('one')
    const kept = (await db.select().from(revisions)).filter(r => r.piece === id)
    expect(kept.map(r => [r.revision, r.state, r.document.title])).toEqual([
      [1, 'saved', 'Swing tower'],
      [2, 'saved', 'one'],
      [1, 'refused', 'two'],
    ])
    expect(await savePiece(db, 'nowhere', 1, document)).toEqual({ saved: false, revision: null })
  })

  it('two saves at once from one revision: one is taken', async () => {
    const { db } = opened
    const { id, document } = await createPiece(db, newPiece('Duck basin'))
    const saves = await Promise.all([1, 2, 3].map(n => savePiece(db, id, 1, { ...document, title: `duck ${n}` })))
    expect(saves.filter(s => s.saved)).toHaveLength(1)
  })

  it('are renamed, deleted and brought back', async () => {
    const { db } = opened
    const { id } = await createPiece(db, newPiece('Tombola'))
    expect(await retitle(db, id, 'Tombola drum')).toEqual({ saved: true, revision: 2 })
    expect(await freeTitle(db, 'Tombola drum')).toBe('Tombola drum 2')
    expect(await deletePiece(db, id)).toBe(true)
    expect(await readStored(db, id)).toBeNull()
    expect(await deletePiece(db, id)).toBe(false)
    expect(await restorePiece(db, id)).toBe(true)
    expect((await readStored(db, id))!.document.title).toBe('Tombola drum')
    expect(await restorePiece(db, id)).toBe(false)
  })

  it('old saves thin out, and the newest stays', async () => {
    const { db } = opened
    const { id, document } = await createPiece(db, newPiece('Paper petals'))
    for (let n = 1; n < 45; n++) await savePiece(db, id, n, { ...document, title: `petal ${n}` })
    expect((await readStored(db, id))!.revision).toBe(45)
  })

  it('a second server on the same folder is refused', async () => {
    await expect(openDatabase(join(folder, 'data'), migrations())).rejects.toThrow(/in use by another Open Tide/)
  })
})
