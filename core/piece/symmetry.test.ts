import { describe, expect, it } from 'vitest'
import { Builder } from '../acts/build.ts'
import { setBase, setPart } from '../acts/parts.ts'
import { Program } from '../engine/program.ts'
import { reportOf } from '../insight/report.ts'
import { symmetryIn } from './symmetry.ts'
import type { Part, Shape } from './schema.ts'

const HEXAGON: Shape = { type: 'polygon', sides: 6 }
function part(shape: Shape, given: Partial<Part> = {}, bases: Record<string, number> = {}) {
  const b = new Builder('Symmetry', 1)
  const id = b.part('Part', shape, given, bases)
  return { b, id, of: () => symmetryIn(b.piece, id) }
}

describe('symmetry', () => {
  it.each([
    [HEXAGON, {}, {}, 6],
    [HEXAGON, { pivot: { x: 0, y: -60 } }, {}, 1],
    [HEXAGON, {}, { gradient: 50 }, 1],
    [HEXAGON, { gradientFrame: 'stage' as const }, { gradient: 50 }, 6],
    [HEXAGON, {}, { scaleX: 150 }, 2],
    [HEXAGON, {}, { lineEnd: 60 }, 1],
    [HEXAGON, {}, { dash: 12 }, 1],
    [{ type: 'rectangle' } as const, {}, { width: 120, height: 40 }, 2],
    [{ type: 'rectangle' } as const, {}, { width: 90, height: 90 }, 4],
    [{ type: 'rectangle' } as const, { pivot: { x: -60, y: 0 } }, {}, 1],
    [{ type: 'star', points: 5 } as const, {}, { scaleY: 50 }, 1],
    [{ type: 'gear', teeth: 12, spokes: 8, module: 4 } as const, {}, {}, 4],
  ])('of %j with %j and %j is %d', (shape, given, bases, turns) => {
    expect(part(shape, given, bases).of()).toMatchObject({ turns, typed: false })
  })
  it('goes with a child, and comes back with it hidden', () => {
    const { b, id, of } = part(HEXAGON)
    const child = b.part('Flag', { type: 'line' }, { parent: id })
    expect(of()).toMatchObject({ turns: 1, because: 'it has children' })
    b.do(setPart(b.piece, child, { hidden: true }))
    expect(of().turns).toBe(6)
  })
  it('that was typed is kept, whatever changes', () => {
    const { b, id, of } = part(HEXAGON)
    b.do(setPart(b.piece, id, { symmetry: 3, symmetryTyped: true }))
    b.do(setPart(b.piece, id, { pivot: { x: 9, y: 0 } }))
    b.do(setBase(b.piece, id, 'gradient', 80))
    expect(of()).toEqual({ turns: 3, because: '', typed: true })
  })
  it('decides what is said of the lap', () => {
    const closes = (given: Partial<Part>) => {
      const { b, id } = part(HEXAGON, given)
      b.drive(id, 'rotation', 'time * 9deg/s')
      const program = new Program(b.piece)
      return reportOf(program, program.slots.get(`${id}.rotation`)!).closes
    }
    expect(closes({})).toBe('12.0° off at the loop point')
    expect(closes({ pivot: { x: 0, y: -60 } })).toBe('72.0° off at the loop point')
  })
})
