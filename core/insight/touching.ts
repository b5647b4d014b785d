/** Which copies of a part overlap at some moment of the lap, looked at frame by frame. */
import type { Program } from '../engine/program.ts'
import { outlineOf } from '../rig/outline.ts'
import { noSizes, sizesOf } from '../rig/sizing.ts'
import { Scene } from '../rig/scene.ts'
import { applyX, applyY } from '../piece/transform.ts'
import { momentOfSeconds } from '../time/moment.ts'
import { floor, fromNumber, over, plus, rational, times, type Rational } from '../time/rational.ts'

export interface Touch {
  readonly a: number
  readonly b: number
  /** The first moment of the lap, in seconds, at which they are seen to overlap. */
  readonly at: Rational
}

/** Frames of the lap that are looked at, at most. */
const MOST_FRAMES = 600

/** The pairs of instances of a part that overlap during the first lap, each with its first moment. */
export function touching(program: Program, part: string): Touch[] {
  const scene = new Scene(program)
  const body = scene.bodies.get(part)
  if (!body || body.count < 2) return []
  const { frameRate, lapLength } = program.measures
  const all = Number(floor(times(lapLength, frameRate)))
  const step = Math.max(1, Math.ceil(all / MOST_FRAMES))
  const values = new Float64Array(program.size)
  const sizes = noSizes()
  const found = new Map<string, Touch>()
  const start = fromNumber(program.piece.lap.start)
  for (let frame = 0; frame < all; frame += step) {
    const at = plus(start, over(rational(frame), frameRate))
    const m = momentOfSeconds(at, frameRate)
    scene.update(program.moment(m, values), m)
    const placed = Array.from({ length: body.count }, (_, i) => outlineAt(i))
    for (let a = 0; a < body.count; a++) {
      for (let b = a + 1; b < body.count; b++) {
        if (!found.has(`${a} ${b}`) && overlap(placed[a]!, placed[b]!)) found.set(`${a} ${b}`, { a, b, at })
      }
    }
  }
  return [...found.values()]

  function outlineAt(i: number): Placed {
    const outline = outlineOf(body!.part.shape, sizesOf(body!, i, sizes))
    const m = body!.worlds[i]!
    const points = new Float64Array(outline?.points.length ?? 0)
    let reach = 0
    for (let k = 0; k < points.length; k += 2) {
      points[k] = applyX(m, outline!.points[k]!, outline!.points[k + 1]!)
      points[k + 1] = applyY(m, outline!.points[k]!, outline!.points[k + 1]!)
      const [dx, dy] = [points[k]! - m[3]!, points[k + 1]! - m[7]!]
      reach = Math.max(reach, Math.sqrt(dx * dx + dy * dy))
    }
    return { points, x: m[3]!, y: m[7]!, reach }
  }
}

interface Placed {
  readonly points: Float64Array
  readonly x: number
  readonly y: number
  readonly reach: number
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
