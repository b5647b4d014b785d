/**
 * Lays outlines as triangles for the graphics card: each corner with its neighbours along the outline, so that the card
 * itself places, mitres and edges it. Nothing here depends on where a part stands or on its colours.
 *
 * A corner is six numbers (its point, the one before, the one after, in the part's own pixels) and a tag: the row of its
 * instance in the table, and what is done with it. In depth three heights towards the eye come with them.
 */
import { grown } from './growing.ts'
import type { Area } from './letters.ts'
import { cutOutline, type Outline } from './outline.ts'

/** Bits of a tag below the row: how far it is pushed outward, and how it is painted. */
export const ROW_SHIFT = 12
export const ROW_STEP = 4096
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
  /** Of a solid: on its back, or on the front of the layer behind it. */
  back: 256,
  next: 512,
  /** On a side of it: the points before and after are the ends of the edge that it stands on. */
  side: 1024,
  /** On the surface of water; with `back` on its foot. */
  water: 2048,
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
  /** Three a corner, where the plate is in depth; else none. */
  heights: Float32Array | null = null
  indices = new Uint32Array(2048)
  /** Where it writes next. */
  corner = 0
  index = 0
  /** Where it must stop, when it writes into a place that is kept; Infinity while the sheet may grow. */
  lastCorner = Infinity
  lastIndex = Infinity
  private row = 0
  /** What is laid on: 0, or the back of a solid. */
  private level = 0

  /** Whether what was laid did not fit into its place; `corner` and `index` say what it would have taken. */
  get over(): boolean {
    return this.corner > this.lastCorner || this.index > this.lastIndex
  }

  /** @param level `TAG.back` for the back of a solid */
  begin(row: number, level = 0): this {
    this.row = row * ROW_STEP
    this.level = level
    return this
  }

  /** Whether heights are laid too. */
  set deep(is: boolean) {
    this.heights = is ? new Float32Array((this.points.length / PER_CORNER) * 3) : null
  }

  /** Goes on to a place, with empty triangles in between. */
  leave(corner: number, index: number): void {
    this.corner = Math.max(this.corner, corner)
    while (this.tags.length < this.corner) this.grow()
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

  stroke(o: Outline, from: number, to: number): void {
    for (const hole of o.drawn?.holes ?? []) this.stroke({ points: hole, closed: true }, from, to)
    const { points, closed, heights } = cutOutline(o, from, to)
    const n = points.length / 2
    if (n < 2) return
    const first = this.rail(points, closed, LINE)
    if (this.heights && heights) this.raise(first, LINE.length, heights, closed)
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

  private put(x: number, y: number, bx: number, by: number, ax: number, ay: number, tag: number): number {
    const n = this.corner++
    if (n >= this.lastCorner) return n
    if (n >= this.tags.length) this.grow()
    const { points, heights } = this
    const at = n * PER_CORNER
    points[at] = x
    points[at + 1] = y
    points[at + 2] = bx
    points[at + 3] = by
    points[at + 4] = ax
    points[at + 5] = ay
    this.tags[n] = this.row + (tag | this.level)
    if (heights) heights.fill(0, 3 * n, 3 * n + 3)
    return n
  }

  private grow(): void {
    this.tags = grown(this.tags, new Uint32Array(this.tags.length * 2))
    this.points = grown(this.points, new Float32Array(this.points.length * 2))
    if (this.heights) this.heights = grown(this.heights, new Float32Array(this.heights.length * 2))
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

/** Twice the area within an outline; below 0 where it runs clockwise. */
function areaOf(points: Float64Array): number {
  const n = points.length / 2
  let area = 0
  for (let k = 0, j = n - 1; k < n; j = k++)
    area += points[2 * j]! * points[2 * k + 1]! - points[2 * k]! * points[2 * j + 1]!
  return area
}
