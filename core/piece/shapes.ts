/** What a part can be, and how copies of it stand. */
import * as v from 'valibot'
import { number, positive, text, whole } from './values.ts'

/** What a part is. Its sizes and colours are properties, held by `bases` and `drives`. */
export const Shape = v.variant('type', [
  /** No outline of its own: it carries other parts. */
  v.object({ type: v.literal('group') }),
  v.object({ type: v.literal('rectangle') }),
  v.object({ type: v.literal('ellipse') }),
  v.object({ type: v.literal('polygon'), sides: v.pipe(whole, v.minValue(3), v.maxValue(64)) }),
  v.object({ type: v.literal('star'), points: v.pipe(whole, v.minValue(3), v.maxValue(64)) }),
  v.object({ type: v.literal('ring') }),
  v.object({ type: v.literal('line') }),
  /** A toothed wheel: its pitch circle is teeth × module across; px. Without spokes it is solid. */
  v.object({
    type: v.literal('gear'),
    teeth: v.pipe(whole, v.minValue(4), v.maxValue(400)),
    spokes: v.pipe(whole, v.minValue(0), v.maxValue(64)),
    module: positive,
  }),
  /** A wave surface, seen from the side where the piece is flat: longest wave, depth and tile (0: none) in px. */
  v.object({
    type: v.literal('waves'),
    longest: v.pipe(positive, v.maxValue(1e6)),
    depth: v.pipe(positive, v.maxValue(1e6)),
    wind: number,
    waves: v.pipe(whole, v.minValue(1), v.maxValue(64)),
    tile: v.pipe(number, v.minValue(0), v.maxValue(1e6)),
    seed: v.pipe(whole, v.minValue(0), v.maxValue(4294967295)),
  }),
  /** Text: its words, the number its property `value` holds, or of its copies one letter of the words each. */
  v.object({
    type: v.literal('text'),
    words: text(200),
    shows: v.picklist(['words', 'number', 'letters']),
    decimals: v.pipe(whole, v.minValue(0), v.maxValue(12)),
    prefix: text(20),
    suffix: text(20),
    align: v.picklist(['left', 'middle', 'right']),
  }),
  /** The path of a point of another part (its pivot, moved by x, y px), laid so many times a second. */
  v.object({
    type: v.literal('trace'),
    of: v.nullable(v.string()),
    x: number,
    y: number,
    every: v.pipe(whole, v.minValue(1), v.maxValue(240)),
  }),
  /** Particles along one direction. Their speed is fixed at birth or changes in flight; they turn back only when asked. */
  v.object({
    type: v.literal('emitter'),
    seed: v.pipe(whole, v.minValue(0), v.maxValue(4294967295)),
    flight: v.picklist(['fixed', 'changing']),
    reverses: v.boolean(),
  }),
])

/** Most instances one part may have, all its copies within copies counted. */
export const MOST_INSTANCES = 10000

const count = v.pipe(whole, v.minValue(1), v.maxValue(2000))
/** Copies of a part and all it carries. */
export const Copies = v.variant('layout', [
  /** Round a circle: radius in px, first copy at `from` degrees, spread over `sweep` degrees; `turn`: each faces outward. */
  v.object({ layout: v.literal('ring'), count, radius: number, from: number, sweep: number, turn: v.boolean() }),
  /** In a straight row, centred on the part: px from copy to copy. */
  v.object({ layout: v.literal('row'), count, dx: number, dy: number }),
  /** In rows of so many columns, from the top, centred on the part: px between columns and rows. */
  v.object({ layout: v.literal('grid'), count, columns: count, dx: number, dy: number }),
  /** Along a path through points (px), evenly by its length; `turn`: each stands along it. */
  v.object({
    layout: v.literal('path'),
    count,
    points: v.pipe(v.array(v.object({ x: number, y: number })), v.minLength(2), v.maxLength(500)),
    closed: v.boolean(),
    smooth: v.boolean(),
    turn: v.boolean(),
  }),
  /** One behind another, the first in front: px of depth from layer to layer. */
  v.object({ layout: v.literal('layers'), count, dz: number }),
])
