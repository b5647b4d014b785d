import { describe, expect, it } from 'vitest'
import { solid } from '../../tests/solids.ts'
import { Builder } from '../acts/build.ts'
import { setEye } from '../acts/settings.ts'
import { Program } from '../engine/program.ts'
import { Scene } from '../rig/scene.ts'
import { boxOf, type Box } from '../rig/snapping.ts'
import { at } from '../testing/fair.ts'
import { rational } from '../time/rational.ts'
import { stillSvg } from './svg.ts'

/** Paths of a drawing with their fills, each as its points on the stage. */
function pathsOf(svg: string): { fill: string; points: [number, number][] }[] {
  return [...svg.matchAll(/<path d="([^"]*)"[^>]* fill="([^"]*)"|<path d="([^"]*)" fill="([^"]*)"/g)].map(m => {
    const points: [number, number][] = []
    let [x, y] = [0, 0]
    for (const [, command, rest] of (m[1] ?? m[3]!).matchAll(/([MLlm])([^A-Za-z]*)/g)) {
      const [a, b] = rest!.match(/-?\d*\.?\d+/g)!.map(Number) as [number, number]
      ;[x, y] = command === 'l' || command === 'm' ? [x + a, y + b] : [a, b]
      points.push([x, -y])
    }
    return { fill: (m[2] ?? m[4])!, points }
  })
}
const box = (points: readonly (readonly [number, number])[]): Box => ({
  left: Math.min(...points.map(p => p[0])),
  right: Math.max(...points.map(p => p[0])),
  low: Math.min(...points.map(p => p[1])),
  high: Math.max(...points.map(p => p[1])),
})
const apart = (a: Box, b: Box) =>
  Math.max(...(['left', 'right', 'low', 'high'] as const).map(side => Math.abs(a[side] - b[side])))

describe('a drawing of what is thick', () => {
  it('reaches as far as on the stage, from before and from behind, in whatever order it is made', () => {
    for (let n = 0; n < 150; n++) {
      const { piece, id } = solid(n, false)
      const program = new Program(piece)
      const scene = new Scene(program).update(program.moment(at(0), new Float64Array(program.size)), at(0))
      const body = scene.bodies.get(id)!
      const boxes = body.worlds.map((_, i) => boxOf(scene, body, i)!)
      const all = box(boxes.flatMap(b => [[b.left, b.low] as const, [b.right, b.high] as const]))
      const drawn = box(pathsOf(stillSvg(piece, rational(0))).flatMap(p => p.points))
      expect(apart(all, drawn), String(n)).toBeLessThan(0.06)
    }
  })
  /** A block of 80 × 50, 30 thick, turned about its upright. */
  const block = (turned: number, hand: Record<string, number> = {}) => {
    const b = new Builder('Block', 1)
    b.do(setEye(b.piece, 900))
    b.part(
      'Block',
      { type: 'rectangle' },
      {},
      { width: 80, height: 50, thickness: 30, rotationY: turned, fillAlpha: 100, ...hand },
    )
    return pathsOf(stillSvg(b.piece, rational(0)))
  }
  it('has its front last where that looks to the eye, its back last where it looks away', () => {
    const front = block(20).at(-1)!
    expect(box(front.points).right).toBeCloseTo(
      (40 * Math.cos(Math.PI / 9)) / (1 + (40 * Math.sin(Math.PI / 9)) / 900),
      1,
    )
    // Turned right round the back stands 30 px nearer.
    const back = block(180).at(-1)!
    expect(back.points).toHaveLength(4)
    expect(box(back.points).right).toBeCloseTo(40 / (1 - 30 / 900), 1)
    expect(box(block(0).at(-1)!.points).right).toBeCloseTo(40, 6)
  })
  it('shows the walls of a hole that look to the eye, and not those that look away', () => {
    const b = new Builder('Ring', 1)
    b.do(setEye(b.piece, 900))
    b.part('Ring', { type: 'ring' }, {}, { radius: 100, innerRadius: 80, thickness: 60, rotationY: 40, fillAlpha: 100 })
    const faces = pathsOf(stillSvg(b.piece, rational(0))).filter(p => p.points.length === 4)
    const middle = (p: { points: [number, number][] }) => p.points.reduce((n, q) => n + q[0], 0) / 4
    // Its right side has gone back: through the hole the wall at the right is seen, from without the one at the left.
    const far = (p: { points: [number, number][] }) => Math.max(...p.points.map(q => Math.abs(q[1])))
    const inner = faces.filter(p => far(p) < 20 && middle(p) > 0)
    const outer = faces.filter(p => far(p) < 20 && middle(p) < 0)
    expect([inner.length > 0, outer.length > 0]).toEqual([true, true])
    expect(Math.max(...inner.map(middle))).toBeLessThan(80 * Math.cos((40 * Math.PI) / 180))
    expect(Math.min(...outer.map(middle))).toBeLessThan(-80)
  })
  it('of letters in layers has the back of the last, seen from behind', () => {
    const b = new Builder('Word', 1)
    b.do(setEye(b.piece, 900))
    const word = b.part('Word', { type: 'group' }, {}, { rotationY: 180 })
    b.part(
      'Card',
      { type: 'rectangle' },
      { parent: word, copies: { layout: 'layers', count: 5, dz: 10 } },
      { width: 80, height: 50, thickness: 4, fillAlpha: 100 },
    )
    const last = pathsOf(stillSvg(b.piece, rational(0))).at(-1)!
    const scene = (() => {
      const program = new Program(b.piece)
      return new Scene(program).update(program.moment(at(0), new Float64Array(program.size)), at(0))
    })()
    const body = [...scene.bodies.values()].find(x => x.part.name === 'Card')!
    expect(box(last.points).right).toBeCloseTo(boxOf(scene, body, 4)!.right, 1)
  })
})
