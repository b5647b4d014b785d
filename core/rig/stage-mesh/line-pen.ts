/** Lays lines: along an outline or a part of it, in dashes, with their ends and bends. */
import { atanTurns } from '../../signal/maths.ts'
import { cosineOfTurns, sineOfTurns } from '../../signal/sine.ts'
import { dashed, type Dashes } from '../outline/dashes.ts'
import { cutOutline, type Outline } from '../outline/outline.ts'
import type { Part } from '../../piece/schema.ts'
import { MeshSheet, TAG } from './mesh-sheet.ts'
import { runsOf } from '../tail.ts'
import type { OutlineSpot } from '../outline/points-laid.ts'

/** Across a line: clear, solid, solid, clear. */
const LINE = [
  TAG.line | TAG.lineOut | TAG.fringeOut,
  TAG.line | TAG.lineOut | TAG.fringeIn | TAG.solid,
  TAG.line | TAG.lineIn | TAG.fringeOut | TAG.solid,
  TAG.line | TAG.lineIn | TAG.fringeIn,
]

const WHOLE: Dashes = { dash: 0, gap: 0, offset: 0 }
/** Half turns about an end at which a cap has corners. */
const CAP_STEPS = Array.from({ length: 9 }, (_, k) => k / 8 - 0.5)
const SQUARE = [-0.5, -0.25, 0.25, 0.5]

/** How the ends and the bends of a line are. */
export type LineEnds = Pick<Part, 'cap' | 'join'>
const PLAIN: LineEnds = {}

/** Turns from which on a bend is one; below it a line is smooth and its bends are mitred whatever is asked for. */
const BENDS = 1 / 24
/** Turns of a round bend that one triangle takes. */
const FAN = 1 / 32

export class LinePen extends MeshSheet {
  /** The line along an outline, from a share of it to another, in dashes, with ends as the part has them. */
  stroke(o: Outline, from: number, to: number, dashes: Dashes = WHOLE, ends: LineEnds = PLAIN): void {
    for (const hole of o.drawn?.holes ?? []) this.stroke({ points: hole, closed: true }, from, to, dashes, ends)
    for (const line of dashed(cutOutline(o, from, to), dashes)) this.line(line, ends)
  }

  private line(o: Outline, { cap, join }: LineEnds): void {
    const { points, closed, heights } = o
    const n = points.length / 2
    if (n < 2) return
    if (join) this.joined(o, join)
    else {
      const first = this.rail(points, closed, LINE)
      if (this.heights && heights) this.raise(first, LINE.length, heights, closed)
      for (let k = 0; k < (closed ? n : n - 1); k++) this.across(first + 4 * k, first + 4 * ((k + 1) % n))
    }
    if (closed || cap === 'flat' || !cap) return
    this.cap(points, 0, 1, cap, heights)
    this.cap(points, n - 1, n - 2, cap, heights)
  }

  /** A corner at a point between two others. */
  private spot(p: OutlineSpot, before: OutlineSpot, after: OutlineSpot, tag: number): number {
    const c = this.put(p[0], p[1], before[0], before[1], after[0], after[1], tag)
    if (this.heights && c < this.lastCorner) this.heights.set([p[2], before[2], after[2]], 3 * c)
    return c
  }

  /** The line of a trace in pieces by its age, each on a row of its own from a row on. */
  tail(o: Outline, from: number, to: number, dashes: Dashes, { cap }: LineEnds, row: number): void {
    for (const line of dashed(cutOutline(o, from, to), dashes)) {
      const runs = runsOf(line, line.ages!)
      const turned = areaOf(line.points) < 0 ? TAG.clockwise : 0
      for (const { nth, spots, before, after } of runs) {
        this.begin(row + nth)
        let last = -1
        spots.forEach((p, k) => {
          const [a, b] = [k > 0 ? spots[k - 1]! : before, k + 1 < spots.length ? spots[k + 1]! : after]
          const rail = this.corner
          for (const tag of LINE) this.spot(p, a, b, tag | turned | (p === a || p === b ? TAG.end : 0))
          if (last >= 0) this.across(last, rail)
          last = rail
        })
      }
      if (runs.length === 0 || !cap || cap === 'flat') continue
      const n = line.points.length / 2
      this.begin(row + runs[0]!.nth)
      this.cap(line.points, 0, 1, cap, line.heights)
      this.begin(row + runs.at(-1)!.nth)
      this.cap(line.points, n - 1, n - 2, cap, line.heights)
    }
  }

  /** From one rail of four corners to the next. */
  private across(a: number, b: number): void {
    for (let rail = 0; rail < 3; rail++) this.strip(a + rail, b + rail)
  }

  /**
   * A line whose bends are round or cut off: outside, each edge ends square to itself and a fan goes from the one to the
   * other; within, they meet as ever, so that nothing is painted twice.
   */
  private joined({ points, closed, heights }: Outline, join: 'round' | 'bevel'): void {
    const n = points.length / 2
    const turned = areaOf(points) < 0 ? TAG.clockwise : 0
    const at = (k: number): OutlineSpot => [points[2 * k]!, points[2 * k + 1]!, heights?.[k] ?? 0]
    const corner = (p: OutlineSpot, before: OutlineSpot, after: OutlineSpot, tag: number) =>
      this.spot(p, before, after, tag | turned)
    let [first, last] = [-1, -1]
    for (let k = 0; k < n; k++) {
      const p = at(k)
      const before = k > 0 ? at(k - 1) : closed ? at(n - 1) : p
      const after = k < n - 1 ? at(k + 1) : closed ? at(0) : p
      const [into, out] = [way(before, p), way(p, after)]
      const bend = into && out ? turnsBetween(into, out) : 0
      const sharp = Math.abs(bend) > BENDS
      // Which two of the four corners across lie outside the bend.
      const outside = bend > 0 === (turned === 0) ? [0, 1] : [3, 2]
      const [ahead, behind] = sharp ? [beyond(p, into!, 1), beyond(p, out!, -1)] : [after, before]
      const end = k > 0 || closed ? (k < n - 1 || closed ? 0 : TAG.end) : TAG.end
      const rails = (sharp ? [0, 1] : [0]).map(side => {
        const start = this.corner
        LINE.forEach((tag, j) => {
          const own = sharp && outside.includes(j)
          corner(p, own && side === 1 ? behind : before, own && side === 0 ? ahead : after, tag | end)
        })
        return start
      })
      const [a, b] = [rails[0]!, rails.at(-1)!]
      if (last >= 0) this.across(last, a)
      if (first < 0) first = a
      last = b
      if (!sharp) continue
      // The fan, from the one edge's end to the other's.
      const middle = a + (outside[1] === 1 ? 2 : 1)
      const [fringe, solid] = outside as [number, number]
      let from: readonly [number, number] = [a + fringe, a + solid]
      const steps = join === 'bevel' ? 1 : Math.ceil(Math.abs(bend) / FAN)
      for (let step = 1; step <= steps; step++) {
        let to: readonly [number, number] = [b + fringe, b + solid]
        if (step < steps) {
          const way = turnedWay(into!, out!, bend, step / steps)
          const ends = [beyond(p, way, -1), beyond(p, way, 1)] as const
          to = [corner(p, ...ends, LINE[fringe]!), corner(p, ...ends, LINE[solid]!)]
        }
        this.triangle(middle, from[1], to[1])
        this.triangle(from[0], from[1], to[0])
        this.triangle(to[0], from[1], to[1])
        from = to
      }
    }
    if (closed && first >= 0) this.across(last, first)
  }

  /** Round or square beyond the end of a line: a fan about the end, pushed outward by half the line all round. */
  private cap(points: Float64Array, end: number, inner: number, cap: 'round' | 'square', heights?: Float64Array): void {
    const [x, y] = [points[2 * end]!, points[2 * end + 1]!]
    const [dx, dy] = [x - points[2 * inner]!, y - points[2 * inner + 1]!]
    const long = Math.sqrt(dx * dx + dy * dy)
    if (!(long > 0)) return
    const [ux, uy] = [dx / long, dy / long]
    /** The way out, turned. */
    const way = (turns: number): readonly [number, number] => {
      const [c, s] = [cosineOfTurns(turns), sineOfTurns(turns)]
      return [ux * c - uy * s, uy * c + ux * s]
    }
    const start = this.corner
    const middle = this.put(x, y, x, y, x, y, TAG.line | TAG.solid | TAG.end)
    const turns = cap === 'round' ? CAP_STEPS : SQUARE
    const first = this.corner
    for (const turn of turns) {
      // A corner is pushed to the right of its way: that way lies a quarter turn on from where it should go.
      const at = turn / 2 + 0.25
      // The corners of a square lie further out than its sides, along the mitre of both.
      const skew = cap === 'square' && Math.abs(turn) === 0.25 ? 0.125 : 0
      const [[ax, ay], [bx, by]] = [way(at - skew), way(at + skew)]
      const tag = TAG.line | TAG.lineOut | (skew === 0 ? TAG.end : 0)
      for (const fringe of [TAG.fringeIn | TAG.solid, TAG.fringeOut])
        this.put(x, y, x - ax, y - ay, x + bx, y + by, tag | fringe)
    }
    for (let k = 0; k + 1 < turns.length; k++) {
      const [a, b] = [first + 2 * k, first + 2 * (k + 1)]
      this.triangle(middle, a, b)
      this.strip(a, b)
    }
    if (this.heights && heights)
      for (let c = start; c < this.corner && c < this.lastCorner; c++)
        this.heights.fill(heights[end]!, 3 * c, 3 * c + 3)
  }

  /** For each point its corners, one a tag; gives the first. */
  protected rail(points: Float64Array, closed: boolean, tags: readonly number[]): number {
    const first = this.corner
    const n = points.length / 2
    const turned = areaOf(points) < 0 ? TAG.clockwise : 0
    for (let k = 0; k < n; k++) {
      const before = k > 0 ? k - 1 : closed ? n - 1 : k
      const after = k < n - 1 ? k + 1 : closed ? 0 : k
      const end = before === k || after === k ? TAG.end : 0
      for (const tag of tags)
        this.put(
          points[2 * k]!,
          points[2 * k + 1]!,
          points[2 * before]!,
          points[2 * before + 1]!,
          points[2 * after]!,
          points[2 * after + 1]!,
          tag | turned | end,
        )
    }
    return first
  }

  /** The heights of a rail's points, with those before and after. */
  private raise(first: number, each: number, z: Float64Array, closed: boolean): void {
    const n = z.length
    for (let k = 0; k < n; k++)
      for (let j = 0; j < each; j++) {
        const at = 3 * (first + each * k + j)
        if (first + each * k + j >= this.lastCorner) return
        this.heights![at] = z[k]!
        this.heights![at + 1] = z[k > 0 ? k - 1 : closed ? n - 1 : k]!
        this.heights![at + 2] = z[k < n - 1 ? k + 1 : closed ? 0 : k]!
      }
  }
}

/** From one point on to another, as long as 1 px across; null where they are one. */
function way(from: OutlineSpot, to: OutlineSpot): OutlineSpot | null {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]]
  const long = Math.sqrt(dx * dx + dy * dy)
  return long > 0 ? [dx / long, dy / long, (to[2] - from[2]) / long] : null
}

const beyond = (p: OutlineSpot, w: OutlineSpot, by: 1 | -1): OutlineSpot => [
  p[0] + by * w[0],
  p[1] + by * w[1],
  p[2] + by * w[2],
]

/** How far one way turns to be another, −½ to ½ turns. */
const turnsBetween = (a: OutlineSpot, b: OutlineSpot): number =>
  atanTurns(a[0] * b[1] - a[1] * b[0], a[0] * b[0] + a[1] * b[1])

/** The way between two, a share on from the one to the other. */
function turnedWay(a: OutlineSpot, b: OutlineSpot, turns: number, share: number): OutlineSpot {
  const [c, s] = [cosineOfTurns(turns * share), sineOfTurns(turns * share)]
  return [a[0] * c - a[1] * s, a[1] * c + a[0] * s, a[2] + (b[2] - a[2]) * share]
}

/** Twice the area within an outline; below 0 where it runs clockwise. */
export function areaOf(points: Float64Array): number {
  const n = points.length / 2
  let area = 0
  for (let k = 0, j = n - 1; k < n; j = k++)
    area += points[2 * j]! * points[2 * k + 1]! - points[2 * k]! * points[2 * j + 1]!
  return area
}
