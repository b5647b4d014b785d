/**
 * The parts of a running piece as bodies to draw: for a snapshot of values, where every instance stands, how
 * large it is, and its colours. Made once a program; updating it allocates nothing that lasts.
 */
import { drivenPart, propertyKey, splitDriveKey } from '../piece/drive-key.ts'
import { propertiesOf, type Property } from '../piece/properties.ts'
import { matrices, POSED, type Matrix } from '../piece/transform.ts'
import { fallback, isPosed, RESIZED, type Body } from './body.ts'
import { PropertyColumn, type ValueSnapshot } from './property-column.ts'
import { eyeOf, inDepth, type Eye } from './depth/eye.ts'
import { bodyLayers } from './depth/layers.ts'
import { particleOf } from './particle.ts'
import { Placing } from './instance-placing.ts'
import { isTailed } from './tail.ts'
import { laidBy, lays, type Laid } from './laying.ts'
import { sizeOfUnit } from '../units/units.ts'
import { waveHeight, wavesOf } from '../signal/waves.ts'
import type { Moment } from '../time/moment.ts'
import { fraction, fromNumber, minus, over, toNumber } from '../time/rational.ts'
import type { Program } from '../engine/program.ts'

export class Scene {
  readonly bodies = new Map<string, Body>()
  /** Every instance in the order it is painted. */
  readonly paint: readonly { readonly body: Body; readonly instance: number }[]
  /** Parts that are shown, by their ids; null for all. */
  only: ReadonlySet<string> | null = null
  private readonly snapshot: ValueSnapshot = { values: new Float64Array(0) }
  /** How far the lap is on, 0 to 1. */
  progress = 0
  /** From where it is seen. */
  eye: Eye
  /** The moment of the snapshot. */
  private now: Moment | null = null
  private readonly ordered: Body[] = []
  private readonly placings = new Map<Body, Placing>()
  /** Whether bodies that rest were put where they stand. */
  private placed = false
  /** What traces and emitters lay, and the parts whose formulas it is made from. */
  private readonly laid = new Map<string, Laid>()
  /** How large each unit is in base measure. */
  private readonly sizes = new Map<string, number>()

  constructor(private running: Program) {
    this.eye = eyeOf(running.piece)
    const { parts } = running.piece
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
    for (const body of this.ordered) body.particle = particleOf(body, this.bodies)
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

  get program(): Program {
    return this.running
  }

  /**
   * Goes on with another program where parts stand, whatever else was set by hand, and every value has its old place:
   * whether it could.
   * What is laid from formulas over time (traces, particles) is made anew where one of those has changed.
   */
  adopt(program: Program): boolean {
    if (program === this.running) return true
    const [a, b] = [this.running, program]
    const moved = setByHand(a, b)
    const same =
      moved !== null &&
      (['parts', 'frameRate', 'lap'] as const).every(c => a.piece[c] === b.piece[c]) &&
      a.hasPlacesOf(b)
    if (!same) return false
    this.running = program
    if (a.piece.camera !== program.piece.camera) {
      this.eye = eyeOf(program.piece)
      // In depth, layers lie one on another.
      this.placed = false
    }
    for (const [part, name] of moved) {
      const body = this.bodies.get(part)!
      const property = propertiesOf(body.part.shape.type).find(p => p.name === name)
      if (!property) continue
      const { all, own } = b.handNumbers(part, property)
      body.column(name).set(all, own)
      if (!isPosed(name)) body.settings++
      this.placed = false
    }
    for (const [id, { of }] of this.laid) {
      if (moved.some(([part]) => of.has(part))) this.laid.set(id, laidBy(program, this.bodies.get(id)!))
      const stands = [...b.slots].every(([key, slot]) => a.slots.get(key) === slot || !of.has(drivenPart(key)))
      if (!stands) this.laid.set(id, laidBy(program, this.bodies.get(id)!))
    }
    return true
  }

  private body(id: string, parent: Body | null): Body {
    const part = this.program.piece.parts[id]!
    const own = part.copies?.count ?? 1
    const count = (parent?.count ?? 1) * own
    const known = propertiesOf(part.shape.type)
    const columns = new Map<string, PropertyColumn>()
    const make = (name: string): PropertyColumn => {
      const property = known.find(p => p.name === name)
      return property ? this.columnOf(id, property) : new PropertyColumn(this.snapshot, -1, fallback(part, name))
    }
    // Few of all its properties are ever asked for.
    const column = (name: string): PropertyColumn => {
      let made = columns.get(name)
      if (!made) columns.set(name, (made = make(name)))
      return made
    }
    const get = (name: string, instance: number): number => column(name).at(instance)
    const worlds = matrices(count)
    const waves = part.shape.type === 'waves' ? wavesOf(part.shape, toNumber(this.program.measures.lapLength)) : null
    const rise: Body['rise'] = waves
      ? (x, i) => get('swell', i) * waveHeight(waves, x, 0, this.progress, get('crest', i))
      : null
    const lay = lays(part) ? (i: number) => this.laid.get(id)!.at(i, this.now!) : null
    const opacity = new Float64Array(count)
    const driven = new Set(known.map(p => p.name).filter(name => this.offsetOf(id, name) >= 0))
    const thickens = driven.has('thickness')
    const rests = !thickens && !POSED.some(name => driven.has(name)) && (parent?.rests ?? true)
    const rigid = !RESIZED.some(name => driven.has(name)) && (parent?.rigid ?? true)
    const fades = driven.has('opacity') || part.span !== null || (parent?.fades ?? false)
    const still = driven.size === 0 && !part.span && !lay && !rise && (parent?.still ?? true)
    const always = { driven, rests, rigid, fades, still }
    const layers = bodyLayers({ part, own, parent, count })
    const body: Body = {
      id,
      part,
      count,
      own,
      parent,
      ...always,
      layers,
      particle: null,
      worlds,
      opacity,
      get,
      column,
      waves,
      rise,
      lay,
      settings: 0,
    }
    const all = known.some(p => isPosed(p.name) && this.program.handNumbers(id, p).own !== null)
    this.placings.set(body, new Placing(body, all))
    if (lay) this.laid.set(id, laidBy(this.program, body))
    return body
  }

  /** Where a driven property stands in the snapshot; −1 when it is set by hand. */
  private readonly offsetOf = (id: string, name: string): number =>
    this.program.slots.get(propertyKey(id, name))?.offset ?? -1

  /** A property, driven or set by hand, in base measure and held to what it may be. */
  private columnOf(id: string, property: Property): PropertyColumn {
    const { sizes } = this
    const { all, own } = this.program.handNumbers(id, property)
    const size = sizes.get(property.unit) ?? toNumber(sizeOfUnit(property.unit, this.program.measures))
    sizes.set(property.unit, size)
    const [low, high] = (property.range ?? [-Infinity, Infinity]).map(x => x * size) as [number, number]
    return new PropertyColumn(this.snapshot, this.offsetOf(id, property.name), all, own, low, high)
  }

  /** Puts every body where it stands for a snapshot of a moment. */
  update(values: Float64Array, moment: Moment): this {
    this.snapshot.values = values
    this.now = moment
    const { lapLength } = this.program.measures
    const laps = over(minus(moment.exactSeconds, fromNumber(this.program.piece.lap.start)), lapLength)
    this.progress = toNumber(fraction(laps))
    const { seconds } = moment
    const deep = inDepth(this.eye)
    for (const body of this.ordered) {
      if (!body.rests || !this.placed) this.placings.get(body)!.place(deep, !this.placed)
      if (!body.fades && this.placed) continue
      const { part, parent } = body
      const solid = body.column('opacity')
      // A helper is not seen, nor is a part outside its span, with all it carries.
      const there = !part.hidden && (!part.span || (seconds >= part.span.from && seconds < part.span.to))
      for (let i = 0; i < body.count; i++)
        body.opacity[i] = there ? solid.at(i) * (parent ? parent.opacity[Math.floor(i / body.own)]! : 1) : 0
    }
    this.placed = true
    return this
  }

  /** Where what is thickened by 1 px has its back, against its front, on the stage. */
  backOf(body: Body, i: number, out: Float64Array): Float64Array {
    return this.placings.get(body)!.backOf(i, out)
  }

  /** What an instance's own numbers count in: its parent's place with that of its copy. */
  parentFrameOf(body: Body, instance: number): Matrix {
    return this.placings.get(body)!.parentFrameOf(instance)
  }
}

/** What was set by hand, as parts and their properties; null where that asks for another scene. */
function setByHand(a: Program, b: Program): (readonly [part: string, property: string])[] | null {
  const [was, is] = [a.piece.bases, b.piece.bases]
  const moved: (readonly [string, string])[] = []
  if (was === is) return moved
  for (const key of new Set([...Object.keys(was), ...Object.keys(is)])) {
    if (was[key] === is[key]) continue
    const [part, name] = splitDriveKey(key)
    const owned = [was[key], is[key]].map(base => base?.copies !== undefined)
    // Whether copies stand in places of their own, and whether a line changes along itself, is asked once.
    const anew = (isPosed(name) && owned[0] !== owned[1]) || isTailed(name)
    if (anew || !b.piece.parts[part]) return null
    moved.push([part, name])
  }
  return moved
}
