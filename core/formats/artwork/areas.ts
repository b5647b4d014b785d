/** Which rings of an outline are areas of their own, and which are holes in one. */
import type { Ring } from './lines.ts'

type Points = Ring['points']

export interface Area {
  /** Its outline, then the holes in it. */
  readonly rings: readonly Points[]
  readonly closed: boolean
}

/** @param filled whether it is filled, so that rings left open are areas too */
export function areasOf(rings: readonly Ring[], filled: boolean): Area[] {
  const lines = rings.filter(r => !isArea(r, filled))
  const areas = rings.filter(r => isArea(r, filled)).map(r => r.points)
  // A ring within an odd number of others is a hole of the smallest of them.
  const around = areas.map(a => areas.filter(b => b !== a && inside(b, a[0]!) && size(b) > size(a)))
  const outer = areas.filter((_, k) => around[k]!.length % 2 === 0)
  return [
    ...outer.map(o => ({
      rings: [
        o,
        ...areas.filter(
          (_, k) =>
            around[k]!.length % 2 === 1 && o === around[k]!.reduce((least, b) => (size(b) < size(least) ? b : least)),
        ),
      ],
      closed: true,
    })),
    ...lines.map(l => ({ rings: [l.points], closed: false })),
  ]
}

const isArea = ({ points, closed }: Ring, filled: boolean): boolean => points.length > 2 && (closed || filled)

function size(points: Points): number {
  let sum = 0
  points.forEach(([x, y], k) => {
    const [u, v] = points[(k + 1) % points.length]!
    sum += x * v - u * y
  })
  return Math.abs(sum) / 2
}

function inside(points: Points, [x, y]: readonly [number, number]): boolean {
  let within = false
  for (let i = 0, j = points.length - 1; i < points.length; j = i++) {
    const [[a, b], [c, d]] = [points[i]!, points[j]!]
    if (b > y !== d > y && x < ((c - a) * (y - b)) / (d - b) + a) within = !within
  }
  return within
}
