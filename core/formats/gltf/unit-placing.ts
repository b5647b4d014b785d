/** Where a fill, line or picture stands at the moment of its scene, with what it is stretched by since its form was laid. */
import type { Matrix } from '../../piece/transform.ts'
import { layOutline, emptyLaidOutline, type LaidOutline } from '../../rig/stage-mesh/laid-outline.ts'
import { isSolid } from '../../rig/depth/layers.ts'
import type { Scene } from '../../rig/scene.ts'
import { noSizes, sizesOf } from '../../rig/sizing.ts'
import type { DrawnUnit } from '../moving/drawn-units.ts'

/** What is painted later lies so much nearer, px: things of one plane must not fight for who is seen. */
const APART = 0.02

const sizes = noSizes()
const laidOutline = emptyLaidOutline()
/** As it is laid now; of what is cut a half of its line. */
export const laid = ({ body, i, cut }: DrawnUnit): LaidOutline =>
  layOutline(body, sizesOf(body, i, sizes), cut ? 0.25 : 0, cut ? 0.75 : 1, laidOutline)

/** What it is stretched by; 1 where that is nothing. */
export function unitStretch(unit: DrawnUnit): readonly [number, number] {
  const { sx, sy } = laid(unit)
  return [Math.abs(sx) > 1e-6 ? sx : 1, Math.abs(sy) > 1e-6 ? sy : 1]
}

/** @param stretch what it was stretched by when it was laid; @param order when it is painted */
export function unitMatrix(
  scene: Scene,
  unit: DrawnUnit,
  stretch: readonly [number, number],
  order: number,
  out: Matrix,
): Matrix {
  const { body, i } = unit
  out.set(body.worlds[i]!)
  const { sx, sy } = unit.what === 'picture' ? { sx: stretch[0], sy: stretch[1] } : laid(unit)
  const thick = isThick(unit) ? body.get('thickness', i) : 0
  const back = scene.backOf(body, i, new Float64Array(3))
  for (let r = 0; r < 3; r++) {
    out[4 * r] = out[4 * r]! * (sx / stretch[0])
    out[4 * r + 1] = out[4 * r + 1]! * (sy / stretch[1])
    if (thick > 0) out[4 * r + 2] = -back[r]! * thick
  }
  out[11] = out[11] + order * APART
  return out
}

/** Whether it has a back, at some time. */
export const isThick = ({ body, what, i }: DrawnUnit): boolean =>
  what !== 'line' && isSolid(body.part) && (body.driven.has('thickness') || body.get('thickness', i) > 0)
