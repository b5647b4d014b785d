/** Outlines of shapes as points round their middle, anticlockwise, x and y in turn. */
import { cosineOfTurns, sineOfTurns } from '../../signal/sine.ts'
import type { Shape } from '../../piece/schema.ts'
import { layOutText, type TextLayout } from '../text/letters.ts'
import type { Laying } from './points-laid.ts'
import { heightsOf, ringsOfPose, trianglesOf } from './posing.ts'

export interface Outline {
  readonly points: Float64Array
  readonly closed: boolean
  /** The outline of a hole within, with as many points. */
  readonly hole?: Float64Array
  /** Text as it is set, in thousandths of `size`; the outline is the box round it. */
  readonly letters?: { readonly setting: TextLayout; readonly size: number }
  /** Of a drawn path: holes in it, and triangles over the points of its outline and them in turn. */
  readonly drawn?: { readonly holes: readonly Float64Array[]; readonly triangles: readonly number[] }
  /** Of what is laid in depth: how far towards the eye each point is. */
  readonly heights?: Float64Array
  /** Of a trace: how far back on its trail each point lies, 1 to 0. */
  readonly ages?: Float64Array
  /** More that is filled, each round its own middle: spokes and hub. */
  readonly more?: readonly Float64Array[]
}

/** The sizes an outline is made of; all in px. */
export interface Sizes {
  width: number
  height: number
  corners: number
  radius: number
  innerRadius: number
  /** Points of a round outline; as its radius needs when it is not said. */
  points?: number | undefined
  /** Of a trace: its path; of an emitter: its particles; x, y in turn, on the stage. */
  laid?: Float64Array | undefined
  /** The same with all that is known of them. */
  laying?: Laying | undefined
  /** How its line is dashed. */
  dash?: number | undefined
  dashGap?: number | undefined
  dashOffset?: number | undefined
  /** Of a path: which of its poses. */
  pose?: number | undefined
  /** Of text: what it shows, and the size of its letters. */
  text?: string | undefined
  size?: number | undefined
  /** Of waves: how far the water stands above its rest at a place across. */
  rise?: ((x: number) => number) | undefined
}

/** Holes in an outline, of a shape or drawn. */
export const holesIn = ({ hole, drawn }: Outline): readonly Float64Array[] => drawn?.holes ?? (hole ? [hole] : [])

/** Every closed line of an outline: of letters in thousandths of their size, else in px. */
export const linesIn = (o: Outline): readonly Float64Array[] =>
  o.letters
    ? o.letters.setting.areas.flatMap(a => [a.outline, ...a.holes])
    : [o.points, ...holesIn(o), ...(o.more ?? [])]

/** Points on a circle: enough that its edge is off by less than a tenth of a pixel at this radius. */
export const pointsFor = (radius: number): number => Math.min(128, Math.max(12, Math.ceil(Math.sqrt(radius) * 6)))

function round(rx: number, ry: number, count: number, from = 0): Float64Array {
  const points = new Float64Array(count * 2)
  for (let i = 0; i < count; i++) {
    points[2 * i] = rx * cosineOfTurns(i / count + from)
    points[2 * i + 1] = ry * sineOfTurns(i / count + from)
  }
  return points
}

function rectangle(width: number, height: number, corners: number): Float64Array {
  const w = width / 2
  const h = height / 2
  const r = Math.min(corners, w, h)
  if (r <= 0) return new Float64Array([w, -h, w, h, -w, h, -w, -h])
  const steps = Math.max(3, Math.ceil(pointsFor(r) / 4))
  const points: number[] = []
  const middles = [
    [w - r, h - r],
    [r - w, h - r],
    [r - w, r - h],
    [w - r, r - h],
  ] as const
  middles.forEach(([x, y], quarter) => {
    for (let i = 0; i <= steps; i++) {
      const turns = (quarter + i / steps) / 4
      points.push(x + r * cosineOfTurns(turns), y + r * sineOfTurns(turns))
    }
  })
  return new Float64Array(points)
}

function star(outer: number, inner: number, points: number): Float64Array {
  const out = new Float64Array(points * 4)
  for (let i = 0; i < points * 2; i++) {
    const r = i % 2 === 0 ? outer : inner
    out[2 * i] = r * cosineOfTurns(i / (points * 2) + 0.25)
    out[2 * i + 1] = r * sineOfTurns(i / (points * 2) + 0.25)
  }
  return out
}

/** Half the width of a tooth at its tip and at its foot, in pitches; on the pitch circle it is a quarter. */
const TIP = 0.14
const FOOT = 0.33

/** A gear with straight flanks, its first tooth to the right; teeth stand one module out and go a little deeper in. */
function gear(teeth: number, spokes: number, module: number): Outline {
  const pitch = (teeth * module) / 2
  const [out, root] = [pitch + module * 0.9, pitch - module * 1.1]
  const at = (k: number, radius: number) =>
    [radius * cosineOfTurns(k / teeth), radius * sineOfTurns(k / teeth)] as const
  const points: number[] = []
  for (let k = 0; k < teeth; k++) {
    for (const [offset, radius] of [
      [-FOOT, root],
      [-TIP, out],
      [TIP, out],
      [FOOT, root],
    ] as const)
      points.push(...at(k + offset, radius))
  }
  const outline = { points: new Float64Array(points), closed: true }
  const rim = root - Math.max(module * 1.2, pitch * 0.1)
  const hub = Math.max(module * 1.4, pitch * 0.16)
  if (spokes === 0 || rim <= hub) return outline
  const half = Math.max(module * 0.5, pitch * 0.045)
  const more = [round(hub, hub, pointsFor(hub))]
  for (let k = 0; k < spokes; k++) {
    const [c, s] = [cosineOfTurns(k / spokes), sineOfTurns(k / spokes)]
    const corner = (along: number, aside: number) => [along * c - aside * s, along * s + aside * c]
    more.push(
      new Float64Array([
        ...corner(0, -half),
        ...corner(rim + module * 0.3, -half),
        ...corner(rim + module * 0.3, half),
        ...corner(0, half),
      ]),
    )
  }
  return { ...outline, hole: round(rim, rim, points.length / 2), more }
}

/** Points of a particle, at most. */
const MOST_ROUND = 24
export const pointsOfDot = (size: number): number => Math.min(MOST_ROUND, pointsFor(size / 2))

/** A particle round its own middle. */
export const dotOf = (size: number, points = pointsOfDot(size)): Outline => ({
  points: round(size / 2, size / 2, points),
  closed: true,
})

/** Px between the points of a water line, and most of them. */
const FINENESS = 6
const MOST_POINTS = 400

/** A body of water from the side: its foot, and its top as the waves stand. Its middle is that of the water at rest. */
function water({ width, height, rise }: Sizes): Float64Array {
  const count = Math.min(MOST_POINTS, Math.max(2, Math.ceil(width / FINENESS)))
  const [w, h] = [width / 2, height / 2]
  const points = [-w, -h, w, -h]
  for (let i = 0; i <= count; i++) {
    const x = w - (width * i) / count
    points.push(x, Math.max(-h, h + (rise?.(x) ?? 0)))
  }
  return new Float64Array(points)
}

/** The outline of a shape with its sizes; null for a group. Polygons and stars stand on their tip's opposite. */
export function outlineOf(shape: Shape, s: Sizes): Outline | null {
  switch (shape.type) {
    case 'group':
      return null
    case 'picture':
      return { points: rectangle(s.width, s.height, 0), closed: true }
    case 'rectangle':
      return { points: rectangle(s.width, s.height, s.corners), closed: true }
    case 'ellipse':
      return {
        points: round(s.width / 2, s.height / 2, s.points ?? pointsFor(Math.max(s.width, s.height) / 2)),
        closed: true,
      }
    case 'polygon':
      return { points: round(s.radius, s.radius, shape.sides, 0.25), closed: true }
    case 'star':
      return { points: star(s.radius, s.innerRadius, shape.points), closed: true }
    case 'ring': {
      const count = s.points ?? pointsFor(s.radius)
      const inner = Math.min(s.innerRadius, s.radius)
      return { points: round(s.radius, s.radius, count), closed: true, hole: round(inner, inner, count) }
    }
    case 'gear':
      return gear(shape.teeth, shape.spokes, shape.module)
    case 'path': {
      const [points, ...holes] = ringsOfPose(shape, s.pose ?? 0) as [Float64Array, ...Float64Array[]]
      if (!shape.closed) {
        const heights = heightsOf(shape, s.pose ?? 0)
        return { points, closed: false, ...(heights && { heights }) }
      }
      return { points, closed: true, drawn: { holes, triangles: trianglesOf([points, ...holes]) } }
    }
    case 'waves':
      return { points: water(s), closed: true }
    case 'trace':
      return {
        points: s.laid ?? new Float64Array(0),
        closed: false,
        ...(s.laying && { heights: s.laying.heights, ages: s.laying.ages }),
      }
    case 'emitter': {
      // Each particle is a round dot; the outline is the first.
      const places = s.laid ?? new Float64Array(0)
      const dot = dotOf(s.size ?? 0).points
      const dots = Array.from({ length: places.length / 2 }, (_, k) => dot.map((v, i) => v + places[2 * k + (i % 2)]!))
      return { points: dots[0] ?? new Float64Array(0), closed: true, more: dots.slice(1) }
    }
    case 'text': {
      const size = s.size ?? 0
      // A letter a copy stands about its own middle, so that its pin is its own.
      const setting =
        shape.shows === 'letters' ? layOutText(s.text ?? '', 'middle') : layOutText(s.text ?? '', shape.align, shape)
      const [l, r, t, b] = [setting.left, setting.right, setting.rise, -setting.fall].map(x => (x * size) / 1000)
      return { points: new Float64Array([r!, b!, r!, t!, l!, t!, l!, b!]), closed: true, letters: { setting, size } }
    }
    case 'line':
      return { points: new Float64Array([-s.width / 2, 0, s.width / 2, 0]), closed: false }
  }
}

/** The stretch of an outline from a share of its length to another; the whole of it stays closed. */
export function cutOutline(o: Outline, start: number, end: number): Outline {
  const from = Math.min(start, end)
  const to = Math.max(start, end)
  if (from <= 0 && to >= 1) return o
  const n = o.points.length / 2
  const x = (i: number) => o.points[2 * (i % n)]!
  const y = (i: number) => o.points[2 * (i % n) + 1]!
  const z = (i: number) => o.heights?.[i % n] ?? 0
  const segments = o.closed ? n : n - 1
  const lengths = Array.from({ length: segments }, (_, i) => {
    const [dx, dy, dz] = [x(i + 1) - x(i), y(i + 1) - y(i), z(i + 1) - z(i)]
    return Math.sqrt(dx * dx + dy * dy + dz * dz)
  })
  const total = lengths.reduce((a, b) => a + b, 0)
  const out: number[] = []
  const high: number[] = []
  const old: number[] = []
  let run = 0
  const [a, b] = [Math.max(0, from) * total, Math.min(1, to) * total]
  lengths.forEach((length, i) => {
    const next = run + length
    if (next > a && run < b && length > 0) {
      const at = (d: number) => {
        const share = (d - run) / length
        out.push(x(i) + (x(i + 1) - x(i)) * share, y(i) + (y(i + 1) - y(i)) * share)
        high.push(z(i) + (z(i + 1) - z(i)) * share)
        if (o.ages) old.push(o.ages[i]! + (o.ages[i + 1]! - o.ages[i]!) * share)
      }
      if (out.length === 0) at(Math.max(a, run))
      at(Math.min(b, next))
    }
    run = next
  })
  return {
    points: new Float64Array(out),
    closed: false,
    ...(o.heights && { heights: new Float64Array(high) }),
    ...(o.ages && { ages: new Float64Array(old) }),
  }
}
