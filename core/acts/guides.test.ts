import { MOST_GUIDES } from '../piece/schema.ts'
import { describe, expect, it } from 'vitest'
import { apply, inverse } from '../piece/operation.ts'
import { readPiece } from '../piece/migrate.ts'
import { Builder } from './build.ts'
import { dropGuide, guidesOf, isRuled, layGuide, rule, moveGuide, setGrid } from './guides.ts'

const { piece } = new Builder('Guides', 1)

describe('guides of one’s own', () => {
  it('are laid, moved and taken away, shown from the first on, and undone', () => {
    const op = layGuide(piece, 'x', 120)!
    const one = apply(piece, op)
    expect([one.stage.guides, guidesOf(one)]).toEqual([true, { x: [120], y: [] }])
    expect(apply(one, inverse(piece, op))).toEqual(piece)
    const two = apply(one, layGuide(one, 'y', -60.5)!)
    expect(guidesOf(apply(two, moveGuide(two, 'x', 0, -8)))).toEqual({ x: [-8], y: [-60.5] })
    expect(guidesOf(apply(two, dropGuide(two, 'x', 0)))).toEqual({ x: [], y: [-60.5] })
    expect(two.stage.width).toBe(piece.stage.width)
  })
  it('are a hundred either way at most', () => {
    let full = piece
    for (let k = 0; k < MOST_GUIDES; k++) full = apply(full, layGuide(full, 'y', k)!)
    expect(layGuide(full, 'y', 1)).toBeNull()
    expect(layGuide(full, 'x', 1)).not.toBeNull()
    expect(readPiece(full).problem).toBeNull()
    const over = { ...full, stage: { ...full.stage, ownGuides: { x: [], y: [...guidesOf(full).y, 1] } } }
    expect(readPiece(over).problem).toContain('100 guides')
  })
  it('all that is ruled is switched on and off', () => {
    for (const what of ['guides', 'rulers', 'grid'] as const) {
      const on = apply(piece, rule(piece, what, true))
      expect([isRuled(piece, what), isRuled(on, what), isRuled(apply(on, rule(on, what, false)), what)]).toEqual([
        false,
        true,
        false,
      ])
    }
  })
  it('a grid is so wide, or none is said', () => {
    const ruled = apply(piece, setGrid(piece, 25))
    expect(ruled.stage.grid).toBe(25)
    expect(apply(ruled, setGrid(ruled, 0))).toEqual(piece)
    expect(readPiece({ ...piece, stage: { ...piece.stage, grid: 0 } }).problem).toContain('at least 1 px')
  })
})
