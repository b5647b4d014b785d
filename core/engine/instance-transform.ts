/** Where one instance of a part stands at any moment: only what it hangs on is looked at, not the whole scene. */
import type { CompiledExpression } from '../form/compiled-expression.ts'
import type { Facts } from '../facts/facts.ts'
import { turned, type Repeats } from '../facts/repeats.ts'
import type { Piece } from '../piece/schema.ts'
import type { Moment } from '../time/moment.ts'
import { hangsOnBefore, copyMatrix } from '../piece/copies.ts'
import {
  POSED,
  applyX,
  applyY,
  matrix,
  onto,
  onTip,
  posed,
  readPose,
  restPose,
  type Matrix,
  type Pose,
  type Posed,
} from '../piece/transform.ts'

interface Link {
  readonly forms: Readonly<Record<Posed, CompiledExpression>>
  readonly pose: Pose
  readonly pivot: { readonly x: number; readonly y: number }
  readonly place: Matrix
  /** Whether it hangs on the copy before it. */
  readonly hung: boolean
}

/** What a property of an instance is read by. */
export type FormOf = (part: string, property: string, instance: number) => CompiledExpression

export interface InstanceTransform {
  /** The matrix of the instance at a moment, valid until the next call. */
  readonly at: (m: Moment) => Matrix
  /** All that it is made of. */
  readonly of: readonly CompiledExpression[]
  /** How each of those comes back, where whole turns mean nothing. */
  readonly repeats: () => Repeats[]
}

/** What turns it: it stands the same after every whole turn. */
const TURNS: ReadonlySet<Posed> = new Set(['rotation', 'rotationX', 'rotationY'])

export function instanceTransform(piece: Piece, formOf: FormOf, part: string, instance: number): InstanceTransform {
  const chain: Link[] = []
  let at = instance
  for (let id: string | null = part; id !== null; id = piece.parts[id]!.parent) {
    const { copies, pivot, steps }: Piece['parts'][string] = piece.parts[id]!
    const count = copies?.count ?? 1
    // In a chain it hangs on all copies before it.
    for (let copy = at; ; copy--) {
      const form = (name: Posed): CompiledExpression => formOf(id, name, copy)
      const forms = Object.fromEntries(POSED.map(name => [name, form(name)])) as Record<Posed, CompiledExpression>
      const hung = hangsOnBefore(copies, copy % count)
      chain.unshift({ forms, pose: restPose(steps), pivot, place: copyMatrix(copies, copy % count), hung })
      if (!hung) break
    }
    at = Math.floor(at / count)
  }
  const [local, seat, one, two] = [matrix(), matrix(), matrix(), matrix()]
  const read = (m: Moment): Matrix => {
    let world: Matrix | null = null
    for (const { forms, pose, pivot, place, hung } of chain) {
      readPose(pose, name => forms[name].at(m), 0, pivot)
      onto(place, hung ? onTip(pose, local) : posed(pose, local), seat)
      const out: Matrix = world === one ? two : one
      if (world) onto(world, seat, out)
      else out.set(seat)
      world = out
    }
    return world!
  }
  const back = (name: Posed, { repeats }: Facts) => (TURNS.has(name) ? turned(repeats) : repeats)
  return {
    at: read,
    of: chain.flatMap(link => Object.values(link.forms)),
    repeats: () => chain.flatMap(({ forms }) => POSED.map(name => back(name, forms[name].facts()))),
  }
}

/** A point of an instance on the stage, `dx dy` from its pivot along its own axes. */
export function spotOf(piece: Piece, formOf: FormOf, part: string, instance: number) {
  const there = instanceTransform(piece, formOf, part, instance)
  return {
    x: (m: Moment, dx: number, dy: number) => applyX(there.at(m), dx, dy),
    y: (m: Moment, dx: number, dy: number) => applyY(there.at(m), dx, dy),
    pivot: piece.parts[part]!.pivot,
    of: there.of,
    repeats: there.repeats,
  }
}
