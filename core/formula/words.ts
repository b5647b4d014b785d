/** The words of the language, and how names are written beside them. */
import { ANGLE, FREQUENCY, LENGTH, PLAIN, TIME, type Kind } from '../units/kinds.ts'
import { canonical } from '../units/names.ts'
import { isRateWord } from '../units/units.ts'
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
  /** Only where copies are the letters of a text. */
  readonly lettered?: true
}

export const BUILTINS: readonly Builtin[] = [
  { name: 'time', kind: TIME, says: 'seconds since time 0' },
  { name: 'frame', kind: PLAIN, says: 'frames since time 0, a plain number' },
  { name: 'fps', kind: FREQUENCY, says: 'frames per second' },
  { name: 'frameTime', kind: TIME, says: 'the length of a frame' },
  { name: 'lapProgress', kind: PLAIN, says: 'how far through the lap, 0 to 1' },
  { name: 'lapIndex', kind: PLAIN, says: 'which lap, counted from 0' },
  { name: 'lapLength', kind: TIME, says: 'the length of a lap' },
  { name: 'spanStart', kind: TIME, says: 'first moment of the part, else of the lap' },
  { name: 'spanEnd', kind: TIME, says: 'last moment of the part, else of the lap' },
  { name: 'stretchStart', kind: TIME, says: 'first moment of the marked stretch, else of the lap' },
  { name: 'stretchEnd', kind: TIME, says: 'last moment of the marked stretch, else of the lap' },
  { name: 'base', kind: 'base', says: 'the property’s set value or keyframes' },
  { name: 'homeX', kind: LENGTH, says: 'the x that the layout gives this copy', copies: true },
  { name: 'homeY', kind: LENGTH, says: 'the y that the layout gives this copy', copies: true },
  { name: 'homeAngle', kind: ANGLE, says: 'the rotation that the layout gives this copy', copies: true },
  { name: 'stageWidth', kind: LENGTH, says: 'how wide the stage is' },
  { name: 'stageHeight', kind: LENGTH, says: 'how high the stage is' },
  { name: 'index', kind: PLAIN, says: 'which copy this is, counted from 0', copies: true },
  { name: 'count', kind: PLAIN, says: 'how many copies there are', copies: true },
  { name: 'along', kind: PLAIN, says: 'how far along the copies this one is, 0 to 1', copies: true },
  { name: 'row', kind: PLAIN, says: 'the row of the grid that this copy is in, counted from 0', copies: true },
  { name: 'rows', kind: PLAIN, says: 'how many rows the grid has', copies: true },
  { name: 'column', kind: PLAIN, says: 'the column of the grid that this copy is in, counted from 0', copies: true },
  { name: 'columns', kind: PLAIN, says: 'how many columns the grid has', copies: true },
  { name: 'word', kind: PLAIN, says: 'the word that this letter is in, counted from 0', copies: true, lettered: true },
  { name: 'line', kind: PLAIN, says: 'the line that this letter is on, counted from 0', copies: true, lettered: true },
  { name: 'layer', kind: PLAIN, says: 'which layer this is, counted from 0 in front', copies: true, layered: true },
  { name: 'layers', kind: PLAIN, says: 'how many layers there are', copies: true, layered: true },
  { name: 'depth', kind: PLAIN, says: 'how far back this layer is, 0 to 1', copies: true, layered: true },
  { name: 'pi', kind: PLAIN, says: '3.14159…, half the circumference of a circle of radius 1' },
]
const BUILTIN = new Map(BUILTINS.map(b => [canonical(b.name), b]))
export const builtinNamed = (name: string): Builtin | undefined => BUILTIN.get(canonical(name))

/** Words before a dot that stand for a part. */
export const RELATIVES = ['own', 'parent', 'before'] as const

/** Words that a name alone, or before a dot, would be taken for. */
const RESERVED = new Set<string>([...BUILTIN.keys(), ...RELATIVES, ...KEYWORD_NAMES])

const isPlain = (name: string): boolean => /^[\p{L}_][\p{L}\p{N}_]*$/u.test(name)

/** A word as it is written: in backquotes when it is not one plain word. */
export const spelled = (name: string): string => (isPlain(name) ? name : `\`${name}\``)

/** A name of a thing of the piece as it is written: in backquotes too where it would be taken for a word of the language. */
export const quotedName = (name: string): string =>
  isPlain(name) && !RESERVED.has(canonical(name)) && !isRateWord(name) ? name : `\`${name}\``
