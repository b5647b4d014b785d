import { describe, expect, it } from 'vitest'
import { lanternPier } from '../../demo/lantern-pier.ts'
import { Program } from '../engine/program.ts'
import { exampleFair } from '../manual/example-fair.ts'
import { readPiece } from '../piece/migrate.ts'
import type { Piece } from '../piece/schema.ts'
import { at } from '../testing/fair.ts'
import { setPart } from './parts.ts'
import { sharedPiece } from './shared-piece.ts'

const values = (piece: Piece, seconds: number): number[] => {
  const program = new Program(piece)
  return program.queue.settle(() => [...program.moment(at(seconds), new Float64Array(program.size))])
}

describe('a piece that is shared', () => {
  it('moves as it does, and can be read', () => {
    const piece = lanternPier()
    const shared = sharedPiece(piece, [])
    expect(readPiece(JSON.parse(JSON.stringify(shared))).problem).toBeNull()
    for (const t of [0, 1.7, 33.3, 86400]) expect(values(shared, t)).toEqual(values(piece, t))
  })
  it('holds nothing of how it was made', () => {
    const { b, ids } = exampleFair()
    b.drive(ids.Carousel!, 'rotation', 'time * 45deg/s // the owner wants it slower\n + `Ticket arch`.rotation')
    b.drive(ids['Ticket arch']!, 'rotation', 'time * fairPace * 1deg/s')
    b.drive(ids.Pinion!, 'rotation', 'time * 3deg/s // off for now')
    b.do(setPart(b.piece, ids['Ticket arch']!, { hidden: true }))
    const key = `${ids.Carousel}.rotation`
    const drive = b.piece.drives[key]!
    const [pace, dial] = Object.entries(b.piece.dials).find(([, d]) => d.name === 'fairPace')!
    const piece: Piece = {
      ...b.piece,
      drives: {
        ...b.piece.drives,
        [key]: {
          ...drive,
          takes: [{ name: 'too fast', text: 'time * 900deg/s' }],
          promises: [{ of: 'value', side: 'below', than: 777 }],
        },
        [`${ids.Pinion}.rotation`]: { ...b.piece.drives[`${ids.Pinion}.rotation`]!, off: true },
      },
    }
    const shared = sharedPiece(piece, [{ dial: pace, says: 'Pace', low: 60, high: 120 }])
    const text = JSON.stringify(shared)
    for (const secret of ['owner', 'off for now', 'too fast', '777', 'Ticket arch']) expect(text).not.toContain(secret)
    expect(dial.high).not.toBe(120)
    expect(shared.dials[pace]).toMatchObject({ low: 60, high: 120 })
    for (const [id, d] of Object.entries(shared.dials))
      if (id !== pace) expect([d.low, d.high]).toEqual([d.value, d.value])
    const { [`${ids.Pinion}.rotation`]: _, ...running } = piece.drives
    expect(values(shared, 12.34)).toEqual(values({ ...piece, drives: running }, 12.34))
  })
})
