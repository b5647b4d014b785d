/** Where one instance of a part stands at any moment: only what it hangs on is looked at, not the whole scene. */
import type { Form } from '../form/form.ts'
import type { Program } from '../engine/program.ts'
import { propertyKey, type Piece } from '../piece/schema.ts'
import type { Moment } from '../time/moment.ts'
import { placesOf } from './copies.ts'
import { propertyNamed } from '../piece/properties.ts'
import { POSED, matrix, multiply, posed, readPose, resting, type Matrix, type Posed } from './transform.ts'

interface Link {
  readonly forms: Readonly<Record<Posed, Form>>
  readonly pivot: { readonly x: number; readonly y: number }
  readonly place: Matrix
}

/** Gives the matrix of an instance at a moment. The matrix is valid until the next call. */
export function whereabouts(program: Program, part: string, instance: number): (m: Moment) => Matrix {
  const chain: Link[] = []
  let at = instance
  for (let id: string | null = part; id !== null; id = program.piece.parts[id]!.parent) {
    const { copies, pivot }: Piece['parts'][string] = program.piece.parts[id]!
    const count = copies?.count ?? 1
    const form = (name: Posed): Form => formOf(program, id!, name, at)
    const forms = Object.fromEntries(POSED.map(name => [name, form(name)])) as Record<Posed, Form>
    chain.unshift({ forms, pivot, place: placesOf(copies)[at % count]! })
    at = Math.floor(at / count)
  }
  const [local, seat, one, two] = [matrix(), matrix(), matrix(), matrix()]
  const pose = resting()
  return m => {
    let world: Matrix | null = null
    for (const { forms, pivot, place } of chain) {
      readPose(pose, name => forms[name].at(m), 0, pivot)
      multiply(place, posed(pose, local), seat)
      const out: Matrix = world === one ? two : one
      if (world) multiply(world, seat, out)
      else out.set(seat)
      world = out
    }
    return world!
  }
}

/** What a property of an instance is at a moment: driven, or held by hand. */
export const formOf = (program: Program, part: string, property: string, instance: number): Form =>
  program.slots.get(propertyKey(part, property))?.readers[instance] ??
  program.handForms(part, propertyNamed(property)!)[instance]!
