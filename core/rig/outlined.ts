/** The outlines of instances, as they are at the moment of their scene. */
import type { Body } from './body.ts'
import { outlineOf, type Outline, type Sizes } from './outline/outline.ts'
import { noSizes, sizesOf } from './sizing.ts'

/** What was made last for a body, and from which sizes: most of its copies are as large as the one before. */
interface Made {
  readonly sizes: Sizes
  outline: Outline | null
}
const made = new WeakMap<Body, Made>()
const OF = ['width', 'height', 'corners', 'radius', 'innerRadius', 'pose', 'size', 'text'] as const

/** The outline of an instance, px of its own from its middle, to be read only; null where it has none. */
export function outlineAt(body: Body, instance: number): Outline | null {
  const { shape } = body.part
  // What is laid and water are other at every moment.
  if (body.lay || body.rise) return outlineOf(shape, sizesOf(body, instance, noSizes()))
  const last = made.get(body)
  const sizes = sizesOf(body, instance, scratch)
  if (last && OF.every(name => last.sizes[name] === sizes[name])) return last.outline
  const outline = outlineOf(shape, sizes)
  made.set(body, { sizes: { ...sizes }, outline })
  return outline
}
const scratch = noSizes()
