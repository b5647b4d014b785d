import { describe, expect, it } from 'vitest'
import { Program } from '../engine/program.ts'
import { apply } from '../piece/operation.ts'
import type { Piece, Shape } from '../piece/schema.ts'
import { applyX, applyY } from '../piece/transform.ts'
import { outlineOf } from '../rig/outline/outline.ts'
import { Scene } from '../rig/scene.ts'
import { noSizes, sizesOf } from '../rig/sizing.ts'
import { at } from '../testing/fair.ts'
import { Builder } from './build.ts'
import { setBase } from './parts.ts'
import { setValueOf, type Grip } from './stage-edits.ts'
import { sizeAll, turnAll } from './stage-edits-several.ts'

const sceneOf = (piece: Piece, seconds = 0) => {
  const program = new Program(piece)
  return new Scene(program).update(program.moment(at(seconds), new Float64Array(program.size)), at(seconds))
}
const gripsOf = (piece: Piece, ids: readonly string[], seconds = 0): Grip[] => {
  const scene = sceneOf(piece, seconds)
  return ids.map(id => {
    const body = scene.bodies.get(id)!
    return { id, seat: scene.parentFrameOf(body, 0), world: body.worlds[0]!.slice() }
  })
}
/** The points of the outlines of parts on the stage, as many of each as it has. */
const pointsOf = (piece: Piece, ids: readonly string[]): [number, number][] => {
  const scene = sceneOf(piece)
  return ids.flatMap(id => {
    const body = scene.bodies.get(id)!
    const { points } = outlineOf(body.part.shape, sizesOf(body, 0, noSizes()))!
    const m = body.worlds[0]!
    return Array.from({ length: points.length / 2 }, (_, k): [number, number] => {
      const [x, y] = [points[2 * k]!, points[2 * k + 1]!]
      return [applyX(m, x, y), applyY(m, x, y)]
    })
  })
}
const near = (a: readonly (readonly number[])[], b: readonly (readonly number[])[], by: number) => {
  expect(a.length).toBe(b.length)
  const far = a.map((p, k) => Math.hypot(p[0]! - b[k]![0]!, p[1]! - b[k]![1]!))
  expect(Math.max(...far)).toBeLessThan(by)
}

const way = [
  [
    { x: -40, y: 0, smooth: true },
    { x: 0, y: 40, smooth: false },
    { x: 50, y: -10, smooth: true },
  ],
]
const SHAPES: readonly (readonly [Shape, Readonly<Record<string, number>>])[] = [
  [{ type: 'rectangle' }, { width: 80, height: 30, rotation: 25 }],
  [
    { type: 'polygon', sides: 5 },
    { radius: 40, rotation: 10 },
  ],
  [
    { type: 'star', points: 6 },
    { radius: 50, innerRadius: 21 },
  ],
  [{ type: 'line' }, { width: 150, rotation: -40 }],
  [{ type: 'gear', teeth: 12, spokes: 4, module: 6 }, { rotation: 3 }],
  [{ type: 'path', closed: true, poses: [way] }, { scale: 70 }],
  [
    { type: 'text', words: 'Pier', shows: 'words', decimals: 0, prefix: '', suffix: '', align: 'left' },
    { size: 60, rotation: 90 },
  ],
]

/** Parts of every kind about the stage: some on a turned, mirrored boat, some with a pin at their edge. */
function pier() {
  const b = new Builder('Together', 1)
  const boat = b.part('Boat', { type: 'group' }, {}, { x: 90, y: -60, rotation: 35, scale: 150, scaleX: -100 })
  const ids = SHAPES.map(([shape, hand], k) =>
    b.part(
      'It',
      shape,
      { parent: k % 2 ? boat : null, pivot: k % 3 ? { x: 12, y: -9 } : { x: 0, y: 0 } },
      { x: 50 * k, y: 20 - 9 * k, ...hand },
    ),
  )
  return { b, boat, ids }
}

describe('several parts in hand', () => {
  it('turn as one about a point, mirrored ones too, those with a pin at their edge too', () => {
    const { b, ids } = pier()
    for (const [degrees, step, turned] of [
      [37.2, 0, 37.2],
      [-38, 15, -45],
      [400, 0, 400],
    ] as const) {
      const after = apply(b.piece, turnAll(b.piece, gripsOf(b.piece, ids), [30, -20], degrees, 0, step))
      const a = (turned * Math.PI) / 180
      const [cos, sin] = [Math.cos(a), Math.sin(a)]
      const where = pointsOf(b.piece, ids).map(([x, y]) => [
        30 + (x - 30) * cos - (y + 20) * sin,
        -20 + (x - 30) * sin + (y + 20) * cos,
      ])
      // Places are kept to a hundredth, turns to a tenth of a degree.
      near(pointsOf(after, ids), where, 0.3)
    }
  })
  it.each([0.5, 1, 1.7])('made %d times as large about a point, each by what it is sized by', factor => {
    const { b, ids } = pier()
    const after = apply(b.piece, sizeAll(b.piece, gripsOf(b.piece, ids), [30, -20], factor, 0))
    const where = pointsOf(b.piece, ids).map(([x, y]) => [30 + (x - 30) * factor, -20 + (y + 20) * factor])
    near(pointsOf(after, ids), where, 0.1)
    const [card, , star, , gear, path, text] = ids as [string, string, string, string, string, string, string]
    expect(setValueOf(after, card, 'width')).toBeCloseTo(80 * factor, 2)
    expect(setValueOf(after, card, 'scale')).toBe(100)
    const round = apply(b.piece, setBase(b.piece, card, 'corners', 8))
    const grown = apply(round, sizeAll(round, gripsOf(round, [card]), [0, 0], factor, 0))
    expect(setValueOf(grown, card, 'corners')).toBeCloseTo(8 * factor, 2)
    expect(setValueOf(after, star, 'innerRadius')).toBeCloseTo(21 * factor, 2)
    expect(setValueOf(after, text, 'size')).toBeCloseTo(60 * factor, 2)
    expect([gear, path].map(id => setValueOf(after, id, 'scale'))).toEqual([100 * factor, 70 * factor])
  })
  it('a group goes as one, and its parts keep their numbers', () => {
    const { b, boat, ids } = pier()
    const carried = ids.filter((_, k) => k % 2)
    const op = sizeAll(b.piece, gripsOf(b.piece, [boat]), [0, 0], 1.5, 0)
    expect(op.undoLabel).toBe('size Boat')
    expect(op.puts.map(p => ('in' in p ? p.id : '')).sort()).toEqual(['scale', 'x', 'y'].map(n => `${boat}.${n}`))
    const where = pointsOf(b.piece, carried).map(([x, y]) => [x * 1.5, y * 1.5])
    near(pointsOf(apply(b.piece, op), carried), where, 0.1)
  })
  it('what has keyframes gets a key at that moment, from what they hold there', () => {
    const b = new Builder('Keys', 1)
    const card = b.part('Card', { type: 'rectangle' }, {}, { width: 60, height: 40 })
    const points = [0, 4].map(time => ({ time, value: 50 + 20 * time, shape: 'straight' as const }))
    b.do({
      undoLabel: '',
      puts: [{ in: 'bases', id: `${card}.width`, value: { value: 50, keys: { points, after: 'hold' } } }],
    })
    const after = apply(b.piece, sizeAll(b.piece, gripsOf(b.piece, [card], 2), [0, 0], 2, 2))
    expect(after.bases[`${card}.width`]!.keys!.points.map(p => [p.time, p.value])).toEqual([
      [0, 50],
      [2, 180],
      [4, 130],
    ])
    expect(setValueOf(after, card, 'height')).toBe(80)
  })
})
