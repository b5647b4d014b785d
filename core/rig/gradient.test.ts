import { describe, expect, it } from 'vitest'
import { stillSvg } from '../formats/svg.ts'
import { Builder } from '../acts/build.ts'
import type { Part } from '../piece/schema.ts'
import { Program } from '../engine/program.ts'
import { at } from '../testing/fair.ts'
import { rational } from '../time/rational.ts'
import { paintOf } from './colour.ts'
import { gradientEnds, extent, gradientOf } from './gradient.ts'
import { StageMesh } from './stage-mesh/stage-mesh.ts'
import { outlineOf } from './outline/outline.ts'
import { noSizes, sizesOf } from './sizing.ts'
import { simulateVertexShader } from './stage-mesh/simulated-shader.ts'
import { Scene } from './scene.ts'

function board(hand: Readonly<Record<string, number>>, given: Partial<Part> = {}) {
  const b = new Builder('Boards', 1)
  const all = { width: 100, height: 40, gradient: 100, gradientTurn: 0, ...hand }
  const id = b.part('Board', { type: 'rectangle' }, given, all)
  const program = new Program(b.piece)
  const scene = new Scene(program).update(program.moment(at(0), new Float64Array(program.size)), at(0))
  const body = scene.bodies.get(id)!
  const sizes = sizesOf(body, 0, noSizes())
  const g = gradientOf(
    body,
    0,
    paintOf(body, 'fill', 0),
    extent(outlineOf(body.part.shape, sizes)!.points),
    b.piece.stage,
  )
  const way = (x: number, y: number) => g!.x * x + g!.y * y + g!.base
  return { b, scene, g, way }
}

describe('a gradient', () => {
  it('runs across the part, from its first stop to its second', () => {
    const { way } = board({})
    expect([way(-50, 0), way(0, 17), way(50, 0)]).toEqual([0, 0.5, 1].map(v => expect.closeTo(v, 12)))
    const stops = board({ gradientStart: 25, gradientEnd: 75 })
    expect([stops.way(-25, 0), stops.way(25, 0)]).toEqual([0, 1].map(v => expect.closeTo(v, 12)))
    const up = board({ gradientTurn: 90 })
    expect([up.way(33, -20), up.way(0, 20)]).toEqual([0, 1].map(v => expect.closeTo(v, 12)))
  })
  it('rides with its part, or stays fixed to the stage', () => {
    const riding = board({ x: 300, rotation: 90, scale: 200 })
    expect([riding.way(300, -100), riding.way(300, 100)]).toEqual([0, 1].map(v => expect.closeTo(v, 12)))
    const fixed = board({ x: 300, rotation: 90 }, { gradientFrame: 'stage' })
    expect([fixed.way(-640, 5), fixed.way(640, 5)]).toEqual([0, 1].map(v => expect.closeTo(v, 12)))
  })
  it('goes over as far as it is set to, and not at all at 0', () => {
    expect(board({ gradient: 0 }).g).toBeNull()
    const [half, whole] = [board({ gradient: 50 }).g!, board({}).g!]
    const near = paintOf(board({}).scene.bodies.values().next().value!, 'fill', 0)
    expect(half.far.g).toBeCloseTo((near.g + whole.far.g) / 2, 12)
    expect(board({ gradientAlpha: 20 }).g!.alpha).toBeCloseTo(0.2, 12)
  })
  it('is drawn at every corner, and written into a still picture', () => {
    const { b, scene, g } = board({ x: 30 })
    const { positions, ways, triangles } = simulateVertexShader(new StageMesh().build(scene, 1), 1)
    expect(triangles.length).toBeGreaterThan(0)
    for (const k of triangles)
      expect(ways[k]).toBeCloseTo(g!.x * positions[2 * k]! + g!.y * positions[2 * k + 1]! + g!.base, 5)
    expect(
      simulateVertexShader(new StageMesh().build(board({ gradient: 0 }).scene, 1), 1).ways.every(Number.isNaN),
    ).toBe(true)
    expect(gradientEnds(g!)!.map(v => Math.round(v) + 0)).toEqual([-20, 0, 80, 0])
    expect(stillSvg(b.piece, rational(0))).toContain('x1="-20" y1="0" x2="80" y2="0"')
  })
})
