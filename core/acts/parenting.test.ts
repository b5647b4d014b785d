import { describe, expect, it } from 'vitest'
import { apply, inverse } from '../piece/operation.ts'
import { readPiece } from '../piece/migrate.ts'
import { Builder } from './build.ts'
import { hangOn, mayHangOn, moveAmong, moveBeside, partsListed } from './parenting.ts'

const b = new Builder('Hanging', 1)
const wheel = b.part('Wheel', { type: 'group' })
const seat = b.part('Seat', { type: 'rectangle' })
const lamp = b.part('Lamp', { type: 'ellipse' }, { parent: seat })
const { piece } = b
const names = (p: typeof piece) => partsListed(p).map(l => `${'-'.repeat(l.depth)}${p.parts[l.id]!.name}`)

describe('all parts in a list', () => {
  it('what lies above comes first, each with what it carries', () => {
    expect(names(piece)).toEqual(['Seat', '-Lamp', 'Wheel'])
  })
  it('a group is filled, and what it got can be taken out again', () => {
    const filled = apply(piece, hangOn(piece, seat, wheel))
    expect(names(filled)).toEqual(['Wheel', '-Seat', '--Lamp'])
    expect(names(apply(filled, hangOn(filled, lamp, null)))).toEqual(['Lamp', 'Wheel', '-Seat'])
    expect(readPiece(filled).problem).toBeNull()
    expect(apply(filled, inverse(piece, hangOn(piece, seat, wheel)))).toEqual(piece)
  })
  it('nothing hangs on what it carries itself', () => {
    expect(mayHangOn(piece, seat)).toEqual([wheel])
    expect(mayHangOn(piece, lamp)).toEqual([seat, wheel])
  })
  it('goes up and down among those beside it', () => {
    const up = apply(piece, moveAmong(piece, wheel, 1)!)
    expect(names(up)).toEqual(['Wheel', 'Seat', '-Lamp'])
    expect(names(apply(up, moveAmong(up, wheel, -1)!))).toEqual(names(piece))
    expect(moveAmong(piece, seat, 1)).toBeNull()
    expect(moveAmong(piece, wheel, -1)).toBeNull()
  })
  it('also where two had the same place', () => {
    const same = { ...piece, parts: { ...piece.parts, [seat]: { ...piece.parts[seat]!, order: 1 } } }
    const first = partsListed(same)[0]!.id
    const moved = apply(same, moveAmong(same, first, -1)!)
    expect(partsListed(moved)[0]!.id).not.toBe(first)
  })
  it('a part is put directly above or below another, beside it, and never on itself', () => {
    const put = (id: string, other: string, above: boolean) => {
      const op = moveBeside(piece, id, other, above)
      if (!op) return null
      const next = apply(piece, op)
      expect(readPiece(next).problem).toBeNull()
      expect(apply(next, inverse(piece, op))).toEqual(piece)
      return names(next)
    }
    expect(put(wheel, seat, true)).toEqual(['Wheel', 'Seat', '-Lamp'])
    expect(put(wheel, lamp, true)).toEqual(['Seat', '-Wheel', '-Lamp'])
    expect(put(wheel, lamp, false)).toEqual(['Seat', '-Lamp', '-Wheel'])
    expect(put(lamp, wheel, false)).toEqual(['Seat', 'Wheel', 'Lamp'])
    expect(put(seat, lamp, true)).toBeNull()
    expect(put(seat, seat, true)).toBeNull()
  })
})
