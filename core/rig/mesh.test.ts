import { describe, expect, it } from 'vitest'
import { Program } from '../engine/program.ts'
import { Builder } from '../acts/build.ts'
import type { Part, Shape } from '../piece/schema.ts'
import { at } from '../testing.ts'
import { hit } from './hit.ts'
import { Mesh } from './mesh.ts'
import { Scene } from './scene.ts'

function sceneOf(make: (b: Builder) => void, seconds = 0) {
  const b = new Builder('Stage', 1)
  make(b)
  const program = new Program(b.piece)
  return new Scene(program).update(program.moment(at(seconds), new Float64Array(program.size)), at(seconds))
}

describe('the mesh', () => {
  const meshOf = (shape: Shape, hand: Record<string, number> = {}, given: Partial<Part> = {}) =>
    new Mesh().build(
      sceneOf(b => void b.part('It', shape, given, hand)),
      1,
    )
  /** The area its triangles cover, weighted by their alpha. */
  const covered = (m: Mesh) => {
    let sum = 0
    for (let k = 0; k < m.count; k += 3) {
      const [a, b, c] = [m.indices[k]!, m.indices[k + 1]!, m.indices[k + 2]!]
      const [ax, ay, bx, by, cx, cy] = [a, b, c].flatMap(i => [m.positions[2 * i]!, m.positions[2 * i + 1]!]) as [
        number,
        number,
        number,
        number,
        number,
        number,
      ]
      const alpha = [a, b, c].reduce((s, i) => s + m.colours[4 * i + 3]!, 0) / 3
      sum += (Math.abs((bx - ax) * (cy - ay) - (cx - ax) * (by - ay)) / 2) * alpha
    }
    return sum
  }
  it.each([
    [{ type: 'rectangle' }, { width: 100, height: 50 }, 5000],
    [{ type: 'ellipse' }, { width: 100, height: 100 }, Math.PI * 2500],
    [{ type: 'ring' }, { radius: 50, innerRadius: 30 }, Math.PI * 1600],
    [{ type: 'line' }, { width: 100, strokeWidth: 6 }, 600],
    [{ type: 'star', points: 6 }, { radius: 50, innerRadius: 25 }, 12 * 0.5 * 1250 * 0.5],
    [{ type: 'rectangle' }, { width: 100, height: 50, fillAlpha: 0, strokeWidth: 4 }, 1200],
    [{ type: 'rectangle' }, { width: 100, height: 50, opacity: 40 }, 2000],
  ] as [Shape, Record<string, number>, number][])('covers what the shape covers: %o %o', (shape, hand, wanted) => {
    expect(covered(meshOf(shape, hand)) / wanted).toBeGreaterThan(0.97)
    expect(covered(meshOf(shape, hand)) / wanted).toBeLessThan(1.03)
  })
  it('a line thinner than a pixel is a pixel wide and fainter', () => {
    expect(covered(meshOf({ type: 'line' }, { width: 200, strokeWidth: 0.25 }))).toBeCloseTo(50, 0)
  })
  it('is mirrored without turning inside out, and grows as needed', () => {
    expect(covered(meshOf({ type: 'ellipse' }, { width: 100, height: 100, scaleX: -100 }))).toBeGreaterThan(7600)
    const many = meshOf({ type: 'ellipse' }, {}, { copies: { layout: 'row', count: 300, dx: 3, dy: 0 } })
    expect(many.count).toBeGreaterThan(10000)
    expect(many.corners * 2).toBeLessThanOrEqual(many.positions.length)
    expect(meshOf({ type: 'ellipse' }, { opacity: 0 }).count).toBe(0)
  })
})

describe('what lies under a point', () => {
  const scene = sceneOf(b => {
    b.part('Below', { type: 'rectangle' }, { order: 1 }, { width: 200, height: 200 })
    b.part('Hoop', { type: 'ring' }, { order: 2 }, { radius: 50, innerRadius: 40 })
    b.part('Rope', { type: 'line' }, { order: 3 }, { width: 300, y: 90, strokeWidth: 2 })
    b.part('Gone', { type: 'ellipse' }, { order: 4 }, { opacity: 0, width: 500, height: 500 })
  })
  it.each([
    [0, 0, 'p1'],
    [45, 0, 'p2'],
    [45, 20, 'p2'],
    [140, 92, 'p3'],
    [140, 60, null],
  ])('%d, %d', (x, y, id) => expect(hit(scene, x, y, 3)?.id ?? null).toBe(id))
})
