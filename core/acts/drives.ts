/** Operations on what moves: drives, dials and signals. */
import { propertyKey } from '../piece/drive-key.ts'
import { seedOf } from '../signal/hash.ts'
import { operation, putDrive, type Operation } from '../piece/operation.ts'
import { freshId } from './ids.ts'
import type { Dial, Drive, Piece, Promised, Signal } from '../piece/schema.ts'

/** A function on a property; takes the place of one that is there. */
export function addDrive(piece: Piece, part: string, property: string, text: string): Operation {
  const old = piece.drives[propertyKey(part, property)]
  const drive: Drive = {
    part,
    property,
    text,
    good: text,
    seed: old?.seed ?? seedOf(piece.seed, part, property),
    off: false,
    takes: old?.takes ?? [],
    promises: old?.promises ?? [],
  }
  return operation(`drive ${piece.parts[part]!.name} ${property}`, putDrive(drive))
}

export function switchDrive(piece: Piece, key: string, off: boolean): Operation {
  const drive = piece.drives[key]!
  return operation(`switch ${drive.property} ${off ? 'off' : 'on'}`, putDrive({ ...drive, off }))
}

/** What a drive promises; it is checked, never enforced. */
export function setPromises(piece: Piece, key: string, promises: readonly Promised[]): Operation {
  const drive = piece.drives[key]!
  const says = `promise of ${piece.parts[drive.part]?.name ?? drive.part} ${drive.property}`
  return operation(says, putDrive({ ...drive, promises: [...promises] }))
}

export function removeDrive(piece: Piece, key: string): Operation {
  const drive = piece.drives[key]!
  const says = `let ${piece.parts[drive.part]?.name ?? drive.part} ${drive.property} rest`
  return operation(says, { in: 'drives', id: key, value: null })
}

export function addDial(piece: Piece, given: Partial<Dial> & { name: string }): { id: string; op: Operation } {
  const id = freshId(piece.dials, 'd')
  const order = Math.max(0, ...Object.values(piece.dials).map(d => d.order)) + 1
  const dial: Dial = {
    order,
    type: 'number',
    unit: '%',
    value: 100,
    low: 0,
    high: 200,
    initial: 100,
    hidden: false,
    ...given,
  }
  return { id, op: operation(`add dial ${dial.name}`, { in: 'dials', id, value: dial }) }
}

/** A dial put in the place of another in the row; null where it stands there already. */
export function placeDial(piece: Piece, id: string, at: number): Operation | null {
  const order = Object.keys(piece.dials).sort((a, b) => piece.dials[a]!.order - piece.dials[b]!.order)
  const to = Math.min(order.length - 1, Math.max(0, at))
  const from = order.indexOf(id)
  if (to === from) return null
  order.splice(to, 0, ...order.splice(from, 1))
  const puts = order.map((d, i) => ({ in: 'dials', id: d, value: { ...piece.dials[d]!, order: i + 1 } }) as const)
  return operation(`move dial ${piece.dials[id]!.name}`, ...puts)
}

/** A dial one place to the left or right among the others; null where it is the last. */
export const moveDial = (piece: Piece, id: string, by: 1 | -1): Operation | null =>
  placeDial(piece, id, Object.values(piece.dials).filter(d => d.order < piece.dials[id]!.order).length + by)

export function addSignal(piece: Piece, name: string, text: string): { id: string; op: Operation } {
  const id = freshId(piece.signals, 's')
  const order = Math.max(0, ...Object.values(piece.signals).map(s => s.order)) + 1
  const signal: Signal = { name, order, text, good: text, seed: seedOf(piece.seed, 'signal', id) }
  return { id, op: operation(`add signal ${name}`, { in: 'signals', id, value: signal }) }
}
