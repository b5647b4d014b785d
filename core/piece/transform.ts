/**
 * Where parts stand. A matrix is twelve numbers, three rows of four (turn and scale, then place), applied to
 * columns: x' = m0·x + m1·y + m2·z + m3. Angles come in turns; positive turns are anticlockwise, y points up.
 */
import { cosineOfTurns, sineOfTurns } from '../signal/sine.ts'
import { STEPS, type Step } from './steps.ts'

/** Its twelve numbers are known to be there, so that `m[3]` is a number. */
export type Matrix = { slice(): Matrix } & Float64Array &
  Record<0 | 1 | 2 | 3 | 4 | 5 | 6 | 7 | 8 | 9 | 10 | 11, number>

/** The numbers of a matrix as one; there must be twelve of them. */
export const asMatrix = (numbers: Float64Array): Matrix => numbers as Matrix

export const matrix = (): Matrix => asMatrix(new Float64Array([1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0]))

/** So many matrices that stand still, side by side in one buffer: read in turn they come from memory in one go. */
export function matrices(count: number): Matrix[] {
  const all = new Float64Array(12 * count)
  for (let at = 0; at < all.length; at += 12) all[at] = all[at + 5] = all[at + 10] = 1
  return Array.from({ length: count }, (_, i) => asMatrix(all.subarray(12 * i, 12 * i + 12)))
}

/** out = a · b; `out` may be neither. */
export function multiply(a: Matrix, b: Matrix, out: Matrix): Matrix {
  for (let r = 0; r < 12; r += 4) {
    const x = a[r]!
    const y = a[r + 1]!
    const z = a[r + 2]!
    for (let c = 0; c < 4; c++) out[r + c] = x * b[c]! + y * b[4 + c]! + z * b[8 + c]!
    out[r + 3]! += a[r + 3]!
  }
  return out
}

/** Whether a matrix neither turns nor scales: what a row or a grid does. */
export function onlyMoves(a: Matrix): boolean {
  const upright = a[0] === 1 && a[5] === 1 && a[10] === 1 && a[1] === 0 && a[4] === 0
  return upright && a[2] === 0 && a[6] === 0 && a[8] === 0 && a[9] === 0
}

/** out = a · b, quicker where `a` only moves. */
export function onto(a: Matrix, b: Matrix, out: Matrix): Matrix {
  if (!onlyMoves(a)) return multiply(a, b, out)
  out[0] = b[0]
  out[1] = b[1]
  out[2] = b[2]
  out[3] = b[3] + a[3]
  out[4] = b[4]
  out[5] = b[5]
  out[6] = b[6]
  out[7] = b[7] + a[7]
  out[8] = b[8]
  out[9] = b[9]
  out[10] = b[10]
  out[11] = b[11] + a[11]
  return out
}

export interface Pose {
  x: number
  y: number
  z: number
  /** Turns about z, x and y. */
  rotation: number
  rotationX: number
  rotationY: number
  scaleX: number
  scaleY: number
  scaleZ: number
  pivotX: number
  pivotY: number
  /** In which order it is done, first to last; null as always. */
  steps: readonly Step[] | null
}

/** At the middle of its parent, as it was made. */
export const restPose = (steps: readonly Step[] | null = null): Pose => ({
  x: 0,
  y: 0,
  z: 0,
  rotation: 0,
  rotationX: 0,
  rotationY: 0,
  scaleX: 1,
  scaleY: 1,
  scaleZ: 1,
  pivotX: 0,
  pivotY: 0,
  steps,
})

/** The properties that a pose is made of. */
export const POSED = [
  'x',
  'y',
  'z',
  'rotation',
  'rotationX',
  'rotationY',
  'scale',
  'scaleX',
  'scaleY',
  'scaleZ',
] as const
export type Posed = (typeof POSED)[number]

/** Fills a pose from the properties of an instance; `scale` counts in x and y together. */
export function readPose(
  pose: Pose,
  get: (property: Posed, instance: number) => number,
  instance: number,
  pivot: { readonly x: number; readonly y: number },
): Pose {
  const scale = get('scale', instance)
  pose.x = get('x', instance)
  pose.y = get('y', instance)
  pose.z = get('z', instance)
  pose.rotation = get('rotation', instance)
  pose.rotationX = get('rotationX', instance)
  pose.rotationY = get('rotationY', instance)
  pose.scaleX = scale * get('scaleX', instance)
  pose.scaleY = scale * get('scaleY', instance)
  pose.scaleZ = get('scaleZ', instance)
  pose.pivotX = pivot.x
  pose.pivotY = pivot.y
  return pose
}

/** Moved by x, y, z; turned about z, then y, then x, and scaled first of all, both about the pivot; or in an order of its own. */
export function posed(p: Pose, out: Matrix): Matrix {
  if (p.steps) return inSteps(p, p.steps, out)
  turnedAndScaled(p, out)
  return moveMatrix(p, out)
}

function turnedAndScaled(p: Pose, out: Matrix): void {
  const cz = cosineOfTurns(p.rotation)
  const sz = sineOfTurns(p.rotation)
  const cx = p.rotationX === 0 ? 1 : cosineOfTurns(p.rotationX)
  const sx = p.rotationX === 0 ? 0 : sineOfTurns(p.rotationX)
  const cy = p.rotationY === 0 ? 1 : cosineOfTurns(p.rotationY)
  const sy = p.rotationY === 0 ? 0 : sineOfTurns(p.rotationY)
  // Rz · Ry · Rx
  out[0] = cz * cy * p.scaleX
  out[1] = (cz * sy * sx - sz * cx) * p.scaleY
  out[2] = (cz * sy * cx + sz * sx) * p.scaleZ
  out[4] = sz * cy * p.scaleX
  out[5] = (sz * sy * sx + cz * cx) * p.scaleY
  out[6] = (sz * sy * cx - cz * sx) * p.scaleZ
  out[8] = -sy * p.scaleX
  out[9] = cy * sx * p.scaleY
  out[10] = cy * cx * p.scaleZ
}

/** Each step about the pivot, on what the steps before it have made. */
function inSteps(p: Pose, steps: readonly Step[], out: Matrix): Matrix {
  const { x, y, z, scaleX, scaleY, scaleZ } = p
  p.scaleX = p.scaleY = p.scaleZ = 1
  const turn = matrix()
  turnedAndScaled(p, turn)
  Object.assign(p, { scaleX, scaleY, scaleZ })
  const scale = asMatrix(new Float64Array([scaleX, 0, 0, 0, 0, scaleY, 0, 0, 0, 0, scaleZ, 0]))
  const move = asMatrix(new Float64Array([1, 0, 0, x, 0, 1, 0, y, 0, 0, 1, z]))
  let made = matrix()
  for (const step of steps)
    if (step !== 'thicken') made = multiply(step === 'scale' ? scale : step === 'turn' ? turn : move, made, matrix())
  out.set(made)
  out[3] += p.pivotX - (made[0] * p.pivotX + made[1] * p.pivotY)
  out[7] += p.pivotY - (made[4] * p.pivotX + made[5] * p.pivotY)
  out[11] -= made[8] * p.pivotX + made[9] * p.pivotY
  return out
}

/** Where what is thickened by 1 px reaches back to, in what it stands in: by what comes after the thickening. */
export function backwards(p: Pose, out: Float64Array): Float64Array {
  const { steps } = p
  const after = steps ? steps.slice(steps.indexOf('thicken') + 1) : null
  if (after?.every(s => s === 'move')) out.fill(0)[2] = -1
  else {
    const m = inSteps({ ...p, x: 0, y: 0, z: 0 }, after ?? STEPS, matrix())
    for (let k = 0; k < 3; k++) out[k] = -m[4 * k + 2]!
  }
  return out
}

/** The same where only x, y and z have changed since it was posed. */
export function moveMatrix(p: Pose, out: Matrix): Matrix {
  out[3] = p.x + p.pivotX - (out[0] * p.pivotX + out[1] * p.pivotY)
  out[7] = p.y + p.pivotY - (out[4] * p.pivotX + out[5] * p.pivotY)
  out[11] = p.z - (out[8] * p.pivotX + out[9] * p.pivotY)
  return out
}

/** On the tip of the one before: turned and scaled about its pin, its own place counts for nothing. */
export function onTip(p: Pose, out: Matrix): Matrix {
  const { x, y, z } = p
  p.x = p.y = p.z = 0
  posed(p, out)
  p.x = x
  p.y = y
  p.z = z
  return out
}

/** Turned by `turns` about z and placed at x, y, z. */
export function placeMatrix(x: number, y: number, turns: number, z = 0): Matrix {
  const c = cosineOfTurns(turns)
  const s = sineOfTurns(turns)
  return asMatrix(new Float64Array([c, -s, 0, x, s, c, 0, y, 0, 0, 1, z]))
}

export const applyX = (m: Matrix, x: number, y: number): number => m[0] * x + m[1] * y + m[3]
export const applyY = (m: Matrix, x: number, y: number): number => m[4] * x + m[5] * y + m[7]
export const applyZ = (m: Matrix, x: number, y: number): number => m[8] * x + m[9] * y + m[11]

/** The point of a flat part that lies under a stage point; null when it is seen from the side. */
export function unapply(m: Matrix, x: number, y: number): [number, number] | null {
  const det = m[0] * m[5] - m[1] * m[4]
  if (Math.abs(det) < 1e-12) return null
  const dx = x - m[3]
  const dy = y - m[7]
  return [(m[5] * dx - m[1] * dy) / det, (m[0] * dy - m[4] * dx) / det]
}

/** The same in depth, however it is turned. */
export function sizeOf(m: Matrix): number {
  const x = m[4] * m[9] - m[8] * m[5]
  const y = m[8] * m[1] - m[0] * m[9]
  const z = m[0] * m[5] - m[4] * m[1]
  return Math.sqrt(Math.sqrt(x * x + y * y + z * z))
}

/** How much larger flat things are drawn: the root of the area's scale. */
export const scaleOf = (m: Matrix): number => Math.sqrt(Math.abs(m[0] * m[5] - m[1] * m[4]))
