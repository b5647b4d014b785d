/** How far values leap by a change of the document, at the moment at which it is made; and set values that take it up. */
import { drivenProperty, isSignal, propertyKey, splitDriveKey } from '../piece/drive-key.ts'
import { apply, compose, type Operation } from '../piece/operation.ts'
import { propertyNamed } from '../piece/properties.ts'
import type { Piece } from '../piece/schema.ts'
import { setBase } from '../acts/parts.ts'
import type { Moment } from '../time/moment.ts'
import { toNumber } from '../time/rational.ts'
import { sizeOfUnit } from '../units/units.ts'
import { Program } from './program.ts'

/** A value that is another at the moment of a change: of which formula or set value and copy, from what to what, in base measure. */
export interface Shift {
  readonly key: string
  readonly copy: number
  readonly from: number
  readonly to: number
}

/** Less than this share of a value, or of a unit of it, is no jump. */
const SMALL = 1e-9

/** What all copies of a property show at a moment: what drives it, else what is set. Null for what the piece doesn't have. */
function shownBy(program: Program, key: string, at: Moment): Float64Array | null {
  if (program.slots.has(key)) return program.copiesAt(key, at)
  const [part, name] = splitDriveKey(key)
  const property = propertyNamed(name)
  const set = property && program.piece.parts[part] ? program.handForms(part, property) : null
  return set && program.queue.settle(() => Float64Array.from(set, f => f.at(at)))
}

/** How much a step of this size counts beside those of other kinds: 1 is one step of its field. */
function weightOf(program: Program, key: string): number {
  const property = isSignal(key) ? undefined : propertyNamed(drivenProperty(key))
  return property ? 1 / (property.stride * toNumber(sizeOfUnit(property.unit, program.measures))) : 1
}

/** Every value that a change may touch: what is driven before or after it, and what is set otherwise. */
function changeable(before: Program, after: Program): Set<string> {
  const keys = new Set([...before.slots.keys(), ...after.slots.keys()])
  const [a, b] = [before.piece.bases, after.piece.bases]
  if (a !== b) for (const key of [...Object.keys(a), ...Object.keys(b)]) if (a[key] !== b[key]) keys.add(key)
  return keys
}

/**
 * The largest jump between two programs at a moment, over all copies; null when every value stays. What turns by whole
 * turns stays where it is.
 * @param keys the values that are looked at; all that may have changed when left out
 */
export function shiftOf(before: Program, after: Program, at: Moment, keys?: Iterable<string>): Shift | null {
  let most: Shift | null = null
  let weight = 0
  for (const key of keys ?? changeable(before, after)) {
    if (before.slots.has(key) && before.slots.get(key) === after.slots.get(key)) continue
    const [a, b] = [shownBy(before, key, at), shownBy(after, key, at)]
    if (!a || !b) continue
    const scale = weightOf(after, key)
    for (let copy = 0; copy < Math.min(a.length, b.length); copy++) {
      const [from, to] = [a[copy]!, b[copy]!]
      const size = Math.abs(to - from)
      if (!(size > SMALL * (1 + Math.abs(from))) || size * scale <= weight || wholeTurns(key, to - from)) continue
      most = { key, copy, from, to }
      weight = size * scale
    }
  }
  return most
}

function wholeTurns(key: string, by: number): boolean {
  const symmetry = isSignal(key) ? undefined : propertyNamed(drivenProperty(key))?.symmetry
  return symmetry !== undefined && symmetry !== 'poses' && Math.abs(by - Math.round(by)) < SMALL
}

/** An operation after which values stand where they stood, as far as set values can see to that. */
export interface KeptSetValues {
  readonly op: Operation
  /** What it does, with the set values that keep the others; the program with it. */
  readonly program: Program
  /** Values whose set value was moved so that they stay. */
  readonly held: readonly string[]
  /** The largest jump that is left. */
  readonly shift: Shift | null
}

/**
 * An operation that takes formulas or links away, with set values on top so that what they drove stays where it is at
 * the moment. A set value can keep what all copies lost alike, of what has no keyframes.
 */
export function keepingSet(before: Program, op: Operation, at: Moment): KeptSetValues {
  let all = op
  let program = new Program(apply(before.piece, op), before)
  const lost = [...before.slots.keys()].filter(key => !program.slots.has(key))
  const held: string[] = []
  for (const key of lost) {
    const moved = setToStay(before, program, key, at)
    if (!moved) continue
    all = { ...compose(all, moved), undoLabel: op.undoLabel }
    program = new Program(apply(program.piece, moved), program)
    held.push(key)
  }
  return { op: all, program, held, shift: shiftOf(before, program, at) }
}

/** The set value with which a property that lost its formula stays where it was; null where none does, or none is needed. */
function setToStay(before: Program, after: Program, key: string, at: Moment): Operation | null {
  if (isSignal(key) || after.slots.has(key)) return null
  const [part, name] = splitDriveKey(key)
  const base: Piece['bases'][string] | undefined = after.piece.bases[propertyKey(part, name)]
  const property = propertyNamed(name)
  const [stood, stands] = [shownBy(before, key, at), shownBy(after, key, at)]
  if (!property || !stood || !stands || base?.keys || base?.copies) return null
  const [first] = stood
  const alike = stood.every(v => Math.abs(v - first!) <= SMALL * (1 + Math.abs(first!)))
  if (!alike || stood.every((v, i) => Math.abs(v - stands[i]!) <= SMALL * (1 + Math.abs(v)))) return null
  const value = Number((first! / toNumber(sizeOfUnit(property.unit, after.measures))).toFixed(9))
  return setBase(after.piece, part, name, value)
}
