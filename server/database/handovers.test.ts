import { randomBytes } from 'node:crypto'
import { inArray } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { lanternPier } from '../../demo/lantern-pier.ts'
import { sharedPiece } from '../../core/acts/shared-piece.ts'
import { shipped } from '../../core/acts/shipped.ts'
import { newDevice } from '../../core/piece/device.ts'
import { backup, restore } from './backup'
import { keepDevice, readDevice } from './devices'
import { handOver, handoversOf, hashOfToken, mayShow, received, tune, withdraw } from './handovers'
import type { Opened } from './open'
import { dropPattern, keepPattern, listPatterns, retitlePattern } from './patterns'
import { createPiece, deletePiece, listDeleted, listPieces, moveTo, restorePiece, takeIn } from './pieces'
import { DATABASES } from './testing'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { hashOf, readAsset } from './assets'
import { handovers } from './schema'

describe.each(['embedded', 'server'] as const)('what is handed over (%s)', kind => {
  let opened: Opened
  const piece = lanternPier()
  const pace = Object.entries(piece.dials).find(([, d]) => d.name === 'fairPace')![0]
  const wind = Object.entries(piece.dials).find(([, d]) => d.name === 'wind')![0]
  const lent = [{ dial: pace, says: 'Pace', low: 60, high: 120 }]
  const making = { lent, formats: ['png'], until: null }
  beforeAll(async () => {
    opened = await DATABASES[kind](async db => void (await createPiece(db, piece, 'pier')))
  }, 60000)
  afterAll(() => opened.close())

  it('is the piece as it stood, under a token of 128 bits of which the hash alone is kept', async () => {
    const { db } = opened
    const tokens = await Promise.all(Array.from({ length: 8 }, () => handOver(db, 'pier', piece, making)))
    expect(new Set(tokens).size).toBe(8)
    for (const t of tokens) expect(Buffer.from(t, 'base64url')).toHaveLength(16)
    const rows = await db.select().from(handovers)
    for (const t of tokens) expect(JSON.stringify({ ...rows, packed: null })).not.toContain(t)
    expect(await received(db, tokens[3]!)).toEqual({
      document: sharedPiece(piece, lent),
      lent,
      formats: ['png'],
      tuned: {},
    })
  })

  it('opens to no made-up token: 10,000 at random, cut ones, those of others turned about', async () => {
    const { db } = opened
    const token = await handOver(db, 'pier', piece, making)
    const made = () => randomBytes(16).toString('base64url')
    for (let k = 0; k < 300; k++) expect(await received(db, made())).toBeNull()
    // What is looked up is the hash; of the rest, all are looked up together.
    const hashes = Array.from({ length: 9700 }, () => hashOfToken(made()))
    expect(await db.select().from(handovers).where(inArray(handovers.hash, hashes))).toEqual([])
    expect(
      await db
        .select()
        .from(handovers)
        .where(inArray(handovers.hash, [hashOfToken(token)])),
    ).toHaveLength(1)
    for (const odd of [
      '',
      token.slice(1),
      `${token}A`,
      token.toUpperCase(),
      token.split('').reverse().join(''),
      "' or 1=1 --",
      '%',
      '\0',
    ])
      if (odd !== token) expect(await received(db, odd)).toBeNull()
    expect(await received(db, token)).not.toBeNull()
  }, 60000)

  it('keeps what is tuned within the locks: all of it or nothing', async () => {
    const { db } = opened
    const token = await handOver(db, 'pier', piece, making)
    expect(await tune(db, token, { [pace]: 75 })).toEqual({ tuned: { [pace]: 75 } })
    for (const wrong of [
      { [pace]: 59.9 },
      { [pace]: 120.1 },
      { [wind]: 3 },
      { [pace]: 80, [wind]: 3 },
      { constructor: 1 },
      { toString: 1 },
    ])
      expect(await tune(db, token, wrong as Record<string, number>)).toHaveProperty('says')
    expect((await received(db, token))!.tuned).toEqual({ [pace]: 75 })
    expect(await tune(db, token, {})).toEqual({ tuned: {} })
    expect(await tune(db, 'x'.repeat(22), {})).toBeNull()
  })

  it('is over when its day is, when it is withdrawn, while its piece is deleted; its pictures too', async () => {
    const { db } = opened
    const over = await handOver(db, 'pier', piece, { ...making, until: new Date(Date.now() - 1000) })
    expect(await received(db, over)).toBeNull()
    const token = await handOver(db, 'pier', piece, { ...making, until: new Date(Date.now() + 60_000) })
    expect(await received(db, token)).not.toBeNull()
    await deletePiece(db, 'pier')
    expect(await received(db, token)).toBeNull()
    await restorePiece(db, 'pier')
    const [newest] = await handoversOf(db, 'pier')
    expect(await withdraw(db, 'another', newest!.id)).toBe(false)
    expect(await withdraw(db, 'pier', newest!.id)).toBe(true)
    expect(await withdraw(db, 'pier', newest!.id)).toBe(false)
    expect([await received(db, token), await tune(db, token, {}), await mayShow(db, token, '0'.repeat(32))]).toEqual([
      null,
      null,
      false,
    ])
  })

  it('patterns, devices, folders and hand-overs are in the copy of all', async () => {
    const { db } = opened
    const id = (await keepPattern(db, shipped('Blink')))!
    expect(await retitlePattern(db, id, 'Wink')).toBe(true)
    await keepDevice(db, 'pier', { ...newDevice(), rate: 77 })
    expect((await readDevice(db, 'nothing')).rate).toBe(30)
    expect(await moveTo(db, 'pier', 'North')).toBe(true)
    const token = await handOver(db, 'pier', piece, making)
    await tune(db, token, { [pace]: 99 })
    const folder = mkdtempSync(join(tmpdir(), 'open-tide-copy-'))
    try {
      await backup(db, join(folder, 'all'))
      const other = await DATABASES.embedded()
      await restore(other.db, readFileSync(join(folder, 'all')))
      expect((await received(other.db, token))!.tuned).toEqual({ [pace]: 99 })
      expect((await listPatterns(other.db)).map(p => p.document.title)).toEqual(['Wink'])
      expect((await listPieces(other.db))[0]!.folder).toBe('North')
      expect((await readDevice(other.db, 'pier')).rate).toBe(77)
      // It can be handed over again there.
      await handOver(other.db, 'pier', piece, making)
      await other.close()
    } finally {
      rmSync(folder, { recursive: true })
    }
    expect(await dropPattern(db, id)).toBe(true)
    expect(await dropPattern(db, id)).toBe(false)
  }, 60000)

  it('a piece file is taken in whole: the piece with its pictures, or nothing', async () => {
    const { db } = opened
    const png = readFileSync('docs/screenshots/new-piece.png')
    const before = (await listPieces(db)).length
    const made = await takeIn(db, { piece, pictures: new Map([[hashOf(png), png]]) })
    expect(made.document.title).toBe('Lantern Pier 2')
    expect(await readAsset(db, hashOf(png))).not.toBeNull()
    const cut = () => {
      throw new Error('cut')
    }
    const broken = { piece: { ...piece, title: 'Broken', toJSON: cut }, pictures: new Map([['bad', png]]) }
    await expect(takeIn(db, broken)).rejects.toThrow('cut')
    expect(await readAsset(db, 'bad')).toBeNull()
    expect((await listPieces(db)).length).toBe(before + 1)
    await deletePiece(db, made.id)
    expect((await listDeleted(db)).map(c => c.id)).toEqual([made.id])
  })
})
