import { describe, expect, it } from 'vitest'
import { Builder } from '../acts/build.ts'
import { Program } from '../engine/program.ts'
import { toNumber } from '../time/rational.ts'
import { partsOffStage } from './off-stage.ts'

describe('what leaves the stage', () => {
  const b = new Builder('Edge', 1)
  // The stage is 1280 by 720, the lap 8 s at 30 frames a second.
  const away = b.part('Away', { type: 'rectangle' }, {}, { width: 40, height: 40 })
  b.drive(away, 'x', 'time * 200px/s')
  const brim = b.part('Brim', { type: 'rectangle' }, {}, { width: 40, height: 40 })
  b.drive(brim, 'y', '345px * sine(every: 4s)')
  b.part('Still', { type: 'rectangle' }, {}, { width: 40, height: 40 })
  b.part('Sky', { type: 'rectangle' }, {}, { width: 2000, height: 900 })
  const hidden = b.part('Hidden', { type: 'rectangle' }, {}, { width: 40, height: 40, x: 5000, opacity: 0 })
  const row = b.part(
    'Row',
    { type: 'ellipse' },
    { copies: { layout: 'row', count: 3, dx: 300, dy: 0 } },
    { width: 20, height: 20 },
  )
  b.drive(row, 'x', '400px * saw(every: 8s, low: 0, high: 1)')
  it('says which, which copy, when, and whether wholly', () => {
    const found = partsOffStage(new Program(b.piece)).map(l => ({ ...l, at: toNumber(l.at) }))
    const of = (part: string) => found.find(f => f.part === part)
    // Its left edge passes 640 px after 3.3 s, seen at the next frame.
    expect(of(away)).toEqual({ part: away, copy: 0, wholly: true, at: expect.closeTo(3.333, 2) as number })
    expect(of(brim)).toMatchObject({ wholly: false })
    expect(of(row)).toMatchObject({ copy: 2, wholly: true })
    expect(found.map(f => f.part).sort()).toEqual([away, brim, row].sort())
    expect(of(hidden)).toBeUndefined()
  })
  it('nothing in an empty piece', () => expect(partsOffStage(new Program(new Builder('Empty', 1).piece))).toEqual([]))
})
