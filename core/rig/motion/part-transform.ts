/** Where one instance of a part of a program stands, and what its properties are. */
import { propertyKey } from '../../piece/drive-key.ts'
import type { CompiledExpression } from '../../form/compiled-expression.ts'
import type { Program } from '../../engine/program.ts'
import { instanceTransform, type InstanceTransform } from '../../engine/instance-transform.ts'
import { propertyNamed } from '../../piece/properties.ts'

/** What a property of an instance is at a moment: driven, or held by hand. */
export const propertyExpression = (
  program: Program,
  part: string,
  property: string,
  instance: number,
): CompiledExpression =>
  program.slots.get(propertyKey(part, property))?.readers[instance] ??
  program.handForms(part, propertyNamed(property)!)[instance]!

/** Where an instance stands at any moment: only what it hangs on is looked at. */
export const partTransform = (program: Program, part: string, instance: number): InstanceTransform =>
  instanceTransform(program.piece, (id, property, i) => propertyExpression(program, id, property, i), part, instance)
