/** Where one instance of a part of a program stands, and what its properties are. */
import type { Form } from '../form/form.ts'
import type { Program } from '../engine/program.ts'
import { whereabouts } from '../engine/whereabouts.ts'
import { propertyNamed } from '../piece/properties.ts'
import { propertyKey } from '../piece/schema.ts'
import type { Matrix } from '../piece/transform.ts'
import type { Moment } from '../time/moment.ts'

/** What a property of an instance is at a moment: driven, or held by hand. */
export const formOf = (program: Program, part: string, property: string, instance: number): Form =>
  program.slots.get(propertyKey(part, property))?.readers[instance] ??
  program.handForms(part, propertyNamed(property)!)[instance]!

/** Gives the matrix of an instance at a moment: only what it hangs on is looked at. It is valid until the next call. */
export const standing = (program: Program, part: string, instance: number): ((m: Moment) => Matrix) =>
  whereabouts(program.piece, (id, property, i) => formOf(program, id, property, i), part, instance).at
