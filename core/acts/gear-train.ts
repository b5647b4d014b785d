/** A gear that gets other teeth stays in engagement: all that run with it move along. */
import { propertyKey } from '../piece/drive-key.ts'
import { parse } from '../formula/parse.ts'
import { everyNode } from '../formula/tree.ts'
import { apply, compose, operation, type Operation } from '../piece/operation.ts'
import { pitchRadius, spacing } from '../piece/gearing.ts'
import type { Piece, Shape } from '../piece/schema.ts'
import { canonical } from '../units/names.ts'
import { setBase, setPart } from './parts.ts'

type Gear = Shape & { type: 'gear' }

const gearOf = (piece: Piece, id: string): Gear | null => {
  const shape = piece.parts[id]?.shape
  return shape?.type === 'gear' ? shape : null
}

/** The gear that one engages with, by its formula. */
function drivenBy(piece: Piece, id: string): string | null {
  const drive = piece.drives[propertyKey(id, 'rotation')]
  const formula = drive ? parse(drive.text).formula : null
  if (!formula) return null
  for (const node of everyNode(formula)) {
    if (node.type !== 'call' || canonical(node.name) !== 'engage') continue
    const named = node.args[0]?.value
    if (named?.type !== 'name') continue
    const wanted = canonical(named.name)
    const other = Object.keys(piece.parts).find(p => canonical(piece.parts[p]!.name) === wanted)
    if (other && other !== id && gearOf(piece, other)) return other
  }
  return null
}

/** Gears that run together, by who drives whom. */
function followersOf(piece: Piece): Map<string, string[]> {
  const out = new Map<string, string[]>()
  for (const id of Object.keys(piece.parts)) {
    const by = gearOf(piece, id) ? drivenBy(piece, id) : null
    if (by) out.set(by, [...(out.get(by) ?? []), id])
  }
  return out
}

const place = (piece: Piece, id: string): readonly [number, number] => [
  piece.bases[propertyKey(id, 'x')]?.value ?? 0,
  piece.bases[propertyKey(id, 'y')]?.value ?? 0,
]

/** Moved by hand, on what the other hangs on too, as one that stands once. */
function isFree(piece: Piece, id: string, beside: string): boolean {
  const { parent, copies } = piece.parts[id]!
  const driven = ['x', 'y'].some(p => piece.drives[propertyKey(id, p)] || piece.bases[propertyKey(id, p)]?.keys)
  return parent === piece.parts[beside]!.parent && copies === null && piece.parts[beside]!.copies === null && !driven
}

/** How far from engagement two gears may stand by hand to be taken for running together, in modules. */
const NEAR = 0.5

/**
 * Another shape for a gear. The first gear of its train stays where it is; each that ran with another before moves on
 * the line between the two until their pitch circles touch again, with all that follows it. Another module is given
 * to the whole train, since only teeth of one size run together.
 * @returns the operation, and what could not be moved, in a sentence
 */
export function reshapeGear(
  piece: Piece,
  id: string,
  shape: Gear,
  symmetry: number,
): { op: Operation; says: string | null } {
  const followers = followersOf(piece)
  let first = id
  const seen = new Set([id])
  for (let by = drivenBy(piece, id); by && !seen.has(by); by = drivenBy(piece, by)) seen.add((first = by))

  let op = setPart(piece, id, { shape, symmetry })
  const then = (next: (now: Piece) => Operation): void => {
    op = compose(op, next(apply(piece, op)))
  }
  const moved = gearOf(piece, id)!.module !== shape.module
  const left: string[] = []
  const done = new Set([first])
  const after = (gear: string): Gear => gearOf(apply(piece, op), gear)!
  const sized = (gear: string): void => {
    if (moved && gear !== id)
      then(now => setPart(now, gear, { shape: { ...gearOf(piece, gear)!, module: shape.module } }))
  }
  sized(first)
  const sought = [first]
  for (let by = sought.shift(); by !== undefined; by = sought.shift()) {
    for (const gear of followers.get(by) ?? []) {
      if (done.has(gear)) continue
      done.add(gear)
      sought.push(gear)
      sized(gear)
      const [x1, y1] = place(piece, by)
      const [x2, y2] = place(piece, gear)
      const far = Math.sqrt((x2 - x1) * (x2 - x1) + (y2 - y1) * (y2 - y1))
      const ran = spacing(gearOf(piece, by)!, gearOf(piece, gear)!)
      if (Math.abs(far - ran) > NEAR * gearOf(piece, by)!.module || far === 0) continue
      const wanted = pitchRadius(after(by)) + pitchRadius(after(gear))
      const [x0, y0] = place(apply(piece, op), by)
      const to = [x0 + ((x2 - x1) / far) * wanted, y0 + ((y2 - y1) / far) * wanted].map(v => Number(v.toFixed(6)))
      if (to[0] === x2 && to[1] === y2) continue
      if (!isFree(piece, gear, by)) left.push(piece.parts[gear]!.name)
      else {
        then(p => setBase(p, gear, 'x', to[0]!))
        then(p => setBase(p, gear, 'y', to[1]!))
      }
    }
  }
  const says =
    left.length === 0
      ? null
      : `${left.join(', ')} couldn’t follow (driven, with copies, or on another part): their teeth no longer meet.`
  return { op: operation(`change ${piece.parts[id]!.name}`, ...op.puts), says }
}
