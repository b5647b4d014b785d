/** What stands on the stage: a part with its shape, its pin, its copies, its span. */
import * as v from 'valibot'
import { Copies, Shape } from './shapes.ts'
import { STEPS } from './steps.ts'
import { fields, id, name, finiteNumber, whole } from './values.ts'

export const Part = fields({
  name,
  parent: v.nullable(id),
  /** Place among its siblings; higher lies above. */
  order: finiteNumber,
  shape: Shape,
  /** The point it turns and scales about, px from the middle of its shape. */
  pivot: fields({ x: finiteNumber, y: finiteNumber }),
  /** How many times it falls on itself in a turn, with all that rides on it. */
  symmetry: v.pipe(whole, v.minValue(1), v.maxValue(1000)),
  /** Whether that was typed; else it is derived from its outline, pivot, fill and children. */
  symmetryTyped: v.optional(v.boolean()),
  copies: v.nullable(Copies),
  /** What a gradient of its fill is fixed to: the part (unless said otherwise), or the stage. */
  gradientFrame: v.optional(v.picklist(['part', 'stage'])),
  /** How the ends of its line and of its dashes are: cut off where they end unless said otherwise. */
  cap: v.optional(v.picklist(['flat', 'round', 'square'])),
  /** How its bends are: on to a point unless said otherwise. */
  join: v.optional(v.picklist(['round', 'bevel'])),
  /** In which order it is made: thickened, scaled, turned, moved, unless said otherwise. */
  steps: v.optional(
    v.pipe(
      v.array(v.picklist(STEPS)),
      v.check(s => s.length === 4 && STEPS.every(step => s.includes(step)), 'Each of the four steps must appear once.'),
    ),
  ),
  /** First and last moment in seconds; null for always. */
  span: v.nullable(fields({ from: finiteNumber, to: finiteNumber })),
  /** A helper: it runs and is read, and is not seen; nor is what it carries. */
  hidden: v.optional(v.boolean()),
  /** The hand on the stage passes by it, as by a ground that others stand on. */
  locked: v.optional(v.boolean()),
})
export type Part = v.InferOutput<typeof Part>
