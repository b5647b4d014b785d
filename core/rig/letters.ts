/**
 * Text set in the shipped font: which letters stand where, in thousandths of the size. What a text part shows is its
 * words, a number that is driven, or of its copies one letter each.
 */
import glyphs from './glyphs.json' with { type: 'json' }
import type { Shape } from '../piece/schema.ts'

type Text = Extract<Shape, { type: 'text' }>

/** One filled area of a letter: its outline, the holes in it, and triangles over all their points in turn. */
export interface Area {
  readonly outline: Float64Array
  readonly holes: readonly Float64Array[]
  readonly triangles: readonly number[]
}
export interface Setting {
  readonly areas: readonly Area[]
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
const GLYPHS = glyphs.glyphs as unknown as Readonly<Record<string, Glyph>>

/** What a text part shows at a copy: `value` in its own measure, `copy` which of how many. */
export function shown(text: Text, value: number, copy: number): string {
  if (text.shows === 'number') return `${text.prefix}${number(value, text.decimals)}${text.suffix}`
  return text.shows === 'letters' ? ([...text.words][copy] ?? '') : text.words
}

/** A number with so many decimals, halves away from 0, and no minus on nothing. */
export function number(value: number, decimals: number): string {
  if (!Number.isFinite(value)) return '–'
  const text = Math.abs(value) < 1e15 ? value.toFixed(decimals) : value.toExponential(decimals)
  return Number(text) === 0 ? text.replace('-', '') : text.replace('-', '−')
}

const kept = new Map<string, Setting>()
/** Settings that are kept, at most; counters make new ones all the time. */
const MOST = 400

/** A line of text, set; the same text again is the same object. Letters the font lacks are left out. */
export function set(line: string, align: Text['align']): Setting {
  const key = `${align}${line}`
  const known = kept.get(key)
  if (known) return known
  const letters = [...line.normalize('NFC')].map(c => GLYPHS[c]).filter(g => g !== undefined)
  const wide = letters.reduce((n, g) => n + g.wide, 0)
  const left = align === 'left' ? 0 : align === 'right' ? -wide : -wide / 2
  // Upright, capitals stand about the middle.
  const down = -glyphs.capital / 2
  const areas: Area[] = []
  let at = left
  for (const g of letters) {
    const moved = (p: readonly number[]) => Float64Array.from(p, (n, i) => n + (i % 2 === 0 ? at : down))
    for (const p of g.parts) areas.push({ outline: moved(p.at), holes: p.holes.map(moved), triangles: p.triangles })
    at += g.wide
  }
  const made = { areas, left, right: left + wide, rise: glyphs.rise + down, fall: glyphs.fall - down }
  if (kept.size >= MOST) kept.clear()
  kept.set(key, made)
  return made
}
