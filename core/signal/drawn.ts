/**
 * Drawn curves: points in time order, each piece between two points stepped, straight or smooth. Smooth pieces
 * are cubics whose slopes never carry them beyond their points (Fritsch and Carlson, "Monotone Piecewise Cubic
 * Interpolation", SIAM J. Numer. Anal. 17, 1980), so the points bound the curve.
 */
export interface Point {
  readonly time: number
  readonly value: number
  /** How it goes on from here to the next point. */
  readonly shape: 'stepped' | 'straight' | 'smooth'
}

export const AFTER = ['hold', 'repeat', 'mirror', 'carry'] as const
export type After = (typeof AFTER)[number]

export interface Drawn {
  readonly low: number
  readonly high: number
  readonly first: number
  readonly last: number
  readonly start: number
  readonly end: number
  /** Times of its points, in order. */
  readonly times: readonly number[]
  /** Times at which it leaps: where a stepped piece ends at another value. */
  readonly leaps: readonly number[]
  /** The value at a time within its points; beyond them the nearest point's. */
  readonly at: (time: number) => number
}

/**
 * @param whole first and last time of the curve that the points are a channel of: they hold up to its ends
 */
export function drawn(points: readonly Point[], whole?: readonly [number, number]): Drawn {
  const p = [...points].sort((a, b) => a.time - b.time)
  const slopes = slopesOf(p)
  const values = p.map(q => q.value)
  const leaps: number[] = []
  for (let k = 1; k < p.length; k++) {
    const gone = p[k - 1]!.shape === 'stepped' || p[k]!.time === p[k - 1]!.time
    if (gone && p[k]!.value !== p[k - 1]!.value) leaps.push(p[k]!.time)
  }
  const at = (time: number): number => {
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
    if (a.shape === 'straight') return a.value + (b.value - a.value) * u
    const [v, w] = [u * u, 1 - u]
    const y =
      (1 + 2 * u) * w * w * a.value +
      u * w * w * h * slopes[low]! +
      v * (3 - 2 * u) * b.value -
      v * w * h * slopes[high]!
    const [least, most] = a.value < b.value ? [a.value, b.value] : [b.value, a.value]
    return y < least ? least : y > most ? most : y
  }
  return {
    low: Math.min(...values),
    high: Math.max(...values),
    first: values[0]!,
    last: values.at(-1)!,
    start: whole?.[0] ?? p[0]!.time,
    end: whole?.[1] ?? p.at(-1)!.time,
    times: p.map(q => q.time),
    leaps,
    at,
  }
}

function slopesOf(p: readonly Point[]): number[] {
  const secant = (k: number) => {
    const h = p[k + 1]!.time - p[k]!.time
    return h > 0 ? (p[k + 1]!.value - p[k]!.value) / h : 0
  }
  return p.map((_, k) => {
    if (k === 0 || k === p.length - 1) return p.length > 1 ? secant(k === 0 ? 0 : k - 1) : 0
    const [a, b] = [secant(k - 1), secant(k)]
    if (a * b <= 0) return 0
    const [h, g] = [p[k]!.time - p[k - 1]!.time, p[k + 1]!.time - p[k]!.time]
    // The weighted harmonic mean keeps each piece monotone.
    const slope = (3 * (h + g)) / ((2 * g + h) / a + (g + 2 * h) / b)
    return Number.isFinite(slope) ? slope : 0
  })
}

/** Its value after its last point and before its first, as `after` has it. `time` counts from its first point. */
export function beyond(d: Drawn, after: After, whole: number, part: number): number {
  const length = d.end - d.start
  if (length <= 0 || after === 'hold') return d.at(d.start + (whole + part) * length)
  const odd = ((whole % 2) + 2) % 2 === 1
  const here = d.at(d.start + (after === 'mirror' && odd ? 1 - part : part) * length)
  return after === 'carry' ? here + whole * (d.last - d.first) : here
}
