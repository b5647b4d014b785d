/**
 * What is laid for an instance, and how it is stretched to its sizes: a wheel is one round outline whatever its width.
 * Only when its form itself changes (rounded corners, a cut line, waves, a path) it must be laid anew.
 */
import type { Dashes } from '../outline/dashes.ts'
import { outlineOf, pointsFor, pointsOfDot, type Outline, type Sizes } from '../outline/outline.ts'
import type { Body } from '../body.ts'
import { particleKey, particleOutline } from '../particle.ts'
import type { Laying } from '../outline/points-laid.ts'
import type { ShapeType } from '../../piece/schema.ts'

export const KEY = 9
/** Fields of water across, unless said otherwise. */
export const FIELDS = 64

export interface LaidOutline {
  /** What the form depends on: laid again when any of it changes; a NaN says that it always does. */
  readonly key: Float64Array
  text: string
  /** How the laid form is stretched. */
  sx: number
  sy: number
  /** The stretch of its outline that its line takes. */
  from: number
  to: number
  /** How its line is dashed, in laid px. */
  readonly dashes: Dashes
  /** Of what is seen at many places at once, where on the stage. */
  places: Laying | null
  /** The sizes that it is laid with. */
  readonly sizes: Sizes
}

export const emptyLaidOutline = (): LaidOutline => ({
  key: new Float64Array(KEY),
  text: '',
  sx: 1,
  sy: 1,
  from: 0,
  to: 1,
  dashes: { dash: 0, gap: 0, offset: 0 },
  places: null,
  sizes: { width: 1, height: 1, corners: 0, radius: 1, innerRadius: 1 },
})

/**
 * How what is laid once as a unit, and whose line is whole, is stretched to its sizes.
 *
 * @returns with how many points it is laid, 0 where they are always the same; NaN where its form hangs on its sizes
 */
export function stretchOf(type: ShapeType, s: Sizes, out: LaidOutline): number {
  switch (type) {
    case 'rectangle':
      if (Math.min(s.corners, s.width / 2, s.height / 2) > 0) return NaN
      stretch(out, s.width, s.height)
      return 0
    case 'ellipse':
      stretch(out, s.width / 2, s.height / 2)
      return pointsFor(Math.max(s.width, s.height) / 2)
    case 'picture':
      // From −1 to 1 to either side, as its texture is looked up.
      stretch(out, s.width / 2, s.height / 2)
      return 0
    case 'polygon':
      stretch(out, s.radius, s.radius)
      return 0
    default:
      return NaN
  }
}

/** Fills the laid outline of an instance with these sizes, whose line runs from a share of its outline to another. */
export function layOutline(
  body: Body,
  s: Sizes,
  lineStart: number,
  lineEnd: number,
  out: LaidOutline,
  deep = false,
): LaidOutline {
  const { key, sizes } = out
  for (let k = 0; k < KEY; k++) key[k] = 0
  out.from = Math.max(0, Math.min(lineStart, lineEnd))
  out.to = Math.min(1, Math.max(lineStart, lineEnd))
  out.text = ''
  out.places = null
  out.sx = out.sy = 1
  key[0] = out.from
  key[1] = out.to
  const { dashes } = out
  dashes.dash = s.dash ?? 0
  dashes.gap = s.dashGap ?? 0
  dashes.offset = s.dashOffset ?? 0
  // What is cut must be laid as long as it is.
  const cut = out.from > 0 || out.to < 1 || (dashes.dash > 0 && dashes.gap > 0)
  sizes.width = sizes.height = sizes.radius = sizes.innerRadius = 1
  sizes.corners = 0
  const { type } = body.part.shape
  switch (type) {
    case 'rectangle':
      // Round bends would be stretched too.
      if (cut || body.part.join === 'round' || !(stretchOf(type, s, out) >= 0)) {
        sizes.width = key[2] = s.width
        sizes.height = key[3] = s.height
        sizes.corners = key[4] = s.corners
        key[5] = 1
      }
      break
    case 'picture':
      sizes.width = sizes.height = 2
      stretchOf(type, s, out)
      break
    case 'ellipse':
      sizes.points = key[2] = pointsFor(Math.max(s.width, s.height) / 2)
      if (cut) {
        // A share of the way round depends on how long the round is.
        sizes.width = key[3] = s.width
        sizes.height = key[4] = s.height
      } else {
        sizes.width = sizes.height = 2
        stretchOf(type, s, out)
      }
      break
    case 'polygon':
      stretchOf(type, s, out)
      break
    case 'star':
    case 'ring':
      if (type === 'ring') sizes.points = key[2] = pointsFor(s.radius)
      sizes.innerRadius = key[3] = s.radius > 0 ? s.innerRadius / s.radius : 0
      stretch(out, s.radius, s.radius)
      break
    case 'line':
      // Round ends must not be stretched along.
      if (cut || (body.part.cap ?? 'flat') !== 'flat') sizes.width = key[2] = s.width
      else stretch(out, s.width, 1)
      break
    case 'text': {
      const size = s.size ?? 0
      out.text = sizes.text = s.text ?? ''
      sizes.size = 1000
      stretch(out, size / 1000, size / 1000)
      break
    }
    case 'emitter': {
      const size = s.size ?? 0
      sizes.points = key[2] = pointsOfDot(size)
      if (body.particle) particleKey(body.particle, key, 3)
      out.places = s.laying ?? null
      stretch(out, size / 2, size / 2)
      break
    }
    case 'path':
      sizes.pose = key[2] = s.pose ?? 0
      break
    case 'waves':
      if (deep) {
        // The card works out the surface of water in depth itself.
        key[2] = body.part.shape.fields ?? FIELDS
        break
      }
    // falls through
    case 'trace':
      Object.assign(sizes, s)
      key[2] = NaN
      break
    case 'gear':
    case 'group':
  }
  if (dashes.dash > 0 && dashes.gap > 0) {
    key[6] = dashes.dash /= out.sx || 1
    key[7] = dashes.gap /= out.sx || 1
    key[8] = dashes.offset /= out.sx || 1
  }
  return out
}

function stretch(out: LaidOutline, sx: number, sy: number): void {
  out.sx = sx
  out.sy = sy
}

/** The outline that is laid. */
export const placedOutline = ({ part, particle }: Body, { places, sizes }: LaidOutline): Outline | null =>
  places ? particleOutline(particle, sizes.points) : outlineOf(part.shape, sizes)
