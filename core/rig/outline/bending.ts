/** Which of the steps of a moving point are kept where it is laid by bend and distance. */
import { atanTurns } from '../../signal/maths.ts'
import type { OutlineSpot } from './points-laid.ts'

/** Steps that are decided upon together; the first of each stretch always stays. */
export const STRETCH = 16

/**
 * The steps that stay of a stretch, in order. It is halved as long as it bends by more than asked for or is longer; a
 * middle at which it is halved stays. It depends on nothing beyond the stretch, so that it is the same whenever it is asked.
 *
 * @param at where the point is at a step
 * @param first the first step of the stretch
 * @param bend degrees, and px
 */
export function bendsOf(
  at: (step: number) => OutlineSpot,
  first: number,
  bend: { readonly angle: number; readonly distance: number },
): number[] {
  const kept = [first]
  const most = bend.angle / 360
  const split = (a: number, b: number): void => {
    const half = (b - a) / 2
    if (half < 1) return
    // Quarters too: a bend to one side and back again would pass for straight.
    const every = half > 1 ? half / 2 : half
    let [turned, long] = [0, 0]
    let before: OutlineSpot | null = null
    for (let k = a; k < b; k += every) {
      const way = between(at(k), at(k + every))
      const length = Math.sqrt(way[0] * way[0] + way[1] * way[1] + way[2] * way[2])
      if (!(length > 0)) continue
      long += length
      const now: OutlineSpot = [way[0] / length, way[1] / length, way[2] / length]
      if (before) turned += angle(before, now)
      before = now
    }
    if (turned < most && long < bend.distance) return
    split(a, a + half)
    kept.push(a + half)
    split(a + half, b)
  }
  split(first, first + STRETCH)
  return kept
}

const between = (a: OutlineSpot, b: OutlineSpot): OutlineSpot => [b[0] - a[0], b[1] - a[1], b[2] - a[2]]

/** Between two ways as long as 1, turns: by their cross and dot, so that small ones are exact too. */
function angle(a: OutlineSpot, b: OutlineSpot): number {
  const [x, y, z] = [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]]
  return atanTurns(Math.sqrt(x * x + y * y + z * z), a[0] * b[0] + a[1] * b[1] + a[2] * b[2])
}
