/** Which copies of a part overlap at some moment of the lap, looked at frame by frame. */
import type { Program } from '../engine/program.ts'
import { inDepth } from '../rig/eye.ts'
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
  const found = new Map<string, Touch>()
  const deep = inDepth(scene.eye)
  // Joined layers of one thing are one body: only what stands beside it on the same layer can touch it.
  const { layers } = body
  const layer = (i: number) => (layers ? Math.floor(i / layers.stride) % layers.count : 0)
  const apart = (a: number, b: number) => layer(a) === layer(b)
  for (const { at } of framesOfLap(program, scene)) {
    const placed = Array.from({ length: body.count }, (_, i) => placedOutline(body, i))
    for (let a = 0; a < body.count; a++) {
      for (let b = a + 1; b < body.count; b++) {
        const asked = !found.has(`${a} ${b}`) && apart(a, b)
        if (asked && overlap(placed[a]!, placed[b]!, deep)) found.set(`${a} ${b}`, { a, b, at })
      }
    }
  }
  return [...found.values()]
}

function overlap(a: Placed, b: Placed, deep: boolean): boolean {
  const [dx, dy] = [a.x - b.x, a.y - b.y]
  const reach = a.reach + b.reach
  if (dx * dx + dy * dy >= reach * reach) return false
  // One behind the other they do not meet.
  if (deep && (a.far > b.near || b.far > a.near)) return false
  return a.outlines.some(p => b.outlines.some(q => meet(p, q)))
}

function meet(p: Float64Array, q: Float64Array): boolean {
  if (p.length < 4 || q.length < 4) return false
  // Edges that lie along one another do not cross: corners tell that one lies in the other.
  const inside = (a: Float64Array, b: Float64Array) => {
    for (let i = 0; i < a.length; i += 2) if (within(b, a[i]!, a[i + 1]!)) return true
    return false
  }
  if (inside(p, q) || inside(q, p)) return true
  for (let i = 0; i < p.length; i += 2) for (let j = 0; j < q.length; j += 2) if (cross(p, i, q, j)) return true
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
