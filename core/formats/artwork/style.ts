/** How an element is painted: its own attributes, its style, and the rules of the file for its class. */
import { converter, parse } from 'culori'
import type { Part } from '../../piece/schema.ts'
import type { SvgElement } from './svg-tree.ts'

/** Colours as parts have them: lightness in per cent, hue in degrees. */
export interface ArtworkColour {
  readonly lightness: number
  readonly chroma: number
  readonly hue: number
  /** 0 to 1. */
  readonly alpha: number
}

/** What is inherited from the elements around. */
export interface Style {
  readonly values: Readonly<Record<string, string>>
  /** How solid it is with all that it stands in, 0 to 1. */
  readonly opacity: number
}

export const PLAIN_STYLE: Style = { values: { fill: 'black', stroke: 'none', 'stroke-width': '1' }, opacity: 1 }

const INHERITED = new Set([
  ...['fill', 'fill-opacity', 'fill-rule', 'stroke', 'stroke-width', 'stroke-opacity', 'color', 'visibility'],
  ...['stroke-linecap', 'stroke-linejoin', 'stroke-dasharray', 'stroke-dashoffset'],
])

/** Rules of one class or element, `.a { fill: red }`; anything more is left out. */
export function rulesOf(css: string): ReadonlyMap<string, Record<string, string>> {
  const rules = new Map<string, Record<string, string>>()
  for (const [, names, body] of css.replace(/\/\*[\s\S]*?\*\//g, '').matchAll(/([^{}]+)\{([^{}]*)\}/g))
    for (const name of names!.split(','))
      if (/^\.?[\w-]+$/.test(name.trim())) rules.set(name.trim(), { ...rules.get(name.trim()), ...declarations(body!) })
  return rules
}

function declarations(text: string): Record<string, string> {
  const found: Record<string, string> = {}
  for (const one of text.split(';')) {
    const at = one.indexOf(':')
    if (at > 0)
      found[one.slice(0, at).trim().toLowerCase()] = one
        .slice(at + 1)
        .replace(/!important/i, '')
        .trim()
  }
  return found
}

export function styleOf(e: SvgElement, around: Style, rules: ReadonlyMap<string, Record<string, string>>): Style {
  const classes = (e.attributes.class ?? '').split(/\s+/).filter(c => c !== '')
  const own: Record<string, string> = Object.assign(
    {},
    e.attributes,
    rules.get(e.name),
    ...classes.map(c => rules.get(`.${c}`)),
    declarations(e.attributes.style ?? ''),
  )
  const values = { ...around.values }
  for (const [name, value] of Object.entries(own)) if (INHERITED.has(name) && value !== 'inherit') values[name] = value
  const share = own.display === 'none' ? 0 : shareOf(own.opacity, 1)
  return { values, opacity: around.opacity * share }
}

/** A share written as a number or per cent, held to 0 to 1. */
export function shareOf(text: string | undefined, otherwise: number): number {
  if (text === undefined) return otherwise
  const value = Number.parseFloat(text) / (text.trim().endsWith('%') ? 100 : 1)
  return Number.isFinite(value) ? Math.min(1, Math.max(0, value)) : otherwise
}

const toOklch = converter('oklch')
const rounded = (v: number, places: number) => Number(v.toFixed(places))

/** A colour as CSS writes it; null for none, or for what is no colour. */
export function colourOf(text: string | undefined, current: string | undefined): ArtworkColour | null {
  const written = text?.trim().toLowerCase() === 'currentcolor' ? (current ?? 'black') : text?.trim()
  if (!written || written === 'none' || written === 'transparent') return null
  const read = parse(written)
  const colour = read && toOklch(read)
  if (!colour) return null
  return {
    lightness: rounded(100 * Math.min(1, Math.max(0, colour.l)), 2),
    chroma: rounded(Math.min(0.4, Math.max(0, colour.c)), 4),
    hue: rounded(colour.h ?? 0, 2),
    alpha: colour.alpha ?? 1,
  }
}

/** How the ends and bends of a line are, by SVG's words for them. */
export function lineEnds(values: Style['values']): Pick<Part, 'cap' | 'join'> {
  const [cap, join] = [values['stroke-linecap'], values['stroke-linejoin']]
  return {
    ...((cap === 'round' || cap === 'square') && { cap }),
    ...((join === 'round' || join === 'bevel') && { join }),
  }
}

/** Dashes of a line as a part has them, in the file's measure; null for none. */
export function dashesOf(values: Style['values']): { dash: number; gap: number; offset: number; more: boolean } | null {
  const lengths = (values['stroke-dasharray'] ?? 'none').split(/[\s,]+/).map(Number.parseFloat)
  if (lengths.length === 0 || !lengths.every(v => Number.isFinite(v) && v >= 0)) return null
  const [dash, gap = dash] = lengths as [number, number?]
  if (!(dash > 0) || !(gap > 0)) return null
  const more =
    lengths.some((v, k) => v !== (k % 2 === 0 || lengths.length === 1 ? dash : gap)) ||
    (lengths.length > 1 && lengths.length % 2 === 1)
  return { dash, gap, offset: Number.parseFloat(values['stroke-dashoffset'] ?? '') || 0, more }
}
