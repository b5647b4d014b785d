/** The sizes that the outline of an instance is made of, at the moment of its scene. */
import type { Sizes } from './outline/outline.ts'
import type { Body } from './body.ts'
import { propertiesOf } from '../piece/properties.ts'
import type { PropertyColumn } from './property-column.ts'
import { shown } from './text/letters.ts'

/** What is asked of a shape, each looked up once; null for what it has not. */
export interface Sizing {
  /** For which of the settings of its body. */
  readonly settings: number
  readonly sides: readonly [width: PropertyColumn, height: PropertyColumn] | null
  readonly corners: PropertyColumn | null
  readonly round: readonly [radius: PropertyColumn, innerRadius: PropertyColumn] | null
  readonly size: PropertyColumn | null
  readonly value: PropertyColumn
  readonly pose: PropertyColumn
  readonly dashes: readonly [dash: PropertyColumn, gap: PropertyColumn, offset: PropertyColumn] | null
}
const kept = new WeakMap<Body, Sizing>()

export function sizingOf(body: Body): Sizing {
  const known = kept.get(body)
  if (known?.settings === body.settings) return known
  const { column, part, count, driven } = body
  const names = new Set(propertiesOf(part.shape.type).map(p => p.name))
  const dash = column('dash')
  const isDashed = driven.has('dash') || Array.from({ length: count }, (_, i) => dash.at(i)).some(d => d > 0)
  const size = part.shape.type === 'emitter' ? 'particle' : 'size'
  const made: Sizing = {
    settings: body.settings,
    sides: names.has('width') ? [column('width'), column('height')] : null,
    corners: names.has('corners') ? column('corners') : null,
    round: names.has('radius') ? [column('radius'), column('innerRadius')] : null,
    size: names.has(size) ? column(size) : null,
    value: column('value'),
    pose: column('pose'),
    dashes: isDashed ? [dash, column('dashGap'), column('dashOffset')] : null,
  }
  kept.set(body, made)
  return made
}

export const noSizes = (): Sizes => ({ width: 0, height: 0, corners: 0, radius: 0, innerRadius: 0 })

/** Fills the sizes of an instance. */
export const sizesOf = (body: Body, instance: number, out: Sizes): Sizes => sized(sizingOf(body), body, instance, out)

/** The same, where what is asked of its shape was looked up before. */
export function sized(of: Sizing, body: Body, instance: number, out: Sizes): Sizes {
  const { sides, corners, round, size, value, pose, dashes } = of
  out.width = sides ? sides[0].at(instance) : 0
  out.height = sides ? sides[1].at(instance) : 0
  out.corners = corners ? corners.at(instance) : 0
  out.radius = round ? round[0].at(instance) : 0
  out.innerRadius = round ? round[1].at(instance) : 0
  out.dash = dashes ? dashes[0].at(instance) : 0
  if (dashes) {
    out.dashGap = dashes[1].at(instance)
    out.dashOffset = dashes[2].at(instance)
  }
  const { shape } = body.part
  out.laying = body.lay?.(instance)
  out.laid = out.laying?.points
  if (size) out.size = size.at(instance)
  if (shape.type === 'text') out.text = shown(shape, value.at(instance), instance % body.own)
  if (shape.type === 'path') out.pose = pose.at(instance)
  const { rise } = body
  out.rise = rise ? x => rise(x, instance) : undefined
  return out
}
