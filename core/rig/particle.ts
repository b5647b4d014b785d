/** What the particles of an emitter look like: dots, or the outline of another part, as large as a particle is. */
import { extent } from './gradient.ts'
import { dotOf, type Outline } from './outline/outline.ts'
import { outlineAt } from './outlined.ts'
import { noSizes, sizesOf } from './sizing.ts'
import type { Body } from './body.ts'
import type { ShapeType } from '../piece/schema.ts'

/** Shapes whose outline particles may have. */
export const PARTICLES: readonly ShapeType[] = ['rectangle', 'ellipse', 'polygon', 'star', 'ring', 'gear', 'path']

/** The part that the particles of an emitter look like; null for dots. */
export function particleOf({ part: { shape } }: Body, bodies: ReadonlyMap<string, Body>): Body | null {
  const of = shape.type === 'emitter' && shape.of !== undefined ? bodies.get(shape.of) : undefined
  return of && PARTICLES.includes(of.part.shape.type) ? of : null
}

const sizes = noSizes()

/** The outline of a part's first copy, so large that the longer of its sides is 2 px; a dot where it has none. */
export function particleOutline(of: Body | null, points?: number): Outline {
  const outline = of && outlineAt(of, 0)
  if (!outline?.closed) return dotOf(2, points)
  const [across, up] = extent(outline.points)
  const by = 2 / (Math.max(across, up) || 1)
  const scaled = (p: Float64Array) => p.map(v => v * by)
  return {
    points: scaled(outline.points),
    closed: true,
    ...(outline.hole && { hole: scaled(outline.hole) }),
    ...(outline.more && { more: outline.more.map(scaled) }),
    ...(outline.drawn && {
      drawn: { holes: outline.drawn.holes.map(scaled), triangles: outline.drawn.triangles },
    }),
  }
}

/** What that outline depends on, from a place of a list on: laid again when any of it changes. */
export function particleKey(of: Body, key: Float64Array, at: number): void {
  const s = sizesOf(of, 0, sizes)
  const made = [s.width, s.height, s.radius, s.innerRadius, s.corners, s.pose ?? 0]
  for (let k = 0; k < made.length && at + k < key.length; k++) key[at + k] = made[k]!
}
