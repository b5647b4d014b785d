/**
 * What names stand for where a formula is written: the words of the language, the things of the piece, and
 * the part whose property is driven.
 */
import { ANGLE, FREQUENCY, LENGTH, PLAIN, TIME, type Kind } from '../units/kinds.ts'
import { unitNamed } from '../units/units.ts'
import { NAMED, type Copies, type Piece } from '../piece/schema.ts'
import { has, propertyNamed, settingsOf, type Property } from '../piece/properties.ts'
import { canonical } from '../units/names.ts'
import type { Formula, Let, MemberNode, NameNode, Node } from './tree.ts'
import { RELATIVES, type Builtin } from './words.ts'

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

/** Whether a word of copies means something on a part, so many levels of copies further out. */
export function hasCopyWord(piece: Piece, part: string, word: Builtin, outer = 0): boolean {
  const levels = levelsOf(piece, part)
  if (word.layered) return outer === 0 && levels.some(l => l.copies.layout === 'layers')
  if (word.lettered) return outer === 0 && levels.some(l => lettersOf(piece, l) !== null)
  return countedLevels(levels).length > outer
}

/** The words whose letters a level of copies stands for, one each; null when it does not. */
export function lettersOf(piece: Piece, level: Level): string | null {
  const { shape } = piece.parts[level.part]!
  return shape.type === 'text' && shape.shows === 'letters' ? shape.words : null
}

/**
 * The part that stands before a dot: `own`, `parent`, `parent.parent` …, `before`, or a name, which in backquotes is
 * always that of a thing. Null when it is none of these.
 */
export function partWord(
  of: Node,
): { readonly word: string; readonly name: NameNode; readonly relative: boolean } | null {
  if (of.type === 'name') {
    return {
      word: of.name,
      name: of,
      relative: !of.quoted && (RELATIVES as readonly string[]).includes(canonical(of.name)),
    }
  }
  if (of.type !== 'member' || canonical(of.name) !== 'parent') return null
  const inner = partWord(of.of)
  return inner?.relative && canonical(inner.word).startsWith('parent')
    ? { word: `${inner.word}.parent`, name: inner.name, relative: true }
    : null
}

/** The part before a dot, a word that stands for one as the language writes it, and which copy of it; null when there is none. */
export function partBefore({ of }: MemberNode): { word: string; relative: boolean; index: Node | null } | null {
  const before = partWord(of.type === 'index' ? of.of : of)
  if (!before) return null
  const { word, relative } = before
  return { word: relative ? canonical(word) : word, relative, index: of.type === 'index' ? of.at : null }
}

/** The `let` that a name reads, if it reads one. */
export const letRead = (formula: Formula, node: NameNode): Let | undefined =>
  node.quoted ? undefined : formula.lets.find(l => canonical(l.name) === canonical(node.name))

/** How many levels further out `parent.parent` reaches. */
export const levelsOut = (word: string): number => word.split('.').length

/** The part that a word before a dot means, or a sentence that says why there is none. */
export function relative(piece: Piece, word: string, part: string | null): string | { says: string } {
  if (part === null) return { says: `A signal doesn’t belong to a part, so it has no ${word}.` }
  if (word === 'own') return part
  if (word === 'before') {
    const copied = levelsOf(piece, part).length > 0
    return copied ? part : { says: `${piece.parts[part]!.name} has no copies, so there’s no copy before it.` }
  }
  let at = part
  for (let k = 0; k < levelsOut(word); k++) {
    const { name, parent } = piece.parts[at]!
    if (parent === null) return { says: `${name} has no parent. Write the name of the part you mean.` }
    at = parent
  }
  return at
}

/** A property or a fixed setting of a part, by name. */
export function featureOf(piece: Piece, part: string, name: string): Property | { setting: number } | null {
  const shape = piece.parts[part]!.shape
  const property = propertyNamed(name)
  if (property && has(shape.type, property)) return property
  const setting = Object.entries(settingsOf(shape)).find(([key]) => canonical(key) === canonical(name))
  return setting ? { setting: setting[1] } : null
}
