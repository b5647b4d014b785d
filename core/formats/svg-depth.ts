/**
 * What a picture in depth needs beyond its outlines: the order from the furthest to the nearest, the sides of solids,
 * and the surface of water. Faces are painted whole, so where two things pierce each other a picture is only near.
 */
import { hex, paintOf, type Rgb } from '../rig/colour.ts'
import { lightFor, lit, seen, type Eye } from '../rig/depth/eye.ts'
import type { Body } from '../rig/body.ts'
import { holesIn, linesIn, type Outline } from '../rig/outline/outline.ts'
import { outlineAt } from '../rig/outlined.ts'
import { layerOf, reachesIn } from '../rig/stage-mesh/mesh-slot.ts'
import type { Scene } from '../rig/scene.ts'
import { matrix, type Matrix } from '../piece/transform.ts'
import { waveHeight } from '../signal/waves.ts'

type Point = readonly [x: number, y: number, z: number]

const short = (x: number) => String(Math.round(x * 100) / 100)

/** Something to paint, with how near it is. */
export interface DepthPainting {
  readonly near: number
  readonly svg: string
}

/** All that is painted, the furthest first; what is as near keeps its place. */
export const fromBehind = (all: readonly DepthPainting[]): string =>
  [...all]
    .sort((a, b) => (Math.abs(a.near - b.near) < 1e-6 ? 0 : a.near - b.near))
    .map(p => p.svg)
    .join('')

/** How near the middle of an instance is. */
export const nearnessOf = (scene: Scene, body: Body, i: number): number => nearOf(scene.eye, at(body.worlds[i]!, 0, 0))

function nearOf({ turned }: Eye, [x, y, z]: Point): number {
  return turned ? turned[8] * x + turned[9] * y + turned[10] * z : z
}

const at = (m: Matrix, x: number, y: number, z = 0): Point => [
  m[0] * x + m[1] * y + m[2] * z + m[3],
  m[4] * x + m[5] * y + m[6] * z + m[7],
  m[8] * x + m[9] * y + m[10] * z + m[11],
]

const ONSTAGE = matrix()

/** Twice the area of a face as it is seen; below 0 where its corners run clockwise. */
function areaOf(points: readonly Point[], eye: Eye): number {
  const flat = points.map(([x, y, z]) => seen(eye, ONSTAGE, x, y, z))
  return flat.reduce((sum, [x, y], k) => {
    const [nx, ny] = flat[(k + 1) % flat.length]!
    return sum + x * ny - nx * y
  }, 0)
}

const shone = ({ r, g, b }: Rgb, by: number): Rgb => ({
  r: Math.min(1, r * by),
  g: Math.min(1, g * by),
  b: Math.min(1, b * by),
})

const outlined = (points: readonly Point[], eye: Eye): string =>
  `${points
    .map(([x, y, z], k) => {
      const [u, v] = seen(eye, ONSTAGE, x, y, z)
      return `${k === 0 ? 'M' : 'L'}${tenth(u)} ${tenth(-v)}`
    })
    .join('')}Z`

/** A face with the light that falls on it; nothing where it is seen from behind, by the sense in which its corners run. */
function face(points: readonly Point[], colour: Rgb, eye: Eye, sense: 1 | -1): string {
  if (areaOf(points, eye) * sense <= 0) return ''
  const fill = hex(shone(colour, brightness(points, eye)))
  return `<path d="${outlined(points, eye)}" fill="${fill}" stroke="${fill}"/>`
}

const tenth = (x: number) => String(Math.round(x * 10) / 10)

/** Faces of one thing together; a thin line of their own colours closes the seams between them. */
const together = (faces: string, alpha: number): string =>
  faces === '' ? '' : `<g stroke-width="0.9" opacity="${short(alpha)}">${faces}</g>`

/** Fields of water: side by side to the pixel, so that where it lets light through no seam is seen, lighter or darker. */
const fields = (faces: string, alpha: number): string =>
  faces === '' ? '' : `<g stroke-width="0" shape-rendering="crispEdges" opacity="${short(alpha)}">${faces}</g>`

/** How bright a face is: light stays where it is while one looks round, and falls on the side that is seen. */
export function brightness(points: readonly Point[], eye: Eye): number {
  const [a, b, c] = points.map(([x, y, z]) => at(eye.turned ?? ONSTAGE, x, y, z)) as [Point, Point, Point]
  const [u, v] = [minus(b, a), minus(c, a)]
  let n: Point = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]]
  const long = Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2])
  if (!(long > 0)) return 1
  const towards = -n[0] * a[0] - n[1] * a[1] + n[2] * ((Number.isFinite(eye.distance) ? eye.distance : 1e9) - a[2])
  const sign = (towards < 0 ? -1 : 1) / long
  n = [n[0] * sign, n[1] * sign, n[2] * sign]
  const [lx, ly, lz] = lightFor(eye)
  return lit(n[0] * lx + n[1] * ly + n[2] * lz)
}

const minus = (a: Point, b: Point): Point => [a[0] - b[0], a[1] - b[1], a[2] - b[2]]

const back = new Float64Array(3)
/** Layers that a still shows, about. */
const LAYERS = 6

/** What is painted of a solid under its front, and over it where that looks away. */
interface Sides {
  readonly under: string
  readonly over: string
}
const NONE: Sides = { under: '', over: '' }

/** The sides of a solid and its back, the skin to the layer behind it, or nothing for what is flat. */
export function sidesOf(scene: Scene, body: Body, i: number, outline: Outline): Sides {
  if (!reachesIn(body, i)) return NONE
  const { eye } = scene
  const [m, thick, taper] = [body.worlds[i]!, body.get('thickness', i), body.get('taper', i)]
  scene.backOf(body, i, back)
  const away: Point = [back[0]! * thick, back[1]! * thick, back[2]! * thick]
  const layer = layerOf(body, i)
  const { count, stride } = body.layers ?? { count: 1, stride: 1 }
  const coarse = Math.ceil(count / LAYERS)
  const nth = Math.floor(i / stride) % count
  // Of many layers a still shows some: the skin goes on to the next of those.
  if (layer && nth % coarse !== 0) return NONE
  const further = layer ? Math.min(coarse, count - 1 - nth) : 0
  const next = further > 0 ? i + further * stride : -1
  const [colour, alpha] = [paintOf(body, 'fill', i), body.get('fillAlpha', i) * Math.min(1, body.opacity[i]!)]
  const all = linesIn(outline)
  if (all.length === 0) return NONE
  const scale = outline.letters ? outline.letters.size / 1000 : 1
  const from =
    (world: Matrix, wide: number, by: Point) =>
    (points: Float64Array, k: number): Point => {
      const [x, y, z] = at(world, points[2 * k]! * scale * wide, points[2 * k + 1]! * scale * wide)
      return [x + by[0], y + by[1], z + by[2]]
    }
  const front = from(m, 1, [0, 0, 0])
  const behind = next < 0 ? from(m, taper, away) : from(body.worlds[next]!, 1, [0, 0, 0])
  const there = next < 0 ? all : linesIn(outlineAt(body, next) ?? outline)
  // The first ring tells which way outlines run as they are seen from without.
  const first = cornersOf(all[0]!, front)
  const sense = dot(across(first), [back[0]!, back[1]!, back[2]!]) < 0 ? 1 : -1
  const looksAway = areaOf(first, eye) * sense < 0
  // Walls of holes lie behind what is round them.
  let [walls, out] = ['', '']
  for (const [nth, points] of next >= 0 || thick > 0 ? all.entries() : []) {
    const far = there[nth]
    if (far?.length !== points.length) continue
    const hole = isHole(outline, points)
    // They look inwards, whichever way the hole runs.
    const looks = (turnsLeft(points) === turnsLeft(all[0]!)) === hole ? (-sense as 1 | -1) : sense
    let sides = ''
    for (let k = 0, n = points.length / 2; k < n; k++) {
      const j = (k + 1) % n
      sides += face([behind(far, k), behind(far, j), front(points, j), front(points, k)], colour, eye, looks)
    }
    if (hole) walls += sides
    else out += sides
  }
  out = walls + out
  // The end of all layers, also where a still does not show the last.
  const ends = next < 0 || (nth + further === count - 1 && (count - 1) % coarse !== 0)
  if (looksAway && ends)
    out += backFace(
      there.map(points => cornersOf(points, behind)),
      colour,
      eye,
    )
  const svg = together(out, alpha)
  return looksAway ? { under: '', over: svg } : { under: svg, over: '' }
}

const isHole = (o: Outline, points: Float64Array): boolean =>
  o.letters ? !o.letters.setting.areas.some(a => a.outline === points) : holesIn(o).includes(points)

/** Whether an outline runs anticlockwise. */
function turnsLeft(p: Float64Array): boolean {
  let area = 0
  for (let k = 0, j = p.length - 2; k < p.length; j = k, k += 2) area += p[j]! * p[k + 1]! - p[k]! * p[j + 1]!
  return area > 0
}

const cornersOf = (points: Float64Array, put: (points: Float64Array, k: number) => Point): Point[] =>
  Array.from({ length: points.length / 2 }, (_, k) => put(points, k))

/** The back of a solid that is seen from behind, with its holes. */
function backFace(rings: readonly (readonly Point[])[], colour: Rgb, eye: Eye): string {
  const fill = hex(shone(colour, brightness(rings[0]!, eye)))
  return `<path d="${rings.map(r => outlined(r, eye)).join('')}" fill="${fill}" fill-rule="evenodd" stroke="${fill}"/>`
}

/** What stands across a face, by the sense in which its corners run (Newell). */
function across(points: readonly Point[]): Point {
  let n: Point = [0, 0, 0]
  points.forEach((p, k) => {
    const q = points[(k + 1) % points.length]!
    n = [n[0] + p[1] * q[2] - p[2] * q[1], n[1] + p[2] * q[0] - p[0] * q[2], n[2] + p[0] * q[1] - p[1] * q[0]]
  })
  return n
}
const dot = (a: Point, b: Point) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]

/** Fields of water in a picture, across and back. */
const FIELDS = 28

/** Water row by row, each as near as it lies, so that what floats stands between them. */
export function waterOf(scene: Scene, body: Body, i: number): DepthPainting[] {
  const { eye } = scene
  const m = body.worlds[i]!
  const read = (name: string) => body.get(name, i)
  const [width, height, far, swell, crest] = [
    read('width'),
    read('height') / 2,
    read('thickness'),
    read('swell'),
    read('crest'),
  ]
  const [colour, alpha] = [paintOf(body, 'fill', i), read('fillAlpha') * Math.min(1, body.opacity[i]!)]
  const rise = (x: number, z: number) =>
    Math.max(-height, height + swell * waveHeight(body.waves!, x, z, scene.progress, crest))
  const spot = (k: number, j: number): Point => {
    const [x, z] = [(k / FIELDS - 0.5) * width, -(j / FIELDS) * far]
    return at(m, x, rise(x, z), z)
  }
  const rows: DepthPainting[] = []
  for (let j = FIELDS - 1; j >= 0; j--) {
    let svg = ''
    for (let k = 0; k < FIELDS; k++)
      svg += face([spot(k, j), spot(k + 1, j), spot(k + 1, j + 1), spot(k, j + 1)], colour, eye, 1)
    rows.push({ near: nearOf(eye, spot(FIELDS / 2, j + 0.5)), svg: fields(svg, alpha) })
  }
  const foot = (k: number): Point => at(m, (k / FIELDS - 0.5) * width, -height)
  let svg = ''
  for (let k = 0; k < FIELDS; k++) svg += face([foot(k), foot(k + 1), spot(k + 1, 0), spot(k, 0)], colour, eye, 1)
  rows.push({ near: nearOf(eye, spot(FIELDS / 2, 0)), svg: fields(svg, alpha) })
  return rows
}
