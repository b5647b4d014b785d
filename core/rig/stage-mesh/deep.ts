/**
 * What the graphics card needs beside the rows of a piece in depth: how far each instance reaches towards the eye and
 * back, and in which order all is painted. Two times four numbers a row:
 *
 *   0  m₈ m₉ m₁₁, how large its back is (below 0: flat, not lit)
 *   1  where its back lies against its front: x, y, z; rows on to the layer behind it, or the line of its water
 *
 * What is nearer hides what is further. Flat things in one plane are painted in painter's order, as one sheet: first
 * their colours, then how near they are. What is see-through comes last, the furthest first.
 */
import { ROWS_ACROSS } from './instance-table.ts'
import type { Matrix } from '../../piece/transform.ts'

export const PER_DEEP = 8

/** Stretches of indices: from, count, and which picture lies on them (−1: none), in turn. */
export type MeshRuns = number[]

/** One stretch more, in one with the last where they meet. */
export function addRun(runs: MeshRuns, from: number, count: number, picture: number): void {
  const last = runs.length - 3
  if (last >= 0 && runs[last]! + runs[last + 1]! === from && runs[last + 2] === picture) runs[last + 1]! += count
  else runs.push(from, count, picture)
}

/** What is drawn in one way. */
export interface Pass {
  /**
   * Solids hide one another as they are painted; a sheet lies in one plane; glass hides nothing; of a see-through solid
   * (a veil) only what is nearest is seen, once.
   */
  is: 'solid' | 'sheet' | 'glass' | 'veil'
  runs: MeshRuns
  /** How near it is, px towards the eye. */
  near: number
  members: number
  /** Which way its plane looks, a number that parallel ones share, and how far out it lies that way, px; of a sheet and of glass. */
  facing: number
  off: number
}

/** The stretch of an instance on the mesh, and which picture lies on it. */
export interface MeshRun {
  readonly index: number
  readonly indices: number
  readonly picture: number
}

export class Deep {
  data = new Float32Array(PER_DEEP * ROWS_ACROSS)
  /** What is painted, one after the other. */
  readonly passes: Pass[] = []
  /** Nearest and furthest of all that is shown, px towards the eye. */
  nearest = 0
  furthest = 0
  private readonly pool: Pass[] = []
  private used = 0
  private distance = 0
  private readonly planes = new Map<number, Pass>()
  private solids: Pass | null = null

  hold(count: number): void {
    const room = Math.ceil(count / ROWS_ACROSS) * ROWS_ACROSS * PER_DEEP
    if (this.data.length < room) this.data = new Float32Array(room)
  }

  /** @param distance of the eye, px */
  begin(distance: number): void {
    this.distance = distance
    this.used = 0
    this.passes.length = 0
    this.planes.clear()
    this.solids = null
    this.nearest = -Infinity
    this.furthest = Infinity
  }

  /** How an instance stands in eye space, its outline stretched by `sx` and `sy`. */
  stand(m: Matrix, sx: number, sy: number, taper: number, row: number): void {
    const { data } = this
    const at = row * PER_DEEP
    data[at] = m[8] * sx
    data[at + 1] = m[9] * sy
    data[at + 2] = m[11]
    data[at + 3] = taper
    data.fill(0, at + 4, at + 8)
  }

  back(row: number, x: number, y: number, z: number, next: number): void {
    const { data } = this
    const at = row * PER_DEEP
    data[at + 4] = x
    data[at + 5] = y
    data[at + 6] = z
    data[at + 7] = next
  }

  /** What a row has, in those before it too, from a row on. */
  repeat(like: number, from: number): void {
    for (let row = from; row < like; row++)
      this.data.copyWithin(row * PER_DEEP, like * PER_DEEP, like * PER_DEEP + PER_DEEP)
  }

  /** Takes in how near something reaches, px about its middle; what is far beyond all seeing is left out of it. */
  reach(near: number, by: number): void {
    if (!(Math.abs(near) + by < FARTHEST)) return
    if (near + by > this.nearest) this.nearest = near + by
    if (near - by < this.furthest) this.furthest = near - by
  }

  /** A stretch of indices that is painted as a solid, or in the plane of a matrix. */
  add(solid: boolean, through: boolean, m: Matrix, { index: from, indices: count, picture }: MeshRun): void {
    if (count === 0) return
    const run = (pass: Pass): void => {
      pass.near += m[11]
      pass.members++
      addRun(pass.runs, from, count, picture)
    }
    if (solid && !through) run((this.solids ??= this.pass('solid')))
    else if (solid) run(this.pass('veil'))
    else {
      const { facing, off, nz } = planeOf(m, AT)
      // Fine enough to tell planes apart, and shifted so that whole numbers do not lie on a border.
      const key = facing * 4_194_304 + Math.floor(off * 20 + 0.37) + 2_097_152
      let plane = this.planes.get(key)
      if (!plane) {
        this.planes.set(key, (plane = this.pass('glass')))
        // Only what the eye stands before lies nearer the further out it is.
        plane.facing = nz * this.distance > off ? facing : NaN
        plane.off = off
      }
      // A sheet of which something is not see-through hides what is behind it.
      if (!through) plane.is = 'sheet'
      run(plane)
    }
  }

  private pass(is: Pass['is']): Pass {
    const pass = (this.pool[this.used] ??= { is, runs: [], near: 0, members: 0, facing: NaN, off: 0 })
    this.used++
    pass.is = is
    pass.runs.length = pass.near = pass.members = pass.off = 0
    pass.facing = NaN
    this.passes.push(pass)
    return pass
  }

  /** Puts what was added in order. */
  end(): void {
    for (const pass of this.passes) pass.near /= Math.max(1, pass.members)
    this.passes.sort((a, b) => RANK[a.is] - RANK[b.is] || a.near - b.near)
    this.together()
    if (!(this.nearest > this.furthest)) this.nearest = this.furthest = 0
  }

  /** Parallel planes that are painted one after the other, each before the last, are one: so a thousand layers are few calls. */
  private together(): void {
    const { passes } = this
    let kept = 0
    for (const pass of passes) {
      const last = passes[kept - 1]
      if (last && last.is === pass.is && last.facing === pass.facing && last.off <= pass.off) {
        for (let k = 0; k < pass.runs.length; k += 3)
          addRun(last.runs, pass.runs[k]!, pass.runs[k + 1]!, pass.runs[k + 2]!)
        last.off = pass.off
        last.members += pass.members
      } else passes[kept++] = pass
    }
    passes.length = kept
  }
}

/** Px, beyond which nothing is looked for: with it a depth of the card has places enough for what is near. */
const FARTHEST = 1e6
const RANK = { solid: 0, sheet: 1, glass: 2, veil: 2 } as const

/** How a plane lies: a number that parallel ones share, how far out, and how much it looks towards the eye. */
interface Plane {
  facing: number
  off: number
  nz: number
}
const AT: Plane = { facing: 0, off: 0, nz: 0 }

/** The plane in which what is flat stands. */
function planeOf(m: Matrix, out: Plane): Plane {
  const nx = m[4] * m[9] - m[8] * m[5]
  const ny = m[8] * m[1] - m[0] * m[9]
  const nz = m[0] * m[5] - m[4] * m[1]
  const long = Math.sqrt(nx * nx + ny * ny + nz * nz) || 1
  const to = (nz < 0 ? -1 : 1) / long
  const [a, b] = [Math.floor(nx * to * 1000 + 0.37), Math.floor(ny * to * 1000 + 0.37)]
  out.facing = (a + 1024) * 2048 + (b + 1024)
  out.off = (nx * m[3] + ny * m[7] + nz * m[11]) * to
  out.nz = nz * to
  return out
}
