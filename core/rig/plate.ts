/**
 * A scene as the graphics card keeps it: outlines laid once in painting order, so that a whole piece is one draw call,
 * and a table of instances filled a frame. What has changed its form is laid anew, it alone, into the place it has.
 */
import { bedsOf, fillsNow, isShown, layersOf, MOST_LAYERS, reachesBack, settle, strokesNow, type Bed } from './bed.ts'
import { castOf, emptyCast, KEY, outlineOfCast, stretchOf, type Cast } from './cast.ts'
import { addRun, type Runs } from './deep.ts'
import { Deepening } from './deepening.ts'
import { inDepth, type Eye } from './eye.ts'
import { extent } from './gradient.ts'
import { Pen } from './pen.ts'
import { Rows } from './rows.ts'
import { join, type Range } from './ranges.ts'
import { noSizes, sized } from './sizing.ts'
import { PIECES } from './tail.ts'
import type { Scene } from './scene.ts'
import type { Program } from '../engine/program.ts'

/** Corners of a picture, at most: what comes after is not drawn. */
const MOST_CORNERS = 1_000_000
/** Room beyond what is taken, for forms that change. */
const SLACK = 1.5

export class Plate {
  readonly pen = new Pen()
  readonly rows = new Rows()
  /** What a piece in depth needs besides; null where it is flat. */
  deep: Deepening | null = null
  /** Corners, indices and rows that the card has not got yet, from and to. */
  readonly changed = { corners: [] as Range[], indices: [] as Range[], rows: [] as Range[], all: false }
  corners = 0
  count = 0
  /** What is drawn where the piece is flat, and the pictures that lie on it, by their hashes. */
  readonly runs: Runs = []
  readonly pictures: string[] = []
  /** Whether there was more than is drawn. */
  full = false
  private scene: Scene | null = null
  private beds: Bed[] = []
  /** What the rows of things that never change were filled for, and whether they must be filled anew. */
  private settled: { pixel: number; eye: Eye | null; only: Scene['only']; program: Program | null } = {
    pixel: 0,
    eye: null,
    only: null,
    program: null,
  }
  private anew = true
  private readonly cast: Cast = emptyCast()
  private readonly sizes = noSizes()

  /** Fills the plate from a scene; `pixel` is how many stage pixels a screen pixel covers. */
  build(scene: Scene, pixel: number): this {
    this.changed.corners.length = this.changed.indices.length = this.changed.rows.length = 0
    this.changed.all = false
    const as: typeof this.settled = { pixel, eye: scene.eye, only: scene.only, program: scene.program }
    scene.program.queue.withinBudget(() => {
      if (this.scene !== scene) this.open(scene)
      if (inDepth(scene.eye) !== (this.deep !== null)) this.open(scene)
      if (Object.entries(as).some(([k, v]) => this.settled[k as keyof typeof as] !== v)) this.anew = true
      if (!this.fill(pixel)) {
        // Something did not fit into its place: all is laid anew, with more room for it.
        this.layAll(pixel)
        this.fill(pixel)
      }
      this.settled = as
      this.anew = false
    })
    return this
  }

  private open(scene: Scene): void {
    this.scene = scene
    this.anew = true
    this.beds = bedsOf(scene)
    this.pictures.length = 0
    for (const bed of this.beds) {
      const { shape } = bed.body.part
      if (shape.type !== 'picture') continue
      const known = this.pictures.indexOf(shape.asset)
      bed.picture = known < 0 ? this.pictures.push(shape.asset) - 1 : known
    }
    this.deep = inDepth(scene.eye) ? new Deepening(this.beds) : null
    this.pen.deep = this.deep !== null
  }

  private castIt(bed: Bed): void {
    const { body, instance, paints } = bed
    const { cast } = this
    const sizes = sized(paints.sizing, body, instance, this.sizes)
    castOf(body, sizes, paints.lineStart.at(instance), paints.lineEnd.at(instance), cast, this.deep !== null)
    bed.sx = cast.sx
    bed.sy = cast.sy
  }

  /** Rows that an instance takes, as it is cast: one, one a particle, one a layer of letters in depth and their front. */
  private rowsNow(bed: Bed, pixel: number): number {
    const { places } = this.cast
    if (places) return places.heights.length
    if (bed.paints.tails) return PIECES
    return this.deep ? 1 : layersOf(bed, pixel) + 1
  }

  /** The frame's rows, and what must be laid anew; whether all fitted. */
  private fill(pixel: number): boolean {
    const { rows, cast, deep } = this
    const scene = this.scene!
    deep?.open(scene)
    for (const bed of this.beds) {
      if (bed.corners < 0) return false
      if (bed.body.still && !this.anew && !deep) continue
      join(this.changed.rows, bed.row, bed.row + bed.rows)
      const before = bed.shown && !this.anew
      bed.shown = isShown(scene, bed)
      if (!bed.shown) {
        rows.clear(bed.row, bed.row + bed.rows)
        continue
      }
      const front = bed.row + bed.rows - 1
      if (bed.steady && before && !deep) {
        rows.stand(bed.body.worlds[bed.instance]!, bed.sx, bed.sy, front)
        continue
      }
      if (bed.supple && before && !deep && this.stretches(bed)) {
        rows.put(scene, bed.body, bed.instance, bed.paints, cast, bed.reach, pixel, front, 0)
        continue
      }
      const kept = !settle(bed) && bed.fixed
      if (kept) {
        cast.sx = bed.sx
        cast.sy = bed.sy
        cast.places = null
      } else this.castIt(bed)
      const needs = this.rowsNow(bed, pixel)
      if (needs > bed.rows) return false
      if (!kept && this.stale(bed) && !this.layInPlace(bed)) return false
      const { tails } = bed.paints
      const layers = cast.places || tails ? 0 : needs - 1
      rows.clear(bed.row, front - layers)
      rows.put(scene, bed.body, bed.instance, bed.paints, cast, bed.reach, pixel, front, layers)
      if (tails) rows.taper(bed.body, bed.instance, bed.paints, bed.row, front, pixel)
      if (cast.places) {
        const { paints, instance } = bed
        const fade = paints.particleFade.at(instance)
        rows.scatter(bed.body, bed.row, front, cast.places, paints.particleEnd.at(instance), fade, scene.eye)
      }
      deep?.put(scene, bed, cast, rows)
    }
    deep?.end()
    return true
  }

  /** Whether all that has changed of an instance's form is how it is stretched; the cast says how. */
  private stretches(bed: Bed): boolean {
    const { body, instance, paints } = bed
    const points = stretchOf(body.part.shape.type, sized(paints.sizing, body, instance, this.sizes), this.cast)
    return points === bed.key[2] && (bed.fills || !fillsNow(bed)) && (bed.strokes || !strokesNow(bed))
  }

  /** Whether what is laid for an instance is not what it should be. */
  private stale(bed: Bed): boolean {
    const { key, text } = this.cast
    if (bed.text !== text) return true
    if (!bed.fills && fillsNow(bed)) return true
    if (!bed.strokes && strokesNow(bed)) return true
    if (this.deep && !bed.solid && reachesBack(bed)) return true
    for (let k = 0; k < KEY; k++) if (key[k] !== bed.key[k]) return true
    return false
  }

  /** Every instance in painting order, each with the room it needs. */
  private layAll(pixel: number): void {
    const { pen, cast } = this
    pen.corner = pen.index = 0
    pen.lastCorner = pen.lastIndex = Infinity
    this.full = false
    this.runs.length = 0
    let row = 0
    for (const bed of this.beds) {
      settle(bed)
      this.castIt(bed)
      const needs = this.rowsNow(bed, pixel)
      if (needs > bed.rows)
        bed.rows = bed.paints.tails
          ? needs
          : cast.places
            ? Math.ceil(needs * SLACK)
            : Math.min(MOST_LAYERS + 1, 2 * needs)
      bed.row = row
      row += bed.rows
      bed.corner = pen.corner
      bed.index = pen.index
      this.full ||= pen.corner > MOST_CORNERS
      if (!this.full) {
        this.lay(bed)
        if (bed.wants > 0 || Number.isNaN(this.cast.key[2])) this.leaveRoom(bed)
      }
      bed.corners = pen.corner - bed.corner
      bed.indices = pen.index - bed.index
      if (bed.indices > 0) addRun(this.runs, bed.index, bed.indices, bed.picture)
    }
    this.corners = pen.corner
    this.count = pen.index
    this.rows.hold(row)
    this.deep?.hold(row)
    this.changed.all = true
    this.anew = true
  }

  /** Empty triangles after what was laid, for what it may grow to. */
  private leaveRoom(bed: Bed): void {
    const { pen } = this
    const corners = Math.ceil(Math.max(pen.corner - bed.corner, bed.wants) * SLACK)
    const indices = Math.ceil(((pen.index - bed.index) * corners) / Math.max(1, pen.corner - bed.corner) / 3) * 3
    pen.leave(bed.corner + corners, bed.index + Math.max(indices, 3 * corners))
  }

  /** Lays one instance where its room is; false when it needs more. */
  private layInPlace(bed: Bed): boolean {
    const { pen } = this
    if (this.full && bed.corners === 0) return true
    pen.corner = bed.corner
    pen.index = bed.index
    pen.lastCorner = bed.corner + bed.corners
    pen.lastIndex = bed.index + bed.indices
    pen.stirred = false
    this.lay(bed)
    if (pen.over) {
      bed.wants = pen.corner - bed.corner
      bed.key.fill(NaN)
      return false
    }
    // No triangle has the corners that are left over; triangles mostly stay when a form changes.
    if (pen.corner > bed.corner) join(this.changed.corners, bed.corner, pen.corner)
    pen.leave(pen.lastCorner, pen.lastIndex)
    if (pen.stirred) join(this.changed.indices, bed.index, pen.lastIndex)
    return true
  }

  private lay(bed: Bed): void {
    const { pen, cast } = this
    bed.key.set(cast.key)
    bed.text = cast.text
    bed.fills ||= fillsNow(bed)
    bed.strokes ||= strokesNow(bed)
    bed.solid ||= reachesBack(bed)
    if (this.deep?.lay(pen, bed, cast)) return
    const outline = outlineOfCast(bed.body, cast)
    if (!outline || outline.points.length === 0) return
    bed.reach = extent(outline.points)
    const front = bed.row + bed.rows - 1
    if (cast.places) {
      // A row a particle, the oldest first.
      for (let row = bed.row; row <= front; row++) {
        pen.begin(row)
        if (bed.fills) pen.fill(outline)
      }
      return
    }
    if (bed.paints.tails) {
      if (bed.strokes) pen.tail(outline, cast.from, cast.to, cast.dashes, bed.body.part, bed.row)
      return
    }
    if (this.deep && bed.solid) {
      this.deep.layBack(pen, bed, outline, front)
      if (!bed.layer || bed.layer.first) this.deep.layFront(pen, bed, outline, cast, front)
      return
    }
    if (!outline.letters) {
      pen.begin(front)
      if (bed.fills && outline.closed) pen.fill(outline)
      if (bed.strokes) pen.stroke(outline, cast.from, cast.to, cast.dashes, bed.body.part)
      return
    }
    const { areas } = outline.letters.setting
    // Rows from the furthest layer to the front; those that are not needed show nothing.
    for (let row = bed.row; row <= front && bed.fills; row++) {
      pen.begin(row)
      for (const area of areas) pen.area(area)
    }
    pen.begin(front)
    for (const area of bed.strokes ? areas : [])
      for (const points of [area.outline, ...area.holes])
        pen.stroke({ points, closed: true }, cast.from, cast.to, cast.dashes, bed.body.part)
  }
}
