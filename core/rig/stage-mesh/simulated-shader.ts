/**
 * What the graphics card makes of a mesh, worked out here by the same rules as the shader: where each corner stands and
 * how it is painted. Tests judge a mesh by it; the page never calls it.
 */
import { PER_CORNER, ROW_STEP, TAG } from './mesh-sheet.ts'
import { PER_ROW } from './instance-table.ts'
import type { StageMesh } from './stage-mesh.ts'

export interface Spread {
  /** x, y a corner, in stage pixels; NaN for what is not shown. */
  readonly positions: Float64Array
  /** Red, green, blue, alpha a corner. */
  readonly colours: Float64Array
  /** How far each is on the way of its gradient; NaN where there is none. */
  readonly ways: Float64Array
  /** Corners of its triangles, those that are shown. */
  readonly triangles: readonly number[]
}

export function simulateVertexShader({ pen, rows: { data }, corners, count }: StageMesh, pixel: number): Spread {
  const positions = new Float64Array(corners * 2).fill(NaN)
  const colours = new Float64Array(corners * 4)
  const ways = new Float64Array(corners).fill(NaN)
  for (let n = 0; n < corners; n++) {
    const tag = pen.tags[n]!
    const r = Math.floor(tag / ROW_STEP) * PER_ROW
    const line = (tag & TAG.line) !== 0
    const alpha = data[r + (line ? 7 : 3)]!
    if (!(alpha > 0)) continue
    const [m0, m1, m3] = [data[r]!, data[r + 1]!, data[r + 2]!]
    const [m4, m5, m7] = [data[r + 4]!, data[r + 5]!, data[r + 6]!]
    const at = n * PER_CORNER
    const put = (k: number): [number, number] => {
      const [x, y] = [pen.points[at + k]!, pen.points[at + k + 1]!]
      return [m0 * x + m1 * y, m4 * x + m5 * y]
    }
    const [p, before, after] = [put(0), put(2), put(4)]
    const [a, b] = [normal(before, p), normal(p, after)]
    const [nx, ny] = [a[0] + b[0], a[1] + b[1]]
    const square = nx * nx + ny * ny
    const end = (tag & TAG.end) !== 0 || (a[0] === 0 && a[1] === 0) || (b[0] === 0 && b[1] === 0)
    const reach = square > 0 ? (end ? 1 / Math.sqrt(square) : square > 0.25 ? 2 / square : 4 / Math.sqrt(square)) : 0
    const half = data[r + 11]!
    let out = tag & TAG.lineOut ? half : tag & TAG.lineIn ? -half : 0
    out += tag & TAG.fringeOut ? pixel / 2 : tag & TAG.fringeIn ? -pixel / 2 : 0
    if (((tag & TAG.clockwise) !== 0) !== m0 * m5 - m1 * m4 < 0) out = -out
    positions[2 * n] = p[0] + m3 + nx * reach * out
    positions[2 * n + 1] = p[1] + m7 + ny * reach * out
    for (let k = 0; k < 3; k++) colours[4 * n + k] = data[r + (line ? 12 : 8) + k]!
    colours[4 * n + 3] = tag & TAG.solid ? alpha : 0
    if (!line && data[r + 15]! > 0)
      ways[n] = data[r + 20]! * positions[2 * n]! + data[r + 21]! * positions[2 * n + 1]! + data[r + 22]!
  }
  const triangles: number[] = []
  for (let k = 0; k < count; k += 3) {
    const [a, b, c] = [pen.indices[k]!, pen.indices[k + 1]!, pen.indices[k + 2]!]
    if (a !== b && !Number.isNaN(positions[2 * a]!)) triangles.push(a, b, c)
  }
  return { positions, colours, ways, triangles }
}

/** The area that its triangles cover, weighted by how solid they are, px². */
export function covered({ positions, colours, triangles }: Spread): number {
  let sum = 0
  const x = (i: number) => positions[2 * i]!
  const y = (i: number) => positions[2 * i + 1]!
  for (let k = 0; k < triangles.length; k += 3) {
    const [a, b, c] = [triangles[k]!, triangles[k + 1]!, triangles[k + 2]!]
    const alpha = (colours[4 * a + 3]! + colours[4 * b + 3]! + colours[4 * c + 3]!) / 3
    sum += (Math.abs((x(b) - x(a)) * (y(c) - y(a)) - (y(b) - y(a)) * (x(c) - x(a))) / 2) * alpha
  }
  return sum
}

function normal(from: readonly [number, number], to: readonly [number, number]): [number, number] {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]]
  const length = Math.sqrt(dx * dx + dy * dy)
  return length > 0 ? [dy / length, -dx / length] : [0, 0]
}
