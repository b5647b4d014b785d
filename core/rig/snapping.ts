/** Where parts that are moved by hand are drawn to: the stage, other parts and their pins, gears that may engage. */
import { pitchRadius } from '../piece/gearing.ts'
import type { Piece } from '../piece/schema.ts'
import { matrix, scaleOf, type Matrix } from '../piece/transform.ts'
import { inDepth, seen, seenIn, toEye } from './depth/eye.ts'
import { isSolid } from './depth/layers.ts'
import { outlineAt } from './outlined.ts'
import type { Body } from './body.ts'
import type { Scene } from './scene.ts'

/** On the stage, px. */
export interface Box {
  readonly left: number
  readonly right: number
  readonly low: number
  readonly high: number
}

const seat = matrix()

const away = new Float64Array(3)

/** Round an instance as it is seen, in depth with its back, and with nothing that it carries; null where it has no outline. */
export function boxOf(scene: Scene, body: Body, instance: number): Box | null {
  const { eye } = scene
  const outline = outlineAt(body, instance)
  const m = body.worlds[instance]
  if (!outline || !m || outline.points.length === 0) return null
  const { points, heights } = outline
  let [left, right, low, high] = [Infinity, -Infinity, Infinity, -Infinity]
  const reach = (world: Matrix, taper: number): void => {
    const e = toEye(eye, world, seat)
    for (let k = 0; k < points.length; k += 2) {
      const [x, y] = seenIn(eye, e, points[k]! * taper, points[k + 1]! * taper, heights ? heights[k / 2]! : 0)
      if (x < left) left = x
      if (x > right) right = x
      if (y < low) low = y
      if (y > high) high = y
    }
  }
  reach(m, 1)
  const thick = inDepth(eye) && isSolid(body.part) ? body.get('thickness', instance) : 0
  if (thick > 0) {
    scene.backOf(body, instance, away)
    behind.set(m)
    for (let k = 0; k < 3; k++) behind[4 * k + 3]! += away[k]! * thick
    reach(behind, body.get('taper', instance))
  }
  return Number.isFinite(left + right + low + high) ? { left, right, low, high } : null
}
const behind = matrix()

/** A part with all that it carries, at the copy that is held. */
export function boxWithCarried(scene: Scene, id: string, instance: number): Box | null {
  const top = scene.bodies.get(id)
  if (!top) return null
  const boxes: Box[] = []
  for (const body of scene.bodies.values()) {
    let [at, per]: [Body | null, number] = [body, 1]
    while (at && at.id !== id) {
      per *= at.own
      at = at.parent
    }
    if (!at) continue
    for (let i = instance * per; i < (instance + 1) * per && i < body.count; i++) {
      const box = boxOf(scene, body, i)
      if (box) boxes.push(box)
    }
  }
  return boxes.length > 0 ? around(boxes) : null
}

export const around = (boxes: readonly Box[]): Box => ({
  left: Math.min(...boxes.map(b => b.left)),
  right: Math.max(...boxes.map(b => b.right)),
  low: Math.min(...boxes.map(b => b.low)),
  high: Math.max(...boxes.map(b => b.high)),
})

/** Lines that something may be drawn to, across and up. */
export interface SnapLines {
  readonly x: readonly number[]
  readonly y: readonly number[]
  /** How far apart the lines of a grid lie, from the middle on; 0 for none. */
  readonly grid: number
}

/** The lines that are ruled over a stage: its edges and middle, what guides are shown, the grid. */
export function ruledLines({ width, height, guides, ownGuides, grid = 0 }: Piece['stage']): SnapLines {
  const shares = guides ? [0.5, ...SAFE.map(s => s / 2)] : [0.5]
  const of = (size: number, own: readonly number[] = []) => [
    0,
    ...shares.flatMap(s => [-s * size, s * size]),
    ...(guides ? own : []),
  ]
  return { x: of(width, ownGuides?.x), y: of(height, ownGuides?.y), grid }
}

/** What of a stage is safe for pictures, and for titles, on any screen. */
export const SAFE = [0.9, 0.8] as const

/** Instances that are looked at for lines, most. */
const MOST = 400

/** The lines of the stage and of all parts that are not moved. */
export function snapLines(scene: Scene, moved: ReadonlySet<string>): SnapLines {
  const { stage } = scene.program.piece
  const ruled = ruledLines(stage)
  const [x, y] = [[...ruled.x], [...ruled.y]]
  let count = 0
  for (const { body, instance } of scene.paint) {
    if (isCarried(body, moved) || !(body.opacity[instance]! > 0) || ++count > MOST) continue
    const box = boxOf(scene, body, instance)
    const { pivot } = body.part
    const m = body.worlds[instance]!
    const [px, py] = seen(scene.eye, m, pivot.x, pivot.y)
    x.push(px)
    y.push(py)
    // What fills the stage gives its lines already.
    if (!box || box.right - box.left >= stage.width) continue
    x.push(box.left, box.right)
    y.push(box.low, box.high)
  }
  return { x, y, grid: ruled.grid }
}

function isCarried(body: Body, by: ReadonlySet<string>): boolean {
  for (let at: Body | null = body; at; at = at.parent) if (by.has(at.id)) return true
  return false
}

export interface Snapped {
  /** What is added to the move. */
  readonly dx: number
  readonly dy: number
  /** The lines that it lies on then; null for none. */
  readonly x: number | null
  readonly y: number | null
}

/** A point drawn to lines within reach. */
export function pointDrawnTo(x: number, y: number, lines: SnapLines, reach: number): [number, number] {
  const to = drawnTo({ left: x, right: x, low: y, high: y }, lines, reach)
  return [x + to.dx, y + to.dy]
}

/** Draws a box that has been moved to the nearest lines within reach. */
export function drawnTo(box: Box, lines: SnapLines, reach: number): Snapped {
  const nearest = (own: readonly number[], of: readonly number[]): readonly [number, number | null] => {
    let [by, line]: [number, number | null] = [0, null]
    let least = reach
    const draw = (l: number, o: number) => {
      const far = Math.abs(l - o)
      if (far < least) [least, by, line] = [far, l - o, l]
    }
    for (const l of of) for (const o of own) draw(l, o)
    // A line of the grid only where nothing else is as near.
    if (lines.grid > 0) for (const o of own) draw(Math.round(o / lines.grid) * lines.grid, o)
    return [by, line]
  }
  const [dx, x] = nearest([box.left, (box.left + box.right) / 2, box.right], lines.x)
  const [dy, y] = nearest([box.low, (box.low + box.high) / 2, box.high], lines.y)
  return { dx, dy, x, y }
}

/**
 * Draws a side or a corner of a part that stands at `m` and is pulled to a point: a corner both ways, a side only the
 * way that it goes when it is pulled.
 *
 * @param side −1, 0 or 1 across and up
 */
export function sideDrawnTo(
  m: Matrix,
  side: readonly [number, number],
  x: number,
  y: number,
  lines: SnapLines,
  reach: number,
): Snapped {
  const to = drawnTo({ left: x, right: x, low: y, high: y }, lines, reach)
  // Where the side looks to on the stage.
  const [wx, wy] = [m[0] * side[0] + m[1] * side[1], m[4] * side[0] + m[5] * side[1]].map(Math.abs) as [number, number]
  const corner = side[0] !== 0 && side[1] !== 0
  const none = { dx: 0, dy: 0, x: null, y: null }
  return {
    ...none,
    ...((corner || wx > wy) && { dx: to.dx, x: to.x }),
    ...((corner || wy > wx) && { dy: to.dy, y: to.y }),
  }
}

/**
 * How far a gear at a place has to go so that it meets another that is not moved, and which.
 *
 * @param double whether it is a double that is moved, which may meet the gear that it is of
 */
export function engaging(
  scene: Scene,
  id: string,
  instance: number,
  at: readonly [number, number],
  reach: number,
  double = false,
): { readonly dx: number; readonly dy: number; readonly other: string } | null {
  const own = scene.bodies.get(id)
  const shape = own?.part.shape
  if (!own || shape?.type !== 'gear') return null
  const scale = scaleOf(own.worlds[instance]!)
  let best: { dx: number; dy: number; other: string; far: number } | null = null
  for (const body of scene.bodies.values()) {
    const other = body.part.shape
    if (other.type !== 'gear' || (!double && isCarried(body, new Set([id])))) continue
    const m = body.worlds[0]!
    const apart = pitchRadius(shape) * scale + pitchRadius(other) * scaleOf(m)
    const [vx, vy] = [at[0] - m[3], at[1] - m[7]]
    const d = Math.sqrt(vx * vx + vy * vy)
    const far = Math.abs(d - apart)
    if (d > 0 && far < (best?.far ?? reach))
      best = { dx: (vx / d) * (apart - d), dy: (vy / d) * (apart - d), other: body.id, far }
  }
  return best && { dx: best.dx, dy: best.dy, other: best.other }
}
