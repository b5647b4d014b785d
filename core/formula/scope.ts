/**
 * What names stand for where a formula is written: the words of the language, the things of the piece, and
 * the part whose property is driven.
 */
import { ANGLE, FREQUENCY, LENGTH, PLAIN, TIME, type Kind } from '../units/kinds.ts'
import { UNITS, unitNamed } from '../units/units.ts'
import { NAMED, type Copies, type Piece } from '../piece/schema.ts'
import { has, propertyNamed, settingsOf, type Property } from '../piece/properties.ts'
import { canonical } from '../units/names.ts'
import { FUNCTIONS } from '../functions/index.ts'
import { KEYWORD_NAMES } from './tokens.ts'

/** A word of the language that has a value. */
export interface Builtin {
  readonly name: string
  /** `base`: of the driven property's kind. */
  readonly kind: Kind | 'base'
  readonly says: string
  /** Only where there are copies. */
  readonly copies?: true
  /** Only where copies are layers. */
  readonly layered?: true
}

export const BUILTINS: readonly Builtin[] = [
  { name: 'time', kind: TIME, says: 'seconds since time 0' },
  { name: 'frame', kind: PLAIN, says: 'frames since time 0, a plain number' },
  { name: 'fps', kind: FREQUENCY, says: 'frames a second' },
  { name: 'frameTime', kind: TIME, says: 'how long a frame lasts' },
  { name: 'lapProgress', kind: PLAIN, says: 'how far through the lap, 0 to 1' },
  { name: 'lapIndex', kind: PLAIN, says: 'which lap, counted from 0' },
  { name: 'lapLength', kind: TIME, says: 'how long a lap lasts' },
  { name: 'spanStart', kind: TIME, says: 'first moment of the part, else of the lap' },
  { name: 'spanEnd', kind: TIME, says: 'last moment of the part, else of the lap' },
  { name: 'stretchStart', kind: TIME, says: 'first moment of the marked stretch, else of the lap' },
  { name: 'stretchEnd', kind: TIME, says: 'last moment of the marked stretch, else of the lap' },
  { name: 'base', kind: 'base', says: 'what the property holds by hand' },
  { name: 'index', kind: PLAIN, says: 'which copy this is, counted from 0', copies: true },
  { name: 'count', kind: PLAIN, says: 'how many copies there are', copies: true },
  { name: 'along', kind: PLAIN, says: 'how far along the copies this one is, 0 to 1', copies: true },
  { name: 'row', kind: PLAIN, says: 'which row of a grid this copy stands in, counted from 0', copies: true },
  { name: 'rows', kind: PLAIN, says: 'how many rows the grid has', copies: true },
  { name: 'layer', kind: PLAIN, says: 'which layer this is, counted from 0 in front', copies: true, layered: true },
  { name: 'layers', kind: PLAIN, says: 'how many layers there are', copies: true, layered: true },
  { name: 'depth', kind: PLAIN, says: 'how far back this layer is, 0 to 1', copies: true, layered: true },
  { name: 'pi', kind: PLAIN, says: '3.14159…, half the way round a circle of radius 1' },
]
const BUILTIN = new Map(BUILTINS.map(b => [canonical(b.name), b]))
export const builtinNamed = (name: string): Builtin | undefined => BUILTIN.get(canonical(name))

/** Words before a dot that stand for a part. */
export const RELATIVES = ['own', 'parent', 'before'] as const

/** Words that some argument takes, such as the easings. */
const ARGUMENT_WORDS = FUNCTIONS.flatMap(f => f.takes.flatMap(p => (p.words?.() ?? []).map(canonical)))

/** Why a name cannot be given to a thing of the piece; null when it can. */
export function nameTaken(name: string): string | null {
  const c = canonical(name)
  const words = [
    ...BUILTIN.keys(),
    ...RELATIVES,
    ...KEYWORD_NAMES,
    ...FUNCTIONS.map(f => canonical(f.name)),
    ...ARGUMENT_WORDS,
  ]
  if (words.includes(c)) return `${name} is a word of the formula language. Choose another name.`
  if (UNITS.some(u => canonical(u.name) === c)) return `${name} is a unit. Choose another name.`
  return null
}

export type Thing = { readonly id: string; readonly name: string } & (
  | { readonly type: 'part' }
  | { readonly type: 'dial'; readonly kind: Kind }
  | { readonly type: 'signal' }
  | { readonly type: 'clock' | 'cue' | 'curve' }
)

const TYPE = { parts: 'part', dials: 'dial', signals: 'signal', clocks: 'clock', cues: 'cue', curves: 'curve' } as const

/** The kind of a dial's or curve's unit. */
export const kindOfUnit = (unit: string): Kind => DIAL_KIND[unit] ?? PLAIN

const DIAL_KIND: Readonly<Record<string, Kind>> = {
  '': PLAIN,
  '%': PLAIN,
  deg: ANGLE,
  px: LENGTH,
  s: TIME,
  Hz: FREQUENCY,
}

/** The things of a piece by name, for all formulas in it. */
export class Names {
  private readonly things = new Map<string, Thing>()

  constructor(readonly piece: Piece) {
    for (const collection of NAMED) {
      for (const [id, entry] of Object.entries(piece[collection])) {
        const type = TYPE[collection]
        const thing = { id, name: entry.name, type, kind: type === 'dial' ? DIAL_KIND[piece.dials[id]!.unit]! : PLAIN }
        this.things.set(canonical(entry.name), thing as Thing)
      }
    }
  }

  named(name: string): Thing | undefined {
    return this.things.get(canonical(name))
  }

  all(): Thing[] {
    return [...this.things.values()]
  }
}

/** The unit of a dial as a known unit, so that its value can be read; plain has none. */
export const dialUnit = (unit: string) => (unit === '' ? undefined : unitNamed(unit))

/** Where a formula drives: the part, the property and what is expected of it. A signal has neither. */
export interface Target {
  readonly part: string | null
  readonly property: Property | null
}

/** One level of copies: the part that is copied, outermost first. */
export interface Level {
  readonly part: string
  readonly copies: Copies
}

/** The copies a part stands in, outermost first; its own last. */
export function levelsOf(piece: Piece, part: string): Level[] {
  const levels: Level[] = []
  for (let at: string | null = part; at !== null; at = piece.parts[at]!.parent) {
    const copies = piece.parts[at]!.copies
    if (copies) levels.unshift({ part: at, copies })
  }
  return levels
}

/** Copies that stand beside each other; where there are none, the layers count as such. Outermost first. */
export function countedLevels(levels: readonly Level[]): readonly Level[] {
  const beside = levels.filter(l => l.copies.layout !== 'layers')
  return beside.length > 0 ? beside : levels
}

/** Whether a word of copies means something on a part; `outer`: after `parent.`. */
export function hasCopyWord(piece: Piece, part: string, word: Builtin, outer = false): boolean {
  const levels = levelsOf(piece, part)
  if (word.layered) return !outer && levels.some(l => l.copies.layout === 'layers')
  return countedLevels(levels).length > (outer ? 1 : 0)
}

/** The part that a word before a dot means, or a sentence that says why there is none. */
export function relative(piece: Piece, word: string, part: string | null): string | { says: string } {
  if (part === null) return { says: `A signal belongs to no part, so it has no ${word}.` }
  if (word === 'own') return part
  if (word === 'before') {
    const copied = levelsOf(piece, part).length > 0
    return copied ? part : { says: `${piece.parts[part]!.name} has no copies, so none comes before it.` }
  }
  const parent = piece.parts[part]!.parent
  return parent ?? { says: `${piece.parts[part]!.name} has no parent. Name the part that is meant.` }
}

/** A property or a fixed setting of a part, by name. */
export function featureOf(piece: Piece, part: string, name: string): Property | { setting: number } | null {
  const shape = piece.parts[part]!.shape
  const property = propertyNamed(name)
  if (property && has(shape.type, property)) return property
  const setting = Object.entries(settingsOf(shape)).find(([key]) => canonical(key) === canonical(name))
  return setting ? { setting: setting[1] } : null
}
