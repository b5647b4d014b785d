/** Where the copies of a part stand, before each is moved by its own properties. */
import type { Copies } from '../piece/schema.ts'
import { Path } from './path.ts'
import { cosineOfTurns, sineOfTurns } from '../signal/sine.ts'
import { matrix, placed, type Matrix } from './transform.ts'

/** The places of all copies, by index. In a ring with `turn` the top of each points outwards. */
export function placesOf(copies: Copies | null): Matrix[] {
  if (!copies) return [matrix()]
  const { count } = copies
  if (copies.layout === 'path') return alongPath(copies)
  return Array.from({ length: count }, (_, i) => {
    if (copies.layout === 'row') {
      const k = i - (count - 1) / 2
      return placed(k * copies.dx, k * copies.dy, 0)
    }
    if (copies.layout === 'grid') {
      const [column, row] = [i % copies.columns, Math.floor(i / copies.columns)]
      const columns = Math.min(copies.columns, count)
      const rows = Math.ceil(count / copies.columns)
      return placed((column - (columns - 1) / 2) * copies.dx, ((rows - 1) / 2 - row) * copies.dy, 0)
    }
    if (copies.layout === 'layers') return placed(0, 0, 0, -i * copies.dz)
    const full = Math.abs(copies.sweep) >= 360
    const share = full ? i / count : count > 1 ? i / (count - 1) : 0
    const turns = (copies.from + copies.sweep * share) / 360
    const x = copies.radius * cosineOfTurns(turns)
    const y = copies.radius * sineOfTurns(turns)
    return placed(x, y, copies.turn ? turns - 0.25 : 0)
  })
}

function alongPath(copies: Copies & { layout: 'path' }): Matrix[] {
  const { count, points, closed, smooth, turn } = copies
  const path = new Path(points, closed, smooth)
  return Array.from({ length: count }, (_, i) => {
    const { x, y, direction } = path.at(closed ? i / count : count > 1 ? i / (count - 1) : 0.5)
    return placed(x, y, turn ? direction : 0)
  })
}
