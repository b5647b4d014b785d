/** Which part lies under a point of the stage. */
import { holesIn, type Outline } from './outline/outline.ts'
import { outlineAt } from './outlined.ts'
import type { Scene } from './scene.ts'
import { inDepth, seen, toEye, unseen, type Eye } from './depth/eye.ts'
import type { Body } from './body.ts'
import { asMatrix, matrix, sizeOf, type Matrix } from '../piece/transform.ts'

/** Shares of how far something reaches back at which it is looked for. */
const LEVELS = [0, 0.5, 1]
const NEVER = 1e9

/** An instance of a part. */
export interface Hit {
  readonly id: string
  readonly instance: number
}

/**
 * The instance that is seen at a stage point and is not locked, within `reach` stage pixels of thin things; null when
 * there is none. Flat it is the topmost, in depth the nearest.
 */
export function hit(scene: Scene, x: number, y: number, reach: number): Hit | null {
  const flat = !inDepth(scene.eye)
  let best: (Hit & { near: number }) | null = null
  for (const found of everyHit(scene, x, y, reach)) {
    if (flat) return { id: found.id, instance: found.instance }
    if (!best || found.near > best.near + 1e-6) best = found
  }
  return best && { id: best.id, instance: best.instance }
}

/** All parts that are seen at a stage point or lie below another there, each by its topmost or nearest instance, from above down. */
export function hits(scene: Scene, x: number, y: number, reach: number): Hit[] {
  const found = [...everyHit(scene, x, y, reach)]
  if (inDepth(scene.eye)) found.sort((a, b) => b.near - a.near)
  return found.filter((f, i) => found.findIndex(g => g.id === f.id) === i)
}

/** Every instance at a stage point that is not locked, the topmost first. */
function* everyHit(scene: Scene, x: number, y: number, reach: number): Generator<Hit & { near: number }> {
  for (let k = scene.paint.length - 1; k >= 0; k--) {
    const { body, instance } = scene.paint[k]!
    if (scene.only && !scene.only.has(body.id)) continue
    if (body.part.locked) continue
    if (!(body.opacity[instance]! > 0.02)) continue
    const near = nearness(scene, body, instance, x, y, reach)
    if (near !== null) yield { id: body.id, instance, near }
  }
}

const back = new Float64Array(3)

/** How near an instance is at a stage point; null where it is not there. */
function nearness(scene: Scene, body: Body, i: number, x: number, y: number, reach: number): number | null {
  const { eye } = scene
  const m = body.worlds[i]!
  const outline = outlineAt(body, i)
  if (!outline) return null
  const scale = Math.max(1e-6, sizeOf(m))
  if (outline.heights && inDepth(eye)) {
    const wide = body.get('strokeWidth', i) * (eye.even ? 1 : scale)
    return lineAt(eye, m, outline.points, outline.heights, x, y, reach + wide / 2)
  }
  const slack = (reach + (body.get('strokeWidth', i) * scale) / 2) / scale
  const thick = inDepth(eye) ? body.get('thickness', i) : 0
  if (thick > 0) scene.backOf(body, i, back)
  const taper = thick > 0 ? body.get('taper', i) : 1
  for (const share of thick > 0 ? LEVELS : [0]) {
    const there =
      share === 0 ? m : asMatrix(m.map((v, k) => (k % 4 === 3 ? v + back[(k - 3) / 4]! * thick * share : v)))
    const at = unseen(eye, there, x, y)
    // Further back it is as much larger or smaller as its taper says.
    const wide = Math.max(1e-6, 1 + (taper - 1) * share)
    if (at && covers(body, i, outline, [at[0] / wide, at[1] / wide], slack / wide)) return Math.max(-NEVER, at[2])
  }
  return null
}

/** How near a line whose points lie in depth is where it passes a stage point as it is seen; null where it does not. */
function lineAt(
  eye: Eye,
  m: Matrix,
  points: Float64Array,
  heights: Float64Array,
  x: number,
  y: number,
  slack: number,
): number | null {
  const e = toEye(eye, m, turned)
  const flat = new Float64Array(points.length)
  for (let k = 0; k < heights.length; k++)
    flat.set(seen(eye, m, points[2 * k]!, points[2 * k + 1]!, heights[k]!), 2 * k)
  let nearest: number | null = null
  for (let k = 0; k + 1 < heights.length; k++) {
    if (!near(flat.subarray(2 * k, 2 * k + 4), false, [x, y], slack)) continue
    const z = e[8] * points[2 * k]! + e[9] * points[2 * k + 1]! + e[10] * heights[k]! + e[11]
    // What lies behind the eye is not seen.
    if (z < eye.distance && (nearest === null || z > nearest)) nearest = z
  }
  return nearest
}

const turned = matrix()

function covers(body: Body, i: number, outline: Outline, at: readonly [number, number], slack: number): boolean {
  const filled = outline.closed && (body.part.shape.type === 'picture' || body.get('fillAlpha', i) > 0.02)
  const solid = inside(outline.points, at) && !holesIn(outline).some(h => inside(h, at))
  const within = filled && (solid || (outline.more ?? []).some(p => inside(p, at)))
  return within || near(outline.points, outline.closed, at, slack)
}

function inside(points: Float64Array, [x, y]: readonly [number, number]): boolean {
  let within = false
  const n = points.length / 2
  for (let i = 0, j = n - 1; i < n; j = i++) {
    const [xi, yi, xj, yj] = [points[2 * i]!, points[2 * i + 1]!, points[2 * j]!, points[2 * j + 1]!]
    if (yi > y !== yj > y && x < ((xj - xi) * (y - yi)) / (yj - yi) + xi) within = !within
  }
  return within
}

function near(points: Float64Array, closed: boolean, [x, y]: readonly [number, number], slack: number): boolean {
  const n = points.length / 2
  for (let i = 0; i < (closed ? n : n - 1); i++) {
    const j = (i + 1) % n
    const dx = points[2 * j]! - points[2 * i]!
    const dy = points[2 * j + 1]! - points[2 * i + 1]!
    const length = dx * dx + dy * dy
    const share =
      length === 0 ? 0 : Math.max(0, Math.min(1, ((x - points[2 * i]!) * dx + (y - points[2 * i + 1]!) * dy) / length))
    const ex = points[2 * i]! + dx * share - x
    const ey = points[2 * i + 1]! + dy * share - y
    if (ex * ex + ey * ey <= slack * slack) return true
  }
  return false
}
