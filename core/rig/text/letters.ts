/**
 * Text set in the shipped font: which letters stand where, in thousandths of the size. What a text part shows is its
 * words, a number that is driven, or of its copies one letter each.
 */
import glyphs from './glyphs.json' with { type: 'json' }
import type { Shape } from '../../piece/schema.ts'

type Text = Extract<Shape, { type: 'text' }>

/** One filled area of a letter: its outline, the holes in it, and triangles over all their points in turn. */
export interface LetterArea {
  readonly outline: Float64Array
  readonly holes: readonly Float64Array[]
  readonly triangles: readonly number[]
}
export interface TextLayout {
  readonly areas: readonly LetterArea[]
  /** From the left end to the right, and about the line the letters stand on. */
  readonly left: number
  readonly right: number
  readonly rise: number
  readonly fall: number
}

interface Glyph {
  readonly wide: number
  readonly parts: readonly { at: number[]; holes: number[][]; triangles: number[] }[]
}
const KERN = glyphs.kern as Readonly<Record<string, Readonly<Record<string, number>>>>
const GLYPHS = glyphs.glyphs as unknown as Readonly<Record<string, Glyph>>

/** What a text part shows at a copy: `value` in its own measure, `copy` which of how many. */
export function shown(text: Text, value: number, copy: number): string {
  if (text.shows === 'number') return `${text.prefix}${numberText(value, text.decimals)}${text.suffix}`
  return text.shows === 'letters' ? ([...text.words][copy] ?? '') : text.words
}

/** A number with so many decimals, halves away from 0, and no minus on nothing. */
export function numberText(value: number, decimals: number): string {
  if (!Number.isFinite(value)) return '–'
  const text = Math.abs(value) < 1e15 ? value.toFixed(decimals) : value.toExponential(decimals)
  return Number(text) === 0 ? text.replace('-', '') : text.replace('-', '−')
}

const kept = new Map<string, TextLayout>()
/** Settings that are kept, at most; counters make new ones all the time. */
const MOST = 400

/** How lines are made of the words: where they were typed, or a word a line; and per cent of the size from line to line. */
export interface TextLines {
  readonly lines?: 'typed' | 'words' | undefined
  readonly leading?: number | undefined
}

export const LEADING = 120

/** Where a letter stands: its left end and the line it stands on. */
interface PlacedLetter {
  readonly letter: string
  readonly x: number
  readonly y: number
  readonly wide: number
}

/** Every letter of a text where it stands, those that are not seen too, about the middle of all lines. */
function placeLetters(
  words: string,
  align: Text['align'],
  { lines = 'typed', leading = LEADING }: TextLines,
): PlacedLetter[] {
  const rows: PlacedLetter[][] = [[]]
  const ends: number[] = [0]
  let before = ''
  for (const c of words.normalize('NFC')) {
    const breaks = c === '\n' || (lines === 'words' && /\s/.test(c))
    const close = breaks ? 0 : ((KERN[before] ?? {})[c] ?? 0)
    const x = ends.at(-1)! + close
    const wide = breaks ? 0 : (GLYPHS[c]?.wide ?? 0)
    rows.at(-1)!.push({ letter: breaks ? '' : c, x, y: 0, wide })
    ends[ends.length - 1] = x + wide
    before = breaks ? '' : c
    if (!breaks) continue
    rows.push([])
    ends.push(0)
  }
  // Upright, capitals of the middle line stand about the middle.
  const middle = (rows.length - 1) / 2
  return rows.flatMap((row, n) => {
    const wide = ends[n]!
    const left = align === 'left' ? 0 : align === 'right' ? -wide : -wide / 2
    const y = (middle - n) * leading * 10 - glyphs.capital / 2
    return row.map(s => ({ ...s, x: s.x + left, y }))
  })
}

/** The middles of all letters of a text as it is set, in thousandths of the size: one a letter, with its spaces. */
export const spotsOf = (words: string, align: Text['align'], lines: TextLines): { x: number; y: number }[] =>
  placeLetters(words, align, lines).map(s => ({ x: s.x + s.wide / 2, y: s.y + glyphs.capital / 2 }))

/** A text, set; the same text again is the same object. Letters the font lacks are left out. */
export function layOutText(words: string, align: Text['align'], lines: TextLines = {}): TextLayout {
  const key = `${align}${lines.lines ?? ''}${lines.leading ?? ''} ${words}`
  const known = kept.get(key)
  if (known) return known
  const areas: LetterArea[] = []
  let [left, right, low, high] = [Infinity, -Infinity, Infinity, -Infinity]
  for (const { letter, x, y, wide } of placeLetters(words, align, lines)) {
    const moved = (p: readonly number[]) => Float64Array.from(p, (n, i) => n + (i % 2 === 0 ? x : y))
    for (const p of GLYPHS[letter]?.parts ?? [])
      areas.push({ outline: moved(p.at), holes: p.holes.map(moved), triangles: p.triangles })
    left = Math.min(left, x)
    right = Math.max(right, x + wide)
    low = Math.min(low, y)
    high = Math.max(high, y)
  }
  if (!(left <= right)) [left, right, low, high] = [0, 0, -glyphs.capital / 2, -glyphs.capital / 2]
  const made = { areas, left, right, rise: high + glyphs.rise, fall: glyphs.fall - low }
  if (kept.size >= MOST) kept.clear()
  kept.set(key, made)
  return made
}
