/**
 * A path through points, measured by its length: straight from point to point, or smooth through them (cubic
 * Hermite pieces with the slopes of Catmull and Rom, "A class of local interpolating splines", 1974). Px; directions
 * in turns, anticlockwise from the right.
 */
import { atanTurns } from '../signal/maths.ts'

export interface PathPoint {
  readonly x: number
  readonly y: number
}

/** A place on a path and the way it runs there. */
export interface PathPlace extends PathPoint {
  readonly direction: number
}

/** Straight pieces that a smooth piece is measured in. */
const PIECES = 32

export class Path {
  private readonly corners: readonly PathPoint[]
  /** Length from the start to each corner. */
  private readonly lengths: readonly number[]

  constructor(points: readonly PathPoint[], closed: boolean, smooth: boolean) {
    const round = closed && points.length > 2
    this.corners = smooth ? smoothed(points, round) : round ? [...points, points[0]!] : points
    let length = 0
    this.lengths = this.corners.map((p, i) => {
      if (i > 0) length += apart(this.corners[i - 1]!, p)
      return length
    })
  }

  get length(): number {
    return this.lengths.at(-1) ?? 0
  }

  /** The place a share of the whole length from its start. */
  at(share: number): PathPlace {
    const { corners, lengths } = this
    const wanted = Math.min(1, Math.max(0, share)) * this.length
    let [low, high] = [0, corners.length - 2]
    while (low < high) {
      const middle = (low + high + 1) >> 1
      if (lengths[middle]! <= wanted) low = middle
      else high = middle - 1
    }
    const [a, b] = [corners[low]!, corners[low + 1] ?? corners[low]!]
    const piece = apart(a, b)
    const part = piece > 0 ? (wanted - lengths[low]!) / piece : 0
    return {
      x: a.x + (b.x - a.x) * part,
      y: a.y + (b.y - a.y) * part,
      direction: piece > 0 ? atanTurns(b.y - a.y, b.x - a.x) : 0,
    }
  }
}

const apart = (a: PathPoint, b: PathPoint): number => Math.sqrt((b.x - a.x) * (b.x - a.x) + (b.y - a.y) * (b.y - a.y))

function smoothed(points: readonly PathPoint[], round: boolean): PathPoint[] {
  const n = points.length
  if (n < 2) return [...points]
  const at = (i: number): PathPoint => (round ? points[((i % n) + n) % n]! : points[Math.min(n - 1, Math.max(0, i))]!)
  const corners: PathPoint[] = [at(0)]
  for (let i = 0; i < (round ? n : n - 1); i++) {
    const [before, a, b, after] = [at(i - 1), at(i), at(i + 1), at(i + 2)]
    for (let k = 1; k <= PIECES; k++) corners.push(between(before, a, b, after, k / PIECES))
  }
  return corners
}

function between(before: PathPoint, a: PathPoint, b: PathPoint, after: PathPoint, t: number): PathPoint {
  const on = (p0: number, p1: number, p2: number, p3: number): number =>
    p1 + 0.5 * t * (p2 - p0 + t * (2 * p0 - 5 * p1 + 4 * p2 - p3 + t * (3 * (p1 - p2) + p3 - p0)))
  return { x: on(before.x, a.x, b.x, after.x), y: on(before.y, a.y, b.y, after.y) }
}
