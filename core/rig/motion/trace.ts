/**
 * The path of a moving point. Its points are laid at whole steps of time, so that those that are laid never shift; its
 * two ends lie exactly at now and at the end of the trail. Laid by bend and distance, steps are left out where little
 * happens: which, is decided for each stretch of steps by itself, so that these never shift either.
 */
import type { Program } from '../../engine/program.ts'
import type { Part } from '../../piece/schema.ts'
import { momentOfSeconds, type Moment } from '../../time/moment.ts'
import { floor, fromNumber, minus, over, rational, times, toNumber, ONE } from '../../time/rational.ts'
import { bendsOf, STRETCH } from '../outline/bending.ts'
import { RETRY } from '../../form/work-queue.ts'
import { applyX, applyY, applyZ } from '../../piece/transform.ts'
import { layingOf, NO_POINTS, type Laying, type OutlineSpot } from '../outline/points-laid.ts'
import { partTransform } from './part-transform.ts'

/** Points of one path, and of all paths of a piece, at most. */
const MOST = 4000
export const MOST_LAID = 40_000
/** How many times as far a trail may reach whose points are laid by bend and distance. */
const SPARSE = 3

/** Gives the path of a trace at a moment, the oldest point first. */
export function traceOf(program: Program, part: Part, most = MOST): (now: Moment, trail: number) => Laying {
  const room = Math.max(4, Math.min(MOST, most))
  const { shape } = part
  const followed = shape.type === 'trace' && shape.of !== null ? program.piece.parts[shape.of] : undefined
  if (shape.type !== 'trace' || !followed) return () => NO_POINTS
  const where = partTransform(program, shape.of!, 0).at
  const { queue } = program
  const { frameRate } = program.measures
  const [px, py] = [followed.pivot.x + shape.x, followed.pivot.y + shape.y]
  const laid = new Map<number, OutlineSpot>()
  const stretches = new Map<number, readonly number[]>()
  const point = (m: Moment): OutlineSpot => {
    const w = where(m)
    return [applyX(w, px, py), applyY(w, px, py), applyZ(w, px, py)]
  }
  const step = over(ONE, rational(shape.every))
  /** The last path that was whole: asked for again at the same moment it costs nothing. */
  let last: { readonly now: Moment; readonly trail: number; readonly path: Laying } | null = null
  return (now, trail) => {
    if (last?.now === now && last.trail === trail) return last.path
    // What takes too long is drawn in the next frames.
    if (queue.isExhausted) {
      queue.enqueue(RETRY)
      return NO_POINTS
    }
    const asked = queue.requestCount
    const long = Math.min(trail, ((room - 2) / shape.every) * (shape.bend ? SPARSE : 1))
    if (!(long > 0)) return NO_POINTS
    const from = minus(now.exactSeconds, fromNumber(long))
    const first = Number(floor(over(from, step))) + 1
    const until = Number(floor(over(now.exactSeconds, step)))
    const spots: OutlineSpot[] = [point(momentOfSeconds(from, frameRate))]
    const ages = [1]
    if (laid.size > 3 * room) laid.clear()
    if (stretches.size > 3 * room) stretches.clear()
    const at = (k: number): OutlineSpot => {
      const known = laid.get(k)
      if (known) return known
      const before = queue.requestCount
      const spot = point(momentOfSeconds(times(rational(k), step), frameRate))
      // What is still being worked out is asked for again.
      if (queue.requestCount === before) laid.set(k, spot)
      return spot
    }
    const stepsOf = (stretch: number): readonly number[] => {
      let steps = stretches.get(stretch)
      if (!steps) {
        const before = queue.requestCount
        steps = bendsOf(at, stretch * STRETCH, shape.bend!)
        if (queue.requestCount === before) stretches.set(stretch, steps)
      }
      return steps
    }
    const lay = (k: number): void => {
      spots.push(at(k))
      ages.push(toNumber(minus(now.exactSeconds, times(rational(k), step))) / long)
    }
    const each = shape.bend ? STRETCH : 1
    for (let k = Math.floor(first / each); k * each <= until; k++) {
      if (queue.isExhausted && !(shape.bend ? stretches : laid).has(k)) {
        queue.enqueue(RETRY)
        break
      }
      if (!shape.bend) lay(k)
      else for (const j of stepsOf(k)) if (j >= first && j <= until) lay(j)
    }
    const end = point(now)
    if (end.some((v, k) => v !== spots.at(-1)![k])) {
      spots.push(end)
      ages.push(0)
    }
    // The newest, where there is no room for all.
    const shown = spots.slice(-room)
    const path = layingOf(
      shown.flatMap(([x, y]) => [x, y]),
      shown.map(s => s[2]),
      ages.slice(-room),
    )
    if (queue.requestCount === asked) last = { now, trail, path }
    return path
  }
}
