/** Where a thing stands in space as place, turn and stretch: what glTF lets move. */
import type { Matrix } from '../../piece/transform.ts'

type Vector = readonly [number, number, number]

/** A quaternion's x, y, z, w; and whether the matrix is more than these can say: slanted. */
export interface Standing {
  readonly place: Vector
  readonly turn: readonly [number, number, number, number]
  readonly stretch: Vector
  readonly slanted: boolean
}

const dot = (a: Vector, b: Vector) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
const cross = (a: Vector, b: Vector): Vector => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
]
const long = (a: Vector) => Math.sqrt(dot(a, a))
const by = (a: Vector, k: number): Vector => [a[0] * k, a[1] * k, a[2] * k]

/** Mirrorings of two axes at once. */
const SAME: readonly Vector[] = [
  [1, 1, 1],
  [-1, -1, 1],
  [1, -1, -1],
  [-1, 1, -1],
]

/** @param before how it stood before: of turns that say the same the nearest is taken */
export function standingOf(m: Matrix, before: Standing | null): Standing {
  const axis = (c: number): Vector => [m[c]!, m[4 + c]!, m[8 + c]!]
  const axes = [axis(0), axis(1), axis(2)] as const
  const lengths = axes.map(long) as unknown as [number, number, number]
  const unit = axes.map((a, c) => (lengths[c]! > 1e-9 ? by(a, 1 / lengths[c]!) : null))
  // An axis that is gone for a moment stands across the other two.
  let x = unit[0] ?? (unit[1] && unit[2] ? cross(unit[1], unit[2]) : ([1, 0, 0] as Vector))
  let y = unit[1] ?? cross(unit[2] ?? [0, 0, 1], x)
  const slanted = Math.abs(dot(x, y)) > 1e-6
  let z = cross(x, y)
  z = long(z) > 1e-9 ? by(z, 1 / long(z)) : [0, 0, 1]
  y = cross(z, x)
  let [sx, sy, sz] = lengths
  if (dot(z, axes[2]) < 0) sz = -sz
  // Turned half round and mirrored twice is the same: that which is nearest to before.
  const was = before && axesOf(before.turn)
  if (was) {
    const near = [dot(was[0], x), dot(was[1], y), dot(was[2], z)] as const
    const like = ([a, b, c]: Vector) => a * near[0] + b * near[1] + c * near[2]
    const [a, b, c] = SAME.reduce((best, s) => (like(s) > like(best) + 1e-9 ? s : best))
    ;[x, y, z] = [by(x, a), by(y, b), by(z, c)]
    ;[sx, sy, sz] = [sx * a, sy * b, sz * c]
  }
  let turn = quaternion(x, y, z)
  if (before && turn.reduce((n, v, k) => n + v * before.turn[k]!, 0) < 0) turn = turn.map(v => -v) as never
  return { place: [m[3]!, m[7]!, m[11]!], turn, stretch: [sx, sy, sz], slanted }
}

/** After Shepperd (Journal of Guidance and Control 1, 1978). */
function quaternion(x: Vector, y: Vector, z: Vector): Standing['turn'] {
  const trace = x[0] + y[1] + z[2]
  const of = (a: number, b: number, c: number, d: number): Standing['turn'] => {
    const n = Math.sqrt(a * a + b * b + c * c + d * d) || 1
    return [a / n, b / n, c / n, d / n]
  }
  if (trace > 0) return of(y[2] - z[1], z[0] - x[2], x[1] - y[0], 1 + trace)
  if (x[0] > y[1] && x[0] > z[2]) return of(1 + x[0] - y[1] - z[2], y[0] + x[1], z[0] + x[2], y[2] - z[1])
  if (y[1] > z[2]) return of(y[0] + x[1], 1 - x[0] + y[1] - z[2], z[1] + y[2], z[0] - x[2])
  return of(z[0] + x[2], z[1] + y[2], 1 - x[0] - y[1] + z[2], x[1] - y[0])
}

function axesOf([x, y, z, w]: Standing['turn']): readonly [Vector, Vector, Vector] {
  return [
    [1 - 2 * (y * y + z * z), 2 * (x * y + z * w), 2 * (x * z - y * w)],
    [2 * (x * y - z * w), 1 - 2 * (x * x + z * z), 2 * (y * z + x * w)],
    [2 * (x * z + y * w), 2 * (y * z - x * w), 1 - 2 * (x * x + y * y)],
  ]
}
