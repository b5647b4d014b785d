/** How gears interlock: the ratio of their teeth, and the phase with which tooth meets gap. */
import { propertyKey } from './drive-key.ts'
import { initialOf, propertyNamed } from './properties.ts'
import type { Piece } from './schema.ts'
import { applyX, applyY, matrix, multiply, posed, readPose, restPose } from './transform.ts'
import { atanTurns } from '../signal/maths.ts'
import { rational, type Rational } from '../time/rational.ts'

/** Where a part stands by hand in what it shares with another, px, and how far what carries it there is turned. */
interface Seat {
  readonly x: number
  readonly y: number
  readonly turned: number
}

/** A set value in base measure. */
function hand(piece: Piece, part: string, name: string): number {
  const property = propertyNamed(name)!
  const value = piece.bases[propertyKey(part, name)]?.value ?? initialOf(property, piece.parts[part]!.shape.type)
  return property.unit === 'deg' ? value / 360 : property.unit === '%' ? value / 100 : value
}

/** The parts that carry a part, itself first, up to the first that also carries another. */
function carriers(piece: Piece, part: string, other: string): string[] {
  const above = new Set<string>()
  for (let at: string | null = piece.parts[other]!.parent; at !== null; at = piece.parts[at]!.parent) above.add(at)
  const chain: string[] = []
  for (let at: string | null = part; at !== null && !above.has(at); at = piece.parts[at]!.parent) chain.push(at)
  return chain
}

function seatOf(piece: Piece, part: string, other: string): Seat {
  const chain = carriers(piece, part, other)
  let world = matrix()
  for (const id of [...chain].reverse()) {
    const pose = readPose(restPose(piece.parts[id]!.steps), name => hand(piece, id, name), 0, piece.parts[id]!.pivot)
    world = multiply(world, posed(pose, matrix()), matrix())
  }
  const { x, y } = piece.parts[part]!.pivot
  const turned = chain.slice(1).reduce((sum, id) => sum + hand(piece, id, 'rotation'), 0)
  return { x: applyX(world, x, y), y: applyY(world, x, y), turned }
}

/** The parts by whose set values `gearing` says where the two stand. */
export const standsBy = (piece: Piece, other: string, own: string): string[] => [
  ...carriers(piece, other, own),
  ...carriers(piece, own, other),
]

/** The teeth of a gear; 1 for what is none. */
export function teethOf(piece: Piece, part: string): number {
  const { shape } = piece.parts[part]!
  return shape.type === 'gear' ? shape.teeth : 1
}

/**
 * A gear turns by −ratio times the other's turn, plus an offset. At the point where they touch, in direction d
 * from the other, the tooth that is a pitches off on one side must meet a gap: with both counted in pitches,
 * (d − r₁)·t₁ + (d + ½ − r₂)·t₂ is ½ more than a whole number. The offset nearest to what is set by hand is taken.
 */
export function gearing(piece: Piece, other: string, own: string): { ratio: Rational; offset: number } {
  const [t1, t2] = [teethOf(piece, other), teethOf(piece, own)]
  const there = seatOf(piece, other, own)
  const here = seatOf(piece, own, other)
  const d = atanTurns(here.y - there.y, here.x - there.x)
  // What carries the two turns them as well: it is taken off again, since a rotation counts from what carries it.
  const exact = d + 0.5 + (d * t1 - 0.5) / t2 - (t1 / t2) * there.turned - here.turned
  const hand = (piece.bases[propertyKey(own, 'rotation')]?.value ?? 0) / 360
  const near = exact + Math.floor((hand - exact) * t2 + 0.5) / t2
  return { ratio: rational(t1, t2), offset: Math.floor(near * 1e12 + 0.5) / 1e12 }
}

/** The radius at which the teeth of a gear meet those of another, in px. */
export const pitchRadius = (gear: { teeth: number; module: number }): number => (gear.teeth * gear.module) / 2

/** The distance at which two gears of these shapes run together, in px. */
export const spacing = (a: { teeth: number; module: number }, b: { teeth: number; module: number }): number =>
  pitchRadius(a) + pitchRadius(b)
