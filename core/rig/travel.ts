/** Where a part goes: the path of its pin through a stretch of time, and the circle its outline sweeps as it turns. */
import type { Program } from '../engine/program.ts'
import { applyX, applyY } from '../piece/transform.ts'
import type { Moment } from '../time/moment.ts'
import { times, toNumber } from '../time/rational.ts'
import type { Body } from './body.ts'
import { FLAT, flattened, seen, type Eye } from './depth/eye.ts'
import { outlineAt } from './outlined.ts'
import { partTransform } from './motion/part-transform.ts'

/** Dots of a path, most: of a long lap not every frame has one. */
const MOST_DOTS = 600

/**
 * The places of a part's pin on the stage at frames of the lap that begins at a moment, x and y in turn; null where sums
 * far away would have to be worked out for it.
 */
export function travelOf(
  program: Program,
  id: string,
  instance: number,
  from: Moment,
  eye: Eye = FLAT,
): Float64Array | null {
  const { lapLength, frameRate } = program.measures
  const frames = Math.max(1, Math.ceil(toNumber(times(lapLength, frameRate)) - 1e-9))
  const each = Math.ceil(frames / MOST_DOTS)
  const { at } = partTransform(program, id, instance)
  const { x, y } = program.piece.parts[id]!.pivot
  const out = new Float64Array(2 * (Math.floor(frames / each) + 1))
  return program.queue.peek(() => {
    for (let k = 0; 2 * k < out.length; k++) {
      out.set(seen(eye, at(from.framesAhead(k * each)), x, y), 2 * k)
      if (program.queue.isExhausted) break
    }
    return out
  })
}

/** The circle that the outline of an instance sweeps when it turns about its pin: its middle and radius on the stage. */
export function sweptBy(
  body: Body,
  instance: number,
  eye: Eye = FLAT,
): { x: number; y: number; radius: number } | null {
  const outline = outlineAt(body, instance)
  if (!outline || outline.points.length === 0 || body.lay) return null
  const { pivot } = body.part
  const m = flattened(eye, body.worlds[instance]!, pivot.x, pivot.y)
  const [x, y] = [applyX(m, pivot.x, pivot.y), applyY(m, pivot.x, pivot.y)]
  let radius = 0
  for (let k = 0; k < outline.points.length; k += 2) {
    const dx = applyX(m, outline.points[k]!, outline.points[k + 1]!) - x
    const dy = applyY(m, outline.points[k]!, outline.points[k + 1]!) - y
    radius = Math.max(radius, Math.sqrt(dx * dx + dy * dy))
  }
  return { x, y, radius }
}
