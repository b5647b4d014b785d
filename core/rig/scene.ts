/**
 * The parts of a running piece as bodies to draw: for a snapshot of values, where every instance stands, how
 * large it is, and its colours. Made once a program; updating it allocates nothing that lasts.
 */
import { initialOf, propertiesOf, type Property } from '../piece/properties.ts'
import { placesOf } from '../piece/copies.ts'
import { matrix, multiply, posed, readPose, resting, type Matrix } from '../piece/transform.ts'
import { emitterOf } from './emitter.ts'
import { shown } from './letters.ts'
import { traceOf } from './trace.ts'
import type { Sizes } from './outline.ts'
import { propertyKey, type Part } from '../piece/schema.ts'
import { sizeOfUnit } from '../units/units.ts'
import { waveHeight, wavesOf } from '../signal/waves.ts'
import type { Moment } from '../time/moment.ts'
import { fraction, fromNumber, minus, over, toNumber } from '../time/rational.ts'
import type { Program } from '../engine/program.ts'

/** One property of all instances of a part: driven (a place in the snapshot) or set by hand. */
interface Reading {
  readonly offset: number
  readonly hand: Float64Array
}

export interface Body {
  readonly id: string
  readonly part: Part
  readonly count: number
  /** Instance k of its parent that instance i hangs on: ⌊i ÷ own⌋. */
  readonly own: number
  readonly parent: Body | null
  /** Where each instance stands on the stage. */
  readonly worlds: readonly Matrix[]
  /** How solid each instance is, with all it hangs on. */
  readonly opacity: Float64Array
  /** A property of an instance in base measure, held to what it may be. */
  readonly get: (property: string, instance: number) => number
  /** Of a trace or an emitter: its points on the stage. */
  readonly lay: ((instance: number) => Float64Array) | null
  /** Of waves: how far the water stands above its rest at a place across, px. */
  readonly rise: ((x: number, instance: number) => number) | null
}

export class Scene {
  readonly bodies = new Map<string, Body>()
  /** Every instance in the order it is painted. */
  readonly paint: readonly { readonly body: Body; readonly instance: number }[]
  private values = new Float64Array(0)
  /** How far the lap is on, 0 to 1. */
  private progress = 0
  /** The moment of the snapshot. */
  private now: Moment | null = null
  private readonly ordered: Body[] = []
  private readonly places = new Map<Body, Matrix[]>()
  private readonly pose = resting()
  private readonly local = matrix()
  private readonly seat = matrix()

  constructor(readonly program: Program) {
    const { parts } = program.piece
    const below = new Map<string | null, string[]>()
    for (const [id, part] of Object.entries(parts)) {
      const list = below.get(part.parent) ?? []
      list.push(id)
      below.set(part.parent, list)
    }
    for (const list of below.values()) list.sort((a, b) => parts[a]!.order - parts[b]!.order || (a < b ? -1 : 1))
    const add = (id: string, parent: Body | null): void => {
      const body = this.body(id, parent)
      this.bodies.set(id, body)
      this.ordered.push(body)
      for (const child of below.get(id) ?? []) add(child, body)
    }
    for (const id of below.get(null) ?? []) add(id, null)
    const paint: { body: Body; instance: number }[] = []
    const lay = (id: string, parentInstance: number): void => {
      const body = this.bodies.get(id)!
      const { copies } = body.part
      // What is further back is painted first.
      const backwards = copies?.layout === 'layers' && copies.dz > 0
      for (let k = 0; k < body.own; k++) {
        const instance = parentInstance * body.own + (backwards ? body.own - 1 - k : k)
        if (body.part.shape.type !== 'group') paint.push({ body, instance })
        for (const child of below.get(id) ?? []) lay(child, instance)
      }
    }
    for (const id of below.get(null) ?? []) lay(id, 0)
    this.paint = paint
  }

  private body(id: string, parent: Body | null): Body {
    const part = this.program.piece.parts[id]!
    const own = part.copies?.count ?? 1
    const count = (parent?.count ?? 1) * own
    const readings = new Map<string, Reading & { property: Property; low: number; high: number }>()
    for (const property of propertiesOf(part.shape.type)) {
      const hand = Float64Array.from(this.program.handForms(id, property), f => (f.exact ? toNumber(f.exact.base) : 0))
      const offset = this.program.slots.get(propertyKey(id, property.name))?.offset ?? -1
      const size = toNumber(sizeOfUnit(property.unit, this.program.measures))
      const [low, high] = property.range ?? [-Infinity, Infinity]
      readings.set(property.name, { property, offset, hand, low: low * size, high: high * size })
    }
    const get = (name: string, instance: number): number => {
      const r = readings.get(name)
      if (!r) return fallback(part, name)
      const value = r.offset < 0 ? r.hand[instance]! : this.values[r.offset + instance]!
      return value < r.low ? r.low : value > r.high ? r.high : value
    }
    const worlds = Array.from({ length: count }, matrix)
    const rise = this.riseOf(part, get)
    const lay = this.layOf(id, part, get, count)
    const body: Body = { id, part, count, own, parent, worlds, opacity: new Float64Array(count), get, rise, lay }
    this.places.set(body, placesOf(part.copies))
    return body
  }

  private layOf(id: string, part: Part, get: Body['get'], count: number): Body['lay'] {
    if (part.shape.type === 'trace') {
      const trace = traceOf(this.program, part)
      return i => trace(this.now!, get('trail', i))
    }
    if (part.shape.type !== 'emitter') return null
    const emitters = Array.from({ length: count }, (_, i) => emitterOf(this.program, id, part, i))
    return i => emitters[i]!(this.now!)
  }

  private riseOf({ shape }: Part, get: Body['get']): Body['rise'] {
    if (shape.type !== 'waves') return null
    const waves = wavesOf(shape, toNumber(this.program.measures.lapLength))
    return (x, i) => get('swell', i) * waveHeight(waves, x, 0, this.progress, get('crest', i))
  }

  /** Puts every body where it stands for a snapshot of a moment. */
  update(values: Float64Array, moment: Moment): this {
    this.values = values as Float64Array<ArrayBuffer>
    this.now = moment
    const { lapLength } = this.program.measures
    const laps = over(minus(moment.exactSeconds, fromNumber(this.program.piece.lap.start)), lapLength)
    this.progress = toNumber(fraction(laps))
    const { pose } = this
    const { seconds } = moment
    for (const body of this.ordered) {
      const { get, part } = body
      const places = this.places.get(body)!
      // Outside its span a part is not there, with all it carries.
      const there = !part.span || (seconds >= part.span.from && seconds < part.span.to)
      for (let i = 0; i < body.count; i++) {
        readPose(pose, get, i, part.pivot)
        posed(pose, this.local)
        const above = Math.floor(i / body.own)
        if (body.lay) body.worlds[i]!.set(ONSTAGE)
        else {
          multiply(places[i % body.own]!, this.local, body.parent ? this.seat : body.worlds[i]!)
          if (body.parent) multiply(body.parent.worlds[above]!, this.seat, body.worlds[i]!)
        }
        body.opacity[i] = there ? get('opacity', i) * (body.parent ? body.parent.opacity[above]! : 1) : 0
      }
    }
    return this
  }
}

/** What is laid on the stage itself. */
const ONSTAGE = matrix()

const fallback = (part: Part, name: string): number => {
  const property = propertiesOf('rectangle').find(p => p.name === name)
  return property && property.unit === 'px' ? initialOf(property, part.shape.type) : 0
}

/** The sizes that the outline of an instance is made of. */
export function sizesOf(body: Body, instance: number, out: Sizes): Sizes {
  const { get } = body
  out.width = get('width', instance)
  out.height = get('height', instance)
  out.corners = get('corners', instance)
  out.radius = get('radius', instance)
  out.innerRadius = get('innerRadius', instance)
  const { shape } = body.part
  delete out.laid
  if (body.lay) out.laid = body.lay(instance)
  if (shape.type === 'emitter') out.size = get('particle', instance)
  if (shape.type === 'text') {
    out.size = get('size', instance)
    out.text = shown(shape, get('value', instance), instance % body.own)
  }
  const { rise } = body
  if (rise) out.rise = x => rise(x, instance)
  else delete out.rise
  return out
}
