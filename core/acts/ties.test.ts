import { describe, expect, it } from 'vitest'
import { Program } from '../engine/program.ts'
import { at, fair } from '../testing/fair.ts'
import { removeDrive } from './drives.ts'
import { apply } from '../piece/operation.ts'
import { setBase } from './parts.ts'
import { addTie, tieProblem } from './ties.ts'
import type { Piece } from '../piece/schema.ts'

const tied = (piece: Piece) =>
  apply(piece, addTie(piece, { a: 'p1.rotation', b: 'p4.rotation', ratio: -0.5, offset: 30 }))
const turn = (piece: Piece, key: string, t: number) => new Program(piece).slots.get(key)!.readers[0]!.at(at(t)) * 360

describe('a tie', () => {
  it('is one value with two faces: whichever is driven, the other follows', () => {
    const first = tied(fair('time * 45deg/s').piece)
    expect(turn(first, 'p4.rotation', 4)).toBeCloseTo(-0.5 * 180 + 30, 9)
    const { piece } = fair('0', { with: { 'Ticket arch.rotation': 'time * 45deg/s' } })
    const second = tied(apply(piece, removeDrive(piece, 'p1.rotation')))
    expect(turn(second, 'p1.rotation', 4)).toBeCloseTo((180 - 30) / -0.5, 9)
    expect(new Program(second).slots.get('p1.rotation')!.problems).toEqual([])
  })
  it('where none is driven, what is set on one is set on the other', () => {
    const { piece } = fair('0')
    let free = tied(apply(piece, removeDrive(piece, 'p1.rotation')))
    free = apply(free, setBase(free, 'p1', 'rotation', 20))
    expect(free.bases['p4.rotation']!.value).toBe(20)
    free = apply(free, setBase(free, 'p4', 'rotation', 0))
    expect(free.bases['p1.rotation']!.value).toBe(60)
  })
  it('runs through a whole group, of which only one may be driven', () => {
    const base = tied(fair('time * 45deg/s').piece)
    const more = apply(base, addTie(base, { a: 'p4.rotation', b: 'p6.rotation', ratio: 2, offset: 0 }))
    expect(turn(more, 'p6.rotation', 4)).toBeCloseTo(-120, 9)
    expect(tieProblem(more, 'p6.rotation', 'p1.rotation', 1)).toMatch(/already linked/)
    expect(tieProblem(more, 'p6.rotation', 'p6.rotation', 1)).toMatch(/itself/)
    expect(tieProblem(more, 'p6.rotation', 'p6.x', 1)).toMatch(/different units/)
    expect(tieProblem(more, 'p6.rotation', 'p2.rotation', 0)).toMatch(/can’t be 0/)
    const both = fair('time * 45deg/s', { with: { 'Flag.rotation': 'time * 9deg/s' } }).piece
    expect(tieProblem(both, 'p1.rotation', 'p3.rotation', 1)).toMatch(/only one side/)
    expect(tieProblem(both, 'p1.rotation', 'p4.rotation', 1)).toBeNull()
  })
})
