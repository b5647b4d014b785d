/**
 * What a picture in depth needs beyond its outlines: the order from the furthest to the nearest, the sides of solids,
 * and the surface of water. Faces are painted whole, so where two things pierce each other a picture is only near.
 */
import { hex, paintOf, type Rgb } from '../rig/colour.ts'
import { lightFor, lit, seen, type Eye } from '../rig/eye.ts'
import type { Body } from '../rig/body.ts'
import { linesIn, type Outline } from '../rig/outline.ts'
import { outlineAt } from '../rig/outlined.ts'
import { layerOf, reachesIn } from '../rig/bed.ts'
import type { Scene } from '../rig/scene.ts'
import { matrix, type Matrix } from '../piece/transform.ts'
import { waveHeight } from '../signal/waves.ts'

type Point = readonly [x: number, y: number, z: number]

const short = (x: number) => String(Math.round(x * 100) / 100)

/** Something to paint, with how near it is. */
export interface Painted {
  readonly near: number
  readonly svg: string
}

/** All that is painted, the furthest first; what is as near keeps its place. */
export const fromBehind = (all: readonly Painted[]): string =>
  [...all]
    .sort((a, b) => (Math.abs(a.near - b.near) < 1e-6 ? 0 : a.near - b.near))
    .map(p => p.svg)
    .join('')

/** How near the middle of an instance is. */
export const nearnessOf = (scene: Scene, body: Body, i: number): number => nearOf(scene.eye, at(body.worlds[i]!, 0, 0))

function nearOf({ turned }: Eye, [x, y, z]: Point): number {
  return turned ? turned[8]! * x + turned[9]! * y + turned[10]! * z : z
}

const at = (m: Matrix, x: number, y: number, z = 0): Point => [
  m[0]! * x + m[1]! * y + m[2]! * z + m[3]!,
  m[4]! * x + m[5]! * y + m[6]! * z + m[7]!,
  m[8]! * x + m[9]! * y + m[10]! * z + m[11]!,
]

const ONSTAGE = matrix()

/** A face with the light that falls on it; nothing where it is seen from behind, by the sense in which its corners run. */
function face(points: readonly Point[], colour: Rgb, eye: Eye, sense: 1 | -1): string {
  const flat = points.map(([x, y, z]) => seen(eye, ONSTAGE, x, y, z))
  const area = flat.reduce((sum, [x, y], k) => {
    const [nx, ny] = flat[(k + 1) % flat.length]!
    return sum + x * ny - nx * y
  }, 0)
  if (area * sense <= 0) return ''
  const bright = brightness(points, eye)
  const c = { r: Math.min(1, colour.r * bright), g: Math.min(1, colour.g * bright), b: Math.min(1, colour.b * bright) }
  const d = flat.map(([x, y], k) => `${k === 0 ? 'M' : 'L'}${tenth(x)} ${tenth(-y)}`).join('')
  const fill = hex(c)
  return `<path d="${d}Z" fill="${fill}" stroke="${fill}"/>`
}

const tenth = (x: number) => String(Math.round(x * 10) / 10)

/** Faces of one thing together; a thin line of their own colours closes the seams between them. */
const together = (faces: string, alpha: number): string =>
  faces === '' ? '' : `<g stroke-width="0.9" opacity="${short(alpha)}">${faces}</g>`

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

/** The sides of a solid, the skin to the layer behind it, or nothing for what is flat. */
export function sidesOf(scene: Scene, body: Body, i: number, outline: Outline): string {
  if (!reachesIn(body, i)) return ''
  const { eye } = scene
  const [m, thick, taper] = [body.worlds[i]!, body.get('thickness', i), body.get('taper', i)]
  scene.backOf(body, i, back)
  const away = [back[0]! * thick, back[1]! * thick, back[2]! * thick] as const
  const layer = layerOf(body, i)
  const coarse = body.layers ? Math.ceil(body.layers.count / LAYERS) : 1
  const nth = body.layers ? Math.floor(i / body.layers.stride) % body.layers.count : 0
  // Of many layers a still shows some: the skin goes on to the next of those.
  if (nth % coarse !== 0) return ''
  const further = body.layers ? Math.min(coarse, body.layers.count - 1 - nth) * body.layers.stride : 0
  const next = layer && further > 0 ? i + further : -1
  const [colour, alpha] = [paintOf(body, 'fill', i), body.get('fillAlpha', i) * Math.min(1, body.opacity[i]!)]
  const scale = outline.letters ? outline.letters.size / 1000 : 1
  const front = (points: Float64Array, k: number) => at(m, points[2 * k]! * scale, points[2 * k + 1]! * scale)
  const behind = (points: Float64Array, k: number): Point => {
    const [x, y, z] = at(m, points[2 * k]! * scale * taper, points[2 * k + 1]! * scale * taper)
    return [x + away[0], y + away[1], z + away[2]]
  }
  const outlineBehind = next < 0 ? null : outlineAt(body, next)
  let out = ''
  const all = linesIn(outline)
  if (all.length === 0) return ''
  // The first ring tells which way outlines run; holes run the other way.
  const sense = turnsLeft(all[0]!) === mirrored(m, eye) ? -1 : 1
  for (const [ring, points] of all.entries()) {
    const n = points.length / 2
    const there = outlineBehind ? linesIn(outlineBehind)[ring] : undefined
    for (let k = 0; k < n; k++) {
      const j = (k + 1) % n
      if (thick > 0 && next < 0)
        out += face([behind(points, k), behind(points, j), front(points, j), front(points, k)], colour, eye, sense)
      if (!there || there.length !== points.length) continue
      const to = body.worlds[next]!
      const far = (q: number) => at(to, there[2 * q]! * scale, there[2 * q + 1]! * scale)
      out += face([far(k), far(j), front(points, j), front(points, k)], colour, eye, sense)
    }
  }
  return together(out, alpha)
}

/** Whether an outline runs anticlockwise. */
function turnsLeft(p: Float64Array): boolean {
  let area = 0
  for (let k = 0, j = p.length - 2; k < p.length; j = k, k += 2) area += p[j]! * p[k + 1]! - p[k]! * p[j + 1]!
  return area > 0
}

/** Whether left and right have changed places in space. */
function mirrored(m: Matrix, { turned }: Eye): boolean {
  const det = (a: Matrix) =>
    a[0]! * (a[5]! * a[10]! - a[6]! * a[9]!) -
    a[1]! * (a[4]! * a[10]! - a[6]! * a[8]!) +
    a[2]! * (a[4]! * a[9]! - a[5]! * a[8]!)
  return det(m) * (turned ? det(turned) : 1) < 0
}

/** Fields of water in a picture, across and back. */
const FIELDS = 28

/** Water row by row, each as near as it lies, so that what floats stands between them. */
export function waterOf(scene: Scene, body: Body, i: number): Painted[] {
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
  const rows: Painted[] = []
  for (let j = FIELDS - 1; j >= 0; j--) {
    let svg = ''
    for (let k = 0; k < FIELDS; k++)
      svg += face([spot(k, j), spot(k + 1, j), spot(k + 1, j + 1), spot(k, j + 1)], colour, eye, 1)
    rows.push({ near: nearOf(eye, spot(FIELDS / 2, j + 0.5)), svg: together(svg, alpha) })
  }
  const foot = (k: number): Point => at(m, (k / FIELDS - 0.5) * width, -height)
  let svg = ''
  for (let k = 0; k < FIELDS; k++) svg += face([foot(k), foot(k + 1), spot(k + 1, 0), spot(k, 0)], colour, eye, 1)
  rows.push({ near: nearOf(eye, spot(FIELDS / 2, 0)), svg: together(svg, alpha) })
  return rows
}
