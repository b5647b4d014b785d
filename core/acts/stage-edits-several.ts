/** What hands do with several parts at once, or with a group: turned and sized together about a point of the stage. */
import { operation, type Operation, type Put } from '../piece/operation.ts'
import type { Piece } from '../piece/schema.ts'
import { applyX, applyY } from '../piece/transform.ts'
import { sineOfTurns } from '../signal/sine.ts'
import { moveBy, listNames, rounded, sizeBy, sizedBy, turnBy, type Grip } from './stage-edits.ts'

type Point = readonly [x: number, y: number]

/** Where the pin of a part lies on the stage: it goes where all go, and the part turns and scales about it. */
const pinOf = (piece: Piece, { id, world }: Grip): Point => {
  const { pivot } = piece.parts[id]!
  return [applyX(world, pivot.x, pivot.y), applyY(world, pivot.x, pivot.y)]
}

/** How several are changed: where each pin goes on the stage, and what else becomes of a part. */
interface Change {
  readonly to: (pin: Point) => Point
  readonly also: (grip: Grip) => readonly Put[]
  /** Where its pin lies in the part then, px from its middle. */
  readonly pivot?: (id: string) => Point
}

function together(piece: Piece, grips: readonly Grip[], says: string, now: number, change: Change): Operation {
  const puts = grips.flatMap(grip => {
    const { id, seat } = grip
    const part = piece.parts[id]!
    const { pivot } = part
    const [x, y] = pinOf(piece, grip)
    const [tx, ty] = change.to([x, y])
    const [px, py] = change.pivot?.(id) ?? [pivot.x, pivot.y]
    const moved = px !== pivot.x || py !== pivot.y
    // The pin lies at its place and the pivot together: a pivot that lies elsewhere has taken it along.
    const [ax, ay] = [px - pivot.x, py - pivot.y]
    const [dx, dy] = [tx - x - seat[0] * ax - seat[1] * ay, ty - y - seat[4] * ax - seat[5] * ay]
    const pinned: Put[] = moved ? [{ in: 'parts', id, value: { ...part, pivot: { x: px, y: py } } }] : []
    return [...pinned, ...moveBy(piece, [grip], dx, dy, now).puts, ...change.also(grip)]
  })
  const ids = grips.map(g => g.id)
  return operation(`${says} ${listNames(piece, ids)}`, ...puts)
}

/**
 * All turned about a point of the stage, as one.
 *
 * @param degrees anticlockwise; @param step in steps of so many; 0 as it comes
 */
export function turnAll(
  piece: Piece,
  grips: readonly Grip[],
  [cx, cy]: Point,
  degrees: number,
  now: number,
  step = 0,
): Operation {
  const by = step > 0 ? Math.round(degrees / step) * step : Number(degrees.toFixed(1))
  const [cos, sin] = [sineOfTurns(by / 360 + 0.25), sineOfTurns(by / 360)]
  const to = ([x, y]: Point): Point => [cx + (x - cx) * cos - (y - cy) * sin, cy + (x - cx) * sin + (y - cy) * cos]
  return together(piece, grips, 'turn', now, { to, also: grip => turnBy(piece, grip, by, now).puts })
}

/**
 * All made so many times as large about a point of the stage: each by the numbers that it is sized by, its pin as far from
 * its middle as before against its size. Lines stay as wide as they are, unless a scale is what a part is sized by.
 */
export function sizeAll(piece: Piece, grips: readonly Grip[], [cx, cy]: Point, factor: number, now: number): Operation {
  const to = ([x, y]: Point): Point => [cx + (x - cx) * factor, cy + (y - cy) * factor]
  const pivot = (id: string): Point => {
    const { x, y } = piece.parts[id]!.pivot
    return sizedBy(piece, id) === 'scale' ? [x, y] : [rounded(x * factor), rounded(y * factor)]
  }
  return together(piece, grips, 'size', now, { to, pivot, also: ({ id }) => sizeBy(piece, id, factor, now) })
}
