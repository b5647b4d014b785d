/** Where a thing stands in space as place, turn and stretch: what glTF lets move. */
import type { Matrix } from '../../piece/transform.ts'
import { by, cross, dot, long, slantedAs, UPRIGHT, type Axes, type Vector } from './slanted.ts'

/** A quaternion's x, y, z, w. */
type Turn = readonly [number, number, number, number]

export interface Standing {
  readonly place: Vector
  readonly turn: Turn
  readonly stretch: Vector
  /** What is slanted is turned before it is stretched, too; null where it is not and has not been. */
  readonly inner: Turn | null
}

/** Mirrorings of two axes at once. */
const SAME: readonly Vector[] = [
  [1, 1, 1],
  [-1, -1, 1],
  [1, -1, -1],
  [-1, 1, -1],
]
const SLANTED = 1e-6

/**
 * @param m its last axis is what it is thick by; of what is flat it counts for nothing
 * @param before how it stood before: of turns that say the same the nearest is taken
 */
export function standingOf(m: Matrix, before: Standing | null, flat = false): Standing {
  const axis = (c: number): Vector => [m[c]!, m[4 + c]!, m[8 + c]!]
  const [a, b] = [axis(0), axis(1)]
  const across = cross(a, b)
  const size = long(across)
  const axes: Axes = [a, b, flat ? (size > 1e-9 ? by(across, 1 / size) : [0, 0, 1]) : axis(2)]
  const was = before && axesOf(before.turn)
  const inner = before?.inner ? turnedBack(axesOf(before.inner)) : UPRIGHT
  const slanted = before?.inner || isSlanted(axes) ? slantedAs(axes, { outer: was ?? UPRIGHT, inner }) : null
  const { outer, stretch } = slanted ?? straight(axes)
  let [x, y, z] = outer
  let [sx, sy, sz] = stretch
  // Turned half round and mirrored twice is the same: that which is nearest to before.
  if (was) {
    const near = [dot(was[0], x), dot(was[1], y), dot(was[2], z)] as const
    const like = ([a, b, c]: Vector) => a * near[0] + b * near[1] + c * near[2]
    const [a, b, c] = SAME.reduce((best, s) => (like(s) > like(best) + 1e-9 ? s : best))
    ;[x, y, z] = [by(x, a), by(y, b), by(z, c)]
    ;[sx, sy, sz] = [sx * a, sy * b, sz * c]
  }
  return {
    place: [m[3], m[7], m[11]],
    turn: nearest(quaternion(x, y, z), before?.turn),
    stretch: [sx, sy, sz],
    inner: slanted && nearest(quaternion(...turnedBack(slanted.inner)), before?.inner),
  }
}

/** Of the two quaternions of a turn that which is nearer to another. */
const nearest = (turn: Turn, to: Turn | null | undefined): Turn =>
  to && turn.reduce((n, v, k) => n + v * to[k]!, 0) < 0 ? [-turn[0], -turn[1], -turn[2], -turn[3]] : turn

/** The axes of a turn the other way round. */
const turnedBack = ([x, y, z]: Axes): Axes => [
  [x[0], y[0], z[0]],
  [x[1], y[1], z[1]],
  [x[2], y[2], z[2]],
]

function isSlanted(axes: Axes): boolean {
  const unit = axes.map(a => by(a, 1 / (long(a) || 1))) as unknown as Axes
  return [dot(unit[0], unit[1]), dot(unit[0], unit[2]), dot(unit[1], unit[2])].some(v => Math.abs(v) > SLANTED)
}

/** Of what is not slanted its axes themselves. */
function straight(axes: Axes): { outer: Axes; stretch: Vector } {
  const [sx, sy, sz] = axes.map(long) as [number, number, number]
  const unit = axes.map(a => (long(a) > 1e-9 ? by(a, 1 / long(a)) : null))
  // An axis that is gone for a moment stands across the other two.
  const x = unit[0] ?? (unit[1] && unit[2] ? cross(unit[1], unit[2]) : UPRIGHT[0])
  const y = unit[1] ?? cross(unit[2] ?? UPRIGHT[2], x)
  const z = cross(x, y)
  const front: Vector = long(z) > 1e-9 ? by(z, 1 / long(z)) : UPRIGHT[2]
  return { outer: [x, cross(front, x), front], stretch: [sx, sy, dot(front, axes[2]) < 0 ? -sz : sz] }
}

/** After Shepperd (Journal of Guidance and Control 1, 1978). */
function quaternion(x: Vector, y: Vector, z: Vector): Turn {
  const trace = x[0] + y[1] + z[2]
  const of = (a: number, b: number, c: number, d: number): Turn => {
    const n = Math.sqrt(a * a + b * b + c * c + d * d) || 1
    return [a / n, b / n, c / n, d / n]
  }
  if (trace > 0) return of(y[2] - z[1], z[0] - x[2], x[1] - y[0], 1 + trace)
  if (x[0] > y[1] && x[0] > z[2]) return of(1 + x[0] - y[1] - z[2], y[0] + x[1], z[0] + x[2], y[2] - z[1])
  if (y[1] > z[2]) return of(y[0] + x[1], 1 - x[0] + y[1] - z[2], z[1] + y[2], z[0] - x[2])
  return of(z[0] + x[2], z[1] + y[2], 1 - x[0] - y[1] + z[2], x[1] - y[0])
}

function axesOf([x, y, z, w]: Turn): Axes {
  return [
    [1 - 2 * (y * y + z * z), 2 * (x * y + z * w), 2 * (x * z - y * w)],
    [2 * (x * y - z * w), 1 - 2 * (x * x + z * z), 2 * (y * z + x * w)],
    [2 * (x * z + y * w), 2 * (y * z - x * w), 1 - 2 * (x * x + y * y)],
  ]
}
