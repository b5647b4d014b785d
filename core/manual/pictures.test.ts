import { describe, expect, it } from 'vitest'
import { Program } from '../engine/program.ts'
import { readPiece } from '../piece/migrate.ts'
import { stillSvg } from '../formats/svg.ts'
import { rational } from '../time/rational.ts'
import { PICTURES, type ManualPictureName } from './pictures.ts'
import { WORKING } from './working.ts'

describe.each(Object.keys(PICTURES) as ManualPictureName[])('the picture %s', name => {
  const piece = PICTURES[name]()
  it('is a piece whose formulas all run, and that moves', () => {
    expect(readPiece(JSON.parse(JSON.stringify(piece))).problem).toBeNull()
    const program = new Program(piece)
    expect([...program.slots.keys()].sort()).toEqual(Object.keys(piece.drives).sort())
    for (const [key, slot] of program.slots) expect(slot.problems, key).toEqual([])
    expect(stillSvg(piece, rational(1))).not.toBe(stillSvg(piece, rational(3, 2)))
  })
  it('loops in its lap, as far as it has settled', () => {
    const at = (s: number) => stillSvg(piece, rational(Math.round(s * 1000), 1000))
    expect(at(8.5)).toBe(at(12.5))
  })
})

it('every picture stands in the manual', () => {
  expect(WORKING.flatMap(s => s.picture ?? []).sort()).toEqual(Object.keys(PICTURES).sort())
})
