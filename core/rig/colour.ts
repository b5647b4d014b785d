/** Colours of parts: OKLCH (CSS Color 4) to sRGB, held within what a screen can show. */
import { convertOklabToRgb } from 'culori/fn'
import { cosineOfTurns, sineOfTurns } from '../signal/sine.ts'
import type { Body } from './body.ts'

export interface Rgb {
  r: number
  g: number
  b: number
}

const held = (x: number | undefined) => (x === undefined || !(x > 0) ? 0 : x > 1 ? 1 : x)

/** sRGB, 0 … 1 each, of a lightness 0–1, a chroma and a hue in turns. */
export function rgbOf(lightness: number, chroma: number, hue: number): Rgb {
  const { r, g, b } = convertOklabToRgb({ l: lightness, a: chroma * cosineOfTurns(hue), b: chroma * sineOfTurns(hue) })
  return { r: held(r), g: held(g), b: held(b) }
}

/** The fill or stroke colour of an instance. */
export const paintOf = (body: Body, of: 'fill' | 'stroke', instance: number): Rgb =>
  rgbOf(body.get(`${of}Lightness`, instance), body.get(`${of}Chroma`, instance), body.get(`${of}Hue`, instance))

const two = (x: number) =>
  Math.floor(x * 255 + 0.5)
    .toString(16)
    .padStart(2, '0')
export const hex = (c: Rgb): string => `#${two(c.r)}${two(c.g)}${two(c.b)}`

/** The paint of what is not filled. */
export const NOTHING: Rgb = { r: 0, g: 0, b: 0 }
