import { describe, expect, it } from 'vitest'
import { Program } from '../engine/program.ts'
import { stillSvg } from '../formats/svg.ts'
import { reportOf } from '../insight/report.ts'
import { apply, inverse, type Operation } from '../piece/operation.ts'
import { readPiece } from '../piece/migrate.ts'
import type { Piece } from '../piece/schema.ts'
import { between, heightsOf, ringsOfPose, trianglesOf } from '../rig/outline/posing.ts'
import { outlineOf } from '../rig/outline/outline.ts'
import { noSizes } from '../rig/sizing.ts'
import { hit } from '../rig/hit.ts'
import { StageMesh } from '../rig/stage-mesh/stage-mesh.ts'
import { Scene } from '../rig/scene.ts'
import { covered, simulateVertexShader } from '../rig/stage-mesh/simulated-shader.ts'
import { at } from '../testing/fair.ts'
import { fromNumber } from '../time/rational.ts'
import { Builder } from './build.ts'
import { pointsTyped, pointsWritten } from './typed-points.ts'
import {
  addCorner,
  addPath,
  addPose,
  drawnOf,
  keepAsPath,
  removeCorner,
  removePose,
  setClosed,
  setCorner,
  setPoints,
  type OutlinePoint,
  type DrawnShape,
} from './path-edits.ts'

const sharp = (...points: (readonly [number, number])[]): OutlinePoint[] =>
  points.map(([x, y]) => ({ x, y, smooth: false }))
/** A square of 100 with a hole of 40. */
const FRAME: DrawnShape = {
  type: 'path',
  closed: true,
  poses: [[sharp([-50, -50], [50, -50], [50, 50], [-50, 50]), sharp([-20, -20], [20, -20], [20, 20], [-20, 20])]],
}
/** An L, which no fan from its middle fills. */
const ELL = sharp([0, 0], [100, 0], [100, 20], [20, 20], [20, 100], [0, 100])

function made(shape: DrawnShape, drives: Record<string, string> = {}, hand: Record<string, number> = {}) {
  const b = new Builder('Pen', 1)
  const id = b.part('It', shape, {}, hand)
  for (const [property, text] of Object.entries(drives)) b.drive(id, property, text)
  const program = new Program(b.piece)
  const scene = new Scene(program)
  const show = (s: number) => scene.update(program.moment(at(s), new Float64Array(program.size)), at(s))
  const mesh = new StageMesh()
  return { b, id, program, show, area: (s: number) => covered(simulateVertexShader(mesh.build(show(s), 1), 1)) }
}

describe('a drawn path', () => {
  it('is filled as it is drawn: with holes, and where it bends inwards', () => {
    expect(made(FRAME).area(0)).toBeCloseTo(100 * 100 - 40 * 40, 0)
    const ell: DrawnShape = { type: 'path', closed: true, poses: [[ELL]] }
    expect(made(ell).area(0)).toBeCloseTo(100 * 20 + 80 * 20, 0)
    const backwards: DrawnShape = { type: 'path', closed: true, poses: [[[...ELL].reverse()]] }
    expect(made(backwards).area(0)).toBeCloseTo(3600, 0)
    const line: DrawnShape = { type: 'path', closed: false, poses: [[sharp([0, 0], [100, 0])]] }
    expect(made(line, {}, { strokeWidth: 6 }).area(0)).toBeCloseTo(600, 0)
  })
  it('is hit where it is filled, not in its hole, and a still shows the same', () => {
    const { show, b } = made(FRAME)
    const scene = show(0)
    expect([hit(scene, 40, 40, 1)?.id, hit(scene, 0, 0, 1)]).toEqual(['p1', null])
    const svg = stillSvg(b.piece, fromNumber(0))
    expect(svg.match(/fill-rule="evenodd"/g)).toHaveLength(1)
    expect(svg.match(/Z/g)).toHaveLength(2)
  })
  it('runs smoothly through smooth points: a circle of four is round to a few per cent', () => {
    const four = [
      [50, 0],
      [0, 50],
      [-50, 0],
      [0, -50],
    ].map(([x, y]) => ({ x: x!, y: y!, smooth: true }))
    const ring = ringsOfPose({ type: 'path', closed: true, poses: [[four]] }, 0)[0]!
    expect(ring).toHaveLength(80)
    for (let k = 0; k < ring.length; k += 2) {
      const far = Math.hypot(ring[k]!, ring[k + 1]!)
      expect(far).toBeGreaterThan(43)
      expect(far).toBeLessThan(50.001)
    }
  })
  it('a path that crosses itself or has no area makes no fault', () => {
    for (const points of [
      sharp([0, 0], [100, 100], [100, 0], [0, 100]),
      sharp([0, 0], [10, 0], [20, 0]),
      sharp([5, 5], [5, 5], [5, 5]),
    ])
      expect(Number.isFinite(made({ type: 'path', closed: true, poses: [[points]] }).area(0))).toBe(true)
    expect(trianglesOf([])).toEqual([])
  })
})

describe('poses', () => {
  const blob = (n: number): DrawnShape => ({
    type: 'path',
    closed: true,
    poses: Array.from({ length: n }, (_, k) => [sharp([0, 0], [100 + 10 * k, 0], [100 + 10 * k, 50], [0, 50])]),
  })
  it('go from one to the next, and round after the last', () => {
    expect(between(4, 1.25)).toEqual({ a: 1, b: 2, share: 0.25 })
    expect(between(4, 3.5)).toEqual({ a: 3, b: 0, share: 0.5 })
    expect(between(4, -0.5)).toEqual({ a: 3, b: 0, share: 0.5 })
    expect(between(1, 7)).toEqual({ a: 0, b: 0, share: 0 })
    expect(between(4, NaN)).toEqual({ a: 0, b: 0, share: 0 })
    const { area } = made(blob(4), { pose: 'time * 1/s' })
    expect([0, 1, 2, 2.5, 3, 3.5, 4].map(s => Math.round(area(s) / 50))).toEqual([100, 110, 120, 125, 130, 115, 100])
  })
  it('a steady pose closes when a lap brings it round, and says so', () => {
    const verdict = (text: string) => {
      const { program, id } = made(blob(4), { pose: text })
      return reportOf(program, program.slots.get(`${id}.pose`)!).closure.verdict
    }
    // The lap is 8 s: twice round, once, and one and a half times.
    expect(verdict('time * 1/s')).toBe('yes')
    expect(verdict('time * 0.5/s')).toBe('yes')
    expect(verdict('time * 0.75/s')).toBe('no')
  })
  it('of other numbers of points are refused in plain words', () => {
    const b = new Builder('Pen', 1)
    b.part('It', { type: 'path', closed: true, poses: [[ELL], [ELL.slice(1)]] })
    expect(readPiece(b.piece).problem).toMatch(/same number of outlines/)
  })
})

describe('what the pen does', () => {
  const draw = () => {
    const b = new Builder('Pen', 1)
    const { id, op } = addPath(b.piece, sharp([100, 50], [200, 50], [200, 150], [100, 150]), true)
    b.do(op)
    return { b, id }
  }
  const undone = (piece: Piece, op: Operation) => expect(apply(apply(piece, op), inverse(piece, op))).toEqual(piece)
  it('a path stands at the middle of its points', () => {
    const { b, id } = draw()
    expect([b.piece.bases[`${id}.x`]!.value, b.piece.bases[`${id}.y`]!.value]).toEqual([150, 100])
    expect(drawnOf(b.piece, id)!.poses[0]![0]![0]).toEqual({ x: -50, y: -50, smooth: false })
    expect(readPiece(b.piece).problem).toBeNull()
  })
  it('points come and go in every pose at once; one is moved in its own alone', () => {
    const { b, id } = draw()
    b.do(addPose(b.piece, id, 0))
    undone(b.piece, addCorner(b.piece, id, 0, 1, 0.5))
    b.do(addCorner(b.piece, id, 0, 3, 0.5))
    const counts = () => drawnOf(b.piece, id)!.poses.map(p => p[0]!.length)
    expect(counts()).toEqual([5, 5])
    b.do(setCorner(b.piece, id, 1, 0, 0, { x: -80, smooth: true }))
    const [first, second] = drawnOf(b.piece, id)!.poses.map(p => p[0]![0]!)
    expect([first!.x, second!.x, first!.smooth, second!.smooth]).toEqual([-50, -80, false, true])
    b.do(removeCorner(b.piece, id, 0, 4)!)
    b.do(removeCorner(b.piece, id, 0, 3)!)
    expect(counts()).toEqual([3, 3])
    expect(removeCorner(b.piece, id, 0, 0)).toBeNull()
    b.do(setPoints(b.piece, id, 0, ELL))
    expect(counts()).toEqual([6, 6])
    b.do(removePose(b.piece, id, 1))
    expect(counts()).toEqual([6])
    b.do(setClosed(b.piece, id, false))
    expect(drawnOf(b.piece, id)!.closed).toBe(false)
    expect(readPiece(b.piece).problem).toBeNull()
  })
})

describe('a line in depth', () => {
  /** A helix: three turns, 90 px round, that climbs 300 px towards the eye. */
  const helix = () => {
    const n = 300
    const laid = new Float64Array(2 * n)
    const heights = new Float64Array(n)
    for (let k = 0; k < n; k++) {
      const a = (6 * Math.PI * k) / (n - 1)
      laid.set([90 * Math.cos(a), 90 * Math.sin(a)], 2 * k)
      heights[k] = (300 * k) / (n - 1)
    }
    return { laid, heights }
  }
  it('is kept as a path with its depth, off by no more than is said', () => {
    const b = new Builder('Helix', 1)
    const trace = b.part('Trace', { type: 'trace', of: null, x: 0, y: 0, every: 30 }, {}, {})
    const { laid, heights } = helix()
    const made = keepAsPath(b.piece, trace, laid, heights)!
    b.do(made.op)
    const shape = drawnOf(b.piece, made.id)!
    const ring = shape.poses[0]![0]!
    expect(ring.length).toBeLessThan(200)
    expect(Math.max(...ring.map(c => c.z ?? 0))).toBeCloseTo(300, 1)
    for (const { x, y, z = 0 } of ring) {
      const a = (6 * Math.PI * z) / 300
      expect(Math.hypot(x - 90 * Math.cos(a), y - 90 * Math.sin(a))).toBeLessThan(1)
    }
    const outline = outlineOf(shape, { ...noSizes() })!
    expect(outline.heights).toHaveLength(outline.points.length / 2)
    expect(readPiece(JSON.parse(JSON.stringify(b.piece))).problem).toBeNull()
    // Typed and read again it is the same; a point more lies between, in depth too.
    const typed = pointsTyped(pointsWritten(ring), 2, true)
    expect('points' in typed && typed.points.map(p => p.z ?? 0)).toEqual(ring.map(c => c.z ?? 0))
    b.do(addCorner(b.piece, made.id, 0, 3, 0.5))
    const [before, mid, after] = drawnOf(b.piece, made.id)!.poses[0]![0]!.slice(3, 6)
    expect(mid!.z).toBeCloseTo((before!.z! + after!.z!) / 2, 1)
  })
  it('bends through its points in depth as along the stage, and flat ones have no depth at all', () => {
    const corner = (x: number, z: number) => ({ x, y: 0, z, smooth: true })
    const deep = { type: 'path', closed: false, poses: [[[corner(0, 0), corner(10, 20), corner(20, 0)]]] } as const
    const heights = heightsOf(deep as never, 0)!
    const [points] = ringsOfPose(deep as never, 0)
    expect(heights).toHaveLength(points!.length / 2)
    expect([heights[0], heights[10], heights[20]]).toEqual([0, 20, 0])
    expect(Math.max(...heights)).toBeLessThanOrEqual(21)
    const flat = {
      ...deep,
      poses: [
        [
          [
            { x: 0, y: 0, smooth: false },
            { x: 9, y: 0, smooth: false },
          ],
        ],
      ],
    }
    expect(heightsOf(flat as never, 0)).toBeNull()
    expect(heightsOf({ ...deep, closed: true } as never, 0)).toBeNull()
  })
})
