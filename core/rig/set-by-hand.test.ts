import { describe, expect, it } from 'vitest'
import { random, type Random } from '../../tests/random.ts'
import { Builder } from '../acts/build.ts'
import { Program } from '../engine/program.ts'
import { propertiesOf, type Property } from '../piece/properties.ts'
import type { Piece, Shape } from '../piece/schema.ts'
import { at } from '../testing/fair.ts'
import { PER_DEEP } from './stage-mesh/deep.ts'
import { outlineOf } from './outline/outline.ts'
import { outlineAt } from './outlined.ts'
import { StageMesh } from './stage-mesh/stage-mesh.ts'
import { Scene } from './scene.ts'
import { PER_ROW } from './stage-mesh/instance-table.ts'
import { PER_CORNER, ROW_STEP } from './stage-mesh/mesh-sheet.ts'
import { noSizes, sizesOf } from './sizing.ts'
import { simulateVertexShader } from './stage-mesh/simulated-shader.ts'
import { isTailed } from './tail.ts'

const way = (by: number) => [
  [
    { x: -40, y: 0, smooth: true },
    { x: 0, y: 40 + by, smooth: true },
    { x: 50, y: -10, smooth: false },
  ],
]
const text = { type: 'text', decimals: 1, prefix: '', suffix: ' m', align: 'middle' } as const
const SHAPES: readonly Shape[] = [
  { type: 'group' },
  { type: 'rectangle' },
  { type: 'ellipse' },
  { type: 'polygon', sides: 5 },
  { type: 'star', points: 6 },
  { type: 'ring' },
  { type: 'line' },
  { type: 'gear', teeth: 12, module: 6, spokes: 4 },
  { ...text, words: 'Pier 5', shows: 'words' },
  { ...text, words: '', shows: 'number' },
  { ...text, words: 'SEA', shows: 'letters' },
  { type: 'path', closed: true, poses: [way(0), way(30), way(-20)] },
  { type: 'path', closed: false, poses: [way(0)] },
  { type: 'waves', longest: 200, depth: 60, wind: 8, waves: 9, tile: 0, seed: 4, fields: 6 },
  { type: 'trace', of: 'p1', x: 0, y: 20, every: 20 },
  { type: 'emitter', seed: 3, flight: 'fixed', reverses: false },
  { type: 'emitter', seed: 3, flight: 'changing', reverses: true, of: 'p2', birth: 'ring' },
]
const CAMERA = { distance: 1500, x: 0, y: 0, z: 0, rotation: 0, rotationX: 10, rotationY: 20 }

/** Every corner that is seen: what is laid, where it stands, how it is painted; in depth with how far away it is. */
function seen(mesh: StageMesh): number[] {
  const { positions, colours, ways, triangles } = simulateVertexShader(mesh, 1)
  const { pen, deep, rows } = mesh
  const all: number[] = []
  for (const k of triangles) {
    if (!(colours[4 * k + 3]! > 0)) continue
    const row = Math.floor(pen.tags[k]! / ROW_STEP)
    all.push(positions[2 * k]!, positions[2 * k + 1]!, ...colours.subarray(4 * k, 4 * k + 4), ways[k]!)
    all.push(pen.points[PER_CORNER * k]!, pen.points[PER_CORNER * k + 1]!, rows.data[row * PER_ROW + 11]!)
    if (deep)
      all.push(...deep.data.subarray(row * PER_DEEP, row * PER_DEEP + 7), ...pen.heights!.subarray(3 * k, 3 * k + 3))
  }
  return all
}

/** A set value as one would set it, now and then one that is not sensible. */
function chance(r: Random, { range }: Property): number {
  if (r(6) === 0) return 0
  if (r(8) === 0) return [-50, 100, 1e5][r(3)]!
  const [low, high] = [Math.max(range?.[0] ?? -100, -200), Math.min(range?.[1] ?? 200, 250)]
  return Math.round(low + ((high - low) * r(1000)) / 1000)
}

describe('what is set by hand while a scene goes on', () => {
  it.each([
    ['flat', null],
    ['in depth', CAMERA],
  ] as const)('%s: the picture is that of a new scene, whatever was set in whatever order', (_, camera) => {
    for (const [n, shape] of SHAPES.entries()) {
      const r = random(100 + n)
      const b = new Builder('Pier', 1)
      const lead = b.part('Lead', { type: 'ellipse' }, {}, { width: 30, height: 20 })
      b.drive(lead, 'x', 'sine(every: 3s, amp: 80px)')
      b.part('Cut', { type: 'star', points: 5 }, {}, { fillAlpha: 70 })
      const copies = n % 2 ? ({ layout: 'row', count: 3, dx: 90, dy: 10 } as const) : null
      const id = b.part('It', shape, { copies }, { strokeWidth: 2 })
      const rider = b.part('Rider', { type: 'rectangle' }, { parent: id }, { width: 15, height: 15 })
      if (r(2)) b.drive(id, 'rotation', 'time * 20deg/s')
      if (r(2) && shape.type !== 'group') b.drive(id, 'fillHue', 'time * 20deg/s')
      if (camera) b.piece = { ...b.piece, camera } as Piece
      let program = new Program(b.piece)
      const [scene, mesh] = [new Scene(program), new StageMesh()]
      const draw = (of: Scene, on: StageMesh, s: number): number[] =>
        seen(on.build(of.update(program.moment(at(s), new Float64Array(program.size)), at(s)), 1))
      draw(scene, mesh, 0)
      for (let k = 0; k < 24; k++) {
        const part = r(4) === 0 ? [lead, 'p2', rider][r(3)]! : id
        const of = propertiesOf(b.piece.parts[part]!.shape.type).filter(p => !isTailed(p.name))
        const property = of[r(of.length)]!
        const value = chance(r, property)
        const own = part === id && copies && r(3) === 0
        const was = b.piece
        const base = { value, ...(own && { copies: { [r(3)]: chance(r, property) } }) }
        b.do({ undoLabel: '', puts: [{ in: 'bases', id: `${part}.${property.name}`, value: base }] })
        const next = new Program(b.piece, program)
        const goesOn = scene.adopt(next)
        const what = `${shape.type} ${part}.${property.name} = ${JSON.stringify(base)} (${k})`
        if (!goesOn) {
          // Only copies that come to stand in places of their own ask for another scene.
          expect(own || was.bases[`${part}.${property.name}`]?.copies, what).toBeTruthy()
          b.piece = was
          continue
        }
        program = next
        const s = k * 0.17
        const [kept, fresh] = [draw(scene, mesh, s), draw(new Scene(program), new StageMesh(), s)]
        expect(kept.length, what).toBe(fresh.length)
        expect(
          kept.findIndex((v, i) => !Object.is(v, fresh[i])),
          what,
        ).toBe(-1)
        // What lies under the pointer is asked of the same outlines.
        for (const body of scene.bodies.values())
          for (let i = 0; i < body.count; i++)
            expect(outlineAt(body, i)?.points, what).toEqual(
              outlineOf(body.part.shape, sizesOf(body, i, noSizes()))?.points,
            )
      }
    }
  })
})
