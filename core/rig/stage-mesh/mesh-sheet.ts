/**
 * Corners and triangles for the graphics card, in lists that grow: where a pen lays them.
 *
 * A corner is six numbers (its point, the one before, the one after, in the part's own pixels) and a tag: the row of its
 * instance in the table, and what is done with it. In depth three heights towards the eye come with them.
 */
import { copyInto } from './copy-into.ts'

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

export const PER_CORNER = 6

export class MeshSheet {
  points = new Float32Array(PER_CORNER * 512)
  tags = new Uint32Array(512)
  /** Three a corner, where the mesh is in depth; else none. */
  heights: Float32Array | null = null
  indices = new Uint32Array(2048)
  /** Where it writes next. */
  corner = 0
  index = 0
  /** Where it must stop, when it writes into a place that is kept; Infinity while the sheet may grow. */
  lastCorner = Infinity
  /** Whether any triangle has become another since this was set to false. */
  stirred = false
  lastIndex = Infinity
  protected row = 0
  /** What is laid on: 0, or the back of a solid. */
  protected level = 0

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
    while (this.indices.length < index) this.indices = copyInto(this.indices, new Uint32Array(this.indices.length * 2))
    for (let k = this.index; k < index; k++) this.point(k, 0)
    this.index = Math.max(this.index, index)
  }

  protected put(x: number, y: number, bx: number, by: number, ax: number, ay: number, tag: number): number {
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
    this.tags = copyInto(this.tags, new Uint32Array(this.tags.length * 2))
    this.points = copyInto(this.points, new Float32Array(this.points.length * 2))
    if (this.heights) this.heights = copyInto(this.heights, new Float32Array(this.heights.length * 2))
  }

  protected triangle(a: number, b: number, c: number): void {
    const n = this.index
    this.index += 3
    if (n + 3 > this.lastIndex) return
    if (n + 3 > this.indices.length) this.indices = copyInto(this.indices, new Uint32Array(this.indices.length * 2))
    this.point(n, a)
    this.point(n + 1, b)
    this.point(n + 2, c)
  }

  private point(at: number, corner: number): void {
    if (this.indices[at] === corner) return
    this.indices[at] = corner
    this.stirred = true
  }

  /** Two rails of corners, pair after pair, joined by triangles. */
  protected strip(first: number, next: number): void {
    this.triangle(first, first + 1, next)
    this.triangle(next, first + 1, next + 1)
  }
}
