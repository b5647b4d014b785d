/**
 * The units a number may carry, and how large each is in the measure that values are kept in:
 * angles in turns, times in seconds, lengths in px, frequencies per second, shares as plain numbers.
 * Frames and laps depend on the piece: their size comes from its frame rate and lap length.
 */
import { fromNumber, over, rational, times, ONE, type Rational } from '../time/rational.ts'
import { ANGLE, FREQUENCY, LENGTH, PLAIN, TIME, quotientKind, sameKind, type Kind } from './kinds.ts'

/** What of a piece the size of a unit may depend on. */
export interface Measures {
  /** Frames per second. */
  readonly frameRate: Rational
  /** Seconds. */
  readonly lapLength: Rational
}

export interface Unit {
  readonly name: string
  readonly kind: Kind
  readonly says: string
  readonly size: (m: Measures) => Rational
}

const steady =
  (n: number, d = 1) =>
  () =>
    rational(n, d)

export const UNITS: readonly Unit[] = [
  { name: 'deg', kind: ANGLE, says: 'degrees; a turn is 360', size: steady(1, 360) },
  { name: 'rad', kind: ANGLE, says: 'radians; a turn is 2 × pi', size: () => over(ONE, fromNumber(2 * Math.PI)) },
  { name: 'turn', kind: ANGLE, says: 'whole turns', size: steady(1) },
  { name: 's', kind: TIME, says: 'seconds', size: steady(1) },
  { name: 'ms', kind: TIME, says: 'thousandths of a second', size: steady(1, 1000) },
  { name: 'min', kind: TIME, says: 'minutes', size: steady(60) },
  { name: 'f', kind: TIME, says: 'frames of the piece', size: m => over(ONE, m.frameRate) },
  { name: 'lap', kind: TIME, says: 'laps of the piece', size: m => m.lapLength },
  { name: 'Hz', kind: FREQUENCY, says: 'times a second', size: steady(1) },
  { name: 'bpm', kind: FREQUENCY, says: 'beats a minute', size: steady(1, 60) },
  { name: 'px', kind: LENGTH, says: 'pixels of the stage', size: steady(1) },
  { name: '%', kind: PLAIN, says: 'a share: 100 % is 1', size: steady(1, 100) },
]

/** Units as they are written elsewhere, and how they are written here. */
const ALIASES: Readonly<Record<string, string>> = {
  '°': 'deg',
  degree: 'deg',
  degrees: 'deg',
  degs: 'deg',
  radian: 'rad',
  radians: 'rad',
  turns: 'turn',
  rev: 'turn',
  revs: 'turn',
  sec: 's',
  secs: 's',
  second: 's',
  seconds: 's',
  mins: 'min',
  minute: 'min',
  minutes: 'min',
  frame: 'f',
  frames: 'f',
  laps: 'lap',
  pixel: 'px',
  pixels: 'px',
}

/** A unit as written here, for one as it may be typed: `turns/sec` is `turn/s`. */
export const unitSpelled = (unit: string): string =>
  unit
    .split('/')
    .map(word => ALIASES[word.toLowerCase()] ?? word)
    .join('/')

/** Whether a word makes a rate behind a slash. */
export const isRateWord = (word: string): boolean =>
  (RATE_WORDS as readonly string[]).includes((ALIASES[word.toLowerCase()] ?? word).toLowerCase())

const BY_NAME = new Map(UNITS.map(u => [u.name.toLowerCase(), u]))
/** A unit by its name, whatever its capitals; undefined when there is none. */
export const unitNamed = (name: string): Unit | undefined => BY_NAME.get(name.toLowerCase())
/** The words that may stand after `/` to make a rate. */
export const RATE_WORDS = ['s', 'ms', 'min', 'f', 'lap'] as const

/** A unit as written, `deg`, `px/f` or `/lap` (a bare rate): its kind, its size, and whether it counts laps. */
export interface WrittenUnit {
  readonly kind: Kind
  readonly perLap: boolean
  readonly size: (m: Measures) => Rational
}

/** Reads a unit as written after a number; undefined when a word in it isn’t a unit. */
export function readUnit(text: string): WrittenUnit | undefined {
  if (text === '') return { kind: PLAIN, perLap: false, size: () => ONE }
  const [head = '', per] = text.split('/')
  const top = head === '' ? undefined : unitNamed(head)
  if (head !== '' && !top) return undefined
  if (per === undefined) return { kind: top!.kind, perLap: false, size: top!.size }
  const bottom = unitNamed(per)
  if (!bottom || !(RATE_WORDS as readonly string[]).includes(bottom.name)) return undefined
  return {
    kind: quotientKind(top?.kind ?? PLAIN, TIME),
    perLap: bottom.name === 'lap',
    size: m => over(top ? top.size(m) : ONE, bottom.size(m)),
  }
}

/** How large a unit as written is in base measure; 1 for none. */
export const sizeOfUnit = (text: string, m: Measures): Rational => readUnit(text)?.size(m) ?? ONE

/** What takes a value in base measure to a unit as written: multiplied, so that a twelfth of a turn is 30 degrees. */
export function inUnit(text: string, m: Measures): (value: number) => number {
  const { n, d } = sizeOfUnit(text, m)
  const [up, down] = [Number(d), Number(n)]
  return value => (value * up) / down
}

/** The unit in which a kind is shown when nothing else says: deg, s, Hz, px, deg/s, px/s, or none. */
export function unitOfKind(k: Kind): string | undefined {
  const simple: readonly (readonly [Kind, string])[] = [
    [PLAIN, ''],
    [ANGLE, 'deg'],
    [TIME, 's'],
    [FREQUENCY, 'Hz'],
    [LENGTH, 'px'],
    [quotientKind(ANGLE, TIME), 'deg/s'],
    [quotientKind(LENGTH, TIME), 'px/s'],
  ]
  return simple.find(([kind]) => sameKind(kind, k))?.[1]
}

/** A value kept in base measure, exact from its number in a unit. */
export const inBase = (value: Rational, unit: WrittenUnit, m: Measures): Rational => times(value, unit.size(m))

/** A number as text with at most `decimals` decimals and no needless zeros; a true minus sign is not used. */
export function printNumber(x: number, decimals = 12): string {
  if (!Number.isFinite(x)) return String(x)
  const text = x.toFixed(Math.min(decimals, 20))
  const trimmed = text.includes('e') ? text : text.includes('.') ? text.replace(/\.?0+$/, '') : text
  return trimmed === '-0' ? '0' : trimmed
}
