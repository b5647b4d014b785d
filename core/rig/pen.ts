/**
 * Lays outlines as triangles for the graphics card: each corner with its neighbours along the outline, so that the card
 * itself places, mitres and edges it. Nothing here depends on where a part stands or on its colours.
 */
import type { Area } from './letters.ts'
import { cosineOfTurns, sineOfTurns } from '../signal/sine.ts'
import { dashed, type Dashes } from './dashes.ts'
import { cutOutline, type Outline } from './outline.ts'
import type { Part } from '../piece/schema.ts'

import { Sheet, TAG } from './sheet.ts'

const OUTSIDE = TAG.fringeOut
const INSIDE = TAG.fringeIn | TAG.solid

/** Across a line: clear, solid, solid, clear. */
const LINE = [
  TAG.line | TAG.lineOut | TAG.fringeOut,
  TAG.line | TAG.lineOut | TAG.fringeIn | TAG.solid,
  TAG.line | TAG.lineIn | TAG.fringeOut | TAG.solid,
  TAG.line | TAG.lineIn | TAG.fringeIn,
]

const WHOLE: Dashes = { dash: 0, gap: 0, offset: 0 }
/** Half turns about an end at which a cap has corners. */
const CAP_STEPS = Array.from({ length: 9 }, (_, k) => k / 8 - 0.5)
const SQUARE = [-0.5, -0.25, 0.25, 0.5]

export class Pen extends Sheet {
  fill(o: Outline): void {
    if (o.drawn) {
      this.area({ outline: o.points, ...o.drawn })
      return
    }
    this.filled(o.points, o.hole)
    for (const points of o.more ?? []) this.filled(points)
  }

  /** The sides of a solid, from one level to the next, each edge a face of its own; without fringes. */
  sides(points: Float64Array, from: number, to: number): void {
    const n = points.length / 2
    const turned = areaOf(points) < 0 ? TAG.clockwise : 0
    const tag = TAG.side | TAG.solid | turned
    const kept = this.level
    for (let k = 0; k < n; k++) {
      const j = (k + 1) % n
      const [ax, ay, bx, by] = [points[2 * k]!, points[2 * k + 1]!, points[2 * j]!, points[2 * j + 1]!]
      if (ax === bx && ay === by) continue
      const first = this.corner
      for (const level of [from, to]) {
        this.level = level
        this.put(ax, ay, ax, ay, bx, by, tag)
        this.put(bx, by, ax, ay, bx, by, tag)
      }
      this.triangle(first, first + 1, first + 2)
      this.triangle(first + 2, first + 1, first + 3)
    }
    this.level = kept
  }

  /** A field of water, so many squares across and back, and its sides; from −½ to ½ across and 0 to 1 back. */
  water(across: number, back: number): void {
    const tag = TAG.water | TAG.solid
    const at = (k: number, j: number, low: number) => {
      const [x, z] = [k / across - 0.5, j / back]
      return this.put(x, z, x, z, x, z, tag | low)
    }
    const first = this.corner
    for (let j = 0; j <= back; j++) for (let k = 0; k <= across; k++) at(k, j, 0)
    const of = (k: number, j: number) => first + j * (across + 1) + k
    for (let j = 0; j < back; j++)
      for (let k = 0; k < across; k++) {
        this.triangle(of(k, j), of(k + 1, j), of(k, j + 1))
        this.triangle(of(k, j + 1), of(k + 1, j), of(k + 1, j + 1))
      }
    const rim: [number, number][] = []
    for (let j = back; j > 0; j--) rim.push([0, j])
    for (let k = 0; k < across; k++) rim.push([k, 0])
    for (let j = 0; j <= back; j++) rim.push([across, j])
    for (let n = 0; n + 1 < rim.length; n++) {
      const [a, b] = [rim[n]!, rim[n + 1]!]
      const low = this.corner
      for (const foot of [0, TAG.back]) {
        at(...a, TAG.side | foot)
        at(...b, TAG.side | foot)
      }
      this.triangle(low, low + 1, low + 2)
      this.triangle(low + 2, low + 1, low + 3)
    }
  }

  /** The line along an outline, from a share of it to another, in dashes, with ends as the part has them. */
  stroke(o: Outline, from: number, to: number, dashes: Dashes = WHOLE, cap: Part['cap'] = 'flat'): void {
    for (const hole of o.drawn?.holes ?? []) this.stroke({ points: hole, closed: true }, from, to, dashes, cap)
    for (const line of dashed(cutOutline(o, from, to), dashes)) this.line(line, cap)
  }

  private line({ points, closed, heights }: Outline, cap: Part['cap']): void {
    const n = points.length / 2
    if (n < 2) return
    const first = this.rail(points, closed, LINE)
    if (this.heights && heights) this.raise(first, LINE.length, heights, closed)
    for (let k = 0; k < (closed ? n : n - 1); k++) {
      const [a, b] = [first + 4 * k, first + 4 * ((k + 1) % n)]
      for (let rail = 0; rail < 3; rail++) this.strip(a + rail, b + rail)
    }
    if (closed || cap === 'flat' || !cap) return
    this.cap(points, 0, 1, cap, heights)
    this.cap(points, n - 1, n - 2, cap, heights)
  }

  /** Round or square beyond the end of a line: a fan about the end, pushed outward by half the line all round. */
  private cap(points: Float64Array, end: number, inner: number, cap: 'round' | 'square', heights?: Float64Array): void {
    const [x, y] = [points[2 * end]!, points[2 * end + 1]!]
    const [dx, dy] = [x - points[2 * inner]!, y - points[2 * inner + 1]!]
    const long = Math.sqrt(dx * dx + dy * dy)
    if (!(long > 0)) return
    const [ux, uy] = [dx / long, dy / long]
    /** The way out, turned. */
    const way = (turns: number): readonly [number, number] => {
      const [c, s] = [cosineOfTurns(turns), sineOfTurns(turns)]
      return [ux * c - uy * s, uy * c + ux * s]
    }
    const start = this.corner
    const middle = this.put(x, y, x, y, x, y, TAG.line | TAG.solid | TAG.end)
    const turns = cap === 'round' ? CAP_STEPS : SQUARE
    const first = this.corner
    for (const turn of turns) {
      // A corner is pushed to the right of its way: that way lies a quarter turn on from where it should go.
      const at = turn / 2 + 0.25
      // The corners of a square lie further out than its sides, along the mitre of both.
      const skew = cap === 'square' && Math.abs(turn) === 0.25 ? 0.125 : 0
      const [[ax, ay], [bx, by]] = [way(at - skew), way(at + skew)]
      const tag = TAG.line | TAG.lineOut | (skew === 0 ? TAG.end : 0)
      for (const fringe of [TAG.fringeIn | TAG.solid, TAG.fringeOut])
        this.put(x, y, x - ax, y - ay, x + bx, y + by, tag | fringe)
    }
    for (let k = 0; k + 1 < turns.length; k++) {
      const [a, b] = [first + 2 * k, first + 2 * (k + 1)]
      this.triangle(middle, a, b)
      this.strip(a, b)
    }
    if (this.heights && heights)
      for (let c = start; c < this.corner && c < this.lastCorner; c++)
        this.heights.fill(heights[end]!, 3 * c, 3 * c + 3)
  }

  /** A filled area with holes in it, each edge with its fringe. */
  area({ outline, holes, triangles }: Area): void {
    /** The corner within the fringe, of every point in turn. */
    const inner: number[] = []
    for (const [k, points] of [outline, ...holes].entries()) {
      const n = points.length / 2
      const first = this.edge(points, k > 0)
      for (let j = 0; j < n; j++) inner.push(first + 2 * j + (k > 0 ? 0 : 1))
    }
    for (let k = 0; k < triangles.length; k += 3)
      this.triangle(inner[triangles[k]!]!, inner[triangles[k + 1]!]!, inner[triangles[k + 2]!]!)
  }

  private filled(points: Float64Array, hole?: Float64Array): void {
    const n = points.length / 2
    if (n === 0) return
    const outer = this.edge(points, false)
    if (hole) {
      const inner = this.edge(hole, true)
      for (let k = 0; k < n; k++) {
        const j = (k + 1) % n
        this.triangle(outer + 2 * k + 1, outer + 2 * j + 1, inner + 2 * k)
        this.triangle(inner + 2 * k, outer + 2 * j + 1, inner + 2 * j)
      }
      return
    }
    let [x, y] = [0, 0]
    for (let k = 0; k < n; k++) {
      x += points[2 * k]! / n
      y += points[2 * k + 1]! / n
    }
    const middle = this.put(x, y, x, y, x, y, TAG.solid | TAG.end)
    for (let k = 0; k < n; k++) this.triangle(middle, outer + 2 * k + 1, outer + 2 * ((k + 1) % n) + 1)
  }

  /** The fringe round an outline, or round a hole in it; gives its first corner, two a point. */
  private edge(points: Float64Array, hole: boolean): number {
    const n = points.length / 2
    const first = this.rail(points, true, hole ? [OUTSIDE | TAG.solid, TAG.fringeIn] : [OUTSIDE, INSIDE])
    for (let k = 0; k < n; k++) this.strip(first + 2 * k, first + 2 * ((k + 1) % n))
    return first
  }

  /** For each point its corners, one a tag; gives the first. */
  private rail(points: Float64Array, closed: boolean, tags: readonly number[]): number {
    const first = this.corner
    const n = points.length / 2
    const turned = areaOf(points) < 0 ? TAG.clockwise : 0
    for (let k = 0; k < n; k++) {
      const before = k > 0 ? k - 1 : closed ? n - 1 : k
      const after = k < n - 1 ? k + 1 : closed ? 0 : k
      const end = before === k || after === k ? TAG.end : 0
      for (const tag of tags)
        this.put(
          points[2 * k]!,
          points[2 * k + 1]!,
          points[2 * before]!,
          points[2 * before + 1]!,
          points[2 * after]!,
          points[2 * after + 1]!,
          tag | turned | end,
        )
    }
    return first
  }

  /** The heights of a rail's points, with those before and after. */
  private raise(first: number, each: number, z: Float64Array, closed: boolean): void {
    const n = z.length
    for (let k = 0; k < n; k++)
      for (let j = 0; j < each; j++) {
        const at = 3 * (first + each * k + j)
        if (first + each * k + j >= this.lastCorner) return
        this.heights![at] = z[k]!
        this.heights![at + 1] = z[k > 0 ? k - 1 : closed ? n - 1 : k]!
        this.heights![at + 2] = z[k < n - 1 ? k + 1 : closed ? 0 : k]!
      }
  }
}

/** Twice the area within an outline; below 0 where it runs clockwise. */
function areaOf(points: Float64Array): number {
  const n = points.length / 2
  let area = 0
  for (let k = 0, j = n - 1; k < n; j = k++)
    area += points[2 * j]! * points[2 * k + 1]! - points[2 * k]! * points[2 * j + 1]!
  return area
}
