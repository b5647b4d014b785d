/** Which parts leave the stage at some frame of the lap. */
import type { Program } from '../engine/program.ts'
import { inDepth } from '../rig/depth/eye.ts'
import { Scene } from '../rig/scene.ts'
import type { Rational } from '../time/rational.ts'
import { framesOfLap, outlineInLap, Reaches } from './lap-frames.ts'

export interface OffStage {
  readonly part: string
  /** The copy that does so first. */
  readonly copy: number
  /** Whether nothing of it is on the stage then, or only some of it reaches beyond. */
  readonly wholly: boolean
  /** The first moment, in seconds, at which it does. */
  readonly at: Rational
}

/**
 * Parts of which a copy is wholly off the stage at some frame of the first lap, then those that reach beyond its edge
 * at some frames and not at others. What lies across the edge all the time is meant to.
 */
export function partsOffStage(program: Program): OffStage[] {
  const scene = new Scene(program)
  const { width, height } = program.piece.stage
  const wholly = new Map<string, OffStage>()
  const partly = new Map<string, OffStage>()
  const within = new Set<string>()
  const [w, h] = [width / 2, height / 2]
  const reaches = inDepth(scene.eye) ? null : new Reaches()
  for (const { at } of framesOfLap(program, scene)) {
    for (const { body, instance: copy } of scene.paint) {
      const part = body.id
      if (wholly.has(part) || !(body.opacity[copy]! > 0)) continue
      const m = body.worlds[copy]!
      const reach = reaches?.of(body, copy) ?? 0
      // Most copies are well within, which is seen without their outlines.
      if (reach > 0 && Math.abs(m[3]) + reach <= w && Math.abs(m[7]) + reach <= h) {
        within.add(part)
        continue
      }
      const { outlines } = outlineInLap(body, copy, scene.eye)
      if (outlines.every(points => points.length === 0)) continue
      let [low, high, left, right] = [Infinity, -Infinity, Infinity, -Infinity]
      for (const points of outlines)
        for (let k = 0; k < points.length; k += 2) {
          left = Math.min(left, points[k]!)
          right = Math.max(right, points[k]!)
          low = Math.min(low, points[k + 1]!)
          high = Math.max(high, points[k + 1]!)
        }
      if (left > w || right < -w || low > h || high < -h) wholly.set(part, { part, copy, wholly: true, at })
      else if (left < -w || right > w || low < -h || high > h) {
        if (!partly.has(part)) partly.set(part, { part, copy, wholly: false, at })
      } else within.add(part)
    }
  }
  return [...wholly.values(), ...[...partly.values()].filter(l => within.has(l.part) && !wholly.has(l.part))]
}
