/** Which copies of a part overlap at some moment of the lap, looked at frame by frame. */
import type { Program } from '../engine/program.ts'
import type { Body } from '../rig/body.ts'
import { inDepth } from '../rig/depth/eye.ts'
import { Scene } from '../rig/scene.ts'
import type { Rational } from '../time/rational.ts'
import { framesOfLap, outlineInLap, Reaches, type Placed } from './lap-frames.ts'

export interface Overlap {
  readonly a: number
  readonly b: number
  /** The first moment of the lap, in seconds, at which they are seen to overlap. */
  readonly at: Rational
}

/** Pairs that are told of one part, at most. */
export const MOST_OVERLAPS = 1000

/**
 * The pairs of instances of a part that overlap during the first lap, each with its first moment; no more than
 * `MOST_OVERLAPS`, after which nothing is looked for any more.
 */
export function overlappingCopies(program: Program, part: string): Overlap[] {
  const scene = new Scene(program)
  const body = scene.bodies.get(part)
  if (!body || body.count < 2) return []
  const { count, layers } = body
  const found: Overlap[] = []
  const known = new Set<number>()
  const deep = inDepth(scene.eye)
  // Joined layers of one thing are one body: only what stands beside it on the same layer can touch it.
  const layer = (i: number) => (layers ? Math.floor(i / layers.stride) % layers.count : 0)
  const near = new Near(body)
  for (const { at } of framesOfLap(program, scene)) {
    const placed = new Map<number, Placed>()
    const place = (i: number): Placed => {
      const there = placed.get(i) ?? outlineInLap(body, i)
      placed.set(i, there)
      return there
    }
    const now: Overlap[] = []
    near.pairs((a, b) => {
      if (now.length + found.length >= MOST_OVERLAPS || known.has(a * count + b) || layer(a) !== layer(b)) return
      if (!overlap(place(a), place(b), deep)) return
      known.add(a * count + b)
      now.push({ a, b, at })
    })
    found.push(...now.sort((p, q) => p.a - q.a || p.b - q.b))
    if (found.length >= MOST_OVERLAPS) break
  }
  return found
}

/** Which instances may be near enough to overlap: those are looked at alone that reach as far as one another across. */
class Near {
  private readonly x: Float64Array
  private readonly y: Float64Array
  private readonly reach: Float64Array
  /** Where each stands from left to right, and which it is: numbers, which are put in order ten times as fast as objects. */
  private readonly keys: Float64Array
  /** The same in that order: which, where, and how far it reaches. */
  private readonly which: Uint32Array
  private readonly across: Float64Array
  private readonly up: Float64Array
  private readonly far: Float64Array
  private readonly reaches = new Reaches()

  constructor(private readonly body: Body) {
    const { count } = body
    this.x = new Float64Array(count)
    this.y = new Float64Array(count)
    this.reach = new Float64Array(count)
    this.keys = new Float64Array(count)
    this.which = new Uint32Array(count)
    this.across = new Float64Array(count)
    this.up = new Float64Array(count)
    this.far = new Float64Array(count)
  }

  /** Gives every pair, the lower number first, that is not surely apart as the body stands now. */
  pairs(give: (a: number, b: number) => void): void {
    const { body, x, y, reach } = this
    let [widest, left, right] = [0, Infinity, -Infinity]
    for (let i = 0; i < body.count; i++) {
      const m = body.worlds[i]!
      x[i] = m[3]
      y[i] = m[7]
      reach[i] = this.reaches.of(body, i)
      if (!Number.isFinite(x[i]! + y[i]! + reach[i]!)) continue
      widest = Math.max(widest, reach[i]!)
      left = Math.min(left, x[i]!)
      right = Math.max(right, x[i]!)
    }
    const step = (right - left) / PLACES || 1
    const n = this.order(left, step)
    const { which, across, up, far } = this
    for (let k = 0; k < n; k++) {
      // Within a place they are in no order.
      const end = across[k]! + far[k]! + widest + step
      for (let l = k + 1; l < n && across[l]! < end; l++) {
        const dx = across[l]! - across[k]!
        const dy = up[l]! - up[k]!
        const both = far[k]! + far[l]!
        if (dx * dx + dy * dy < both * both) give(Math.min(which[k]!, which[l]!), Math.max(which[k]!, which[l]!))
      }
    }
  }

  /** Puts those that stand somewhere in order, from left to right; how many. */
  private order(left: number, step: number): number {
    const { body, x, y, reach, keys, which, across, up, far } = this
    let n = 0
    for (let i = 0; i < body.count; i++)
      if (Number.isFinite(x[i]! + y[i]! + reach[i]!)) keys[n++] = Math.floor((x[i]! - left) / step) * body.count + i
    const ordered = keys.subarray(0, n).sort()
    for (let k = 0; k < n; k++) {
      const i = ordered[k]! % body.count
      which[k] = i
      across[k] = x[i]!
      up[k] = y[i]!
      far[k] = reach[i]!
    }
    return n
  }
}

/** Places across into which all are put in order. */
const PLACES = 4_294_967_296

/** Whether two outlines overlap as they are seen. */
export function overlap(a: Placed, b: Placed, deep: boolean): boolean {
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
