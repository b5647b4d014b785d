/** Outlines drawn with the pen: made, their points moved, added, taken away, and their poses. */
import { propertyKey } from '../piece/drive-key.ts'
import { operation, type Operation } from '../piece/operation.ts'
import { initialOf, propertyNamed } from '../piece/properties.ts'
import type { Piece, Shape } from '../piece/schema.ts'
import { kept } from '../signal/thinned.ts'
import { addPart, setBase, setPart } from './parts.ts'
import { apply, compose } from '../piece/operation.ts'

export type DrawnShape = Extract<Shape, { type: 'path' }>
export type OutlinePoint = DrawnShape['poses'][number][number][number]

const rounded = (v: number): number => Number(v.toFixed(2)) || 0
const cornerAt = ({ x, y, z, smooth }: OutlinePoint): OutlinePoint => ({
  x: rounded(x),
  y: rounded(y),
  ...(z !== undefined && rounded(z) !== 0 && { z: rounded(z) }),
  smooth,
})

export function drawnOf(piece: Piece, id: string): DrawnShape | null {
  const shape = piece.parts[id]?.shape
  return shape?.type === 'path' ? shape : null
}

/** A part of points on the stage (or in its parent): it stands at the middle of them. */
export function addPath(
  piece: Piece,
  points: readonly OutlinePoint[],
  closed: boolean,
  parent: string | null = null,
): { id: string; op: Operation } {
  const middle = (of: readonly number[]) => rounded((Math.min(...of) + Math.max(...of)) / 2)
  const [x, y] = [middle(points.map(p => p.x)), middle(points.map(p => p.y))]
  const ring = points.map(p => cornerAt({ ...p, x: p.x - x, y: p.y - y }))
  const { id, op } = addPart(piece, { type: 'path', closed, poses: [[ring]] }, { parent })
  const line = closed ? [] : ([['strokeWidth', 6]] as const)
  const all = ([['x', x], ['y', y], ...line] as [string, number][])
    .filter(([, value]) => value !== 0)
    .reduce((done, [property, value]) => compose(done, setBase(apply(piece, done), id, property, value)), op)
  return { id, op: { ...all, undoLabel: 'draw a path' } }
}

/** How far a kept line may lie off what was laid, px, and its points, most. */
const KEEP = 0.2
const MOST_KEPT = 500

/**
 * What a trace has laid becomes a path of its own, as solid and as wide; the trace goes on.
 *
 * @param laid points on the stage, x and y in turn
 * @param heights of each, towards the eye
 */
export function keepAsPath(
  piece: Piece,
  trace: string,
  laid: Float64Array,
  heights: Float64Array = new Float64Array(laid.length / 2),
): { id: string; op: Operation } | null {
  const n = laid.length / 2
  if (n < 2) return null
  const off = (i: number, from: number, to: number): number => {
    const [ax, ay, az] = [laid[2 * from]!, laid[2 * from + 1]!, heights[from]!]
    const [dx, dy, dz] = [laid[2 * to]! - ax, laid[2 * to + 1]! - ay, heights[to]! - az]
    const [px, py, pz] = [laid[2 * i]! - ax, laid[2 * i + 1]! - ay, heights[i]! - az]
    const square = dx * dx + dy * dy + dz * dz
    const share = square > 0 ? Math.min(1, Math.max(0, (px * dx + py * dy + pz * dz) / square)) : 0
    const [ex, ey, ez] = [px - dx * share, py - dy * share, pz - dz * share]
    return Math.sqrt(ex * ex + ey * ey + ez * ez)
  }
  let stays = kept(n, off, KEEP)
  for (let keep = 2 * KEEP; stays.size > MOST_KEPT; keep *= 2) stays = kept(n, off, keep)
  const points = [...stays]
    .sort((a, b) => a - b)
    .map(i => ({ x: laid[2 * i]!, y: laid[2 * i + 1]!, z: heights[i]!, smooth: false }))
  const { name } = piece.parts[trace]!
  const { id, op } = addPath(piece, points, false)
  const done = [...SEEN].reduce((all, property) => {
    const held = piece.bases[propertyKey(trace, property)]?.value ?? initialOf(propertyNamed(property)!, 'trace')
    return compose(all, setBase(apply(piece, all), id, property, held))
  }, op)
  return { id, op: { ...done, undoLabel: `keep ${name} as a path` } }
}

/** How a line looks. */
const SEEN = ['strokeWidth', 'strokeHue', 'strokeLightness', 'strokeChroma', 'strokeAlpha'] as const

const put = (piece: Piece, id: string, says: string, change: Partial<DrawnShape>): Operation => ({
  ...setPart(piece, id, { shape: { ...drawnOf(piece, id)!, ...change } }),
  undoLabel: `${says} of ${piece.parts[id]!.name}`,
})

/** One point of one pose somewhere else, or smooth, or a bend. */
export function setCorner(
  piece: Piece,
  id: string,
  pose: number,
  ring: number,
  nth: number,
  change: Partial<OutlinePoint>,
): Operation {
  const { poses } = drawnOf(piece, id)!
  const next = poses.map((p, i) =>
    i === pose
      ? p.map((r, j) => (j === ring ? r.map((c, k) => (k === nth ? cornerAt({ ...c, ...change }) : c)) : r))
      : p,
  )
  return put(piece, id, 'a point', { poses: next })
}

/** A point more in every pose, a share of the way from one to the next. */
export function addCorner(piece: Piece, id: string, ring: number, after: number, share: number): Operation {
  const { poses } = drawnOf(piece, id)!
  const next = poses.map(p =>
    p.map((r, j) => {
      if (j !== ring) return r
      const [a, b] = [r[after]!, r[(after + 1) % r.length]!]
      const along = (p = 0, q = 0) => p + (q - p) * share
      const mid = { x: along(a.x, b.x), y: along(a.y, b.y), z: along(a.z, b.z), smooth: a.smooth || b.smooth }
      return [...r.slice(0, after + 1), cornerAt(mid), ...r.slice(after + 1)]
    }),
  )
  return put(piece, id, 'add a point', { poses: next })
}

/** A point taken out of every pose; null where too few would be left. */
export function removeCorner(piece: Piece, id: string, ring: number, nth: number): Operation | null {
  const { poses, closed } = drawnOf(piece, id)!
  if (poses[0]![ring]!.length <= (closed ? 3 : 2)) return null
  const next = poses.map(p => p.map((r, j) => (j === ring ? r.filter((_, k) => k !== nth) : r)))
  return put(piece, id, 'delete a point', { poses: next })
}

export const MOST_POSES = 24

/** Another pose after one, which it begins as. */
export function addPose(piece: Piece, id: string, after: number): Operation {
  const { poses } = drawnOf(piece, id)!
  return put(piece, id, 'add a pose', {
    poses: [...poses.slice(0, after + 1), poses[after]!, ...poses.slice(after + 1)],
  })
}

export function removePose(piece: Piece, id: string, nth: number): Operation {
  const { poses } = drawnOf(piece, id)!
  return put(piece, id, 'delete a pose', { poses: poses.filter((_, k) => k !== nth) })
}

/** All points of the outline of a pose as they were typed; of other poses those that there were stay where they can. */
export function setPoints(piece: Piece, id: string, pose: number, points: readonly OutlinePoint[]): Operation {
  const { poses } = drawnOf(piece, id)!
  const next = poses.map((p, i) => {
    const [outer, ...holes] = p
    if (i === pose) return [points.map(cornerAt), ...holes]
    return [points.map((c, k) => outer![k] ?? cornerAt(c)), ...holes]
  })
  return put(piece, id, 'the points', { poses: next })
}

export const setClosed = (piece: Piece, id: string, closed: boolean): Operation =>
  operation(`${closed ? 'close' : 'open'} ${piece.parts[id]!.name}`, ...put(piece, id, '', { closed }).puts)
