/**
 * Outlines drawn with the pen, in a pose: points between two poses, joined straight or smoothly (cubic Hermite pieces with
 * the slopes of Catmull and Rom, as `core/piece/path.ts`), and the triangles that fill them.
 */
import earcut from 'earcut'
import type { Shape } from '../../piece/schema.ts'

export type PathShape = Extract<Shape, { type: 'path' }>
type Ring = PathShape['poses'][number][number]

/** Pieces of a stretch that bends, and how many points a pose is laid with at most: filling what crosses itself takes their square. */
const PIECES = 10
const MOST_LAID = 4000

const laidIn = new WeakMap<Shape, number>()
/** In how many pieces a bend of a path is laid: the more points it has, the fewer; 1 where all is straight. */
export function piecesOf(shape: PathShape): number {
  let pieces = laidIn.get(shape)
  if (pieces === undefined) {
    const points = shape.poses[0]!.reduce((n, ring) => n + ring.length, 0)
    const bends = Math.max(...shape.poses.map(p => p.reduce((n, ring) => n + ring.filter(c => c.smooth).length, 0)))
    // A stretch bends by either of its ends.
    const room = bends === 0 ? PIECES : Math.floor((MOST_LAID - points) / Math.min(points, 2 * bends)) + 1
    pieces = Math.min(PIECES, Math.max(1, room))
    laidIn.set(shape, pieces)
  }
  return pieces
}
/** Whether it has so many points that its bends are laid in fewer pieces than others have. */
export const laidCoarsely = (shape: PathShape): boolean => piecesOf(shape) < PIECES

/** Which two poses, and how far from the one to the other; after the last comes the first. */
export function between(poses: number, pose: number): { a: number; b: number; share: number } {
  if (poses < 2 || !Number.isFinite(pose)) return { a: 0, b: 0, share: 0 }
  const round = pose - Math.floor(pose / poses) * poses
  const a = Math.min(poses - 1, Math.floor(round))
  return { a, b: (a + 1) % poses, share: round - a }
}

/** All rings of a path as lines of points, x and y in turn; the first is its outline, the others are holes in it. */
export function ringsOfPose(shape: PathShape, pose: number): Float64Array[] {
  const { a, b, share } = between(shape.poses.length, pose)
  const pieces = piecesOf(shape)
  return shape.poses[a]!.map((from, k) =>
    lineThrough(from, shape.poses[b]![k]!, share, shape.closed || k > 0, FLAT, pieces),
  )
}

/** Of an open line in depth: how far towards the eye each point of `ringsOfPose` is; null where all lie in its plane. */
export function heightsOf(shape: PathShape, pose: number): Float64Array | null {
  if (depthOf(shape) === 0) return null
  const { a, b, share } = between(shape.poses.length, pose)
  return lineThrough(shape.poses[a]![0]!, shape.poses[b]![0]!, share, false, DEEP, piecesOf(shape))
}

const deepest = new WeakMap<Shape, number>()

/** How far before or behind its plane the points of an open line lie, at most; 0 of what is flat. */
export function depthOf(shape: Shape): number {
  if (shape.type !== 'path' || shape.closed) return 0
  let found = deepest.get(shape)
  if (found === undefined) {
    found = Math.max(...shape.poses.flatMap(p => p[0]!.map(c => Math.abs(c.z ?? 0))))
    deepest.set(shape, found)
  }
  return found
}

type Axis = 'x' | 'y' | 'z'
const FLAT: readonly Axis[] = ['x', 'y']
const DEEP: readonly Axis[] = ['z']

/** Points along some axes, in turn. */
function lineThrough(
  from: Ring,
  to: Ring,
  share: number,
  closed: boolean,
  axes: readonly Axis[],
  pieces: number,
): Float64Array {
  const n = from.length
  const along = axes.map(axis => (k: number) => {
    const [p, q] = [from[k]![axis] ?? 0, to[k]![axis] ?? 0]
    return p + (q - p) * share
  })
  // Where one pose bends and the other does not, it bends more and more.
  const soft = (k: number) => (from[k]!.smooth ? 1 - share : 0) + (to[k]!.smooth ? share : 0)
  const round = closed && n > 2
  const out: number[] = []
  for (let k = 0; k < (round ? n : n - 1); k++) {
    const next = (k + 1) % n
    const before = round ? (k + n - 1) % n : Math.max(0, k - 1)
    const after = round ? (next + 1) % n : Math.min(n - 1, next + 1)
    for (const of of along) out.push(of(k))
    const [sa, sb] = [soft(k), soft(next)]
    if (sa === 0 && sb === 0) continue
    const slope = (of: (k: number) => number): [number, number] => {
      const straight = of(next) - of(k)
      return [
        straight + sa * ((of(next) - of(before)) / 2 - straight),
        straight + sb * ((of(after) - of(k)) / 2 - straight),
      ]
    }
    const slopes = along.map(slope)
    for (let piece = 1; piece < pieces; piece++) {
      const t = piece / pieces
      along.forEach((of, c) => out.push(hermite(of(k), slopes[c]![0], of(next), slopes[c]![1], t)))
    }
  }
  if (!round) for (const of of along) out.push(of(n - 1))
  return new Float64Array(out)
}

function hermite(p: number, from: number, q: number, to: number, t: number): number {
  const [t2, t3] = [t * t, t * t * t]
  return (2 * t3 - 3 * t2 + 1) * p + (t3 - 2 * t2 + t) * from + (3 * t2 - 2 * t3) * q + (t3 - t2) * to
}

/** Triangles over the points of all rings in turn, the first ring less the others. */
export function trianglesOf(rings: readonly Float64Array[]): number[] {
  const all: number[] = []
  const holes: number[] = []
  rings.forEach((r, k) => {
    if (k > 0) holes.push(all.length / 2)
    for (const v of r) all.push(v)
  })
  return earcut(all, holes)
}
