/**
 * What hands do on the stage: parts moved, turned, sized, and their pins set. Each gives what the piece becomes from how
 * it was when the hand took hold, so that a gesture may be made over and over while it lasts.
 */
import { propertyKey } from '../piece/drive-key.ts'
import { initialOf, propertiesOf, propertyNamed } from '../piece/properties.ts'
import { operation, type Operation, type Put } from '../piece/operation.ts'
import type { Piece } from '../piece/schema.ts'
import type { Matrix } from '../piece/transform.ts'
import { pointsInOrder } from './points.ts'
import { hidesHand } from './sources.ts'
import { tiedSetValues } from './ties.ts'

/** A part that is held: what it stands in and how it stands there, as they were at that moment. */
export interface Grip {
  readonly id: string
  /** What its numbers count in: its parent with the place of its copy. */
  readonly seat: Matrix
  /** Where it is on the stage. */
  readonly world: Matrix
}

export const rounded = (v: number, places = 2): number => Number(v.toFixed(places)) || 0

/** What a property holds by hand, in the unit it is shown in. */
export function setValueOf(piece: Piece, id: string, property: string): number {
  const { shape } = piece.parts[id]!
  return piece.bases[propertyKey(id, property)]?.value ?? initialOf(propertyNamed(property)!, shape.type)
}

/**
 * A set value from a moment's view: where there are keyframes, the key at that moment; else the one number. Held to what
 * the property may be.
 */
function put(piece: Piece, id: string, property: string, value: number, now: number): Put[] {
  const [low, high] = propertyNamed(property)!.range ?? [-1e9, 1e9]
  const to = Math.min(high, Math.max(low, value))
  const key = propertyKey(id, property)
  const old = piece.bases[key]
  if (!old?.keys) return [{ in: 'bases', id: key, value: { ...old, value: to } }, ...tiedSetValues(piece, key, to)]
  const at = { time: rounded(now, 4), value: to, shape: 'smooth' as const }
  const points = pointsInOrder([...old.keys.points.filter(p => p.time !== at.time), at])
  return [{ in: 'bases', id: key, value: { ...old, keys: { ...old.keys, points } } }]
}

/** A stretch of the stage as a part's own numbers count it; null where what it stands in is seen from the side. */
export function inSeat(m: Matrix, dx: number, dy: number): readonly [number, number] | null {
  const det = m[0] * m[5] - m[1] * m[4]
  if (Math.abs(det) < 1e-12) return null
  return [(m[5] * dx - m[1] * dy) / det, (m[0] * dy - m[4] * dx) / det]
}

export const listNames = (piece: Piece, ids: readonly string[]): string =>
  ids.length === 1 ? piece.parts[ids[0]!]!.name : `${ids.length} parts`

/** Those of some parts that none of the others carries: moved with their parent they need no move of their own. */
export function outermost(piece: Piece, ids: readonly string[]): string[] {
  const all = new Set(ids)
  return ids.filter(id => {
    for (let at = piece.parts[id]?.parent ?? null; at !== null; at = piece.parts[at]?.parent ?? null)
      if (all.has(at)) return false
    return piece.parts[id] !== undefined
  })
}

/**
 * @param now seconds, for what has keyframes
 * @param places decimals of what it then holds
 */
export function moveBy(
  piece: Piece,
  grips: readonly Grip[],
  dx: number,
  dy: number,
  now: number,
  places = 2,
): Operation {
  const puts = grips.flatMap(({ id, seat }) => {
    const by = inSeat(seat, dx, dy)
    if (!by) return []
    return (['x', 'y'] as const).flatMap((axis, k) =>
      Math.abs(by[k]!) < 1e-9 ? [] : put(piece, id, axis, rounded(handAt(piece, id, axis, now) + by[k]!, places), now),
    )
  })
  return operation(
    `move ${listNames(
      piece,
      grips.map(g => g.id),
    )}`,
    ...puts,
  )
}

/** What is held at a moment: of keyframes the straight line between the two about it is near enough to pull from. */
function handAt(piece: Piece, id: string, property: string, now: number): number {
  const keys = piece.bases[propertyKey(id, property)]?.keys
  if (!keys) return setValueOf(piece, id, property)
  const { points } = keys
  const after = points.findIndex(p => p.time >= now)
  if (after === 0) return points[0]!.value
  if (after < 0) return points.at(-1)!.value
  const [a, b] = [points[after - 1]!, points[after]!]
  return a.value + ((b.value - a.value) * (now - a.time)) / (b.time - a.time)
}

/** @param degrees as they are seen on the stage, anticlockwise; what stands mirrored turns the other way */
export function turnBy(piece: Piece, { id, seat }: Grip, degrees: number, now: number, step = 0): Operation {
  const mirrored = seat[0] * seat[5] - seat[1] * seat[4] < 0
  const to = handAt(piece, id, 'rotation', now) + (mirrored ? -degrees : degrees)
  const value = step > 0 ? Math.round(to / step) * step : rounded(to, 1)
  return operation(`turn ${piece.parts[id]!.name}`, ...put(piece, id, 'rotation', value, now))
}

/** The numbers that a part is sized by: two sides, a radius, the size of letters, else its scale. */
export function sizedBy(piece: Piece, id: string): 'sides' | 'side' | 'radius' | 'size' | 'scale' {
  const has = new Set(propertiesOf(piece.parts[id]!.shape.type).map(p => p.name))
  if (has.has('width') && has.has('height')) return 'sides'
  if (has.has('width')) return 'side'
  if (has.has('radius')) return 'radius'
  return has.has('size') ? 'size' : 'scale'
}

const NAMES = {
  sides: ['width', 'height', 'corners'],
  side: ['width'],
  radius: ['radius', 'innerRadius'],
  size: ['size'],
  scale: ['scale'],
} as const

/** What it is sized by made so many times as large, with what belongs to it. */
export function sizeBy(piece: Piece, id: string, factor: number, now: number, places = 2): Put[] {
  const known = propertiesOf(piece.parts[id]!.shape.type)
  return NAMES[sizedBy(piece, id)]
    .filter(name => known.some(p => p.name === name))
    .flatMap(name => put(piece, id, name, rounded(handAt(piece, id, name, now) * factor, places), now))
}

/**
 * Sized by one of its handles, pulled to a point.
 *
 * @param side which handle: −1, 0 or 1 across and up
 * @param half how far its outline reaches from its middle across and up, as it was, px of its own
 * @param to the point, in the part's own px from its middle
 * @param both whether the side over against it moves too, about the middle
 * @param keeps whether a corner keeps how wide it is against how high
 */
export function sizeTo(
  piece: Piece,
  { id, seat, world }: Grip,
  side: readonly [number, number],
  half: readonly [number, number],
  to: readonly [number, number],
  now: number,
  both: boolean,
  keeps = false,
  places = 2,
): Operation {
  const says = `size ${piece.parts[id]!.name}`
  const by = sizedBy(piece, id)
  const [hx, hy] = [side[0] * half[0], side[1] * half[1]]
  // How much further out the hand is now, along the way from what stays to the handle.
  const further = (dx: number, dy: number, wx: number, wy: number) =>
    Math.max(0.01, (dx * wx + dy * wy) / Math.max(1e-9, wx * wx + wy * wy))
  if (by !== 'sides' && by !== 'side')
    return operation(says, ...sizeBy(piece, id, further(to[0], to[1], hx, hy), now, places))
  const corner = by === 'sides' && side[0] !== 0 && side[1] !== 0
  const alike = !keeps || !corner ? 0 : both ? further(...to, hx, hy) : further(to[0] + hx, to[1] + hy, 2 * hx, 2 * hy)
  const puts: Put[] = []
  /** How far the middle goes, in the part's own px. */
  const shift = [0, 0]
  for (const [k, property] of (['width', 'height'] as const).entries()) {
    if (side[k] === 0 || (by === 'side' && property === 'height')) continue
    const far = side[k]! * to[k]!
    const size = rounded(alike > 0 ? 2 * half[k]! * alike : Math.max(0, both ? 2 * far : far + half[k]!), places)
    puts.push(...put(piece, id, property, size, now))
    if (!both) shift[k] = (side[k]! * (size - 2 * half[k]!)) / 2
  }
  const [sx, sy] = shift as [number, number]
  const [dx, dy] = [world[0] * sx + world[1] * sy, world[4] * sx + world[5] * sy]
  const moved = moveBy(piece, [{ id, seat, world }], dx, dy, now)
  return operation(says, ...puts, ...moved.puts)
}

/** Its pin set somewhere else, px from its middle; where it stands now, it stays. */
export function pinTo(piece: Piece, { id, seat, world }: Grip, x: number, y: number, now: number): Operation {
  const part = piece.parts[id]!
  const pivot = { x: rounded(x), y: rounded(y) }
  // With L what turns and scales it: x + p − L p stays the same.
  const [dx, dy] = [pivot.x - part.pivot.x, pivot.y - part.pivot.y]
  const turned = inSeat(seat, world[0] * dx + world[1] * dy, world[4] * dx + world[5] * dy)
  const moved = turned
    ? (['x', 'y'] as const).flatMap((axis, k) => {
        const by = turned[k]! - [dx, dy][k]!
        return Math.abs(by) < 1e-9 ? [] : put(piece, id, axis, rounded(handAt(piece, id, axis, now) + by, 4), now)
      })
    : []
  return operation(`set the pivot of ${part.name}`, { in: 'parts', id, value: { ...part, pivot } }, ...moved)
}

/** Properties that a gesture has set although a formula that does not read them drives them. */
export function overruledProperties(piece: Piece, op: Operation): string[] {
  return op.puts.flatMap(p => {
    if (!('in' in p) || p.in !== 'bases') return []
    return hidesHand(piece.drives[p.id]) ? [p.id] : []
  })
}
