/** Outlines as triangles in space: faces with holes, the sides of what is thick, lines as bands. */
import earcut from 'earcut'
import { holesIn, type Outline } from '../../rig/outline/outline.ts'
import type { Rings } from '../moving/ring-paths.ts'

/** Corners, three numbers each, and triangles of them. */
export interface TriangleForm {
  readonly corners: number[]
  readonly triangles: number[]
}

/** What is filled of an outline: each with its holes, in the outline's own measure. */
export function outlineAreas(
  o: Outline,
): readonly { outline: ArrayLike<number>; holes: readonly ArrayLike<number>[] }[] {
  if (o.letters) return o.letters.setting.areas
  return [{ outline: o.points, holes: holesIn(o) }, ...(o.more ?? []).map(outline => ({ outline, holes: [] }))]
}

/**
 * Faces at the front, or front, back and sides when it is thick: the front at z 0, the back at −1, to be stretched.
 * @param taper how large the back is against the front
 */
export function solidOf(areas: ReturnType<typeof outlineAreas>, thick: boolean, taper: number): TriangleForm {
  const corners: number[] = []
  const triangles: number[] = []
  for (const { outline, holes } of areas) {
    const rings = [outline, ...holes].filter(r => r.length >= 6)
    if (rings.length === 0) continue
    const flat = rings.flatMap(r => Array.from(r))
    const starts: number[] = []
    rings.reduce((n, r) => (starts.push(n), n + r.length / 2), 0)
    const face = earcut(flat, starts.slice(1))
    const put = (z: number, by: number): number => {
      const first = corners.length / 3
      for (let k = 0; k < flat.length; k += 2) corners.push(flat[k]! * by, flat[k + 1]! * by, z)
      return first
    }
    const front = put(0, 1)
    for (let k = 0; k < face.length; k += 3) triangles.push(...turned(flat, face, k).map(v => v + front))
    if (!thick) continue
    const back = put(-1, taper)
    for (let k = 0; k < face.length; k += 3) {
      const [a, b, c] = turned(flat, face, k) as [number, number, number]
      triangles.push(a + back, c + back, b + back)
    }
    // Sides have corners of their own, so that edges stay sharp.
    const [near, far] = [put(0, 1), put(-1, taper)]
    rings.forEach((ring, r) => {
      const n = ring.length / 2
      for (let k = 0; k < n; k++) {
        const [p, q] = [starts[r]! + k, starts[r]! + ((k + 1) % n)]
        triangles.push(near + p, far + p, near + q, near + q, far + p, far + q)
      }
    })
  }
  return { corners, triangles }
}

/** A triangle of a face, anticlockwise as it is seen from the front. */
function turned(flat: readonly number[], face: readonly number[], k: number): number[] {
  const [a, b, c] = [face[k]!, face[k + 1]!, face[k + 2]!]
  const at = (i: number) => [flat[2 * i]!, flat[2 * i + 1]!] as const
  const [[ax, ay], [bx, by], [cx, cy]] = [at(a), at(b), at(c)]
  return (bx - ax) * (cy - ay) - (by - ay) * (cx - ax) >= 0 ? [a, b, c] : [a, c, b]
}

/** Mitres longer than so many halves of the width are cut. */
const LONGEST = 4

/** A line as a band round its points, so wide. */
export function bandOf(rings: Rings, width: number): TriangleForm {
  const corners: number[] = []
  const triangles: number[] = []
  const half = width / 2
  for (const { points, closed } of rings) {
    const n = points.length / 2
    if (n < 2) continue
    const first = corners.length / 3
    const at = (k: number) => [points[2 * ((k + n) % n)]!, points[2 * ((k + n) % n) + 1]!] as const
    const side = (k: number): readonly [number, number] => {
      const [[ax, ay], [bx, by]] = [at(k), at(k + 1)]
      const [dx, dy] = [bx - ax, by - ay]
      const long = Math.sqrt(dx * dx + dy * dy) || 1
      return [(ay - by) / long, (bx - ax) / long]
    }
    for (let k = 0; k < n; k++) {
      const before = closed || k > 0 ? side(k - 1) : side(k)
      const after = closed || k < n - 1 ? side(k) : side(k - 1)
      const [mx, my] = [before[0] + after[0], before[1] + after[1]]
      const square = mx * mx + my * my
      const by = square > 1e-9 ? Math.min(LONGEST, 2 / square) * half : 0
      const [x, y] = at(k)
      corners.push(x + mx * by, y + my * by, 0, x - mx * by, y - my * by, 0)
    }
    for (let k = 0; k < (closed ? n : n - 1); k++) {
      const [p, q] = [first + 2 * k, first + 2 * ((k + 1) % n)]
      triangles.push(p, p + 1, q, q, p + 1, q + 1)
    }
  }
  return { corners, triangles }
}
