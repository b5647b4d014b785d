/**
 * From where a piece is seen. Flat, x and y are what they are; in depth an eye stands off the middle of the stage and
 * what is nearer looks larger. Looking round turns what is seen about the middle of the stage and changes nothing of it.
 *
 * In eye space x and y run along the picture and z towards the eye; a point at z is drawn 1 ÷ (1 − z ÷ distance) as large.
 */
import { asMatrix, matrix, multiply, posed, restPose, type Matrix } from '../../piece/transform.ts'
import type { Piece } from '../../piece/schema.ts'

export interface Eye {
  /** Px that it stands off; Infinity where the piece is flat. */
  readonly distance: number
  /** From the stage into eye space; null when nothing is turned. */
  readonly turned: Matrix | null
  /** Whether lines are as wide on the picture wherever they are. */
  readonly even: boolean
}

/** Round the stage, in turns: to the side, and from above. */
export interface Look {
  readonly aside: number
  readonly above: number
}

export const AHEAD: Look = { aside: 0, above: 0 }
export const FLAT: Eye = { distance: Infinity, turned: null, even: false }

export const inDepth = (eye: Eye): boolean => eye.distance !== Infinity

export function eyeOf({ camera }: Piece, { aside, above }: Look = AHEAD): Eye {
  if (!camera) return FLAT
  const still = aside === 0 && above === 0
  const turned = multiply(
    posed({ ...restPose(), rotationX: above }, matrix()),
    posed({ ...restPose(), rotationY: aside }, matrix()),
    matrix(),
  )
  return { distance: camera.distance, turned: still ? null : turned, even: camera.lines === 'screen' }
}

/** A matrix of the stage in eye space; `out` may not be it. */
export function toEye({ turned }: Eye, m: Matrix, out: Matrix): Matrix {
  if (turned) return multiply(turned, m, out)
  out.set(m)
  return out
}

const seat = matrix()

/** Where a point of a flat thing is seen, px from the middle of the stage; far aside where it lies behind the eye. */
export const seen = (eye: Eye, m: Matrix, x: number, y: number, z = 0): [number, number] =>
  seenIn(eye, toEye(eye, m, seat), x, y, z)

/** The same for a thing whose matrix is in eye space. */
export function seenIn(eye: Eye, e: Matrix, x: number, y: number, z: number): [number, number] {
  const w = Math.max(1e-4, 1 - (e[8] * x + e[9] * y + e[10] * z + e[11]) / eye.distance)
  return [(e[0] * x + e[1] * y + e[2] * z + e[3]) / w, (e[4] * x + e[5] * y + e[6] * z + e[7]) / w]
}

/** The point of a flat thing that is seen at a place, and how near it is (px towards the eye); null from the side, or behind the eye. */
export function unseen(eye: Eye, m: Matrix, sx: number, sy: number): [x: number, y: number, near: number] | null {
  const e = toEye(eye, m, seat)
  const [u, v] = [sx / eye.distance, sy / eye.distance]
  // (m₀ x + m₁ y + m₃) = s (1 − (m₈ x + m₉ y + m₁₁) ÷ distance), and the same for y.
  const [a, b, c] = [e[0] + u * e[8], e[1] + u * e[9], sx - u * e[11] - e[3]]
  const [d, f, g] = [e[4] + v * e[8], e[5] + v * e[9], sy - v * e[11] - e[7]]
  const det = a * f - b * d
  if (Math.abs(det) < 1e-12) return null
  const [x, y] = [(c * f - b * g) / det, (a * g - c * d) / det]
  const near = e[8] * x + e[9] * y + e[11]
  return near < eye.distance ? [x, y, near] : null
}

/** How a thing is seen about one of its points, as if it were flat: what hands reckon with. */
export function flattened(eye: Eye, m: Matrix, x: number, y: number): Matrix {
  if (!inDepth(eye)) return m
  const [px, py] = seen(eye, m, x, y)
  const h = 0.5
  const [ax, ay] = seen(eye, m, x + h, y)
  const [bx, by] = seen(eye, m, x, y + h)
  const [a, b, c, d] = [(ax - px) / h, (bx - px) / h, (ay - py) / h, (by - py) / h]
  return asMatrix(new Float64Array([a, b, 0, px - a * x - b * y, c, d, 0, py - c * x - d * y, 0, 0, 1, 0]))
}

/** Which way light falls, in space: from the left, above and before. */
const LIGHT = [-0.34, 0.56, 0.76] as const

/** The same in eye space: light stays where it is while one looks round. */
export function lightFor({ turned }: Eye): readonly [number, number, number] {
  if (!turned) return LIGHT
  const row = (k: number) => turned[k]! * LIGHT[0] + turned[k + 1]! * LIGHT[1] + turned[k + 2]! * LIGHT[2]
  const [x, y, z] = [row(0), row(4), row(8)]
  const long = Math.sqrt(x * x + y * y + z * z) || 1
  return [x / long, y / long, z / long]
}

/** How bright a face is: shade without light, what straight light adds, darkest and brightest. The shader reads them too. */
export const SHADE = { still: 0.48, lit: 0.52 / LIGHT[2], least: 0.32, most: 1.15 } as const

/** How bright a face is against its own colour: as it is, when it looks straight at one who looks at the stage. */
export const lit = (dot: number): number => Math.min(SHADE.most, Math.max(SHADE.least, SHADE.still + SHADE.lit * dot))
