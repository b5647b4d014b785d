/**
 * The path of a moving point. Its points are laid at whole steps of time, so that those that are laid never shift; its
 * two ends lie exactly at now and at the end of the trail.
 */
import type { Program } from '../engine/program.ts'
import type { Part } from '../piece/schema.ts'
import { momentOfSeconds, type Moment } from '../time/moment.ts'
import { floor, fromNumber, minus, over, rational, times, ONE } from '../time/rational.ts'
import { AGAIN, asks, spent, want } from '../form/working.ts'
import { applyX, applyY, applyZ } from '../piece/transform.ts'
import { layingOf, NOTHING, type Laying } from './points-laid.ts'
import { standing } from './standing.ts'

type Spot = readonly [x: number, y: number, z: number]

/** Points of one path, and of all paths of a piece, at most. */
const MOST = 4000
export const MOST_LAID = 40_000

/** Gives the path of a trace at a moment, the oldest point first. */
export function traceOf(program: Program, part: Part, most = MOST): (now: Moment, trail: number) => Laying {
  const room = Math.max(4, Math.min(MOST, most))
  const { shape } = part
  const followed = shape.type === 'trace' && shape.of !== null ? program.piece.parts[shape.of] : undefined
  if (shape.type !== 'trace' || !followed) return () => NOTHING
  const where = standing(program, shape.of!, 0)
  const { frameRate } = program.measures
  const [px, py] = [followed.pivot.x + shape.x, followed.pivot.y + shape.y]
  const laid = new Map<number, Spot>()
  const point = (m: Moment): Spot => {
    const w = where(m)
    return [applyX(w, px, py), applyY(w, px, py), applyZ(w, px, py)]
  }
  const step = over(ONE, rational(shape.every))
  /** The last path that was whole: asked for again at the same moment it costs nothing. */
  let last: { readonly now: Moment; readonly trail: number; readonly path: Laying } | null = null
  return (now, trail) => {
    if (last?.now === now && last.trail === trail) return last.path
    // What takes too long is drawn in the next frames.
    if (spent()) {
      want(AGAIN)
      return NOTHING
    }
    const asked = asks()
    const long = Math.min(trail, (room - 2) / shape.every)
    if (!(long > 0)) return NOTHING
    const from = minus(now.exactSeconds, fromNumber(long))
    const first = Number(floor(over(from, step))) + 1
    const until = Number(floor(over(now.exactSeconds, step)))
    const spots: Spot[] = [point(momentOfSeconds(from, frameRate))]
    if (laid.size > 3 * room) laid.clear()
    for (let k = first; k <= until; k++) {
      let known = laid.get(k)
      if (!known && spent()) {
        want(AGAIN)
        break
      }
      if (!known) {
        const before = asks()
        known = point(momentOfSeconds(times(rational(k), step), frameRate))
        // What is still being worked out is asked for again.
        if (asks() === before) laid.set(k, known)
      }
      spots.push(known)
    }
    const end = point(now)
    if (end.some((v, k) => v !== spots.at(-1)![k])) spots.push(end)
    const path = layingOf(
      spots.flatMap(([x, y]) => [x, y]),
      spots.map(s => s[2]),
    )
    if (asks() === asked) last = { now, trail, path }
    return path
  }
}
