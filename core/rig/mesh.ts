/**
 * A scene as one list of coloured triangles in painting order, so that a whole piece is one draw call. Every
 * edge has a fringe one screen pixel wide that fades to nothing, which smooths it without multisampling.
 */
import { grown } from './growing.ts'
import { limited } from '../form/working.ts'
import { NOTHING, paintOf, type Rgb } from './colour.ts'
import { gradientOf, type Gradient } from './gradient.ts'
import type { Area } from './letters.ts'
import { cutOutline, outlineOf, type Outline, type Sizes } from './outline.ts'
import { sizesOf, type Body, type Scene } from './scene.ts'
import { applyX, applyY, scaleOf, type Matrix } from '../piece/transform.ts'

/** Layers that the sides of thick letters are made of, at most, and how light they are against the front. */
const MOST_LAYERS = 60
const SIDE = 0.62

/** Corners of a picture, at most: what comes after is not drawn. */
const MOST_CORNERS = 400_000

export class Mesh {
  /** x, y per corner, in stage pixels. */
  positions = new Float32Array(2048)
  /** Red, green, blue, alpha per corner, sRGB, not multiplied by alpha. */
  colours = new Float32Array(4096)
  /** The colour each corner goes over to, and how far it is on the way; only where there are gradients. */
  fars = new Float32Array(4096)
  ways = new Float32Array(1024)
  graded = false
  indices = new Uint32Array(4096)
  corners = 0
  count = 0
  /** Whether there was more than is drawn. */
  full = false
  private stage = { width: 0, height: 0 }
  private gradient: Gradient | null = null
  private readonly sizes: Sizes = { width: 0, height: 0, corners: 0, radius: 0, innerRadius: 0 }
  private readonly letter: Matrix = new Float64Array(12)
  private world = new Float64Array(512)
  private normals = new Float64Array(512)

  /** Fills the mesh from a scene; `pixel` is how many stage pixels a screen pixel covers. */
  build(scene: Scene, pixel: number): this {
    this.corners = 0
    this.count = 0
    this.graded = false
    this.stage = scene.program.piece.stage
    this.full = false
    limited(() => {
      for (const { body, instance } of scene.paint) {
        if (scene.only && !scene.only.has(body.id)) continue
        this.full ||= this.corners > MOST_CORNERS
        if (this.full) return
        this.draw(body, instance, pixel)
      }
    })
    return this
  }

  private draw(body: Body, i: number, pixel: number): void {
    const opacity = Math.min(1, body.opacity[i]!)
    if (!(opacity > 0)) return
    const m = body.worlds[i]!
    if (!Number.isFinite(m[0]! + m[1]! + m[3]! + m[4]! + m[5]! + m[7]!)) return
    const outline = outlineOf(body.part.shape, sizesOf(body, i, this.sizes))
    if (!outline || outline.points.length === 0) return
    const fill = outline.closed ? body.get('fillAlpha', i) * opacity : 0
    const paint = fill > 0 ? paintOf(body, 'fill', i) : NOTHING
    this.gradient = fill > 0 ? gradientOf(body, i, paint, outline, this.stage) : null
    if (outline.letters) {
      this.text(body, i, outline.letters, paint, fill, opacity, pixel)
      this.gradient = null
      return
    }
    if (fill > 0) {
      this.fill(outline, m, paint, fill, pixel)
      for (const points of outline.more ?? []) this.fill({ points, closed: true }, m, paint, fill, pixel)
    }
    this.gradient = null
    const width = body.get('strokeWidth', i) * scaleOf(m)
    const stroke = body.get('strokeAlpha', i) * opacity
    if (width > 0 && stroke > 0) {
      const line = cutOutline(outline, body.get('lineStart', i), body.get('lineEnd', i))
      // A line thinner than a pixel is drawn a pixel wide and fainter.
      const shown = Math.max(width, pixel)
      if (line.points.length >= 4)
        this.stroke(line, m, paintOf(body, 'stroke', i), stroke * (width / shown), shown / 2, pixel)
    }
  }

  /** Letters, filled and edged; their sides are layers of themselves, darker, where they reach back and are turned. */
  private text(
    body: Body,
    i: number,
    { setting, size }: NonNullable<Outline['letters']>,
    paint: Rgb,
    fill: number,
    opacity: number,
    pixel: number,
  ): void {
    const world = body.worlds[i]!
    const m = this.letter
    for (let k = 0; k < 12; k++) m[k] = k % 4 === 3 ? world[k]! : (world[k]! * size) / 1000
    const back = -body.get('thickness', i)
    // Seen flat, depth moves a layer aside as far as the part is turned.
    const [dx, dy] = [world[2]! * back, world[6]! * back]
    const layers = fill > 0 ? Math.min(MOST_LAYERS, Math.ceil(Math.sqrt(dx * dx + dy * dy) / (2 * pixel))) : 0
    const side = { r: paint.r * SIDE, g: paint.g * SIDE, b: paint.b * SIDE }
    for (let k = layers; k >= 0 && fill > 0; k--) {
      const share = layers === 0 ? 0 : k / layers
      m[3] = world[3]! + dx * share
      m[7] = world[7]! + dy * share
      for (const area of setting.areas) this.area(area, m, k === 0 ? paint : side, fill, pixel)
    }
    this.gradient = null
    const width = body.get('strokeWidth', i) * scaleOf(world)
    const stroke = body.get('strokeAlpha', i) * opacity
    if (!(width > 0 && stroke > 0)) return
    const shown = Math.max(width, pixel)
    const edge = paintOf(body, 'stroke', i)
    for (const area of setting.areas) {
      for (const points of [area.outline, ...area.holes]) {
        const line = cutOutline({ points, closed: true }, body.get('lineStart', i), body.get('lineEnd', i))
        if (line.points.length >= 4) this.stroke(line, m, edge, stroke * (width / shown), shown / 2, pixel)
      }
    }
  }

  /** A filled area with holes in it, each edge with its fringe. */
  private area(area: Area, m: Matrix, c: Rgb, alpha: number, pixel: number): void {
    const half = pixel / 2
    /** The corner within the fringe, of every point in turn. */
    const inner: number[] = []
    for (const [points, hole] of [[area.outline, false] as const, ...area.holes.map(h => [h, true] as const)]) {
      const n = this.place(points, true, m)
      const first = this.rail(n, c, [
        [half, hole ? alpha : 0],
        [-half, hole ? 0 : alpha],
      ])
      for (let k = 0; k < n; k++) {
        this.strip(first + 2 * k, first + 2 * ((k + 1) % n))
        inner.push(first + 2 * k + (hole ? 0 : 1))
      }
    }
    const { triangles } = area
    for (let k = 0; k < triangles.length; k += 3)
      this.triangle(inner[triangles[k]!]!, inner[triangles[k + 1]!]!, inner[triangles[k + 2]!]!)
  }

  private corner(x: number, y: number, c: Rgb, alpha: number): number {
    const n = this.corners++
    if (n * 2 + 2 > this.positions.length) {
      this.positions = grown(this.positions, new Float32Array(this.positions.length * 2))
      this.colours = grown(this.colours, new Float32Array(this.colours.length * 2))
      this.fars = grown(this.fars, new Float32Array(this.fars.length * 2))
      this.ways = grown(this.ways, new Float32Array(this.ways.length * 2))
    }
    this.positions[2 * n] = x
    this.positions[2 * n + 1] = y
    this.colours[4 * n] = c.r
    this.colours[4 * n + 1] = c.g
    this.colours[4 * n + 2] = c.b
    this.colours[4 * n + 3] = alpha
    const g = this.gradient
    this.ways[n] = g ? g.x * x + g.y * y + g.base : 0
    if (!g) return n
    this.graded = true
    this.fars[4 * n] = g.far.r
    this.fars[4 * n + 1] = g.far.g
    this.fars[4 * n + 2] = g.far.b
    this.fars[4 * n + 3] = alpha * g.alpha
    return n
  }

  private triangle(a: number, b: number, c: number): void {
    if (this.count + 3 > this.indices.length)
      this.indices = grown(this.indices, new Uint32Array(this.indices.length * 2))
    this.indices[this.count++] = a
    this.indices[this.count++] = b
    this.indices[this.count++] = c
  }

  /** Two rails of corners, pair after pair, joined by triangles. */
  private strip(first: number, next: number): void {
    this.triangle(first, first + 1, next)
    this.triangle(next, first + 1, next + 1)
  }

  /** Points on the stage and the outward direction at each, mitred. */
  private place(points: Float64Array, closed: boolean, m: Matrix): number {
    const n = points.length / 2
    if (this.world.length < n * 2) {
      this.world = new Float64Array(n * 4)
      this.normals = new Float64Array(n * 4)
    }
    const { world, normals } = this
    let area = 0
    for (let k = 0; k < n; k++) {
      world[2 * k] = applyX(m, points[2 * k]!, points[2 * k + 1]!)
      world[2 * k + 1] = applyY(m, points[2 * k]!, points[2 * k + 1]!)
    }
    for (let k = 0; k < n; k++) {
      const j = (k + 1) % n
      area += world[2 * k]! * world[2 * j + 1]! - world[2 * j]! * world[2 * k + 1]!
    }
    const side = area < 0 ? -1 : 1
    for (let k = 0; k < n; k++) {
      const before = k > 0 ? k - 1 : closed ? n - 1 : k
      const after = k < n - 1 ? k + 1 : closed ? 0 : k
      let nx = 0
      let ny = 0
      for (const [a, b] of [
        [before, k],
        [k, after],
      ] as const) {
        const dx = world[2 * b]! - world[2 * a]!
        const dy = world[2 * b + 1]! - world[2 * a + 1]!
        const length = Math.sqrt(dx * dx + dy * dy)
        if (length > 0) {
          nx += dy / length
          ny -= dx / length
        }
      }
      const square = nx * nx + ny * ny
      // The mitre reaches 1 ÷ cos of half the angle, held to four times so that spikes stay short.
      const reach =
        before === k || after === k
          ? square > 0
            ? 1 / Math.sqrt(square)
            : 0
          : square > 0.25
            ? 2 / square
            : square > 0
              ? 4 / Math.sqrt(square)
              : 0
      normals[2 * k] = nx * reach * side
      normals[2 * k + 1] = ny * reach * side
    }
    return n
  }

  private fill(o: Outline, m: Matrix, c: Rgb, alpha: number, pixel: number): void {
    const half = pixel / 2
    const n = this.place(o.points, true, m)
    const outer = this.rail(n, c, [
      [half, 0],
      [-half, alpha],
    ])
    for (let k = 0; k < n; k++) this.strip(outer + 2 * k, outer + 2 * ((k + 1) % n))
    if (o.hole) {
      const holes = this.place(o.hole, true, m)
      const inner = this.rail(holes, c, [
        [half, alpha],
        [-half, 0],
      ])
      for (let k = 0; k < n; k++) {
        const j = (k + 1) % n
        this.strip(inner + 2 * k, inner + 2 * j)
        this.triangle(outer + 2 * k + 1, outer + 2 * j + 1, inner + 2 * k)
        this.triangle(inner + 2 * k, outer + 2 * j + 1, inner + 2 * j)
      }
      return
    }
    let [x, y] = [0, 0]
    for (let k = 0; k < n; k++) {
      x += this.world[2 * k]! / n
      y += this.world[2 * k + 1]! / n
    }
    const middle = this.corner(x, y, c, alpha)
    for (let k = 0; k < n; k++) this.triangle(middle, outer + 2 * k + 1, outer + 2 * ((k + 1) % n) + 1)
  }

  /** For each placed point its corners, pushed out by a distance with an alpha each; gives the first corner. */
  private rail(n: number, c: Rgb, steps: readonly (readonly [number, number])[]): number {
    const first = this.corners
    for (let k = 0; k < n; k++) {
      for (const [out, alpha] of steps) {
        const x = this.world[2 * k]! + this.normals[2 * k]! * out
        this.corner(x, this.world[2 * k + 1]! + this.normals[2 * k + 1]! * out, c, alpha)
      }
    }
    return first
  }

  private stroke(o: Outline, m: Matrix, c: Rgb, alpha: number, half: number, pixel: number): void {
    const soft = pixel / 2
    const n = this.place(o.points, o.closed, m)
    const first = this.rail(n, c, [
      [half + soft, 0],
      [half - soft, alpha],
      [soft - half, alpha],
      [-half - soft, 0],
    ])
    const pairs = o.closed ? n : n - 1
    for (let k = 0; k < pairs; k++) {
      const [a, b] = [first + 4 * k, first + 4 * ((k + 1) % n)]
      for (let rail = 0; rail < 3; rail++) this.strip(a + rail, b + rail)
    }
  }
}
