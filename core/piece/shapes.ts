/** What a part can be, and how copies of it stand. */
import * as v from 'valibot'
import { fields, id, finiteNumber, positive, seed, text, whole } from './values.ts'

/** A point of a drawn outline, px from the middle of its part: the line bends there, or runs smoothly through it. */
const corner = fields({
  x: finiteNumber,
  y: finiteNumber,
  /** Of an open line in depth: how far towards the eye. */
  z: v.optional(finiteNumber),
  smooth: v.boolean(),
})
const ring = v.pipe(v.array(corner), v.minLength(2), v.maxLength(500))
const poses = v.pipe(
  v.array(v.pipe(v.array(ring), v.minLength(1), v.maxLength(40))),
  v.minLength(1),
  v.maxLength(24),
  v.check(
    ([first, ...others]) =>
      others.every(p => p.length === first!.length && p.every((r, k) => r.length === first![k]!.length)),
    'All poses of a path need the same number of outlines, and of points in each.',
  ),
  v.check(
    all => all.length * all[0]!.reduce((n, r) => n + r.length, 0) <= MOST_POINTS,
    'A path can have up to 4,000 points in all its poses together.',
  ),
)
/** Points of a path with all its poses, most. */
const MOST_POINTS = 4000

/** What a part is. Its sizes and colours are properties, held by `bases` and `drives`. */
export const Shape = v.variant('type', [
  /** No outline of its own: it carries other parts. */
  fields({ type: v.literal('group') }),
  fields({ type: v.literal('rectangle') }),
  fields({ type: v.literal('ellipse') }),
  fields({ type: v.literal('polygon'), sides: v.pipe(whole, v.minValue(3), v.maxValue(64)) }),
  fields({ type: v.literal('star'), points: v.pipe(whole, v.minValue(3), v.maxValue(64)) }),
  fields({ type: v.literal('ring') }),
  fields({ type: v.literal('line') }),
  /** A toothed wheel: its pitch circle is teeth × module across; px. Without spokes it is solid. */
  fields({
    type: v.literal('gear'),
    teeth: v.pipe(whole, v.minValue(4), v.maxValue(400)),
    spokes: v.pipe(whole, v.minValue(0), v.maxValue(64)),
    module: positive,
  }),
  /** A wave surface, seen from the side where the piece is flat: longest wave, depth and tile (0: none) in px. */
  fields({
    type: v.literal('waves'),
    longest: v.pipe(positive, v.maxValue(1e6)),
    depth: v.pipe(positive, v.maxValue(1e6)),
    wind: finiteNumber,
    waves: v.pipe(whole, v.minValue(1), v.maxValue(64)),
    tile: v.pipe(finiteNumber, v.minValue(0), v.maxValue(1e6)),
    seed,
    /** Noise over space instead of what wind does to water: it runs all ways and changes so many times a second. */
    noise: v.optional(fields({ pace: v.pipe(finiteNumber, v.minValue(0), v.maxValue(60)) })),
    /** Seen in depth: fields of its surface along x, and as large ones back. */
    fields: v.optional(v.pipe(whole, v.minValue(4), v.maxValue(256))),
  }),
  /** Text: its words, the number its property `value` holds, or of its copies one letter of the words each. */
  fields({
    type: v.literal('text'),
    words: text(200),
    shows: v.picklist(['words', 'number', 'letters']),
    decimals: v.pipe(whole, v.minValue(0), v.maxValue(12)),
    prefix: text(20),
    suffix: text(20),
    align: v.picklist(['left', 'middle', 'right']),
    /** Lines as they were typed, or a word a line; per cent of the size from line to line (120 unless said otherwise). */
    lines: v.optional(v.picklist(['typed', 'words'])),
    leading: v.optional(v.pipe(finiteNumber, v.minValue(10), v.maxValue(1000))),
  }),
  /** The path of a point of another part (its pivot, moved by x, y px), laid so many times a second. */
  fields({
    type: v.literal('trace'),
    of: v.nullable(id),
    x: finiteNumber,
    y: finiteNumber,
    every: v.pipe(whole, v.minValue(1), v.maxValue(240)),
    /** Points only where it bends by so many degrees or has gone so many px; at all of those times unless said. */
    bend: v.optional(fields({ angle: v.pipe(positive, v.maxValue(180)), distance: positive })),
  }),
  /** An outline drawn with the pen, then holes in it; the same points in several poses, between which `pose` goes. */
  fields({ type: v.literal('path'), closed: v.boolean(), poses }),
  /** A picture, as wide and high as its properties say: an asset by its hash. */
  fields({ type: v.literal('picture'), asset: id }),
  /** Particles along one direction. Their speed is fixed at birth or changes in flight; they turn back only when asked. */
  fields({
    type: v.literal('emitter'),
    seed,
    flight: v.picklist(['fixed', 'changing']),
    reverses: v.boolean(),
    /** Where particles set off, as large as `birthSize`; on a point unless said otherwise. */
    birth: v.optional(v.picklist(['point', 'line', 'ring', 'area'])),
    /** The part whose outline its particles have; dots unless said otherwise. */
    of: v.optional(id),
  }),
])

/** Most instances one part may have, all its copies within copies counted. */
export const MOST_INSTANCES = 100_000
/** Most instances of all parts together. */
export const MOST_IN_PIECE = 120_000

const count = v.pipe(whole, v.minValue(1), v.maxValue(MOST_INSTANCES))
/** Copies of a part and all it carries. */
export const Copies = v.variant('layout', [
  /** Round a circle: radius in px, first copy at `from` degrees, spread over `sweep` degrees; `turn`: each faces outward. */
  fields({
    layout: v.literal('ring'),
    count,
    radius: finiteNumber,
    from: finiteNumber,
    sweep: finiteNumber,
    turn: v.boolean(),
  }),
  /** In a straight row, centred on the part: px from copy to copy. */
  fields({ layout: v.literal('row'), count, dx: finiteNumber, dy: finiteNumber }),
  /** In rows of so many columns, from the top, centred on the part: px between columns and rows. */
  fields({ layout: v.literal('grid'), count, columns: count, dx: finiteNumber, dy: finiteNumber }),
  /** Along a path through points (px), evenly by its length; `turn`: each stands along it. */
  fields({
    layout: v.literal('path'),
    count,
    points: v.pipe(v.array(fields({ x: finiteNumber, y: finiteNumber })), v.minLength(2), v.maxLength(500)),
    closed: v.boolean(),
    smooth: v.boolean(),
    turn: v.boolean(),
  }),
  /** One behind another, the first in front: px of depth from layer to layer. */
  fields({
    layout: v.literal('layers'),
    count,
    dz: finiteNumber,
    /** Seen in depth: sheets that stand apart, and no skin between them. */
    apart: v.optional(v.boolean()),
  }),
  /**
   * Each on the tip of the one before, which it follows in every turn and size: the tip, px from the middle of a copy. The
   * place of the part is that of the first.
   */
  fields({ layout: v.literal('chain'), count, dx: finiteNumber, dy: finiteNumber }),
  /** Each at a place of its own, in thousandths of a size (px): the letters of words as they are set. */
  v.pipe(
    fields({
      layout: v.literal('placed'),
      count,
      points: v.pipe(v.array(fields({ x: finiteNumber, y: finiteNumber })), v.minLength(1), v.maxLength(500)),
      size: positive,
    }),
    v.check(c => c.points.length === c.count, 'There must be a place for every copy.'),
  ),
])

export type Shape = v.InferOutput<typeof Shape>
export type Copies = v.InferOutput<typeof Copies>
