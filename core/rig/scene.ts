/**
 * The parts of a running piece as bodies to draw: for a snapshot of values, where every instance stands, how
 * large it is, and its colours. Made once a program; updating it allocates nothing that lasts.
 */
import { propertiesOf, type Property } from '../piece/properties.ts'
import { hangsOnBefore, placesOf } from '../piece/copies.ts'
import {
  backwards,
  matrix,
  multiply,
  onto,
  POSED,
  posed,
  readPose,
  resting,
  onTip,
  shifted,
  type Matrix,
  type Pose,
  type Posed,
} from '../piece/transform.ts'
import { carrierOf, fallback, isPosed, RESIZED, type Body } from './body.ts'
import { eyeOf, inDepth, type Eye } from './eye.ts'
import { layersOf } from './layers.ts'
import { particleOf } from './particle.ts'
import { laidBy, lays, type Laid } from './laying.ts'
import { propertyKey } from '../piece/schema.ts'
import { sizeOfUnit } from '../units/units.ts'
import { waveHeight, wavesOf } from '../signal/waves.ts'
import type { Moment } from '../time/moment.ts'
import { fraction, fromNumber, minus, over, toNumber } from '../time/rational.ts'
import type { Program } from '../engine/program.ts'

/** How a body's pose is read: what moves of it, and the pose that what does not move is kept in. */
interface Posing {
  readonly pose: Pose
  /** Whether copies have hand values of their own, so that all of it is read for each. */
  readonly all: boolean
  readonly scaled: boolean
  /** Where it stands in its parent, or in its copy's place. */
  readonly local: Matrix
  /** Whether only x, y and z of it ever change. */
  readonly shifts: boolean
  readonly moving: readonly (readonly [Exclude<Posed, 'scale'>, (instance: number) => number])[]
}

export class Scene {
  readonly bodies = new Map<string, Body>()
  /** Every instance in the order it is painted. */
  readonly paint: readonly { readonly body: Body; readonly instance: number }[]
  /** Parts that are shown, by their ids; null for all. */
  only: ReadonlySet<string> | null = null
  private values = new Float64Array(0)
  /** How far the lap is on, 0 to 1. */
  progress = 0
  /** From where it is seen. */
  eye: Eye
  /** The moment of the snapshot. */
  private now: Moment | null = null
  private readonly ordered: Body[] = []
  private readonly places = new Map<Body, Matrix[]>()
  private readonly poses = new Map<Body, Posing>()
  /** Whether bodies that rest were put where they stand. */
  private placed = false
  /** What traces and emitters lay, and the parts whose formulas it is made from. */
  private readonly laid = new Map<string, Laid>()
  private readonly seat = matrix()
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
   * Goes on with another program where parts and hand values stand and every value has its old place: whether it could.
   * What is laid from formulas over time (traces, particles) is made anew where one of those has changed.
   */
  adopt(program: Program): boolean {
    if (program === this.running) return true
    const [a, b] = [this.running, program]
    const same =
      (['parts', 'bases', 'frameRate', 'lap'] as const).every(c => a.piece[c] === b.piece[c]) &&
      a.slots.size === b.slots.size &&
      [...b.slots].every(([key, slot]) => a.slots.get(key)?.offset === slot.offset)
    if (!same) return false
    this.running = program
    if (a.piece.camera !== program.piece.camera) this.eye = eyeOf(program.piece)
    for (const [id, { of }] of this.laid) {
      const stands = [...b.slots].every(([key, slot]) => a.slots.get(key) === slot || !of.has(key.split('.')[0]!))
      if (!stands) this.laid.set(id, laidBy(program, this.bodies.get(id)!))
    }
    return true
  }

  private body(id: string, parent: Body | null): Body {
    const part = this.program.piece.parts[id]!
    const own = part.copies?.count ?? 1
    const count = (parent?.count ?? 1) * own
    const known = propertiesOf(part.shape.type)
    const readers = new Map<string, (instance: number) => number>()
    const make = (name: string): ((instance: number) => number) => {
      const property = known.find(p => p.name === name)
      if (property) return this.reading(id, property)
      const rest = fallback(part, name)
      return () => rest
    }
    // Few of all its properties are ever asked for.
    const reader = (name: string) => {
      let read = readers.get(name)
      if (!read) readers.set(name, (read = make(name)))
      return read
    }
    const get = (name: string, instance: number): number => reader(name)(instance)
    const worlds = Array.from({ length: count }, matrix)
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
    const layers = layersOf({ part, own, parent, count })
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
      reader,
      waves,
      rise,
      lay,
    }
    this.places.set(body, placesOf(part.copies))
    const moved = POSED.filter(name => driven.has(name))
    const all = known.some(p => isPosed(p.name) && this.program.handNumbers(id, p).own !== null)
    this.poses.set(body, {
      pose: resting(part.steps),
      all,
      local: matrix(),
      shifts: !all && !part.steps && moved.every(name => name === 'x' || name === 'y' || name === 'z'),
      scaled: moved.some(name => name.startsWith('scale')),
      moving: moved.map(name => [name as Exclude<Posed, 'scale'>, reader(name)]),
    })
    if (lay) this.laid.set(id, laidBy(this.program, body))
    return body
  }

  /** Where a driven property stands in the snapshot; −1 when it is set by hand. */
  private readonly offsetOf = (id: string, name: string): number =>
    this.program.slots.get(propertyKey(id, name))?.offset ?? -1

  /** A property, driven or set by hand, in base measure and held to what it may be. */
  private reading(id: string, property: Property): (instance: number) => number {
    const { sizes } = this
    const { all, own } = this.program.handNumbers(id, property)
    const offset = this.offsetOf(id, property.name)
    const size = sizes.get(property.unit) ?? toNumber(sizeOfUnit(property.unit, this.program.measures))
    sizes.set(property.unit, size)
    const [low, high] = (property.range ?? [-Infinity, Infinity]).map(x => x * size) as [number, number]
    return instance => {
      const value = offset < 0 ? (own ? own[instance]! : all) : this.values[offset + instance]!
      return value < low ? low : value > high ? high : value
    }
  }

  /** Puts every body where it stands for a snapshot of a moment. */
  update(values: Float64Array, moment: Moment): this {
    this.values = values as Float64Array<ArrayBuffer>
    this.now = moment
    const { lapLength } = this.program.measures
    const laps = over(minus(moment.exactSeconds, fromNumber(this.program.piece.lap.start)), lapLength)
    this.progress = toNumber(fraction(laps))
    const { seconds } = moment
    for (const body of this.ordered) {
      if (!body.rests || !this.placed) this.place(body)
      if (!body.fades && this.placed) continue
      const { part, parent } = body
      const solid = body.reader('opacity')
      // A helper is not seen, nor is a part outside its span, with all it carries.
      const there = !part.hidden && (!part.span || (seconds >= part.span.from && seconds < part.span.to))
      for (let i = 0; i < body.count; i++)
        body.opacity[i] = there ? solid(i) * (parent ? parent.opacity[Math.floor(i / body.own)]! : 1) : 0
    }
    this.placed = true
    return this
  }

  /** Where what is thickened by 1 px has its back, against its front, on the stage. */
  backOf(body: Body, i: number, out: Float64Array): Float64Array {
    if (!body.part.steps) {
      const m = body.worlds[i]!
      for (let k = 0; k < 3; k++) out[k] = -m[4 * k + 2]!
      return out
    }
    const { pose } = this.poses.get(body)!
    readPose(pose, (name, k) => body.get(name, k), i, body.part.pivot)
    const [x, y, z] = backwards(pose, out)
    const m = this.seatOf(body, i)
    for (let k = 0; k < 3; k++) out[k] = m[4 * k]! * x! + m[4 * k + 1]! * y! + m[4 * k + 2]! * z!
    return out
  }

  /** What an instance's own numbers count in: its parent's place with that of its copy. */
  seatOf(body: Body, instance: number): Matrix {
    const place = this.places.get(body)![instance % body.own]!
    const carrier = carrierOf(body, instance)
    return carrier ? multiply(carrier, place, matrix()) : place.slice()
  }

  /** How far back an instance stands since the layers before it are thick, px; joined layers in depth lie one on another. */
  private pushed(body: Body, i: number): number {
    const { layers } = body
    if (!layers || !inDepth(this.eye)) return 0
    const { stride, count, sunk } = layers
    const before = i - stride
    if (Math.floor(i / stride) % count === 0) return (sunk[i] = 0)
    return (sunk[i] = sunk[before]! + Math.max(0, body.get('thickness', before)))
  }

  private place(body: Body): void {
    const { part } = body
    const places = this.places.get(body)!
    const { pose, all, moving, scaled, shifts, local } = this.poses.get(body)!
    for (let i = 0; i < body.count; i++) {
      const world = body.worlds[i]!
      if (body.lay) {
        world.set(ONSTAGE)
        continue
      }
      // What is not driven was read once.
      if (all || scaled || !this.placed) readPose(pose, (name, k) => body.get(name, k), i, part.pivot)
      else for (let k = 0; k < moving.length; k++) pose[moving[k]![0]] = moving[k]![1](i)
      const sunk = this.pushed(body, i)
      const { z } = pose
      pose.z -= sunk
      if (hangsOnBefore(part.copies, i % body.own)) onTip(pose, local)
      else if (shifts && this.placed && part.copies?.layout !== 'chain') shifted(pose, local)
      else posed(pose, local)
      pose.z = z
      const carrier = carrierOf(body, i)
      if (!part.copies) {
        if (carrier) onto(carrier, local, world)
        else for (let k = 0; k < 12; k++) world[k] = local[k]!
        continue
      }
      onto(places[i % body.own]!, local, carrier ? this.seat : world)
      if (carrier) onto(carrier, this.seat, world)
    }
  }
}

const ONSTAGE = matrix()
