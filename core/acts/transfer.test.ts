import { describe, expect, it } from 'vitest'
import { lanternPier } from '../../demo/lantern-pier.ts'
import { Program } from '../engine/program.ts'
import { apply } from '../piece/operation.ts'
import { readPiece } from '../piece/migrate.ts'
import { emptyPiece, type Piece } from '../piece/schema.ts'
import { at } from '../testing/fair.ts'
import { Builder } from './build.ts'
import { transferOf, pasteTransfer } from './transfer.ts'

const idOf = (piece: Piece, name: string) => Object.keys(piece.parts).find(id => piece.parts[id]!.name === name)!
const valueOf = (piece: Piece, name: string, property: string, s: number) => {
  const program = new Program(piece)
  const slot = program.slots.get(`${idOf(piece, name)}.${property}`)!
  expect(slot.problems).toEqual([])
  return slot.readers.map(r => r.at(at(s)))
}
const put = (into: Piece, from: Piece, names: string[]) => {
  const { ids, op } = pasteTransfer(
    into,
    transferOf(
      from,
      names.map(n => idOf(from, n)),
    ),
    null,
    'paste',
  )
  return { ids, piece: apply(into, op) }
}

describe('parts taken along', () => {
  it('stand in an empty piece as they stood, with what they carry and what their formulas read, and move the same', () => {
    const fair = lanternPier()
    const { piece, ids } = put(emptyPiece('Other', 9), fair, ['Carousel'])
    expect(readPiece(piece).problem).toBeNull()
    expect(ids.map(id => piece.parts[id]!.name)).toEqual(['Carousel'])
    expect(Object.values(piece.dials).map(d => d.name)).toContain('fairPace')
    expect(Object.keys(piece.parts).length).toBeGreaterThan(2)
    expect(valueOf(piece, 'Carousel', 'rotation', 3.3)).toEqual(valueOf(fair, 'Carousel', 'rotation', 3.3))
    expect(valueOf(piece, 'Mount', 'y', 3.3)).toEqual(valueOf(fair, 'Mount', 'y', 3.3))
  })
  it('what has the same name there is read there; a part with a name that is taken gets another, in formulas too', () => {
    const from = new Builder('From', 1)
    from.dial('pace', { value: 100 })
    from.signal('swing', 'sine(every: 2s, amp: 10deg) * pace')
    const lamp = from.part('Lamp', { type: 'ellipse' })
    const shade = from.part('Shade', { type: 'rectangle' }, { parent: lamp })
    from.drive(lamp, 'rotation', 'swing')
    from.drive(shade, 'rotation', 'lamp.rotation * -1')
    const to = new Builder('To', 2)
    to.dial('pace', { value: 50 })
    to.part('Lamp', { type: 'star', points: 5 })
    const { piece } = put(to.piece, from.piece, ['Lamp'])
    expect(readPiece(piece).problem).toBeNull()
    expect(Object.values(piece.dials)).toHaveLength(1)
    const drive = Object.values(piece.drives).find(d => d.text.includes('-1'))!
    expect(drive.text).toBe('Lamp2.rotation * -1')
    // With the dial that is there, half as far.
    expect(valueOf(piece, 'Lamp2', 'rotation', 0.5)[0]).toBeCloseTo(5 / 360, 12)
    expect(valueOf(piece, 'Shade', 'rotation', 0.5)[0]).toBeCloseTo(-5 / 360, 12)
  })
  it('clocks come with what they run on, traces follow the copy, pictures stay known', () => {
    const from = new Builder('From', 1)
    const slow = from.clock('slow', { way: { type: 'steady', rate: 0.5, ahead: 0 } })
    from.clock('slower', { on: slow, way: { type: 'steady', rate: 0.5, ahead: 0 } })
    const light = from.part('Light', { type: 'ellipse' })
    from.drive(light, 'x', 'time * 40px/s on slower')
    from.part('Trail', { type: 'trace', of: light, x: 0, y: 0, every: 10 })
    from.part('Blade', { type: 'picture', asset: 'abc' })
    from.piece = { ...from.piece, assets: { abc: { type: 'image/png', bytes: 9 } } }
    const { piece } = put(emptyPiece('To', 2), from.piece, ['Light', 'Trail', 'Blade'])
    expect(readPiece(piece).problem).toBeNull()
    expect(
      Object.values(piece.clocks)
        .map(c => c.name)
        .sort(),
    ).toEqual(['slow', 'slower'])
    const of = Object.values(piece.clocks).find(c => c.name === 'slower')!.on!
    expect(piece.clocks[of]!.name).toBe('slow')
    expect(valueOf(piece, 'Light', 'x', 4)[0]).toBeCloseTo(40, 9)
    const { shape } = piece.parts[idOf(piece, 'Trail')]!
    expect(shape.type === 'trace' && shape.of).toBe(idOf(piece, 'Light'))
    expect(piece.assets).toEqual({ abc: { type: 'image/png', bytes: 9 } })
  })
  it('every part of the fair alone is sound elsewhere, and again beside itself', () => {
    const fair = lanternPier()
    for (const id of Object.keys(fair.parts)) {
      const carried = transferOf(fair, [id])
      for (const into of [emptyPiece('Other', 4), fair]) {
        const { op } = pasteTransfer(into, carried, null, 'paste')
        expect(readPiece(apply(into, op)).problem, fair.parts[id]!.name).toBeNull()
      }
    }
  })
})
