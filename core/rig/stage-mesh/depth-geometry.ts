/** A mesh in depth: the sides and backs of solids, water, how near each instance is, and the order of painting. */
import type { MeshSlot } from './mesh-slot.ts'
import type { Body } from '../body.ts'
import type { LaidOutline } from './laid-outline.ts'
import { Deep } from './deep.ts'
import { linesIn, type Outline } from '../outline/outline.ts'
import type { Pen } from './mesh-pen.ts'
import { depthOf } from '../outline/posing.ts'
import { TAG } from './mesh-sheet.ts'
import type { InstanceTable } from './instance-table.ts'
import type { Scene } from '../scene.ts'
import { Waters } from './waters.ts'

/** Less than this and something is see-through. */
const SOLID = 0.999

export class DepthGeometry extends Deep {
  readonly waters: Waters
  private readonly bedOf = new Map<Body, MeshSlot[]>()
  private readonly away = new Float64Array(3)

  constructor(slots: readonly MeshSlot[]) {
    super()
    for (const slot of slots) {
      let list = this.bedOf.get(slot.body)
      if (!list) this.bedOf.set(slot.body, (list = []))
      list[slot.instance] = slot
    }
    this.waters = new Waters(slots)
  }

  open(scene: Scene): void {
    this.begin(scene.eye.distance)
    this.waters.progress = scene.progress
  }

  /** Lays what only depth has, water: whether that was it. */
  lay(pen: Pen, slot: MeshSlot, laidOutline: LaidOutline): boolean {
    const { shape } = slot.body.part
    if (shape.type !== 'waves') return false
    const across = laidOutline.key[2]!
    pen.begin(slot.row + slot.rows - 1)
    if (slot.fills) pen.water(across, across)
    return true
  }

  /** The sides of a solid, and its back or the skin to the layer behind it. */
  layBack(pen: Pen, { fills, layer }: MeshSlot, outline: Outline, row: number): void {
    if (!fills || !outline.closed) return
    const last = !layer || layer.next < 0
    pen.begin(row)
    for (const points of linesIn(outline)) {
      pen.sides(points, 0, last ? TAG.back : TAG.next)
    }
    if (!last) return
    pen.begin(row, TAG.back)
    faces(pen, outline)
    pen.begin(row)
  }

  /** Its front, with its line. */
  layFront(
    pen: Pen,
    { fills, strokes, body }: MeshSlot,
    outline: Outline,
    { from, to, dashes }: LaidOutline,
    row: number,
  ): void {
    pen.begin(row)
    if (fills && outline.closed) faces(pen, outline)
    if (!strokes) return
    if (!outline.letters) pen.stroke(outline, from, to, dashes, body.part)
    for (const area of outline.letters?.setting.areas ?? [])
      for (const points of [area.outline, ...area.holes])
        pen.stroke({ points, closed: true }, from, to, dashes, body.part)
  }

  /** Where an instance stands in depth, and when it is painted; after its row was put. */
  put(scene: Scene, slot: MeshSlot, laidOutline: LaidOutline, rows: InstanceTable): void {
    const { body, instance, paints, row, reach } = slot
    const front = row + slot.rows - 1
    const m = rows.at
    const { type } = body.part.shape
    const lit = slot.solid
    const through = !(rows.solidity(front) >= SOLID && (!paints.tails || rows.solidity(row) >= SOLID))
    const [wide, high] = [(reach[0] * laidOutline.sx) / 2, (reach[1] * laidOutline.sy) / 2]
    if (laidOutline.places) {
      this.scatter(laidOutline.places, row, front, rows, scene)
      // Particles are flat and lie at depths of their own: those that are see-through hide nothing.
      const seen = through || paints.particleFade.at(instance) > 0
      this.add(!seen, seen, m, slot)
      return
    }
    this.stand(m, laidOutline.sx, laidOutline.sy, lit ? paints.taper.at(instance) : -1, front)
    let by = Math.abs(m[8]) * wide + Math.abs(m[9]) * high
    const line = depthOf(body.part.shape)
    if (type === 'waves') by += this.waters.put(slot, front, this, scene.eye)
    else if (type === 'trace' || line > 0) {
      by = type === 'trace' ? this.spreadOf(laidOutline, scene) : by + line
      this.back(front, m[2], m[6], m[10], 0)
    }
    if (lit) {
      const [x, y, z] = this.inEye(scene.backOf(body, instance, this.away), scene, paints.thickness.at(instance))
      const next = slot.layer && slot.layer.next >= 0 ? this.bedOf.get(body)![slot.layer.next]! : null
      this.back(front, x, y, z, next ? next.row + next.rows - 1 - front : 0)
      by += Math.abs(z) + Math.abs(m[10])
    }
    if (paints.tails) this.repeat(front, row)
    this.reach(m[11], by)
    this.add(lit || type === 'waves' || type === 'trace' || line > 0, through, m, slot)
  }

  /** A way on the stage, so many times as long, in eye space. */
  private inEye(v: Float64Array, { eye: { turned } }: Scene, times: number): readonly [number, number, number] {
    const [x, y, z] = [v[0]! * times, v[1]! * times, v[2]! * times]
    if (!turned) return [x, y, z]
    const row = (k: number) => turned[k]! * x + turned[k + 1]! * y + turned[k + 2]! * z
    return [row(0), row(4), row(8)]
  }

  private scatter(
    laying: NonNullable<LaidOutline['places']>,
    from: number,
    front: number,
    rows: InstanceTable,
    scene: Scene,
  ): void {
    const { turned } = scene.eye
    const { points, heights } = laying
    for (let k = 0; k < heights.length && from + k <= front; k++) {
      let z = heights[k]!
      if (turned) z = turned[8] * points[2 * k]! + turned[9] * points[2 * k + 1]! + turned[10] * z + turned[11]
      this.stand(rows.at, 1, 1, -1, from + k)
      this.data[(from + k) * 8 + 2] = z
      this.reach(z, 1)
    }
  }

  /** How far a trace reaches about the middle of the stage. */
  private spreadOf({ sizes: { laying } }: LaidOutline, { program: { piece } }: Scene): number {
    let most = Math.max(piece.stage.width, piece.stage.height)
    for (const z of laying?.heights ?? []) if (Math.abs(z) > most) most = Math.abs(z)
    return most
  }
}

function faces(pen: Pen, outline: Outline): void {
  if (outline.letters) for (const area of outline.letters.setting.areas) pen.area(area)
  else pen.fill(outline)
}
