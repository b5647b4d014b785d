/** The sizes that the outline of an instance is made of, at the moment of its scene. */
import type { Sizes } from './outline.ts'
import type { Body } from './body.ts'
import { shown } from './letters.ts'

interface Sizing {
  readonly of: readonly (readonly ['width' | 'height' | 'corners' | 'radius' | 'innerRadius', (i: number) => number])[]
  readonly size: (i: number) => number
  readonly value: (i: number) => number
  readonly pose: (i: number) => number
  readonly dash: (i: number) => number
  readonly dashGap: (i: number) => number
  readonly dashOffset: (i: number) => number
}
const PLAIN = ['width', 'height', 'corners', 'radius', 'innerRadius'] as const
const kept = new WeakMap<Body, Sizing>()

function sizingOf(body: Body): Sizing {
  const known = kept.get(body)
  if (known) return known
  const { reader } = body
  const made = {
    of: PLAIN.map(name => [name, reader(name)] as const),
    size: reader(body.part.shape.type === 'emitter' ? 'particle' : 'size'),
    value: reader('value'),
    pose: reader('pose'),
    dash: reader('dash'),
    dashGap: reader('dashGap'),
    dashOffset: reader('dashOffset'),
  }
  kept.set(body, made)
  return made
}

export const noSizes = (): Sizes => ({ width: 0, height: 0, corners: 0, radius: 0, innerRadius: 0 })

/** Fills the sizes of an instance. */
export function sizesOf(body: Body, instance: number, out: Sizes): Sizes {
  const { of, size, value, pose, dash, dashGap, dashOffset } = sizingOf(body)
  for (let k = 0; k < of.length; k++) out[of[k]![0]] = of[k]![1](instance)
  out.dash = dash(instance)
  out.dashGap = dashGap(instance)
  out.dashOffset = dashOffset(instance)
  const { shape } = body.part
  out.laying = body.lay?.(instance)
  out.laid = out.laying?.points
  if (shape.type === 'emitter' || shape.type === 'text') out.size = size(instance)
  if (shape.type === 'text') out.text = shown(shape, value(instance), instance % body.own)
  if (shape.type === 'path') out.pose = pose(instance)
  const { rise } = body
  out.rise = rise ? x => rise(x, instance) : undefined
  return out
}
