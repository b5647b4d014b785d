/** Operations on gears: a new one snaps into engagement with one that stands. */
import { propertyKey } from '../piece/drive-key.ts'
import { spacing } from '../piece/gearing.ts'
import { quotedName } from '../formula/words.ts'
import { cosineOfTurns, sineOfTurns } from '../signal/sine.ts'
import { addDrive } from './drives.ts'
import { apply, compose, operation, type Operation } from '../piece/operation.ts'
import { addPart, setBase } from './parts.ts'
import type { Piece, Shape } from '../piece/schema.ts'

type Gear = Shape & { type: 'gear' }

const gearAt = (piece: Piece, part: string): Gear | null => {
  const { shape } = piece.parts[part]!
  return shape.type === 'gear' ? shape : null
}
const hand = (piece: Piece, part: string, property: string): number =>
  piece.bases[propertyKey(part, property)]?.value ?? 0

/** Directions in which a place for a new gear is sought, in turns: to the right first. */
const DIRECTIONS = Array.from({ length: 24 }, (_, k) => k / 24)

/** The first direction in which a gear's pitch circle overlaps no other's; to the right when there is none. */
function freeDirection(piece: Piece, other: string, shape: Gear): number {
  const { parent } = piece.parts[other]!
  const others = Object.keys(piece.parts).filter(
    id => id !== other && piece.parts[id]!.parent === parent && gearAt(piece, id),
  )
  const free = (turns: number) => {
    const [x, y] = placeBeside(piece, other, shape, turns)
    return others.every(id => {
      const [dx, dy] = [hand(piece, id, 'x') - x, hand(piece, id, 'y') - y]
      return Math.sqrt(dx * dx + dy * dy) > spacing(gearAt(piece, id)!, shape) + shape.module
    })
  }
  return DIRECTIONS.find(free) ?? 0
}

function placeBeside(piece: Piece, other: string, shape: Gear, turns: number): [number, number] {
  const far = spacing(gearAt(piece, other)!, shape)
  const rounded = (v: number) => Number(v.toFixed(6))
  return [
    rounded(hand(piece, other, 'x') + far * cosineOfTurns(turns)),
    rounded(hand(piece, other, 'y') + far * sineOfTurns(turns)),
  ]
}

/**
 * A new gear that runs with another: on the same parent, with its module, where their pitch circles touch, turned by
 * it. `direction` in turns from the other's middle; the first free one when none is given.
 */
export function addGear(
  piece: Piece,
  other: string,
  given: { readonly teeth: number; readonly spokes: number },
  direction?: number,
): { id: string; op: Operation } {
  const beside = piece.parts[other]!
  const shape: Gear = { type: 'gear', module: gearAt(piece, other)!.module, ...given }
  const [x, y] = placeBeside(piece, other, shape, direction ?? freeDirection(piece, other, shape))
  const { id, op } = addPart(piece, shape, { parent: beside.parent })
  const all = [
    (p: Piece) => setBase(p, id, 'x', x),
    (p: Piece) => setBase(p, id, 'y', y),
    (p: Piece) => addDrive(p, id, 'rotation', `engage(${quotedName(beside.name)})`),
  ].reduce((done, next) => compose(done, next(apply(piece, done))), op)
  return { id, op: { ...all, undoLabel: `add a gear to ${beside.name}` } }
}

/** A gear that was put beside another runs with it from now on, where that can be; else it is said why not. */
export function engageWith(piece: Piece, id: string, other: string): { op: Operation | null; says: string } {
  const [own, there] = [gearAt(piece, id)!, gearAt(piece, other)!]
  const [name, otherName] = [piece.parts[id]!.name, piece.parts[other]!.name]
  if (own.module !== there.module) {
    const says = `Teeth only interlock when they have the same size: those of ${name} have ${own.module} px, those of ${otherName} ${there.module} px.`
    return { op: null, says }
  }
  const runs = `engage(${quotedName(otherName)})`
  const drive = piece.drives[propertyKey(id, 'rotation')]
  const its = piece.drives[propertyKey(other, 'rotation')]?.text ?? ''
  if (drive?.text === runs || its.includes(`engage(${quotedName(name)})`))
    return { op: null, says: `${name} runs with ${otherName}.` }
  if (drive && !/^\s*engage\(/i.test(drive.text)) {
    const says = `${name} meets ${otherName}; it rotates by its own formula. ${runs} would make it engage.`
    return { op: null, says }
  }
  const op = drive
    ? operation(`engage ${name}`, {
        in: 'drives',
        id: propertyKey(id, 'rotation'),
        value: { ...drive, text: runs, good: runs },
      })
    : addDrive(piece, id, 'rotation', runs)
  return { op: { ...op, undoLabel: `engage ${name}` }, says: `${name} runs with ${otherName} now.` }
}
