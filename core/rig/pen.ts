/**
 * Lays outlines as triangles for the graphics card: each corner with its neighbours along the outline, so that the card
 * itself places, mitres and edges it. Nothing here depends on where a part stands or on its colours.
 *
 * A corner is six numbers (its point, the one before, the one after, in the part's own pixels) and a tag: the row of its
 * instance in the table, and what is done with it.
 */
import { grown } from './growing.ts'
import type { Area } from './letters.ts'
import { cutOutline, type Outline } from './outline.ts'

/** Bits of a tag below the row: how far it is pushed outward, and how it is painted. */
export const ROW_SHIFT = 8
export const ROW_STEP = 256
export const TAG = {
  /** Pushed by half the line's width outward, or inward. */
  lineOut: 1,
  lineIn: 2,
  /** Pushed by half a screen pixel outward, or inward: the fringe. */
  fringeOut: 4,
  fringeIn: 8,
  /** As solid as its instance; without it, clear. */
  solid: 16,
  /** Painted as the line, not as the fill. */
  line: 32,
  /** Its outline runs clockwise. */
  clockwise: 64,
  /** An end of an open line, or a point alone. */
  end: 128,
} as const

const OUTSIDE = TAG.fringeOut
const INSIDE = TAG.fringeIn | TAG.solid

/** Across a line: clear, solid, solid, clear. */
const LINE = [
  TAG.line | TAG.lineOut | TAG.fringeOut,
  TAG.line | TAG.lineOut | TAG.fringeIn | TAG.solid,
  TAG.line | TAG.lineIn | TAG.fringeOut | TAG.solid,
  TAG.line | TAG.lineIn | TAG.fringeIn,
]

export const PER_CORNER = 6

export class Pen {
  points = new Float32Array(PER_CORNER * 512)
  tags = new Uint32Array(512)
  indices = new Uint32Array(2048)
  /** Where it writes next. */
  corner = 0
  index = 0
  /** Where it must stop, when it writes into a place that is kept; Infinity while the sheet may grow. */
  lastCorner = Infinity
  lastIndex = Infinity
  private row = 0

  /** Whether what was laid did not fit into its place; `corner` and `index` say what it would have taken. */
  get over(): boolean {
    return this.corner > this.lastCorner || this.index > this.lastIndex
  }

  begin(row: number): this {
    this.row = row * ROW_STEP
    return this
  }

  /** Goes on to a place, with empty triangles in between. */
  leave(corner: number, index: number): void {
    this.corner = Math.max(this.corner, corner)
    while (this.tags.length < this.corner) {
      this.tags = grown(this.tags, new Uint32Array(this.tags.length * 2))
      this.points = grown(this.points, new Float32Array(this.points.length * 2))
    }
    while (this.indices.length < index) this.indices = grown(this.indices, new Uint32Array(this.indices.length * 2))
    if (index > this.index) this.indices.fill(0, this.index, index)
    this.index = Math.max(this.index, index)
  }

  fill(o: Outline): void {
    if (o.drawn) {
      this.area({ outline: o.points, ...o.drawn })
      return
    }
    this.filled(o.points, o.hole)
    for (const points of o.more ?? []) this.filled(points)
  }

  stroke(o: Outline, from: number, to: number): void {
    for (const hole of o.drawn?.holes ?? []) this.stroke({ points: hole, closed: true }, from, to)
    const { points, closed } = cutOutline(o, from, to)
    const n = points.length / 2
    if (n < 2) return
    const first = this.rail(points, closed, LINE)
    for (let k = 0; k < (closed ? n : n - 1); k++) {
      const [a, b] = [first + 4 * k, first + 4 * ((k + 1) % n)]
      for (let rail = 0; rail < 3; rail++) this.strip(a + rail, b + rail)
    }
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
    let area = 0
    for (let k = 0, j = n - 1; k < n; j = k++)
      area += points[2 * j]! * points[2 * k + 1]! - points[2 * k]! * points[2 * j + 1]!
    const turned = area < 0 ? TAG.clockwise : 0
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

  private put(x: number, y: number, bx: number, by: number, ax: number, ay: number, tag: number): number {
    const n = this.corner++
    if (n >= this.lastCorner) return n
    if (n >= this.tags.length) {
      this.tags = grown(this.tags, new Uint32Array(this.tags.length * 2))
      this.points = grown(this.points, new Float32Array(this.points.length * 2))
    }
    const { points } = this
    const at = n * PER_CORNER
    points[at] = x
    points[at + 1] = y
    points[at + 2] = bx
    points[at + 3] = by
    points[at + 4] = ax
    points[at + 5] = ay
    this.tags[n] = this.row + tag
    return n
  }

  private triangle(a: number, b: number, c: number): void {
    const n = this.index
    this.index += 3
    if (n + 3 > this.lastIndex) return
    if (n + 3 > this.indices.length) this.indices = grown(this.indices, new Uint32Array(this.indices.length * 2))
    this.indices[n] = a
    this.indices[n + 1] = b
    this.indices[n + 2] = c
  }

  /** Two rails of corners, pair after pair, joined by triangles. */
  private strip(first: number, next: number): void {
    this.triangle(first, first + 1, next)
    this.triangle(next, first + 1, next + 1)
  }
}
