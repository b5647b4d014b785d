/** A part of a running piece as it is drawn: where its instances stand, how solid they are, what its properties say. */
import type { PropertyColumn } from './property-column.ts'
import type { Layers } from './depth/layers.ts'
import type { Wave } from '../signal/waves.ts'
import type { Laying } from './outline/points-laid.ts'
import { hangsOnBefore } from '../piece/copies.ts'
import { initialOf, propertiesOf } from '../piece/properties.ts'
import type { Part } from '../piece/schema.ts'
import { POSED, type Matrix } from '../piece/transform.ts'

export interface Body {
  readonly id: string
  readonly part: Part
  readonly count: number
  /** Instance k of its parent that instance i hangs on: ⌊i ÷ own⌋. */
  readonly own: number
  readonly parent: Body | null
  /** The names of its driven properties. */
  readonly driven: ReadonlySet<string>
  /** Whether it stands where it stands for ever: neither its pose nor that of what carries it is driven. */
  readonly rests: boolean
  /** Whether it may be turned and moved, but is never made larger or smaller, nor is what carries it. */
  readonly rigid: boolean
  /** Whether it ever grows more or less solid, or what carries it. */
  readonly fades: boolean
  /** Whether nothing of it ever changes, nor of what carries it. */
  readonly still: boolean
  /** Where its instances stand in layers joined by a skin. */
  readonly layers: Layers | null
  /** Where each instance stands on the stage. */
  readonly worlds: readonly Matrix[]
  /** How solid each instance is, with all it hangs on. */
  readonly opacity: Float64Array
  /** A property of an instance in base measure, held to what it may be. */
  readonly get: (property: string, instance: number) => number
  /** The same of one property, looked up once. */
  readonly column: (property: string) => PropertyColumn
  /** Of an emitter: the part whose outline its particles have; null for dots. */
  particle: Body | null
  /** Of a trace or an emitter: its points on the stage. */
  readonly lay: ((instance: number) => Laying) | null
  /** Of waves: what they are added up from. */
  readonly waves: readonly Wave[] | null
  /** How often anything but its pose was set by hand: what was worked out from it is worked out again. */
  settings: number
  /** Of waves: how far the water stands above its rest at a place across, px. */
  readonly rise: ((x: number, instance: number) => number) | null
}

/** What an instance hangs on: the copy before it in a chain, else its parent; null on the stage. */
export const carrierOf = ({ part, parent, own, worlds }: Body, i: number): Matrix | null =>
  hangsOnBefore(part.copies, i % own) ? worlds[i - 1]! : parent ? parent.worlds[Math.floor(i / own)]! : null

/** What makes a part larger or smaller as it is seen. */
export const RESIZED = ['rotationX', 'rotationY', 'scale', 'scaleX', 'scaleY'] as const

export const isPosed = (name: string): boolean => (POSED as readonly string[]).includes(name)

export const fallback = (part: Part, name: string): number => {
  const property = propertiesOf('rectangle').find(p => p.name === name)
  return property && property.unit === 'px' ? initialOf(property, part.shape.type) : 0
}
