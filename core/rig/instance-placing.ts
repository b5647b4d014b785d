/** Where the instances of a body stand, from its properties and what it hangs on. */
import { carrierOf, type Body } from './body.ts'
import type { PropertyColumn } from './property-column.ts'
import { hangsOnBefore, copyMatrices } from '../piece/copies.ts'
import {
  backwards,
  matrices,
  matrix,
  multiply,
  onlyMoves,
  onTip,
  onto,
  POSED,
  posed,
  readPose,
  restPose,
  moveMatrix,
  type Matrix,
  type Pose,
  type Posed,
} from '../piece/transform.ts'

/** Where the instances of a body hang that nothing carries about, and whether none of these is turned or scaled. */
interface Seats {
  readonly at: readonly Matrix[]
  readonly upright: boolean
}

type Put = (of: PropertyColumn) => (pose: Pose, instance: number) => void
/** Each property into its place: a name that is looked up for every instance would take most of the time. */
const PUT: Record<Exclude<Posed, `scale${string}`>, Put> = {
  x: of => (p, i) => void (p.x = of.at(i)),
  y: of => (p, i) => void (p.y = of.at(i)),
  z: of => (p, i) => void (p.z = of.at(i)),
  rotation: of => (p, i) => void (p.rotation = of.at(i)),
  rotationX: of => (p, i) => void (p.rotationX = of.at(i)),
  rotationY: of => (p, i) => void (p.rotationY = of.at(i)),
}
const isPut = (name: Posed): name is keyof typeof PUT => name in PUT

export class Placing {
  private readonly places: readonly Matrix[]
  /** What does not move of its pose is kept in it. */
  private readonly pose: Pose
  /** Whether all of its pose is read for each instance: copies have set values of their own, or its scale moves. */
  private readonly all: boolean
  /** Whether only x, y and z of it ever change. */
  private readonly shifts: boolean
  private readonly moving: readonly ((pose: Pose, instance: number) => void)[]
  private readonly chained: boolean
  /** Null where what carries it moves. */
  private seats: Seats | null = null
  private readonly local = matrix()
  private readonly seat = matrix()

  /** @param own whether copies hold numbers of their own for their pose */
  constructor(
    private readonly body: Body,
    own: boolean,
  ) {
    const { part, driven, column } = body
    const moved = POSED.filter(name => driven.has(name))
    this.places = copyMatrices(part.copies)
    this.pose = restPose(part.steps)
    this.all = own || !moved.every(isPut)
    this.moving = moved.filter(isPut).map(name => PUT[name](column(name)))
    this.chained = part.copies?.layout === 'chain'
    this.shifts = !own && !part.steps && !this.chained && moved.every(name => ['x', 'y', 'z'].includes(name))
  }

  /**
   * Puts its instances where they stand.
   *
   * @param deep whether it is seen in depth, where joined layers lie one on another
   * @param anew whether it was never placed, or all that it hangs on may stand elsewhere
   */
  place(deep: boolean, anew: boolean): void {
    const { body, pose, all, moving, local, chained } = this
    const { part, worlds, parent } = body
    if (body.lay) {
      for (const world of worlds) world.set(ONSTAGE)
      return
    }
    // Nothing carries it about: where its copies hang is worked out once.
    if (anew && !chained && (parent?.rests ?? true)) this.seats = this.seatsNow()
    const { seats } = this
    const upright = seats !== null && seats.upright
    const shifts = this.shifts && !anew
    const sinks = deep && body.layers !== null
    for (let i = 0; i < body.count; i++) {
      const world = worlds[i]!
      const to = upright ? world : local
      // What is not driven was read once.
      if (all || anew) readPose(pose, (name, k) => body.get(name, k), i, part.pivot)
      else for (let k = 0; k < moving.length; k++) moving[k]!(pose, i)
      const { z } = pose
      if (sinks) pose.z -= this.pushed(i)
      if (chained && hangsOnBefore(part.copies, i % body.own)) onTip(pose, to)
      else if (shifts) moveMatrix(pose, to)
      else posed(pose, to)
      pose.z = z
      if (upright) {
        const seat = seats.at[i]!
        world[3] += seat[3]
        world[7] += seat[7]
        world[11] += seat[11]
      } else if (seats) multiply(seats.at[i]!, local, world)
      else this.carry(i, world)
    }
  }

  /** What stands at `local` in its copy's place, on what carries it. */
  private carry(i: number, world: Matrix): void {
    const { body, local, seat } = this
    const carrier = carrierOf(body, i)
    if (!body.part.copies) onto(carrier ?? ONSTAGE, local, world)
    else {
      onto(this.places[i % body.own]!, local, carrier ? seat : world)
      if (carrier) onto(carrier, seat, world)
    }
  }

  private seatsNow(): Seats {
    const at = matrices(this.body.count)
    at.forEach((seat, i) => seat.set(this.parentFrameOf(i)))
    return { at, upright: at.every(onlyMoves) }
  }

  /** What an instance's own numbers count in: its parent's place with that of its copy. */
  parentFrameOf(i: number): Matrix {
    const place = this.places[i % this.body.own]!
    const carrier = carrierOf(this.body, i)
    return carrier ? multiply(carrier, place, matrix()) : place.slice()
  }

  /** Where what is thickened by 1 px has its back, against its front, on the stage. */
  backOf(i: number, out: Float64Array): Float64Array {
    const { body, pose } = this
    if (!body.part.steps) {
      const m = body.worlds[i]!
      for (let k = 0; k < 3; k++) out[k] = -m[4 * k + 2]!
      return out
    }
    readPose(pose, (name, k) => body.get(name, k), i, body.part.pivot)
    const [x, y, z] = backwards(pose, out)
    const m = this.parentFrameOf(i)
    for (let k = 0; k < 3; k++) out[k] = m[4 * k]! * x! + m[4 * k + 1]! * y! + m[4 * k + 2]! * z!
    return out
  }

  /** How far back an instance stands since the layers before it are thick, px. */
  private pushed(i: number): number {
    const { stride, count, sunk } = this.body.layers!
    const before = i - stride
    if (Math.floor(i / stride) % count === 0) return (sunk[i] = 0)
    return (sunk[i] = sunk[before]! + Math.max(0, this.body.get('thickness', before)))
  }
}

const ONSTAGE = matrix()
