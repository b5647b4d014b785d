/** A flat affine map as move, turn, stretch and slant: what a drawing lets grow steadily, each by itself. */
import { atanTurns } from '../../signal/maths.ts'
import { cosineOfTurns, sineOfTurns } from '../../signal/sine.ts'

/** x, y, turns, stretch along x and y, slant: the map is move · turn · stretch · (1 slant / 0 1). */
export type FlatPose = readonly [x: number, y: number, turns: number, sx: number, sy: number, slant: number]

/** Columns of the map: x' = a·x + c·y + e, y' = b·x + d·y + f. */
export type FlatMatrix = readonly [a: number, b: number, c: number, d: number, e: number, f: number]

const near = (turns: number, to: number) => turns + Math.round(to - turns)

/** The pose of a map; of all that are the same, the one whose turn is nearest to the one before. */
export function poseOf([a, b, c, d, e, f]: FlatMatrix, before = 0): FlatPose {
  const long = Math.sqrt(a * a + b * b)
  const det = a * d - b * c
  if (!(long > 1e-9)) {
    // Its x axis is gone for a moment: the turn is told by the other one.
    const sy = Math.sqrt(c * c + d * d)
    const turns = sy > 1e-9 ? near(atanTurns(d, c) - 0.25, before) : before
    return [e, f, turns, 0, sy, 0]
  }
  const straight = near(atanTurns(b, a), before)
  const flipped = near(atanTurns(-b, -a), before)
  const back = Math.abs(flipped - before) < Math.abs(straight - before) - 1e-9
  const sx = back ? -long : long
  return [e, f, back ? flipped : straight, sx, det / sx, (a * c + b * d) / (long * long)]
}

/** The map of a pose. */
export function affineOf([x, y, turns, sx, sy, slant]: FlatPose): FlatMatrix {
  const [k, s] = [cosineOfTurns(turns), sineOfTurns(turns)]
  return [k * sx, s * sx, k * sx * slant - s * sy, s * sx * slant + k * sy, x, y]
}
