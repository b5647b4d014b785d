/** Where the copies of a part stand, before each is moved by its own properties. */
import type { Copies } from './schema.ts'
import { Path } from './path.ts'
import { cosineOfTurns, sineOfTurns } from '../signal/sine.ts'
import { placeMatrix, type Matrix } from './transform.ts'

/** Where a layout puts a copy, before its own properties move it: px, px towards the eye, and turns. */
export interface CopyPlace {
  readonly x: number
  readonly y: number
  readonly z: number
  readonly turns: number
}

const home = (x: number, y: number, turns = 0, z = 0): CopyPlace => ({ x, y, z, turns })

const known = new WeakMap<Copies, readonly CopyPlace[]>()

/** The homes of all copies, by index; in a chain each in what the one before stands in. In a ring with `turn` the top of each points outwards. */
export function homesOf(copies: Copies | null): readonly CopyPlace[] {
  if (!copies) return [home(0, 0)]
  let homes = known.get(copies)
  if (!homes) known.set(copies, (homes = laid(copies)))
  return homes
}

function laid(copies: Copies): CopyPlace[] {
  const { count } = copies
  if (copies.layout === 'path') return alongPath(copies)
  return Array.from({ length: count }, (_, i) => {
    if (copies.layout === 'row') {
      const k = i - (count - 1) / 2
      return home(k * copies.dx, k * copies.dy)
    }
    if (copies.layout === 'grid') {
      const [column, row] = [i % copies.columns, Math.floor(i / copies.columns)]
      const columns = Math.min(copies.columns, count)
      const rows = Math.ceil(count / copies.columns)
      return home((column - (columns - 1) / 2) * copies.dx, ((rows - 1) / 2 - row) * copies.dy)
    }
    if (copies.layout === 'placed') {
      const { x, y } = copies.points[i]!
      return home((x * copies.size) / 1000, (y * copies.size) / 1000)
    }
    if (copies.layout === 'chain') return i === 0 ? home(0, 0) : home(copies.dx, copies.dy)
    if (copies.layout === 'layers') return home(0, 0, 0, -i * copies.dz)
    const full = Math.abs(copies.sweep) >= 360
    const share = full ? i / count : count > 1 ? i / (count - 1) : 0
    const turns = (copies.from + copies.sweep * share) / 360
    const x = copies.radius * cosineOfTurns(turns)
    const y = copies.radius * sineOfTurns(turns)
    return home(x, y, copies.turn ? turns - 0.25 : 0)
  })
}

function alongPath(copies: Copies & { layout: 'path' }): CopyPlace[] {
  const { count, points, closed, smooth, turn } = copies
  const path = new Path(points, closed, smooth)
  return Array.from({ length: count }, (_, i) => {
    const { x, y, direction } = path.at(closed ? i / count : count > 1 ? i / (count - 1) : 0.5)
    return home(x, y, turn ? direction : 0)
  })
}

const matrixOf = ({ x, y, z, turns }: CopyPlace): Matrix => placeMatrix(x, y, turns, z)

/** The same as matrices. */
export const copyMatrices = (copies: Copies | null): Matrix[] => homesOf(copies).map(matrixOf)
/** That of one copy. */
export const copyMatrix = (copies: Copies | null, copy: number): Matrix => matrixOf(homesOf(copies)[copy]!)

/** Whether a copy hangs on the one before it, by its number among its siblings. */
export const hangsOnBefore = (copies: Copies | null, k: number): boolean => copies?.layout === 'chain' && k > 0
