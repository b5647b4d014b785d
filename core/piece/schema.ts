/**
 * The document: everything a piece is, as plain data, top to bottom. Numbers that a person set stand in the
 * unit they are shown in (degrees, px, per cent), so that they are kept exactly as typed.
 */
import * as v from 'valibot'
import { WAYS } from '../signal/drawn.ts'
import { clocksDeep, hangings, type Hung } from './hangings.ts'
import { Part } from './part.ts'
import { MOST_INSTANCES, MOST_IN_PIECE, type Copies, type Shape } from './shapes.ts'
import {
  Colour,
  Fraction,
  fields,
  formula,
  id,
  limited,
  name,
  finiteNumber,
  ownWord,
  positive,
  seed,
  text,
  whole,
} from './values.ts'

export { MOST_INSTANCES, MOST_IN_PIECE, Part }
export type { Copies, Shape }

/** The version this code writes; older ones are raised by `migrate.ts`. */
export const VERSION = 1

const Promised = fields({
  of: v.picklist(['value', 'speed']),
  side: v.picklist(['above', 'below']),
  than: finiteNumber,
})

/** A function of time on one property; its key is `part.property` with the part's id. */
export const Drive = fields({
  part: id,
  property: text(40),
  text: formula,
  /** The last text without an error; it runs while `text` has one. */
  good: formula,
  /** Its own seed: each drive's noise differs, and keeps through rename, undo and takes. */
  seed,
  off: v.boolean(),
  /** Other formulas kept for comparison. */
  takes: v.pipe(v.array(fields({ name, text: formula })), v.maxLength(20)),
  /** Promises that are checked: `stays above 15px`, or, of its speed, `15px/s`; in the property's display unit. */
  promises: v.pipe(v.array(Promised), v.maxLength(4)),
})

/** A point of a curve or a keyframe, in seconds, and how it goes on from there. */
const point = fields({ time: finiteNumber, value: finiteNumber, shape: v.picklist(WAYS) })

/** What a property holds by hand: one number, or keys over time; its key is `part.property`. */
export const Base = fields({
  value: finiteNumber,
  keys: v.optional(
    fields({
      points: v.pipe(v.array(point), v.minLength(1), v.maxLength(2000)),
      after: v.picklist(['hold', 'repeat', 'mirror', 'carry']),
    }),
  ),
  /** Values of single copies that differ, by index. */
  copies: v.optional(limited(finiteNumber, 2000, 'copies')),
})

export const Dial = fields({
  name,
  order: finiteNumber,
  /** A moment is a time that also stands on the tideline; a choice is the number of one of its `options`, from 0. */
  type: v.picklist(['number', 'whole', 'switch', 'moment', 'choice']),
  /** `%`, `deg`, `px`, `s`, `Hz` or ''. */
  unit: v.picklist(['', '%', 'deg', 'px', 's', 'Hz']),
  value: finiteNumber,
  low: finiteNumber,
  high: finiteNumber,
  /** What it goes back to when reset. */
  initial: finiteNumber,
  hidden: v.boolean(),
  /** It stays as it is until it is unlocked. */
  locked: v.optional(v.boolean()),
  options: v.optional(v.pipe(v.array(name), v.maxLength(40))),
})

/** A named formula that others read. */
export const Signal = fields({
  name,
  order: finiteNumber,
  text: formula,
  good: formula,
  seed,
  /** Its value stands among the dials, to be read there. */
  readOut: v.optional(v.boolean()),
})

/** A time base: what runs on it reads its time. */
export const Clock = fields({
  name,
  order: finiteNumber,
  /** The clock it runs on itself; null for the piece's own time. */
  on: v.nullable(id),
  way: v.variant('type', [
    /** So many times as fast (backwards when below 0), some seconds ahead. */
    fields({
      type: v.literal('steady'),
      rate: finiteNumber,
      ahead: finiteNumber,
      /** A dial that the rate is multiplied by. */
      dial: v.optional(id),
    }),
    /** Forth and back, so many seconds each way. */
    fields({ type: v.literal('toAndFro'), length: positive }),
    /** Begins again every so many seconds. */
    fields({ type: v.literal('restart'), every: positive }),
    /** Begins again at each mark of a cue. */
    fields({ type: v.literal('cue'), cue: id }),
    /** Its seconds are drawn: a channel of a curve over time. */
    fields({ type: v.literal('curve'), curve: id, channel: text(60) }),
  ]),
  /** Held at so many steps a second of its own. */
  hold: v.nullable(positive),
})

/** Marks on time, in seconds; with `every` they come again for ever. */
export const Cue = fields({
  name,
  order: finiteNumber,
  marks: v.pipe(v.array(finiteNumber), v.maxLength(10000)),
  every: v.nullable(positive),
})

/** A drawn curve with named channels on one time axis (seconds). */
export const Curve = fields({
  name,
  order: finiteNumber,
  /** What its values are in: `%`, `deg`, `px`, `s`, `Hz` or ''. */
  unit: v.picklist(['', '%', 'deg', 'px', 's', 'Hz']),
  /** The moment of it that lands on a cue. */
  hit: finiteNumber,
  channels: v.pipe(
    limited(v.pipe(v.array(point), v.minLength(1), v.maxLength(2000)), 16, 'channels'),
    v.check(c => Object.keys(c).length > 0, 'A curve needs a channel.'),
  ),
  /** The channel that is meant where none is named; else the first by name. */
  first: v.optional(text(60)),
})

/** Two properties that move each other: b = a × ratio + offset. */
export const Tie = fields({ a: text(80), b: text(80), ratio: finiteNumber, offset: finiteNumber })

/** Guides on either axis, at most. */
export const MOST_GUIDES = 100
/** Places of guides either way, px. */
const guides = v.pipe(
  v.array(finiteNumber),
  v.maxLength(MOST_GUIDES, `There can be up to ${MOST_GUIDES} guides in each direction.`),
)

const Document = fields({
  version: v.literal(VERSION),
  title: v.pipe(
    text(120),
    v.check(s => s.trim().length > 0, 'A piece needs a title.'),
  ),
  seed,
  /** Frames per second. */
  frameRate: Fraction,
  /** Seconds; `start` is the moment at which lap 0 begins. */
  lap: fields({ length: Fraction, start: finiteNumber }),
  /** A marked stretch of time, seconds. */
  stretch: v.nullable(fields({ from: finiteNumber, to: finiteNumber })),
  stage: fields({
    width: v.pipe(whole, v.minValue(16), v.maxValue(8192)),
    height: v.pipe(whole, v.minValue(16), v.maxValue(8192)),
    background: Colour,
    /** Whether the middle, the safe margins and one's own guides are drawn over it. */
    guides: v.boolean(),
    /** Places of upright guides (x) and level ones (y), px. */
    ownGuides: v.optional(fields({ x: guides, y: guides })),
    /** How far apart the lines of the grid lie, px; none unless said. */
    grid: v.optional(v.pipe(finiteNumber, v.minValue(1, 'The grid spacing must be at least 1 px.'))),
    rulers: v.optional(v.boolean()),
    /** Seconds of the moment that stands for the piece on its card. */
    poster: v.optional(finiteNumber),
  }),
  /** Null for flat; else the distance of the eye in px. */
  camera: v.nullable(
    fields({
      distance: positive,
      /** Whether lines grow with nearness (unless said otherwise), or are as wide on the picture wherever they are. */
      lines: v.optional(v.picklist(['space', 'screen'])),
    }),
  ),
  parts: limited(Part, 10000, 'parts'),
  drives: limited(Drive, 20000, 'drives'),
  bases: limited(Base, 100000, 'set values'),
  signals: limited(Signal, 500, 'signals'),
  dials: limited(Dial, 200, 'dials'),
  clocks: limited(Clock, 200, 'clocks'),
  cues: limited(Cue, 200, 'cues'),
  curves: limited(Curve, 500, 'curves'),
  ties: limited(Tie, 500, 'ties'),
  /** For each pace factor made of dials: seconds that have gathered by tuning it while it ran. */
  slips: limited(finiteNumber, 2000, 'slips'),
  /** Pictures and artwork by their hash. */
  assets: limited(fields({ type: text(60), bytes: whole }), 500, 'assets'),
})

export type Piece = v.InferOutput<typeof Document>

/** Parts hang on one another at most so deep. */
export const DEEPEST_PARENTING = 200
/** Clocks that run on one another, at most. */
const CLOCKS_DEEP = 16

export const PieceSchema = v.pipe(
  Document,
  v.check((p: Piece) => everyParentStands(p), 'A part’s parent is missing, or is the part itself.'),
  v.check((p: Piece) => everyNameOnce(p), 'Two things in the piece have the same name.'),
  v.check((p: Piece) => everyKeyFits(p), 'A drive, set value or tie is kept under a name that isn’t part.property.'),
  v.check((p: Piece) => clocksDeep(p) <= CLOCKS_DEEP, `Clocks run more than ${CLOCKS_DEEP} levels deep.`),
  v.check(
    (p: Piece) => fits(p, h => h.depth <= DEEPEST_PARENTING),
    `Parts are nested more than ${DEEPEST_PARENTING} levels deep.`,
  ),
  v.check(
    (p: Piece) => fits(p, h => h.count <= MOST_INSTANCES),
    `Copies within copies add up to more than ${MOST_INSTANCES} of one part.`,
  ),
  v.check(
    (p: Piece) => allInstances(p) <= MOST_IN_PIECE,
    `The parts of this piece with all their copies add up to more than ${MOST_IN_PIECE}.`,
  ),
)

export type ShapeType = Shape['type']
export type Promised = v.InferOutput<typeof Promised>
export type Drive = v.InferOutput<typeof Drive>
export type Base = v.InferOutput<typeof Base>
export type Dial = v.InferOutput<typeof Dial>
export type Signal = v.InferOutput<typeof Signal>
export type Clock = v.InferOutput<typeof Clock>
export type Cue = v.InferOutput<typeof Cue>
export type Curve = v.InferOutput<typeof Curve>
export type Tie = v.InferOutput<typeof Tie>
export type Colour = v.InferOutput<typeof Colour>
export type Fraction = v.InferOutput<typeof Fraction>

const KEY = /^[A-Za-z0-9_]{1,32}\.[A-Za-z]{1,40}$/
const isKey = (key: string): boolean => KEY.test(key) && !key.split('.').some(ownWord)

const everyKeyFits = (piece: Piece): boolean =>
  Object.entries(piece.drives).every(([key, d]) => isKey(key) && key === `${d.part}.${d.property}`) &&
  Object.keys(piece.bases).every(isKey) &&
  Object.values(piece.ties).every(t => isKey(t.a) && isKey(t.b))

const everyParentStands = (piece: Piece): boolean => hangings(piece) !== null

const fits = (piece: Piece, is: (h: Hung) => boolean): boolean => [...(hangings(piece)?.values() ?? [])].every(is)

/** All instances of all parts. */
const allInstances = (piece: Piece): number => [...(hangings(piece)?.values() ?? [])].reduce((n, h) => n + h.count, 0)

/** The collections whose entries have a name that formulas may use. */
export const NAMED = ['parts', 'dials', 'signals', 'clocks', 'cues', 'curves'] as const

function everyNameOnce(piece: Piece): boolean {
  const names = NAMED.flatMap(c => Object.values(piece[c]).map(e => e.name.normalize('NFKC').toLowerCase()))
  return new Set(names).size === names.length
}

/** A piece with nothing in it: 1280 × 720, 30 frames a second, a lap of 8 seconds. */
export function emptyPiece(title: string, seed: number): Piece {
  return {
    version: VERSION,
    title,
    seed,
    frameRate: { n: 30, d: 1 },
    lap: { length: { n: 8, d: 1 }, start: 0 },
    stretch: null,
    stage: { width: 1280, height: 720, background: { lightness: 0.95, chroma: 0.015, hue: 90 }, guides: false },
    camera: null,
    parts: {},
    drives: {},
    bases: {},
    signals: {},
    dials: {},
    clocks: {},
    cues: {},
    curves: {},
    ties: {},
    slips: {},
    assets: {},
  }
}
