/** Path data and basic shapes of SVG as rings of points, curves laid as straight pieces. */
import svgpath from 'svgpath'
import { kept } from '../../signal/thinned.ts'
import type { SvgElement } from './svg-tree.ts'

/** a b c d e f of SVG: x' = a x + c y + e, y' = b x + d y + f. */
export type Flat = readonly [number, number, number, number, number, number]
export const SAME: Flat = [1, 0, 0, 1, 0, 0]

export const joinFlat = (m: Flat, n: Flat): Flat => [
  m[0] * n[0] + m[2] * n[1],
  m[1] * n[0] + m[3] * n[1],
  m[0] * n[2] + m[2] * n[3],
  m[1] * n[2] + m[3] * n[3],
  m[0] * n[4] + m[2] * n[5] + m[4],
  m[1] * n[4] + m[3] * n[5] + m[5],
]

export interface PathRing {
  readonly points: readonly (readonly [number, number])[]
  readonly closed: boolean
}

/** A transform as it is written; null for what is none. */
export function transformOf(text: string | undefined): Flat | null {
  if (text === undefined || text.trim() === '') return SAME
  // A path of one unit each way says what a transform makes of them.
  const path = svgpath('M0 0L1 0L0 1').transform(text)
  const at: number[][] = []
  path.iterate(
    (s, _i, x, y) => void at.push(s[0] === 'm' ? [x + Number(s[1]), y + Number(s[2])] : [Number(s[1]), Number(s[2])]),
  )
  const [o, a, c] = at
  if (!o || !a || !c || ![...o, ...a, ...c].every(Number.isFinite)) return null
  return [a[0]! - o[0]!, a[1]! - o[1]!, c[0]! - o[0]!, c[1]! - o[1]!, o[0]!, o[1]!]
}

const number = (e: SvgElement, name: string, otherwise = 0): number => {
  const value = Number.parseFloat(e.attributes[name] ?? '')
  return Number.isFinite(value) ? value : otherwise
}

/** The path data of an element; null where it has no outline. */
export function elementPathData(e: SvgElement): string | null {
  switch (e.name) {
    case 'path':
      return e.attributes.d ?? null
    case 'rect': {
      const [x, y, w, h] = ['x', 'y', 'width', 'height'].map(n => number(e, n)) as [number, number, number, number]
      if (!(w > 0) || !(h > 0)) return null
      const rx = Math.min(w / 2, Math.max(0, number(e, 'rx', number(e, 'ry'))))
      const ry = Math.min(h / 2, Math.max(0, number(e, 'ry', number(e, 'rx'))))
      if (rx === 0 || ry === 0) return `M${x} ${y}h${w}v${h}h${-w}z`
      const turn = (dx: number, dy: number) => `a${rx} ${ry} 0 0 1 ${dx} ${dy}`
      return `M${x + rx} ${y}h${w - 2 * rx}${turn(rx, ry)}v${h - 2 * ry}${turn(-rx, ry)}h${2 * rx - w}${turn(-rx, -ry)}v${2 * ry - h}${turn(rx, -ry)}z`
    }
    case 'circle':
    case 'ellipse': {
      const [cx, cy] = [number(e, 'cx'), number(e, 'cy')]
      const rx = e.name === 'circle' ? number(e, 'r') : number(e, 'rx')
      const ry = e.name === 'circle' ? rx : number(e, 'ry')
      if (!(rx > 0) || !(ry > 0)) return null
      return `M${cx + rx} ${cy}a${rx} ${ry} 0 1 1 ${-2 * rx} 0a${rx} ${ry} 0 1 1 ${2 * rx} 0z`
    }
    case 'line':
      return `M${number(e, 'x1')} ${number(e, 'y1')}L${number(e, 'x2')} ${number(e, 'y2')}`
    case 'polyline':
    case 'polygon': {
      const points = (e.attributes.points ?? '').trim()
      return points === '' ? null : `M${points}${e.name === 'polygon' ? 'z' : ''}`
    }
    default:
      return null
  }
}

/** Straight pieces that a curve is laid in, at most, and points of one ring. */
const PIECES = 100
const MOST = 500
/** Points of an outline as it is read, at most. */
const MOST_READ = 20_000

/**
 * @param fine how far a straight piece may lie off its curve, px after the transform
 * @returns null where the data cannot be read
 */
export function ringsOfPathData(data: string, m: Flat, fine: number): PathRing[] | null {
  const path = svgpath(data)
  if ((path as unknown as { err: string }).err) return null
  const rings: { points: [number, number][]; closed: boolean }[] = []
  let ring: [number, number][] = []
  let count = 0
  const end = (closed: boolean) => {
    count += ring.length
    const points = ring.length > 1 && count <= MOST_READ ? thin(ring, fine) : []
    // What is a point alone, or comes to one, draws nothing.
    if (points.length > 1) rings.push({ points, closed })
    ring = []
  }
  path
    .abs()
    .unshort()
    // Arcs become curves before they are transformed: mirrored ones would run the wrong way round.
    .unarc()
    .matrix([...m])
    .iterate((s, _i, x, y) => {
      const [kind, ...v] = s as [string, ...number[]]
      if (kind === 'M') {
        end(false)
        ring = [[v[0]!, v[1]!]]
      } else if (kind === 'L') ring.push([v[0]!, v[1]!])
      else if (kind === 'H') ring.push([v[0]!, y])
      else if (kind === 'V') ring.push([x, v[0]!])
      else if (kind === 'C') curve(ring, [x, y, ...v], fine)
      else if (kind === 'Q') {
        const [qx, qy, ex, ey] = v as [number, number, number, number]
        const third = (a: number, q: number) => a + ((q - a) * 2) / 3
        curve(ring, [x, y, third(x, qx), third(y, qy), third(ex, qx), third(ey, qy), ex, ey], fine)
      } else if (kind === 'Z' || kind === 'z') {
        const start = ring[0]
        end(true)
        if (start) ring = [start]
      }
    })
  end(false)
  return count <= MOST_READ &&
    rings.every(r => r.points.every(p => p.every(v => Number.isFinite(v) && Math.abs(v) < 1e7)))
    ? rings
    : null
}

function curve(ring: [number, number][], c: readonly number[], fine: number): void {
  const [x0, y0, x1, y1, x2, y2, x3, y3] = c as [number, number, number, number, number, number, number, number]
  // By how far its control polygon bends (a cubic's second difference bounds how far it lies off its chord).
  const bend = Math.max(
    Math.abs(x0 - 2 * x1 + x2) + Math.abs(y0 - 2 * y1 + y2),
    Math.abs(x1 - 2 * x2 + x3) + Math.abs(y1 - 2 * y2 + y3),
  )
  const pieces = Math.min(PIECES, Math.max(1, Math.ceil(Math.sqrt((0.75 * bend) / fine))))
  for (let k = 1; k <= pieces; k++) {
    const t = k / pieces
    const u = 1 - t
    const of = (a: number, b: number, d: number, e: number) =>
      u * u * u * a + 3 * u * u * t * b + 3 * u * t * t * d + t * t * t * e
    ring.push([of(x0, x1, x2, x3), of(y0, y1, y2, y3)])
  }
}

/**
 * With as few points as keep the line as it is, to a quarter of what can be seen, or coarser until there are not too many.
 * Points on one another are one.
 */
function thin(points: readonly [number, number][], fine: number): [number, number][] {
  const apart = points.filter((p, k) => k === 0 || distance(p, points[k - 1]!) > 1e-6)
  if (apart.length > 2 && distance(apart[0]!, apart.at(-1)!) < 1e-6) apart.pop()
  for (let keep = fine / 4; ; keep *= 2) {
    const stays = kept(apart.length, (k, from, to) => off(apart[k]!, apart[from]!, apart[to]!), keep)
    if (stays.size <= MOST) return apart.filter((_, k) => stays.has(k))
  }
}

const distance = (a: readonly [number, number], b: readonly [number, number]): number => {
  const [dx, dy] = [a[0] - b[0], a[1] - b[1]]
  return Math.sqrt(dx * dx + dy * dy)
}

/** How far a point lies off the stretch between two others. */
function off(p: readonly [number, number], a: readonly [number, number], b: readonly [number, number]): number {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]]
  const square = dx * dx + dy * dy
  const share = square > 0 ? Math.min(1, Math.max(0, ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / square)) : 0
  return distance(p, [a[0] + dx * share, a[1] + dy * share])
}
