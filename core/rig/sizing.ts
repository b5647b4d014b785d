/** The sizes that the outline of an instance is made of, at the moment of its scene. */
import type { Sizes } from './outline.ts'
import type { Body } from './body.ts'
import { propertiesOf } from '../piece/properties.ts'
import { shown } from './letters.ts'

type Read = (i: number) => number

/** What is asked of a shape, each looked up once; null for what it has not. */
export interface Sizing {
  readonly sides: readonly [width: Read, height: Read] | null
  readonly corners: Read | null
  readonly round: readonly [radius: Read, innerRadius: Read] | null
  readonly size: Read | null
  readonly value: Read
  readonly pose: Read
  readonly dashes: readonly [dash: Read, gap: Read, offset: Read] | null
}
const kept = new WeakMap<Body, Sizing>()

export function sizingOf(body: Body): Sizing {
  const known = kept.get(body)
  if (known) return known
  const { reader, part, count, driven } = body
  const names = new Set(propertiesOf(part.shape.type).map(p => p.name))
  const dash = reader('dash')
  const isDashed = driven.has('dash') || Array.from({ length: count }, (_, i) => dash(i)).some(d => d > 0)
  const size = part.shape.type === 'emitter' ? 'particle' : 'size'
  const made: Sizing = {
    sides: names.has('width') ? [reader('width'), reader('height')] : null,
    corners: names.has('corners') ? reader('corners') : null,
    round: names.has('radius') ? [reader('radius'), reader('innerRadius')] : null,
    size: names.has(size) ? reader(size) : null,
    value: reader('value'),
    pose: reader('pose'),
    dashes: isDashed ? [dash, reader('dashGap'), reader('dashOffset')] : null,
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
  out.width = sides ? sides[0](instance) : 0
  out.height = sides ? sides[1](instance) : 0
  out.corners = corners ? corners(instance) : 0
  out.radius = round ? round[0](instance) : 0
  out.innerRadius = round ? round[1](instance) : 0
  out.dash = dashes ? dashes[0](instance) : 0
  if (dashes) {
    out.dashGap = dashes[1](instance)
    out.dashOffset = dashes[2](instance)
  }
  const { shape } = body.part
  out.laying = body.lay?.(instance)
  out.laid = out.laying?.points
  if (size) out.size = size(instance)
  if (shape.type === 'text') out.text = shown(shape, value(instance), instance % body.own)
  if (shape.type === 'path') out.pose = pose(instance)
  const { rise } = body
  out.rise = rise ? x => rise(x, instance) : undefined
  return out
}
