/** Marks of cues and points of curves, for the trials alone. */
import { add, mul, type V } from './evaluate.ts'
import { compare, floorOf, minus, over, plus, q, times, type Q } from './fraction.ts'
import { CUES, CURVES } from './world.ts'

/** The latest mark at or before a moment, the next after it, and how many there were. */
export function around(name: string, t: Q): { last: Q | null; next: Q | null; so: number } {
  const { marks, every } = CUES[name]!
  if (every) {
    const n = floorOf(over(minus(t, marks[0]!), every))
    if (n < 0n) return { last: null, next: marks[0]!, so: 0 }
    const last = plus(marks[0]!, times(every, q(n)))
    return { last, next: plus(last, every), so: Number(n) + 1 }
  }
  const past = marks.filter(m => compare(m, t) <= 0)
  return { last: past.at(-1) ?? null, next: marks[past.length] ?? null, so: past.length }
}

export function drawn(name: string, channel: string, t: Q, after: string): V {
  const channels = CURVES[name]!
  const points = channels[channel] ?? channels[Object.keys(channels).sort()[0]!]!
  // Channels are on one time axis: each lasts as long as its curve.
  const all = Object.values(channels).flat()
  const ends = (pick: (a: Q, b: Q) => boolean) => all.map(p => p[0]).reduce((a, b) => (pick(a, b) ? a : b))
  const [from, to] = [ends((a, b) => compare(a, b) < 0), ends((a, b) => compare(a, b) > 0)]
  const [first, last] = [[from, points[0]![1]] as const, [to, points.at(-1)![1]] as const]
  const length = minus(to, from)
  let u = t
  let carried: V = q(0)
  if (compare(u, first[0]) < 0 && (after === '' || after === 'hold')) return first[1]
  if (after === 'repeat' || after === 'carry' || after === 'mirror') {
    const n = floorOf(over(minus(u, first[0]), length))
    u = minus(u, times(length, q(n)))
    if (after === 'carry') carried = times(minus(last[1], first[1]), q(n))
    if (after === 'mirror' && n % 2n !== 0n) u = minus(plus(first[0], last[0]), u)
  }
  const k = points.filter(point => compare(point[0], u) <= 0).length - 1
  if (k < 0) return add(first[1], carried)
  const [a, b] = [points[k]!, points[k + 1]]
  if (!b || a[2]) return add(a[1], carried)
  return add(add(a[1], carried), mul(minus(b[1], a[1]), over(minus(u, a[0]), minus(b[0], a[0]))))
}
