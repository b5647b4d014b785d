/** Which part lies under a point of the stage. */
import { outlineOf, type Outline } from './outline.ts'
import { noSizes, sizesOf } from './sizing.ts'
import type { Scene } from './scene.ts'
import { scaleOf, unapply } from '../piece/transform.ts'

const sizes = noSizes()

/** The topmost instance at a stage point that is not locked, within `reach` stage pixels of thin things; null when there is none. */
export function hit(scene: Scene, x: number, y: number, reach: number): { id: string; instance: number } | null {
  for (let k = scene.paint.length - 1; k >= 0; k--) {
    const { body, instance } = scene.paint[k]!
    if (scene.only && !scene.only.has(body.id)) continue
    if (body.part.locked) continue
    if (!(body.opacity[instance]! > 0.02)) continue
    const m = body.worlds[instance]!
    const at = unapply(m, x, y)
    const outline = at && outlineOf(body.part.shape, sizesOf(body, instance, sizes))
    if (!at || !outline) continue
    const slack = (reach + (body.get('strokeWidth', instance) * scaleOf(m)) / 2) / Math.max(1e-6, scaleOf(m))
    const filled = outline.closed && body.get('fillAlpha', instance) > 0.02
    const solid = inside(outline.points, at) && !holesOf(outline).some(h => inside(h, at))
    const within = filled && (solid || (outline.more ?? []).some(p => inside(p, at)))
    if (within || near(outline.points, outline.closed, at, slack)) return { id: body.id, instance }
  }
  return null
}

const holesOf = ({ hole, drawn }: Outline): readonly Float64Array[] => drawn?.holes ?? (hole ? [hole] : [])

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
