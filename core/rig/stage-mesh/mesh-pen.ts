/**
 * Lays outlines as triangles for the graphics card: each corner with its neighbours along the outline, so that the card
 * itself places, mitres and edges it. Nothing here depends on where a part stands or on its colours.
 */
import type { LetterArea } from '../text/letters.ts'
import { areaOf, LinePen } from './line-pen.ts'
import type { Outline } from '../outline/outline.ts'
import { TAG } from './mesh-sheet.ts'

const OUTSIDE = TAG.fringeOut
const INSIDE = TAG.fringeIn | TAG.solid

export class Pen extends LinePen {
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

  /** A filled area with holes in it, each edge with its fringe. */
  area({ outline, holes, triangles }: LetterArea): void {
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
}
