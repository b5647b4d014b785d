import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { lanternPier } from '../../demo/lantern-pier.ts'
import { hashOf, keepAsset, picturesIn, readAsset } from './assets'
import { NoCopy, backup, restore } from './backup'
import { seedDemo } from './demo'
import type { Opened } from './open'
import { pack, packOld, unpack } from './packed'
import {
  createPiece,
  firstCharacters,
  deletePiece,
  freeTitle,
  listPieces,
  listVersions,
  newPiece,
  readStored,
  readVersion,
  restorePiece,
  retitle,
  savePiece,
} from './pieces'
import { pieces, revisions } from './schema'
import { DATABASES } from './testing'
import { thin } from './thinning'

describe.each(['embedded', 'server'] as const)('pieces in the database (%s)', kind => {
  let opened: Opened
  let asked = 0
  beforeAll(async () => {
    opened = await DATABASES[kind](db =>
      seedDemo(db, async () => {
        asked++
        return { 'lantern-pier': JSON.parse(JSON.stringify(lanternPier())) }
      }),
    )
  }, 60000)
  afterAll(() => opened.close())

  it('begin with the demo, once', async () => {
    const { db } = opened
    await seedDemo(db, async () => Promise.reject(new Error('asked twice')))
    expect(asked).toBe(1)
    expect((await listPieces(db)).map(c => [c.id, c.title, c.revision])).toEqual([['lantern-pier', 'Lantern Pier', 1]])
    expect((await readStored(db, 'lantern-pier'))!.document).toEqual(lanternPier())
  })

  it('are saved from their newest revision only; a stale one is kept aside', async () => {
    const { db } = opened
    const { id, document } = await createPiece(db, newPiece('Swing tower'))
    const named = (title: string) => ({ ...document, title })
    expect(await savePiece(db, id, 1, named('one'))).toEqual({ saved: true, revision: 2 })
    expect(await savePiece(db, id, 1, named('two'))).toEqual({ saved: false, newest: 2 })
    expect((await readStored(db, id))!.document.title).toBe('one')
    const kept = (await db.select().from(revisions)).filter(r => r.piece === id)
    expect(kept.map(r => [r.revision, r.state, unpack(r.packed!).title])).toEqual([
      [1, 'saved', 'Swing tower'],
      [2, 'saved', 'one'],
      [1, 'refused', 'two'],
    ])
    expect(await savePiece(db, 'nowhere', 1, document)).toEqual({ saved: false, newest: null })
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

  it('a save that is sent again is known by its name', async () => {
    const { db } = opened
    const { id, document } = await createPiece(db, newPiece('Ring toss'))
    const named = (title: string) => ({ ...document, title })
    expect(await savePiece(db, id, 1, named('one'), 'a')).toEqual({ saved: true, revision: 2 })
    expect(await savePiece(db, id, 1, named('one'), 'a')).toEqual({ saved: true, revision: 2 })
    expect(await savePiece(db, id, 1, named('two'), 'b')).toEqual({ saved: false, newest: 2 })
    expect(await savePiece(db, id, 1, named('two'), 'b')).toEqual({ saved: false, newest: 2 })
    expect(await savePiece(db, id, 2, named('three'), 'c')).toEqual({ saved: true, revision: 3 })
    expect((await listVersions(db, id))!.map(x => [x.revision, x.state])).toEqual([
      [3, 'saved'],
      [1, 'refused'],
      [2, 'saved'],
      [1, 'saved'],
    ])
    const refused = (await listVersions(db, id))![1]!
    expect((await readVersion(db, id, refused.version))!.title).toBe('two')
    expect(await readVersion(db, 'lantern-pier', refused.version)).toBeNull()
    expect(await listVersions(db, 'nowhere')).toBeNull()
  })

  it('a save to a deleted piece is kept, and says that it was deleted', async () => {
    const { db } = opened
    const { id, document } = await createPiece(db, newPiece('Shooting gallery'))
    await deletePiece(db, id)
    expect(await savePiece(db, id, 1, document, 'late')).toEqual({ saved: false, newest: null })
    await restorePiece(db, id)
    expect((await listVersions(db, id))!.map(x => x.state)).toEqual(['refused', 'saved'])
  })

  it('long titles make room for the number of a copy', async () => {
    const { db } = opened
    const title = 'x'.repeat(120)
    await createPiece(db, newPiece(title))
    const next = await freeTitle(db, title)
    expect(next).toBe(`${'x'.repeat(118)} 2`)
    expect(firstCharacters('ab😀', 3)).toBe('ab')
  })

  it('what the first Open Tide kept unpacked is packed, as it was', async () => {
    const { db } = opened
    const document = newPiece('From before')
    await db.insert(pieces).values({ id: 'old', title: 'From before', document, revision: 1 })
    await db.insert(revisions).values({ piece: 'old', revision: 1, document, state: 'saved' })
    await packOld(db)
    expect((await readStored(db, 'old'))!.document).toEqual(document)
    expect(await readVersion(db, 'old', (await listVersions(db, 'old'))![0]!.version)).toEqual(document)
    const [row] = await db.select().from(pieces).where(eq(pieces.id, 'old'))
    expect(row!.document).toBeNull()
  })

  it('states thin out with age: all of ten minutes, one a minute, an hour, a day', async () => {
    const { db } = opened
    const { id, document } = await createPiece(db, newPiece('Thinned'))
    const packed = pack(document)
    await db.delete(revisions).where(eq(revisions.piece, id))
    const [second, minute, hour, day] = [1000, 60_000, 3_600_000, 86_400_000]
    const whole = (unit: number, ago: number) => Math.floor(Date.now() / unit) * unit - ago
    const states = [
      [1, 'saved', whole(day, 5 * day) + 12 * hour],
      [2, 'saved', whole(day, 5 * day) + 13 * hour],
      [3, 'refused', whole(hour, 5 * hour) + 10 * minute],
      [4, 'saved', whole(hour, 5 * hour) + 20 * minute],
      [5, 'refused', whole(hour, 5 * hour) + 30 * minute],
      [6, 'saved', whole(hour, 5 * hour) + 40 * minute],
      [7, 'saved', whole(minute, 30 * minute) + 10 * second],
      [8, 'saved', whole(minute, 30 * minute) + 20 * second],
      [9, 'saved', Date.now() - 70 * second],
      [10, 'saved', Date.now() - 69 * second],
    ] as const
    for (const [revision, state, at] of states)
      await db.insert(revisions).values({ piece: id, revision, packed, state, at: new Date(at) })
    const left = async () => (await listVersions(db, id))!.map(v => v.revision).reverse()
    await thin(db, id)
    expect(await left()).toEqual([2, 5, 6, 8, 9, 10])
    await thin(db, id)
    expect(await left()).toEqual([2, 5, 6, 8, 9, 10])
  })

  it('pictures are kept once, by what they hold; what is none is refused, and stills carry those that are shown', async () => {
    const { db } = opened
    const png = readFileSync('docs/screenshots/new-piece.png')
    const [one, two] = [await keepAsset(db, png), await keepAsset(db, png)]
    expect(one).toEqual({ hash: hashOf(png) })
    expect(two).toEqual(one)
    expect(await keepAsset(db, Buffer.from('<svg onload="x()"/>'))).toMatchObject({
      says: expect.stringContaining('isn’t a PNG'),
    })
    expect(await readAsset(db, 'nothing')).toBeNull()
    const shown = await picturesIn(db, `{"asset":"${hashOf(png)}"},{"asset":"gone"}`)
    expect(shown).toEqual([[hashOf(png), `data:image/png;base64,${png.toString('base64')}`]])
  })

  it('a copy of everything comes back whole, into an empty database too', async () => {
    const { db } = opened
    const picture = readFileSync('docs/screenshots/scope.png')
    const { hash } = (await keepAsset(db, picture)) as { hash: string }
    const file = join(mkdtempSync(join(tmpdir(), 'open-tide-copy-')), 'all')
    await backup(db, file)
    const cards = await listPieces(db)
    const versions = (await listVersions(db, 'lantern-pier'))!.length
    await createPiece(db, newPiece('Made after'))
    expect(await restore(db, readFileSync(file))).toBeGreaterThanOrEqual(cards.length)
    expect(await listPieces(db)).toEqual(cards)
    expect((await listVersions(db, 'lantern-pier'))!.length).toBe(versions)
    const other = await DATABASES.embedded()
    await restore(other.db, readFileSync(file))
    expect(await listPieces(other.db)).toEqual(cards)
    expect((await readStored(other.db, 'lantern-pier'))!.document).toEqual(lanternPier())
    expect(Buffer.from((await readAsset(other.db, hash))!.bytes).equals(picture)).toBe(true)
    await other.close()
    // Cut short or changed it is refused, and nothing is lost.
    const whole = readFileSync(file)
    for (const bad of [
      whole.subarray(0, whole.length - 30),
      whole.subarray(0, 40),
      Buffer.from('no copy'),
      Buffer.alloc(0),
    ])
      await expect(restore(db, bad)).rejects.toThrow(NoCopy)
    expect(await listPieces(db)).toEqual(cards)
    rmSync(dirname(file), { recursive: true })
  }, 60000)
})
