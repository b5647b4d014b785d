import { createHash } from 'node:crypto'
import { strToU8, unzipSync, zipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { Builder } from '../../acts/build.ts'
import { addPictures } from '../pictures/adding.ts'
import { packPiece, unpackPiece, type Packed } from './piece-file.ts'

const hash = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex').slice(0, 32)
/** The smallest picture that says it is one. */
const png = (width: number): Uint8Array => {
  const b = new Uint8Array(60)
  b.set([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, 0, 0, 0, 13])
  b.set(strToU8('IHDR'), 12)
  b.set([0, 0, 0, width, 0, 0, 0, 9], 16)
  return b
}

function pictured(): Packed {
  const b = new Builder('Kiosk', 9)
  const all = [png(20), png(30)]
  const taken = all.map((bytes, k) => ({
    name: `layer ${k}`,
    hash: hash(bytes),
    bytes: bytes.length,
    head: { type: 'image/png', width: 20, height: 9 } as const,
  }))
  b.do(addPictures(b.piece, taken).op)
  const first = Object.keys(b.piece.parts)[0]!
  b.drive(first, 'rotation', 'time * 45deg/s')
  return { piece: b.piece, pictures: new Map(all.map(bytes => [hash(bytes), bytes])) }
}

describe('a piece file', () => {
  it('gives back the same piece to the bit, pictures too, and is the same file each time', () => {
    const packed = pictured()
    const file = packPiece(packed)
    expect(packPiece(packed)).toEqual(file)
    const back = unpackPiece(file, hash) as Packed
    expect(JSON.stringify(back.piece)).toBe(JSON.stringify(packed.piece))
    expect([...back.pictures].map(([h, b]) => [h, [...b]])).toEqual([...packed.pictures].map(([h, b]) => [h, [...b]]))
  })

  it('may be plain JSON, alone or as the server gives it', () => {
    const { piece } = new Builder('Plain', 1)
    expect(unpackPiece(strToU8(JSON.stringify(piece)), hash)).toMatchObject({ piece: { title: 'Plain' } })
    expect(unpackPiece(strToU8(JSON.stringify({ id: 'x', document: piece })), hash)).toMatchObject({
      piece: { title: 'Plain' },
    })
  })

  it('takes only what belongs to it, and nothing that is not what it says', () => {
    const packed = pictured()
    const files = unzipSync(packPiece(packed))
    const [first] = [...packed.pictures.keys()]
    const again = (change: Record<string, Uint8Array>) => unpackPiece(zipSync({ ...files, ...change }), hash)
    expect(
      (again({ '../../etc/passwd': strToU8('x'), 'notes.html': strToU8('<script>') }) as Packed).pictures.size,
    ).toBe(2)
    expect(again({ [`pictures/${first}`]: png(77) })).toEqual({ says: `The picture ${first} in it is damaged.` })
    expect(again({ [`pictures/${first}`]: strToU8('<svg onload="x">'.repeat(9)) })).toMatchObject({
      says: expect.stringContaining('isn’t a PNG, JPEG or WebP') as string,
    })
    expect(again({ 'piece.json': strToU8('{"version":99}') })).toMatchObject({
      says: expect.stringContaining('newer Open Tide') as string,
    })
    const { [`pictures/${first}`]: _, ...rest } = files
    expect(unpackPiece(zipSync(rest), hash)).toEqual({ says: 'A picture of the piece is not in the file.' })
  })

  it('of which 2,000 were mutated is refused in a sentence, or sound', () => {
    const packed = pictured()
    const file = packPiece(packed)
    let seed = 7
    const random = (n: number) => (seed = (Math.imul(seed, 1103515245) + 12345) >>> 0) % n
    let [sound, refused] = [0, 0]
    for (let n = 0; n < 2000; n++) {
      let bytes = file.slice()
      const way = n % 4
      if (way === 0) bytes = bytes.slice(0, random(bytes.length))
      else if (way === 1) for (let k = 0; k <= random(12); k++) bytes[random(bytes.length)] = random(256)
      else if (way === 2) bytes.copyWithin(random(bytes.length), random(bytes.length), random(bytes.length))
      else {
        // The piece itself is changed, and packed again.
        const text = JSON.stringify(packed.piece)
        const at = random(text.length)
        const odd = ['"', '}', '[', '9e999', 'null', '-', '\\u0000', ''][random(8)]!
        bytes = zipSync({
          ...unzipSync(file),
          'piece.json': strToU8(text.slice(0, at) + odd + text.slice(at + random(9))),
        })
      }
      const read = unpackPiece(bytes, hash)
      if ('says' in read) {
        refused++
        expect(read.says).toMatch(/^[A-Z].{10,420}$/s)
      } else {
        sound++
        for (const [name, picture] of read.pictures) expect(hash(picture)).toBe(name)
      }
    }
    expect(refused).toBeGreaterThan(1000)
    expect(sound).toBeGreaterThan(5)
  })

  it('that says it is small and unpacks to a mountain is refused', () => {
    const bomb = zipSync({ 'piece.json': strToU8('{}') })
    // The size it unpacks to, as its directory tells it (APPNOTE 4.3.12).
    const at = Buffer.from(bomb).indexOf(Buffer.from([0x50, 0x4b, 1, 2]))
    new DataView(bomb.buffer, bomb.byteOffset).setUint32(at + 24, 200 * 1024 * 1024, true)
    expect(unpackPiece(bomb, hash)).toEqual({ says: 'This file contains more than a piece can hold.' })
  })
})
