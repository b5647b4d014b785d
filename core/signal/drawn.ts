/**
 * Drawn curves: points in time order, each piece between two points stepped, straight, smooth or by an easing. Smooth
 * pieces are cubics whose slopes never carry them beyond their points (Fritsch and Carlson, "Monotone Piecewise Cubic
 * Interpolation", SIAM J. Numer. Anal. 17, 1980), so the points bound them; easings may go beyond.
 */
import { EASING_NAMES, easingNamed, type NamedEase } from './easing.ts'

/** Ways from one point to the next: the first three by name, then every easing that is none of them. */
export const WAYS: readonly string[] = [
  'smooth',
  'straight',
  'stepped',
  ...EASING_NAMES.filter(name => name !== 'linear' && name !== 'smooth'),
]

export interface DrawnPoint {
  readonly time: number
  readonly value: number
  /** How it goes on from here to the next point: one of `WAYS`. */
  readonly shape: string
}

export const AFTER = ['hold', 'repeat', 'mirror', 'carry'] as const
export type After = (typeof AFTER)[number]

export interface DrawnCurve {
  readonly low: number
  readonly high: number
  readonly first: number
  readonly last: number
  readonly start: number
  readonly end: number
  /** Times of its points, in order. */
  readonly times: readonly number[]
  /** Times at which it may bend: its points, and where an easing between two of them does. */
  readonly bends: readonly number[]
  /** Times at which it leaps: where a stepped piece ends at another value. */
  readonly leaps: readonly number[]
  /** The value at a time within its points; beyond them the nearest point's. */
  readonly at: (time: number) => number
  /** The same of one that goes on after its end: where its end joins its beginning, smooth pieces run on without a kink. */
  readonly round: (after: After) => (time: number) => number
}

/** How the slopes at both ends are found: as the pieces there run, as they join end to beginning, or level. */
type Ends = 'open' | 'joined' | 'level'

/**
 * @param whole first and last time of the curve that the points are a channel of: they hold up to its ends
 */
export function drawnCurve(points: readonly DrawnPoint[], whole?: readonly [number, number]): DrawnCurve {
  const p = [...points].sort((a, b) => a.time - b.time)
  const eases = p.map(q => easeOf(q.shape))
  const [low, high] = rangeOf(p, eases)
  const leaps: number[] = []
  for (let k = 1; k < p.length; k++) {
    const gone = p[k - 1]!.shape === 'stepped' || p[k]!.time === p[k - 1]!.time
    if (gone && p[k]!.value !== p[k - 1]!.value) leaps.push(p[k]!.time)
  }
  const bends = p.flatMap((q, k) => {
    const [next, ease] = [p[k + 1], eases[k]]
    return [q.time, ...(next && ease ? ease.knots.map(x => q.time + x * (next.time - q.time)) : [])]
  })
  const through =
    (slopes: readonly number[]) =>
    (time: number): number => {
      if (!(time > p[0]!.time)) return p[0]!.value
      const end = p.length - 1
      if (time >= p[end]!.time) return p[end]!.value
      let [low, high] = [0, end]
      while (high - low > 1) {
        const middle = (low + high) >> 1
        if (p[middle]!.time <= time) low = middle
        else high = middle
      }
      const [a, b] = [p[low]!, p[high]!]
      if (a.shape === 'stepped') return a.value
      const h = b.time - a.time
      const u = (time - a.time) / h
      const ease = eases[low]
      if (ease) return a.value + (b.value - a.value) * ease.ease(u)
      const [v, w] = [u * u, 1 - u]
      const y =
        (1 + 2 * u) * w * w * a.value +
        u * w * w * h * slopes[low]! +
        v * (3 - 2 * u) * b.value -
        v * w * h * slopes[high]!
      const [least, most] = a.value < b.value ? [a.value, b.value] : [b.value, a.value]
      return y < least ? least : y > most ? most : y
    }
  const [start, end] = [whole?.[0] ?? p[0]!.time, whole?.[1] ?? p.at(-1)!.time]
  const padded = start < p[0]!.time || end > p.at(-1)!.time
  const made = new Map<Ends, (time: number) => number>()
  const by = (ends: Ends) => {
    if (!made.has(ends)) made.set(ends, through(slopesOf(p, ends)))
    return made.get(ends)!
  }
  const round = (after: After) => {
    if (after === 'hold' || (after === 'repeat' && p[0]!.value !== p.at(-1)!.value)) return by('open')
    return by(after === 'mirror' || padded ? 'level' : 'joined')
  }
  return {
    low,
    high,
    first: p[0]!.value,
    last: p.at(-1)!.value,
    start,
    end,
    times: p.map(q => q.time),
    bends,
    leaps,
    at: by('open'),
    round,
  }
}

/** The easing of a piece; undefined of a stepped or smooth one. */
function easeOf(shape: string): NamedEase | undefined {
  if (shape === 'stepped' || shape === 'smooth') return undefined
  return easingNamed(shape === 'straight' ? 'linear' : shape)
}

/** Lowest and highest value, easings that go beyond their points counted. */
function rangeOf(p: readonly DrawnPoint[], eases: readonly (NamedEase | undefined)[]): [number, number] {
  let [low, high] = [Infinity, -Infinity]
  p.forEach((q, k) => {
    const [next, ease] = [p[k + 1], eases[k]]
    const reached = [q.value]
    if (next && ease) reached.push(...[ease.low, ease.high].map(x => q.value + (next.value - q.value) * x))
    low = Math.min(low, ...reached)
    high = Math.max(high, ...reached)
  })
  return [low, high]
}

function slopesOf(p: readonly DrawnPoint[], ends: Ends): number[] {
  const secant = (k: number) => {
    const h = p[k + 1]!.time - p[k]!.time
    return h > 0 ? (p[k + 1]!.value - p[k]!.value) / h : 0
  }
  const last = p.length - 1
  return p.map((_, k) => {
    const end = k === 0 || k === last
    if (end && (ends === 'level' || last === 0)) return 0
    if (end && ends === 'open') return secant(k === 0 ? 0 : last - 1)
    const [before, next] = end ? [last - 1, 0] : [k - 1, k]
    const [a, b] = [secant(before), secant(next)]
    if (a * b <= 0) return 0
    const [h, g] = [before, next].map(i => p[i + 1]!.time - p[i]!.time) as [number, number]
    // The weighted harmonic mean keeps each piece monotone.
    const slope = (3 * (h + g)) / ((2 * g + h) / a + (g + 2 * h) / b)
    return Number.isFinite(slope) ? slope : 0
  })
}

/** Its value after its last point and before its first, as `after` has it. `time` counts from its first point. */
export function beyond(d: DrawnCurve, after: After, whole: number, part: number): number {
  const length = d.end - d.start
  if (length <= 0 || after === 'hold') return d.at(d.start + (whole + part) * length)
  const odd = ((whole % 2) + 2) % 2 === 1
  const here = d.round(after)(d.start + (after === 'mirror' && odd ? 1 - part : part) * length)
  return after === 'carry' ? here + whole * (d.last - d.first) : here
}
