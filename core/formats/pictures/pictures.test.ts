import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { apply } from '../../piece/operation.ts'
import { readPiece } from '../../piece/migrate.ts'
import { emptyPiece } from '../../piece/schema.ts'
import { addPictures, type AddedPicture } from './adding.ts'
import { headOf, LARGEST_PICTURE } from './head.ts'

const bytes = (...all: (string | number[])[]) =>
  Uint8Array.from(all.flatMap(a => (typeof a === 'string' ? [...a].map(c => c.charCodeAt(0)) : a)))
const png = (w: number, h: number) =>
  bytes(
    [0x89],
    'PNG\r\n\x1a\n',
    [0, 0, 0, 13],
    'IHDR',
    [0, 0, w >> 8, w & 255, 0, 0, h >> 8, h & 255],
    Array(9).fill(0),
  )
const jpeg = (w: number, h: number) =>
  bytes(
    [0xff, 0xd8, 0xff, 0xe0, 0, 16],
    Array(14).fill(0),
    [0xff, 0xc2, 0, 17, 8, h >> 8, h & 255, w >> 8, w & 255],
    Array(12).fill(0),
  )
const webp = (kind: string, rest: number[]) => bytes('RIFF', [0, 0, 0, 0], 'WEBP', kind, [0, 0, 0, 0], rest)
const le = (n: number) => [n & 255, (n >> 8) & 255]

describe('the head of a picture', () => {
  it.each([
    ['PNG', png(640, 480)],
    ['JPEG', jpeg(640, 480)],
    ['WebP, extended', webp('VP8X', [0, 0, 0, 0, ...le(639), 0, ...le(479), 0])],
    ['WebP, lossy', webp('VP8 ', [0, 0, 0, 0, 0, 0, ...le(640), ...le(480)])],
    ['WebP, lossless', webp('VP8L', [0x2f, ...le((639 & 0x3fff) | ((479 & 3) << 14)), ...le(479 >> 2), 0, 0, 0, 0, 0])],
  ])('%s says its size', (_, b) => {
    expect(headOf(b)).toMatchObject({ width: 640, height: 480 })
  })
  it('what is none, empty, too large or too wide is said', () => {
    const says = (b: Uint8Array) => (headOf(b) as { says?: string }).says
    expect(says(new Uint8Array(0))).toContain('isn’t a PNG')
    expect(says(bytes('<svg onload="alert(1)">'))).toContain('isn’t a PNG')
    expect(says(png(0, 10))).toContain('no size')
    expect(says(png(9000, 10))).toContain('9000 × 10')
    expect(says(new Uint8Array(LARGEST_PICTURE + 1))).toContain('16 MB')
  })
  it('200 and more damaged ones are a head or a sentence, never a crash', () => {
    const good = [png(64, 48), jpeg(64, 48), webp('VP8X', [0, 0, 0, 0, ...le(63), 0, ...le(47), 0])]
    fc.assert(
      fc.property(
        fc.constantFrom(...good),
        fc.array(fc.tuple(fc.nat(60), fc.nat(255)), { maxLength: 12 }),
        fc.nat(60),
        (b, changes, cut) => {
          const hurt = b.slice(0, Math.max(0, b.length - cut))
          for (const [at, to] of changes) if (at < hurt.length) hurt[at] = to
          const read = headOf(hurt)
          if ('says' in read) expect(read.says.length).toBeGreaterThan(10)
          else expect(read.width > 0 && read.width <= 8192 && read.height > 0 && read.height <= 8192).toBe(true)
        },
      ),
      { numRuns: 2000 },
    )
  })
})

describe('pictures that become parts', () => {
  const taken = (name: string, width: number, height: number): AddedPicture => ({
    name,
    hash: name.replace(/\W/g, '').padEnd(32, '0').slice(0, 32),
    bytes: 1000,
    head: { type: 'image/png', width, height },
  })
  it('lie one on another as they were drawn, the first at the bottom, in one step', () => {
    const before = emptyPiece('Fan', 1)
    const { ids, op } = addPictures(before, [taken('a.png', 400, 300), taken('b.png', 400, 300)])
    const piece = apply(before, op)
    expect(readPiece(piece).problem).toBeNull()
    const [a, b] = ids.map(id => piece.parts[id]!)
    expect([a!.name, b!.name]).toEqual(['a', 'b'])
    expect(b!.order).toBeGreaterThan(a!.order)
    for (const id of ids) {
      expect([piece.bases[`${id}.width`]!.value, piece.bases[`${id}.height`]!.value]).toEqual([400, 300])
      expect(piece.bases[`${id}.x`]).toBeUndefined()
    }
    expect(Object.keys(piece.assets)).toHaveLength(2)
  })
  it('larger than the stage all are shrunk alike, and names are free', () => {
    const before = emptyPiece('Fan', 1)
    const { ids, op } = addPictures(before, [taken('big.jpg', 2560, 720), taken('big.png', 1280, 1440)])
    const piece = apply(before, op)
    const size = ids.map(id => [piece.bases[`${id}.width`]!.value, piece.bases[`${id}.height`]!.value])
    expect(size).toEqual([
      [1280, 360],
      [640, 720],
    ])
    expect(new Set(ids.map(id => piece.parts[id]!.name)).size).toBe(2)
  })
  it('whatever a file is called, the piece stays sound', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 90 }), name => {
        const before = emptyPiece('Fan', 1)
        expect(readPiece(apply(before, addPictures(before, [{ ...taken('x', 4, 4), name }]).op)).problem).toBeNull()
      }),
      { numRuns: 300 },
    )
  })
})
