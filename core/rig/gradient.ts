/**
 * A fill that runs from the part's colour to another along a direction. It rides with its part, or stays fixed to the
 * stage and the part moves over it.
 */
import { cosineOfTurns, sineOfTurns } from '../signal/sine.ts'
import { rgbOf, type Rgb } from './colour.ts'
import type { Body } from './body.ts'
import type { Matrix } from '../piece/transform.ts'

/** At a point of the stage it is `x`·x + `y`·y + `base` on its way: 0 at its first stop, 1 at its second. */
export interface Gradient {
  readonly x: number
  readonly y: number
  readonly base: number
  readonly far: Rgb
  /** How solid the far end is, against the near one. */
  readonly alpha: number
}

/**
 * The gradient of an instance's fill, whose outline reaches so far; null when it has none or is seen from the side.
 *
 * @param m where its outline stands; of a particle its place
 */
export function gradientOf(
  body: Body,
  i: number,
  near: Rgb,
  [across, up]: readonly [number, number],
  stage: { readonly width: number; readonly height: number },
  m: Matrix = body.worlds[i]!,
): Gradient | null {
  const amount = body.get('gradient', i)
  if (!(amount > 0)) return null
  const turns = body.get('gradientTurn', i)
  const [c, s] = [cosineOfTurns(turns), sineOfTurns(turns)]
  const onStage = body.part.gradientFrame === 'stage'
  const [w, h] = onStage ? [stage.width, stage.height] : [across, up]
  const long = (Math.abs(c) * w + Math.abs(s) * h) / 2
  const start = body.get('gradientStart', i)
  const run = body.get('gradientEnd', i) - start
  if (!(long > 0)) return null
  // Half and half round the middle, then from the first stop to the second; stops that meet make an edge.
  const slope = 1 / (2 * long * (Math.abs(run) < 1e-6 ? 1e-6 : run))
  const flat = onStage ? IDENTITY : inverse(m)
  if (!flat) return null
  const [a, b, e, d, f, g] = flat
  const colour = rgbOf(body.get('gradientLightness', i), body.get('gradientChroma', i), body.get('gradientHue', i))
  const mixed = (p: number, q: number) => p + (q - p) * amount
  return {
    x: (a * c + d * s) * slope,
    y: (b * c + f * s) * slope,
    base: (e * c + g * s) * slope + (0.5 - start) / (Math.abs(run) < 1e-6 ? 1e-6 : run),
    far: { r: mixed(near.r, colour.r), g: mixed(near.g, colour.g), b: mixed(near.b, colour.b) },
    alpha: mixed(1, body.get('gradientAlpha', i)),
  }
}

/** Two points of the stage between which a gradient runs; null when it does not. */
export function gradientEnds(g: Gradient): readonly [number, number, number, number] | null {
  const square = g.x * g.x + g.y * g.y
  if (!(square > 0)) return null
  const at = (t: number) => [((t - g.base) * g.x) / square, ((t - g.base) * g.y) / square] as const
  return [...at(0), ...at(1)]
}

type Flat = readonly [number, number, number, number, number, number]
const IDENTITY: Flat = [1, 0, 0, 0, 1, 0]

/** From the stage back to the plane of a flat part. */
function inverse(m: Matrix): Flat | null {
  const det = m[0] * m[5] - m[1] * m[4]
  if (Math.abs(det) < 1e-12) return null
  const [a, b, d, f] = [m[5] / det, -m[1] / det, -m[4] / det, m[0] / det]
  return [a, b, -(a * m[3] + b * m[7]), d, f, -(d * m[3] + f * m[7])]
}

/** Twice the furthest from the middle, across and upwards. */
export function extent(points: Float64Array): readonly [number, number] {
  let [x, y] = [0, 0]
  for (let k = 0; k < points.length; k += 2) {
    x = Math.max(x, Math.abs(points[k]!))
    y = Math.max(y, Math.abs(points[k + 1]!))
  }
  return [2 * x, 2 * y]
}
