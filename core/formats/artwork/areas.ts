/** What is filled of an outline: areas with their holes, by the rule of the file for what runs over itself. */
// Its types are told here, so that they are known wherever this file is read.
// eslint-disable-next-line @typescript-eslint/triple-slash-reference
/// <reference path="./clipper-lib.d.ts" />
import clipper from 'clipper-lib'
import type { PathRing } from './path-data.ts'

type Points = PathRing['points']

/** Winding either way fills, or every other one, as SVG has it. */
export type Rule = 'nonzero' | 'evenodd'

export interface FilledArea {
  /** Its outline, then the holes in it. */
  readonly rings: readonly Points[]
  readonly closed: boolean
}

export interface FilledAreas {
  /** Areas that are filled; their lines too where they are `whole`. */
  readonly areas: readonly FilledArea[]
  /** Lines besides: what encloses nothing, and where the areas are others than the outlines, all of these. */
  readonly lines: readonly FilledArea[]
  /** Whether each outline is the line round its own area. */
  readonly whole: boolean
  /** Whether it runs over itself too often for that to be worked out. */
  readonly wild: boolean
}

/** Pairs of edges that are looked at, and crossings, at most. */
const MOST_PAIRS = 1_000_000
const MOST_CROSSINGS = 2000
/** Points of a ring, at most. */
const MOST = 500

/** @param filled whether it is filled, so that rings left open are areas too; @param lined whether it has a line */
export function filledAreas(rings: readonly PathRing[], filled: boolean, lined: boolean, rule: Rule): FilledAreas {
  const all = (some: readonly PathRing[]): FilledArea[] => some.map(r => ({ rings: [r.points], closed: r.closed }))
  if (!filled)
    return {
      areas: nested(closedOf(rings), 'evenodd'),
      lines: all(rings.filter(r => !isClosed(r))),
      whole: true,
      wild: false,
    }
  const areal = rings.filter(r => r.points.length > 2)
  const rest = rings.filter(r => r.points.length <= 2)
  const points = areal.map(r => r.points)
  const crossings = crossingsOf(points)
  const cut = crossings > 0 && crossings <= MOST_CROSSINGS ? clipped(points, rule) : null
  const wild = crossings > 0 && cut === null
  const areas = cut ?? nested(points, rule)
  // What is within and fills the same is no area, but has its line.
  const kept = areas.reduce((n, a) => n + a.rings.length, 0) === points.length
  const whole = cut === null && kept && areal.every(r => r.closed || !lined)
  return { areas, lines: whole ? all(rest) : lined ? all(rings) : [], whole, wild }
}

const isClosed = ({ points, closed }: PathRing): boolean => points.length > 2 && closed
const closedOf = (rings: readonly PathRing[]): Points[] => rings.filter(isClosed).map(r => r.points)

/** Rings that do not cross, as areas and the holes in them. */
function nested(rings: readonly Points[], rule: Rule): FilledArea[] {
  const areas = rings.map(points => ({ points, size: size(points) }))
  const around = areas.map(a =>
    areas.filter(b => b !== a && Math.abs(b.size) > Math.abs(a.size) && inside(b.points, a.points[0]!)),
  )
  /** How often what lies just within a ring, or just without, is wound round. */
  const wound = (k: number, own: boolean): number => {
    const all = own ? [areas[k]!, ...around[k]!] : around[k]!
    return rule === 'evenodd' ? all.length % 2 : all.reduce((n, a) => n + Math.sign(a.size), 0)
  }
  const outer = areas.filter((_, k) => wound(k, true) !== 0 && wound(k, false) === 0)
  const holes = areas.filter((_, k) => wound(k, true) === 0 && wound(k, false) !== 0)
  return outer.map(o => ({
    rings: [
      o.points,
      ...holes
        .filter(h => {
          const about = around[areas.indexOf(h)]!.filter(a => outer.includes(a))
          return o === about.reduce((least, b) => (Math.abs(b.size) < Math.abs(least.size) ? b : least), about[0]!)
        })
        .map(h => h.points),
    ],
    closed: true,
  }))
}

/** Parts of a px that are told apart. */
const FINE = 256

/** Rings that run over themselves and one another, cut where they cross (Vatti's method); null where there would be too many points. */
function clipped(rings: readonly Points[], rule: Rule): FilledArea[] | null {
  const { Clipper, PolyTree, PolyType, ClipType, PolyFillType } = clipper
  const engine = new Clipper()
  engine.StrictlySimple = true
  const whole = rings.map(r => r.map(([x, y]) => ({ X: Math.round(x * FINE), Y: Math.round(y * FINE) })))
  engine.AddPaths(whole, PolyType.ptSubject, true)
  const tree = new PolyTree()
  const by = rule === 'evenodd' ? PolyFillType.pftEvenOdd : PolyFillType.pftNonZero
  if (!engine.Execute(ClipType.ctUnion, tree, by, by)) return null
  const areas: FilledArea[] = []
  const pointsOf = (contour: readonly { X: number; Y: number }[]): Points => contour.map(p => [p.X / FINE, p.Y / FINE])
  const take = (nodes: ReturnType<typeof tree.Childs>): void => {
    for (const node of nodes) {
      areas.push({ rings: [pointsOf(node.Contour()), ...node.Childs().map(h => pointsOf(h.Contour()))], closed: true })
      for (const hole of node.Childs()) take(hole.Childs())
    }
  }
  take(tree.Childs())
  const seen = areas.filter(a => Math.abs(size(a.rings[0]!)) > 1e-3)
  return seen.every(a => a.rings.every(r => r.length <= MOST)) ? seen : null
}

/** How often rings cross themselves and one another; Infinity as soon as that is too often, or has taken too long to find. */
function crossingsOf(rings: readonly Points[]): number {
  const edges = rings
    .flatMap((r, ring) =>
      r.map((p, k) => {
        const q = r[(k + 1) % r.length]!
        return { p, q, ring, k, last: r.length - 1, left: Math.min(p[0], q[0]), right: Math.max(p[0], q[0]) }
      }),
    )
    .sort((a, b) => a.left - b.left)
  let [found, pairs] = [0, 0]
  for (let i = 0; i < edges.length; i++) {
    const a = edges[i]!
    for (let j = i + 1; j < edges.length && edges[j]!.left <= a.right; j++) {
      const b = edges[j]!
      if (++pairs > MOST_PAIRS) return Infinity
      // Neighbours share a point.
      const apart = Math.abs(a.k - b.k)
      if (a.ring === b.ring && (apart === 1 || apart === a.last)) continue
      if (cross(a.p, a.q, b.p, b.q) && ++found > MOST_CROSSINGS) return Infinity
    }
  }
  return found
}

type Point = readonly [number, number]
const side = (a: Point, b: Point, c: Point) => (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])

/** Whether two edges cross, touch or lie on one another. */
function cross(a: Point, b: Point, c: Point, d: Point): boolean {
  if (Math.max(a[0], b[0]) < Math.min(c[0], d[0]) || Math.max(c[0], d[0]) < Math.min(a[0], b[0])) return false
  if (Math.max(a[1], b[1]) < Math.min(c[1], d[1]) || Math.max(c[1], d[1]) < Math.min(a[1], b[1])) return false
  return side(a, b, c) * side(a, b, d) <= 0 && side(c, d, a) * side(c, d, b) <= 0
}

/** Its area, below 0 where it runs clockwise. */
function size(points: Points): number {
  let sum = 0
  points.forEach(([x, y], k) => {
    const [u, v] = points[(k + 1) % points.length]!
    sum += x * v - u * y
  })
  return sum / 2
}

function inside(points: Points, [x, y]: Point): boolean {
  let within = false
  for (let i = 0, j = points.length - 1; i < points.length; j = i++) {
    const [[a, b], [c, d]] = [points[i]!, points[j]!]
    if (b > y !== d > y && x < ((c - a) * (y - b)) / (d - b) + a) within = !within
  }
  return within
}
