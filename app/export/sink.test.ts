import { describe, expect, it } from 'vitest'
import { Appending, InMemory } from './sink.ts'

const bytes = (...all: number[]) => Uint8Array.from(all)
const held = async (file: Blob) => [...new Uint8Array(await file.arrayBuffer())]

describe('a file in memory', () => {
  it('holds what was put at its places, also where something is put again', async () => {
    const file = new InMemory()
    file.write(bytes(1, 2, 3), 2)
    file.write(bytes(9), 0)
    file.write(bytes(7), 3)
    expect(await held(file.file)).toEqual([9, 0, 1, 7, 3])
  })
  it('grows as far as it is written, and keeps what it was given although that is used again', async () => {
    const file = new InMemory()
    const out = new Appending(file)
    const piece = new Uint8Array(700_000)
    for (let k = 1; k <= 4; k++) await out.write(piece.fill(k))
    const all = new Uint8Array(await file.file.arrayBuffer())
    expect(all.length).toBe(2_800_000)
    expect([0, 699_999, 700_000, 2_099_999, 2_799_999].map(i => all[i])).toEqual([1, 1, 2, 3, 4])
  })
})
