/** How gears interlock: the ratio of their teeth, and the phase with which tooth meets gap. */
import { propertyKey, type Piece } from './schema.ts'
import { atanTurns } from '../signal/maths.ts'
import { rational, type Rational } from '../time/rational.ts'

/** Where a part stands by hand, with all it hangs on, in px. */
function place(piece: Piece, part: string): [number, number] {
  let [x, y] = [0, 0]
  for (let at: string | null = part; at !== null; at = piece.parts[at]!.parent) {
    x += piece.bases[propertyKey(at, 'x')]?.value ?? 0
    y += piece.bases[propertyKey(at, 'y')]?.value ?? 0
  }
  return [x, y]
}

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
  const [x1, y1] = place(piece, other)
  const [x2, y2] = place(piece, own)
  const d = atanTurns(y2 - y1, x2 - x1)
  const exact = d + 0.5 + (d * t1 - 0.5) / t2
  const hand = (piece.bases[propertyKey(own, 'rotation')]?.value ?? 0) / 360
  const near = exact + Math.floor((hand - exact) * t2 + 0.5) / t2
  return { ratio: rational(t1, t2), offset: Math.floor(near * 1e12 + 0.5) / 1e12 }
}

/** The radius at which the teeth of a gear meet those of another, in px. */
export const pitchRadius = (gear: { teeth: number; module: number }): number => (gear.teeth * gear.module) / 2

/** The distance at which two gears of these shapes run together, in px. */
export const spacing = (a: { teeth: number; module: number }, b: { teeth: number; module: number }): number =>
  pitchRadius(a) + pitchRadius(b)
