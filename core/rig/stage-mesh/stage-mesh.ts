/**
 * A scene as the graphics card keeps it: outlines laid once in painting order, so that a whole piece is one draw call,
 * and a table of instances filled a frame. What has changed its form is laid anew, it alone, into the place it has.
 */
import {
  meshSlotsOf,
  fillsNow,
  isShown,
  textLayers,
  MOST_LAYERS,
  reachesBack,
  settleSlot,
  strokesNow,
  type MeshSlot,
} from './mesh-slot.ts'
import { layOutline, emptyLaidOutline, KEY, placedOutline, stretchOf, type LaidOutline } from './laid-outline.ts'
import { addRun, type MeshRuns } from './deep.ts'
import { DepthGeometry } from './depth-geometry.ts'
import { inDepth, type Eye } from '../depth/eye.ts'
import { extent } from '../gradient.ts'
import { Pen } from './mesh-pen.ts'
import { InstanceTable } from './instance-table.ts'
import { join, type Range } from './row-ranges.ts'
import { noSizes, sized } from '../sizing.ts'
import { PIECES } from '../tail.ts'
import type { Scene } from '../scene.ts'
import type { Program } from '../../engine/program.ts'

/** Corners of a picture, at most: what comes after is not drawn. */
const MOST_CORNERS = 1_000_000
/** Room beyond what is taken, for forms that change. */
const SLACK = 1.5

export class StageMesh {
  readonly pen = new Pen()
  readonly rows = new InstanceTable()
  /** What a piece in depth needs besides; null where it is flat. */
  deep: DepthGeometry | null = null
  /** Corners, indices and rows that the card has not got yet, from and to. */
  readonly changed = { corners: [] as Range[], indices: [] as Range[], rows: [] as Range[], all: false }
  corners = 0
  count = 0
  /** What is drawn where the piece is flat, and the pictures that lie on it, by their hashes. */
  readonly runs: MeshRuns = []
  readonly pictures: string[] = []
  /** Whether there was more than is drawn. */
  full = false
  private scene: Scene | null = null
  private slots: MeshSlot[] = []
  /** What the rows of things that never change were filled for, and whether they must be filled anew. */
  private settled: { pixel: number; eye: Eye | null; only: Scene['only']; program: Program | null } = {
    pixel: 0,
    eye: null,
    only: null,
    program: null,
  }
  private anew = true
  private readonly laidOutline: LaidOutline = emptyLaidOutline()
  private readonly sizes = noSizes()

  /** Fills the mesh from a scene; `pixel` is how many stage pixels a screen pixel covers. */
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
    this.slots = meshSlotsOf(scene)
    this.pictures.length = 0
    for (const slot of this.slots) {
      const { shape } = slot.body.part
      if (shape.type !== 'picture') continue
      const known = this.pictures.indexOf(shape.asset)
      slot.picture = known < 0 ? this.pictures.push(shape.asset) - 1 : known
    }
    this.deep = inDepth(scene.eye) ? new DepthGeometry(this.slots) : null
    this.pen.deep = this.deep !== null
  }

  private castIt(slot: MeshSlot): void {
    const { body, instance, paints } = slot
    const { laidOutline } = this
    const sizes = sized(paints.sizing, body, instance, this.sizes)
    layOutline(body, sizes, paints.lineStart.at(instance), paints.lineEnd.at(instance), laidOutline, this.deep !== null)
    slot.sx = laidOutline.sx
    slot.sy = laidOutline.sy
  }

  /** Rows that an instance takes, as it is laid: one, one a particle, one a layer of letters in depth and their front. */
  private rowsNow(slot: MeshSlot, pixel: number): number {
    const { places } = this.laidOutline
    if (places) return places.heights.length
    if (slot.paints.tails) return PIECES
    return this.deep ? 1 : textLayers(slot, pixel) + 1
  }

  /** The frame's rows, and what must be laid anew; whether all fitted. */
  private fill(pixel: number): boolean {
    const { rows, laidOutline, deep } = this
    const scene = this.scene!
    deep?.open(scene)
    for (const slot of this.slots) {
      if (slot.corners < 0) return false
      if (slot.body.still && !this.anew && !deep) continue
      join(this.changed.rows, slot.row, slot.row + slot.rows)
      const before = slot.shown && !this.anew
      slot.shown = isShown(scene, slot)
      if (!slot.shown) {
        rows.clear(slot.row, slot.row + slot.rows)
        continue
      }
      const front = slot.row + slot.rows - 1
      if (slot.steady && before && !deep) {
        rows.stand(slot.body.worlds[slot.instance]!, slot.sx, slot.sy, front)
        continue
      }
      if (slot.supple && before && !deep && this.stretches(slot)) {
        rows.put(scene, slot.body, slot.instance, slot.paints, laidOutline, slot.reach, pixel, front, 0)
        continue
      }
      const kept = !settleSlot(slot) && slot.fixed
      if (kept) {
        laidOutline.sx = slot.sx
        laidOutline.sy = slot.sy
        laidOutline.places = null
      } else this.castIt(slot)
      const needs = this.rowsNow(slot, pixel)
      if (needs > slot.rows) return false
      if (!kept && this.stale(slot) && !this.layInPlace(slot)) return false
      const { tails } = slot.paints
      const layers = laidOutline.places || tails ? 0 : needs - 1
      rows.clear(slot.row, front - layers)
      rows.put(scene, slot.body, slot.instance, slot.paints, laidOutline, slot.reach, pixel, front, layers)
      if (tails) rows.taper(slot.body, slot.instance, slot.paints, slot.row, front, pixel)
      if (laidOutline.places) {
        const { paints, instance } = slot
        const fade = paints.particleFade.at(instance)
        rows.scatter(slot.body, slot.row, front, laidOutline.places, paints.particleEnd.at(instance), fade, scene.eye)
      }
      deep?.put(scene, slot, laidOutline, rows)
    }
    deep?.end()
    return true
  }

  /** Whether all that has changed of an instance's form is how it is stretched; the laid outline says how. */
  private stretches(slot: MeshSlot): boolean {
    const { body, instance, paints } = slot
    const points = stretchOf(body.part.shape.type, sized(paints.sizing, body, instance, this.sizes), this.laidOutline)
    return points === slot.key[2] && (slot.fills || !fillsNow(slot)) && (slot.strokes || !strokesNow(slot))
  }

  /** Whether what is laid for an instance is not what it should be. */
  private stale(slot: MeshSlot): boolean {
    const { key, text } = this.laidOutline
    if (slot.text !== text) return true
    if (!slot.fills && fillsNow(slot)) return true
    if (!slot.strokes && strokesNow(slot)) return true
    if (this.deep && !slot.solid && reachesBack(slot)) return true
    for (let k = 0; k < KEY; k++) if (key[k] !== slot.key[k]) return true
    return false
  }

  /** Every instance in painting order, each with the room it needs. */
  private layAll(pixel: number): void {
    const { pen, laidOutline } = this
    pen.corner = pen.index = 0
    pen.lastCorner = pen.lastIndex = Infinity
    this.full = false
    this.runs.length = 0
    let row = 0
    for (const slot of this.slots) {
      settleSlot(slot)
      this.castIt(slot)
      const needs = this.rowsNow(slot, pixel)
      if (needs > slot.rows)
        slot.rows = slot.paints.tails
          ? needs
          : laidOutline.places
            ? Math.ceil(needs * SLACK)
            : Math.min(MOST_LAYERS + 1, 2 * needs)
      slot.row = row
      row += slot.rows
      slot.corner = pen.corner
      slot.index = pen.index
      this.full ||= pen.corner > MOST_CORNERS
      if (!this.full) {
        this.lay(slot)
        if (slot.wants > 0 || Number.isNaN(this.laidOutline.key[2])) this.leaveRoom(slot)
      }
      slot.corners = pen.corner - slot.corner
      slot.indices = pen.index - slot.index
      if (slot.indices > 0) addRun(this.runs, slot.index, slot.indices, slot.picture)
    }
    this.corners = pen.corner
    this.count = pen.index
    this.rows.hold(row)
    this.deep?.hold(row)
    this.changed.all = true
    this.anew = true
  }

  /** Empty triangles after what was laid, for what it may grow to. */
  private leaveRoom(slot: MeshSlot): void {
    const { pen } = this
    const corners = Math.ceil(Math.max(pen.corner - slot.corner, slot.wants) * SLACK)
    const indices = Math.ceil(((pen.index - slot.index) * corners) / Math.max(1, pen.corner - slot.corner) / 3) * 3
    pen.leave(slot.corner + corners, slot.index + Math.max(indices, 3 * corners))
  }

  /** Lays one instance where its room is; false when it needs more. */
  private layInPlace(slot: MeshSlot): boolean {
    const { pen } = this
    if (this.full && slot.corners === 0) return true
    pen.corner = slot.corner
    pen.index = slot.index
    pen.lastCorner = slot.corner + slot.corners
    pen.lastIndex = slot.index + slot.indices
    pen.stirred = false
    this.lay(slot)
    if (pen.over) {
      slot.wants = pen.corner - slot.corner
      slot.key.fill(NaN)
      return false
    }
    // No triangle has the corners that are left over; triangles mostly stay when a form changes.
    if (pen.corner > slot.corner) join(this.changed.corners, slot.corner, pen.corner)
    pen.leave(pen.lastCorner, pen.lastIndex)
    if (pen.stirred) join(this.changed.indices, slot.index, pen.lastIndex)
    return true
  }

  private lay(slot: MeshSlot): void {
    const { pen, laidOutline } = this
    slot.key.set(laidOutline.key)
    slot.text = laidOutline.text
    slot.fills ||= fillsNow(slot)
    slot.strokes ||= strokesNow(slot)
    slot.solid ||= reachesBack(slot)
    if (this.deep?.lay(pen, slot, laidOutline)) return
    const outline = placedOutline(slot.body, laidOutline)
    if (!outline || outline.points.length === 0) return
    slot.reach = extent(outline.points)
    const front = slot.row + slot.rows - 1
    if (laidOutline.places) {
      // A row a particle, the oldest first.
      for (let row = slot.row; row <= front; row++) {
        pen.begin(row)
        if (slot.fills) pen.fill(outline)
      }
      return
    }
    if (slot.paints.tails) {
      if (slot.strokes)
        pen.tail(outline, laidOutline.from, laidOutline.to, laidOutline.dashes, slot.body.part, slot.row)
      return
    }
    if (this.deep && slot.solid) {
      this.deep.layBack(pen, slot, outline, front)
      if (!slot.layer || slot.layer.first) this.deep.layFront(pen, slot, outline, laidOutline, front)
      return
    }
    if (!outline.letters) {
      pen.begin(front)
      if (slot.fills && outline.closed) pen.fill(outline)
      if (slot.strokes) pen.stroke(outline, laidOutline.from, laidOutline.to, laidOutline.dashes, slot.body.part)
      return
    }
    const { areas } = outline.letters.setting
    // Rows from the furthest layer to the front; those that are not needed show nothing.
    for (let row = slot.row; row <= front && slot.fills; row++) {
      pen.begin(row)
      for (const area of areas) pen.area(area)
    }
    pen.begin(front)
    for (const area of slot.strokes ? areas : [])
      for (const points of [area.outline, ...area.holes])
        pen.stroke({ points, closed: true }, laidOutline.from, laidOutline.to, laidOutline.dashes, slot.body.part)
  }
}
