/**
 * What of a piece becomes one element of a drawing: the fill, the line or the picture of an instance. Its form is laid once
 * and moved, turned and stretched; or, where the form itself changes, its points go where they go.
 */
import { flat, ringsReach, ringsOfFill, ringsOfLine, type Rings } from './ring-paths.ts'
import { poseOf, type FlatMatrix } from './posed.ts'
import { layOutline, emptyLaidOutline, placedOutline, type LaidOutline } from '../../rig/stage-mesh/laid-outline.ts'
import { paintOf } from '../../rig/colour.ts'
import { cutOutline, outlineOf, type Outline } from '../../rig/outline/outline.ts'
import { noSizes, sizesOf } from '../../rig/sizing.ts'
import { scaleOf } from '../../piece/transform.ts'
import type { Body } from '../../rig/body.ts'

/** `stepped`: its points are not even always as many, so that nothing lies between two moments. */
export type Mode = 'posed' | 'formed' | 'stepped'

export interface DrawnUnit {
  readonly id: string
  readonly body: Body
  readonly i: number
  readonly what: 'fill' | 'more' | 'line' | 'picture'
  mode: Mode
  /** As it is laid, of what is posed; else as it stood first. */
  rings: Rings
  /** How it was stretched when it was laid, which is laid with it. */
  stretch: readonly [number, number]
  /** How far what is laid reaches, in laid measure. */
  reach: number
  /** Of what is dashed, in laid measure. */
  dashes: readonly [dash: number, gap: number] | null
  /** Whether its line is cut at times. */
  readonly cut: boolean
}

/** What is read of a unit at a moment: its pose or its points; its solidity, red, green, blue; its line. */
export interface UnitRow {
  readonly where: readonly number[]
  readonly paint: readonly number[]
  readonly line: readonly number[]
  /** The form that its points are of, where it changes. */
  readonly rings?: Rings
}

const sizes = noSizes()
const laidOutline = emptyLaidOutline()

/** Of what is cut at any time the form is laid as long as it is, always. */
function laid(unit: Pick<DrawnUnit, 'body' | 'i' | 'cut' | 'stretch'>): LaidOutline {
  const of = sizesOf(unit.body, unit.i, sizes)
  const c = layOutline(unit.body, of, unit.cut ? 0.25 : 0, unit.cut ? 0.75 : 1, laidOutline)
  if (unit.body.part.shape.type === 'picture') {
    c.sx = of.width
    c.sy = of.height
  }
  const [x, y] = unit.stretch
  c.sx /= x
  c.sy /= y
  return c
}

const ringsOf = (what: DrawnUnit['what'], o: Outline): Rings =>
  what === 'line'
    ? ringsOfLine(o)
    : what === 'more'
      ? (o.more ?? []).map(points => ({ points, closed: true }))
      : ringsOfFill({ ...o, more: [] })

/** The map of an instance in a drawing, y downwards, of what is laid so much smaller. */
function affine({ body, i }: DrawnUnit, sx: number, sy: number): FlatMatrix {
  const m = body.worlds[i]!
  return [m[0] * sx, -m[4] * sx, -m[1] * sy, m[5] * sy, m[3], -m[7]]
}

/** A round that grows keeps its points. */
const ROUND = 48
const isRound = ({ body }: DrawnUnit): boolean => ['ellipse', 'ring'].includes(body.part.shape.type)

/** The form of a unit now, by which it is told whether it ever changes. */
export function unitForm(unit: DrawnUnit): string {
  if (unit.what === 'picture') return ''
  const { key, text, places } = laid(unit)
  // How many points a round is laid with is no other form.
  const from = isRound(unit) ? 3 : 2
  return places ? 'NaN' : `${key.slice(from, 6).join()} ${text}`
}

/** Whether its line is as wide all the way round, wherever it stands now: nothing stretches it to one side. */
export function even(unit: DrawnUnit): boolean {
  const { sx, sy } = laid(unit)
  const [, , , x, y, slant] = poseOf(affine(unit, sx, sy))
  const most = Math.max(Math.abs(x), Math.abs(y))
  return Math.abs(Math.abs(x) - Math.abs(y)) <= 1e-6 * most && Math.abs(slant) <= 1e-6
}

/** Takes how it is stretched now as how it is laid. */
export function settleUnit(unit: DrawnUnit): void {
  const { sx, sy } = laid(unit)
  unit.stretch = [Math.abs(sx) > 1e-6 ? sx : 1, Math.abs(sy) > 1e-6 ? sy : 1]
}

/** Lays what is posed, once. */
export function lay(unit: DrawnUnit): void {
  if (unit.what === 'picture') {
    unit.reach = Math.SQRT1_2
    return
  }
  const made = laid(unit)
  if (isRound(unit)) made.sizes.points = Math.max(made.sizes.points ?? 0, ROUND)
  const [x, y] = unit.stretch
  const { dash, gap } = made.dashes
  if (unit.what === 'line' && dash > 0 && gap > 0) unit.dashes = [dash * x, gap * x]
  const outline = placedOutline(unit.body, made)
  unit.rings = (outline ? ringsOf(unit.what, outline) : []).map(({ points, closed }) => ({
    points: Array.from(points, (v, k) => v * (k % 2 === 0 ? x : y)),
    closed,
  }))
  unit.reach = ringsReach(unit.rings)
}

/** Points of what changes its form, on the stage, y upwards; its rings say how many. */
function points(unit: DrawnUnit): number[] {
  const { body, i, what } = unit
  const of = sizesOf(body, i, sizes)
  let outline = outlineOf(body.part.shape, of)
  if (outline && unit.cut && what === 'line')
    outline = cutOutline(outline, body.get('lineStart', i), body.get('lineEnd', i))
  unit.rings = outline ? ringsOf(what, outline) : []
  const scale = outline?.letters ? outline.letters.size / 1000 : 1
  const m = body.worlds[i]!
  const out = flat(unit.rings)
  for (let k = 0; k < out.length; k += 2) {
    const [x, y] = [out[k]! * scale, out[k + 1]! * scale]
    out[k] = m[0] * x + m[1] * y + m[3]
    out[k + 1] = m[4] * x + m[5] * y + m[7]
  }
  return out
}

/**
 * @param before the row before it, whose turn goes on
 * @param held its form stays the one before
 */
export function rowOf(unit: DrawnUnit, before: UnitRow | null, held = false): UnitRow {
  const { body, i, what, mode } = unit
  const solid = Math.min(1, Math.max(0, body.opacity[i]!))
  const of = what === 'line' ? 'stroke' : 'fill'
  const { r, g, b } = paintOf(body, of, i)
  const paint = what === 'picture' ? [solid, 0, 0, 0] : [solid * body.get(`${of}Alpha`, i), r, g, b]
  const wide = what === 'line' ? body.get('strokeWidth', i) * scaleOf(body.worlds[i]!) : 0
  if (mode !== 'posed') {
    // Between frames what is stepped stays as it was.
    const where = held ? before!.where : points(unit)
    return { where, paint, line: [wide, 0, 0, 1], rings: held ? before!.rings! : unit.rings }
  }
  const { sx, sy, dashes } = laid(unit)
  const pose = poseOf(affine(unit, sx, sy), before?.where[2])
  const by = Math.abs(pose[3]) > 1e-9 ? Math.abs(pose[3]) : 1
  const cutAt = unit.cut ? [body.get('lineStart', i), body.get('lineEnd', i)] : [0, 1]
  const line = [wide / by, dashes.offset * unit.stretch[0], Math.min(...cutAt), Math.max(...cutAt)]
  return { where: pose, paint, line: what === 'line' ? line : [0, 0, 0, 1] }
}
