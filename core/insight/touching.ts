/** Which copies of a part overlap at some moment of the lap, looked at frame by frame. */
import type { Program } from '../engine/program.ts'
import { noSizes } from '../rig/sizing.ts'
import { Scene } from '../rig/scene.ts'
import type { Rational } from '../time/rational.ts'
import { framesOfLap, placedOutline, type Placed } from './lap-frames.ts'

export interface Touch {
  readonly a: number
  readonly b: number
  /** The first moment of the lap, in seconds, at which they are seen to overlap. */
  readonly at: Rational
}

/** The pairs of instances of a part that overlap during the first lap, each with its first moment. */
export function touching(program: Program, part: string): Touch[] {
  const scene = new Scene(program)
  const body = scene.bodies.get(part)
  if (!body || body.count < 2) return []
  const sizes = noSizes()
  const found = new Map<string, Touch>()
  for (const { at } of framesOfLap(program, scene)) {
    const placed = Array.from({ length: body.count }, (_, i) => placedOutline(body, i, sizes))
    for (let a = 0; a < body.count; a++) {
      for (let b = a + 1; b < body.count; b++) {
        if (!found.has(`${a} ${b}`) && overlap(placed[a]!, placed[b]!)) found.set(`${a} ${b}`, { a, b, at })
      }
    }
  }
  return [...found.values()]
}

function overlap(a: Placed, b: Placed): boolean {
  const [dx, dy] = [a.x - b.x, a.y - b.y]
  const reach = a.reach + b.reach
  if (dx * dx + dy * dy >= reach * reach || a.points.length < 4 || b.points.length < 4) return false
  if (within(b.points, a.points[0]!, a.points[1]!) || within(a.points, b.points[0]!, b.points[1]!)) return true
  for (let i = 0; i < a.points.length; i += 2)
    for (let j = 0; j < b.points.length; j += 2) if (cross(a.points, i, b.points, j)) return true
  return false
}

function within(p: Float64Array, x: number, y: number): boolean {
  let inside = false
  for (let i = 0, j = p.length - 2; i < p.length; j = i, i += 2) {
    if (p[i + 1]! > y !== p[j + 1]! > y && x < ((p[j]! - p[i]!) * (y - p[i + 1]!)) / (p[j + 1]! - p[i + 1]!) + p[i]!)
      inside = !inside
  }
  return inside
}

/** Whether the edges that begin at two corners cross. */
function cross(p: Float64Array, i: number, q: Float64Array, j: number): boolean {
  const [k, l] = [(i + 2) % p.length, (j + 2) % q.length]
  const side = (ax: number, ay: number, bx: number, by: number, cx: number, cy: number) =>
    (bx - ax) * (cy - ay) - (by - ay) * (cx - ax)
  const [ax, ay, bx, by] = [p[i]!, p[i + 1]!, p[k]!, p[k + 1]!]
  const [cx, cy, dx, dy] = [q[j]!, q[j + 1]!, q[l]!, q[l + 1]!]
  return (
    side(ax, ay, bx, by, cx, cy) > 0 !== side(ax, ay, bx, by, dx, dy) > 0 &&
    side(cx, cy, dx, dy, ax, ay) > 0 !== side(cx, cy, dx, dy, bx, by) > 0
  )
}
