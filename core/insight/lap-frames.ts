/** The first lap of a piece frame by frame, and where outlines stand in it. */
import type { Program } from '../engine/program.ts'
import { outlineOf, type Sizes } from '../rig/outline.ts'
import type { Body } from '../rig/body.ts'
import type { Scene } from '../rig/scene.ts'
import { sizesOf } from '../rig/sizing.ts'
import { applyX, applyY } from '../piece/transform.ts'
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

/** An outline on the stage, x and y in turn, and how far it reaches from its middle. */
export interface Placed {
  readonly points: Float64Array
  readonly x: number
  readonly y: number
  readonly reach: number
}

export function placedOutline(body: Body, i: number, sizes: Sizes): Placed {
  const outline = outlineOf(body.part.shape, sizesOf(body, i, sizes))
  const m = body.worlds[i]!
  const points = new Float64Array(outline?.points.length ?? 0)
  let reach = 0
  for (let k = 0; k < points.length; k += 2) {
    points[k] = applyX(m, outline!.points[k]!, outline!.points[k + 1]!)
    points[k + 1] = applyY(m, outline!.points[k]!, outline!.points[k + 1]!)
    const [dx, dy] = [points[k]! - m[3]!, points[k + 1]! - m[7]!]
    reach = Math.max(reach, Math.sqrt(dx * dx + dy * dy))
  }
  return { points, x: m[3]!, y: m[7]!, reach }
}
