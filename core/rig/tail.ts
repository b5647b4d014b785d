/**
 * How the line of a trace changes from now back to the old end of its trail: its width, how solid it is, its hue. It is
 * painted in pieces of equal age, each with a row of its own.
 */
import type { Body } from './body.ts'
import type { Outline } from './outline/outline.ts'
import type { OutlineSpot } from './outline/points-laid.ts'

/** Pieces of a line that changes along itself: so many that no step between them is seen. */
export const PIECES = 96

/** A stretch of a line whose points are as old as its piece. */
export interface TailStretch {
  /** Which piece, the oldest first. */
  readonly nth: number
  readonly spots: readonly OutlineSpot[]
  /** The points of the line before its first and after its last; the same where the line ends. */
  readonly before: OutlineSpot
  readonly after: OutlineSpot
}

/** What is at its old end: width and solidity against those of now, and how far its hue has gone round, turns. */
export interface Tail {
  readonly width: number
  readonly fade: number
  readonly hue: number
}

const NAMES = ['tailWidth', 'tailFade', 'tailHue'] as const
export const isTailed = (name: string): boolean => (NAMES as readonly string[]).includes(name)
const PLAIN: Tail = { width: 1, fade: 0, hue: 0 }

export const tailOf = (body: Body, i: number): Tail =>
  body.part.shape.type === 'trace'
    ? { width: body.get('tailWidth', i), fade: body.get('tailFade', i), hue: body.get('tailHue', i) }
    : PLAIN

/** Whether any instance ever changes along its line. */
export const hasTail = (body: Body): boolean =>
  body.part.shape.type === 'trace' &&
  (NAMES.some(name => body.driven.has(name)) ||
    Array.from({ length: body.count }, (_, i) => tailOf(body, i)).some(
      t => t.width !== 1 || t.fade !== 0 || t.hue !== 0,
    ))

/** How old the middle of a piece is, 1 at the old end. */
export const ageOf = (nth: number, pieces = PIECES): number => 1 - (nth + 0.5) / pieces

/** Ages nearer than this are one. */
const SAME = 1e-9

/** The pieces of a line by the ages of its points, which fall from 1 to 0. */
export function runsOf({ points, heights }: Outline, ages: Float64Array, pieces = PIECES): TailStretch[] {
  const n = points.length / 2
  const spot = (k: number): OutlineSpot => [points[2 * k]!, points[2 * k + 1]!, heights?.[k] ?? 0]
  if (n < 2) return []
  // All points with those at which one piece ends and the next begins, and where these are.
  const spots: OutlineSpot[] = [spot(0)]
  const ends: number[] = []
  const first = Math.max(0, Math.min(pieces - 1, Math.floor((1 - ages[0]! + SAME) * pieces)))
  let next = first + 1
  for (let k = 1; k < n; k++) {
    const [from, to] = [spot(k - 1), spot(k)]
    const [old, young] = [ages[k - 1]!, ages[k]!]
    for (; next < pieces && 1 - next / pieces > young + SAME; next++) {
      const share = Math.min(1, Math.max(0, (old - 1 + next / pieces) / (old - young)))
      ends.push(spots.length)
      spots.push([
        from[0] + (to[0] - from[0]) * share,
        from[1] + (to[1] - from[1]) * share,
        from[2] + (to[2] - from[2]) * share,
      ])
    }
    if (next < pieces && k < n - 1 && 1 - next / pieces > young - SAME) {
      ends.push(spots.length)
      next++
    }
    spots.push(to)
  }
  const last = spots.length - 1
  return [0, ...ends].map((from, k) => {
    const to = ends[k] ?? last
    return {
      nth: first + k,
      spots: spots.slice(from, to + 1),
      before: spots[Math.max(0, from - 1)]!,
      after: spots[Math.min(last, to + 1)]!,
    }
  })
}
