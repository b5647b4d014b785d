import { describe, expect, it } from 'vitest'
import { between, laidCoarsely, piecesOf, ringsOfPose, trianglesOf, type PathShape } from './posing.ts'

type Corner = PathShape['poses'][number][number][number]
const point = (x: number, y: number, smooth = false): Corner => ({ x, y, smooth })
const path = (closed: boolean, ...poses: Corner[][]): PathShape => ({
  type: 'path',
  closed,
  poses: poses.map(p => [p]),
})
const size = (points: Float64Array, triangles: readonly number[]): number => {
  let sum = 0
  for (let k = 0; k < triangles.length; k += 3) {
    const [a, b, c] = [triangles[k]! * 2, triangles[k + 1]! * 2, triangles[k + 2]! * 2]
    const [ux, uy] = [points[b]! - points[a]!, points[b + 1]! - points[a + 1]!]
    const [vx, vy] = [points[c]! - points[a]!, points[c + 1]! - points[a + 1]!]
    sum += Math.abs(ux * vy - uy * vx) / 2
  }
  return sum
}

describe('lines through points', () => {
  it('bends are joined straight, and nothing is put between them', () => {
    const [ring] = ringsOfPose(path(true, [point(0, 0), point(10, 0), point(10, 5)]), 0)
    expect([...ring!]).toEqual([0, 0, 10, 0, 10, 5])
    const [line] = ringsOfPose(path(false, [point(0, 0), point(10, 0), point(10, 5)]), 0)
    expect([...line!]).toEqual([0, 0, 10, 0, 10, 5])
  })
  it('smooth points run through without a bend: the ways in and out are one', () => {
    const corners = [point(0, 0), point(40, 30, true), point(90, -10, true), point(120, 20)]
    const [line] = ringsOfPose(path(false, corners), 0)
    const at = (k: number) => [line![2 * k]!, line![2 * k + 1]!] as const
    // Ten pieces a stretch: the second point is the tenth.
    expect(at(10)).toEqual([40, 30])
    expect(at(20)).toEqual([90, -10])
    const turn = (k: number) => {
      const [[ax, ay], [bx, by], [cx, cy]] = [at(k - 1), at(k), at(k + 1)]
      return Math.abs(Math.atan2(by - ay, bx - ax) - Math.atan2(cy - by, cx - bx))
    }
    // Less than its neighbours' own bending: no corner stands there.
    expect(turn(10)).toBeLessThan(2 * Math.max(turn(9), turn(11)))
    expect(line).toHaveLength(2 * 31)
  })
  it('an outline of two points, and all points in one place, are still lines', () => {
    expect([...ringsOfPose(path(true, [point(0, 0), point(5, 5)]), 0)[0]!]).toEqual([0, 0, 5, 5])
    expect(
      ringsOfPose(path(true, [point(1, 1, true), point(1, 1, true), point(1, 1, true)]), 0)[0]!.every(v => v === 1),
    ).toBe(true)
  })
})

describe('between poses', () => {
  const drawn = path(true, [point(0, 0), point(10, 0), point(0, 10)], [point(0, 0), point(30, 0), point(0, 50)])
  it('points go straight from the one to the other', () => {
    expect([...ringsOfPose(drawn, 0.25)[0]!]).toEqual([0, 0, 15, 0, 0, 20])
    expect([...ringsOfPose(drawn, 1)[0]!]).toEqual([0, 0, 30, 0, 0, 50])
    expect([...ringsOfPose(drawn, 1.5)[0]!]).toEqual([0, 0, 20, 0, 0, 30])
    expect([...ringsOfPose(drawn, 2)[0]!]).toEqual([...ringsOfPose(drawn, 0)[0]!])
  })
  it('are the same a year of rounds later, and backwards', () => {
    for (const pose of [0.3, 1.7]) {
      const wanted = [...ringsOfPose(drawn, pose)[0]!]
      for (const round of [2 * 15_768_000, -2 * 5])
        ringsOfPose(drawn, pose + round)[0]!.forEach((v, k) => expect(v).toBeCloseTo(wanted[k]!, 6))
    }
  })
  it('a bend becomes smooth by and by: no leap on the way', () => {
    const soft = path(
      true,
      [point(0, 0), point(40, 0), point(40, 40)],
      [point(0, 0), point(40, 0, true), point(40, 40)],
    )
    const middle = (pose: number) => ringsOfPose(soft, pose)[0]!
    const [a, b] = [middle(0.5), middle(0.5001)]
    expect(a).toHaveLength(b.length)
    a.forEach((v, k) => expect(Math.abs(v - b[k]!)).toBeLessThan(0.01))
  })
  it('which two, and how far: whole numbers, the last, one alone', () => {
    expect(between(3, 2)).toEqual({ a: 2, b: 0, share: 0 })
    expect(between(3, 2.999)).toMatchObject({ a: 2, b: 0 })
    expect(between(3, -1e-18).a).toBeLessThan(3)
    expect(between(3, Infinity)).toEqual({ a: 0, b: 0, share: 0 })
  })
})

describe('what fills it', () => {
  it('covers the outline less its holes, whichever way round they are drawn', () => {
    const outer = new Float64Array([0, 0, 100, 0, 100, 100, 0, 100])
    const hole = [20, 20, 60, 20, 60, 70, 20, 70]
    const backwards = [20, 70, 60, 70, 60, 20, 20, 20]
    for (const h of [hole, backwards]) {
      const rings = [outer, new Float64Array(h)]
      const all = new Float64Array([...outer, ...h])
      expect(size(all, trianglesOf(rings))).toBeCloseTo(100 * 100 - 40 * 50, 6)
    }
  })
  it('a star of many points is filled to its tips', () => {
    const points = new Float64Array(
      Array.from({ length: 40 }, (_, k) => {
        const r = k % 2 === 0 ? 100 : 40
        return [r * Math.cos((k * Math.PI) / 20), r * Math.sin((k * Math.PI) / 20)]
      }).flat(),
    )
    let shoelace = 0
    for (let k = 0; k < 40; k++) {
      const n = ((k + 1) % 40) * 2
      shoelace += points[2 * k]! * points[n + 1]! - points[n]! * points[2 * k + 1]!
    }
    expect(size(points, trianglesOf([points]))).toBeCloseTo(shoelace / 2, 6)
  })
})

describe('a path of very many points', () => {
  it('is laid with 4,000 at most, bends as fine as that allows, and fills at once', () => {
    let seed = 7
    const chance = () => (seed = (seed * 1103515245 + 12345) % 2147483648) / 2147483648 - 0.5
    const ring = (n: number) =>
      Array.from({ length: n }, () => ({ x: chance() * 600, y: chance() * 600, smooth: true }))
    const path = (rings: number, n: number): PathShape => ({
      type: 'path',
      closed: true,
      poses: [Array.from({ length: rings }, () => ring(n))],
    })
    const crowded = path(8, 499)
    expect([piecesOf(crowded), laidCoarsely(crowded)]).toEqual([1, true])
    const laid = ringsOfPose(crowded, 0)
    expect(laid.reduce((n, r) => n + r.length / 2, 0)).toBe(8 * 499)
    expect(trianglesOf(laid).length).toBeGreaterThan(100)
    const many = path(1, 1000)
    expect(piecesOf(many)).toBe(4)
    expect(ringsOfPose(many, 0)[0]!.length / 2).toBe(4000)
    expect([piecesOf(path(1, 300)), laidCoarsely(path(1, 300))]).toEqual([10, false])
  })
})
