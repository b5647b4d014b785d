/** The first lap of a piece frame by frame, and where outlines stand in it. */
import type { Program } from '../engine/program.ts'
import type { Outline } from '../rig/outline/outline.ts'
import { outlineAt } from '../rig/outlined.ts'
import type { Body } from '../rig/body.ts'
import type { Scene } from '../rig/scene.ts'
import { FLAT, seen, type Eye } from '../rig/depth/eye.ts'
import { applyZ, type Matrix } from '../piece/transform.ts'
import { momentOfSeconds } from '../time/moment.ts'
import { floor, fromNumber, over, plus, rational, times, type Rational } from '../time/rational.ts'

/** Frames of the lap that are looked at, at most. */
const MOST_FRAMES = 600

/** Puts the scene to each frame of the lap in turn, or to as many as are looked at; `at` in seconds. */
export function* framesOfLap(program: Program, scene: Scene): Generator<{ readonly at: Rational }> {
  const { frameRate, lapLength } = program.measures
  const all = Number(floor(times(lapLength, frameRate)))
  const step = Math.max(1, Math.ceil(all / MOST_FRAMES))
  const values = new Float64Array(program.size)
  const start = fromNumber(program.piece.lap.start)
  for (let frame = 0; frame < all; frame += step) {
    const at = plus(start, over(rational(frame), frameRate))
    const m = momentOfSeconds(at, frameRate)
    scene.update(program.moment(m, values), m)
    yield { at }
  }
}

/** An outline as it is seen, x and y in turn, and how far it reaches from its middle; of letters each outline of its own. */
export interface Placed {
  readonly outlines: readonly Float64Array[]
  readonly x: number
  readonly y: number
  readonly reach: number
  /** Nearest and furthest of it, px towards the eye. */
  readonly near: number
  readonly far: number
}

export function outlineInLap(body: Body, i: number, eye: Eye = FLAT): Placed {
  const outline = outlineAt(body, i)
  const m = body.worlds[i]!
  const { rings, scale } = outline ? ringsOf(outline) : NO_RINGS
  const [x, y] = seen(eye, m, 0, 0)
  let [reach, near, far] = [0, -Infinity, Infinity]
  const outlines = rings.map(ring => {
    const points = new Float64Array(ring.length)
    for (let k = 0; k < points.length; k += 2) {
      const [u, v] = [ring[k]! * scale, ring[k + 1]! * scale]
      points.set(seen(eye, m, u, v), k)
      const [dx, dy] = [points[k]! - x, points[k + 1]! - y]
      reach = Math.max(reach, Math.sqrt(dx * dx + dy * dy))
      const z = applyZ(m, u, v)
      near = Math.max(near, z)
      far = Math.min(far, z)
    }
    return points
  })
  return { outlines, x, y, reach, near, far: far - body.get('thickness', i) }
}

/** How far off its middle nothing of an instance is seen any more, however it is turned and drawn out; flat. */
export class Reaches {
  /** The same of outlines as they are laid. */
  private readonly laid = new WeakMap<Outline, number>()

  of(body: Body, i: number): number {
    const outline = outlineAt(body, i)
    if (!outline) return 0
    let known = this.laid.get(outline)
    if (known === undefined) this.laid.set(outline, (known = furthest(outline)))
    return known * largest(body.worlds[i]!)
  }
}

/** How many times as long a way across and up may become at most: the larger singular value of the matrix, in the flat. */
function largest(m: Matrix): number {
  const [a, b, c, d] = [m[0], m[1], m[4], m[5]]
  const squares = a * a + b * b + c * c + d * d
  const area = a * d - b * c
  return Math.sqrt((squares + Math.sqrt(Math.max(0, squares * squares - 4 * area * area))) / 2) * (1 + 1e-9)
}

/** The corners of an outline, of letters those of each area, and what they are multiplied with. */
const ringsOf = ({ points, letters }: Outline) =>
  letters
    ? { rings: letters.setting.areas.map(a => a.outline), scale: letters.size / 1000 }
    : { rings: [points], scale: 1 }
const NO_RINGS: ReturnType<typeof ringsOf> = { rings: [], scale: 1 }

/** How far the furthest corner of an outline is from its middle. */
function furthest(outline: Outline): number {
  const { rings, scale } = ringsOf(outline)
  let most = 0
  for (const ring of rings)
    for (let k = 0; k < ring.length; k += 2) most = Math.max(most, ring[k]! * ring[k]! + ring[k + 1]! * ring[k + 1]!)
  return Math.sqrt(most) * scale
}
