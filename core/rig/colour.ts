/** Colours of parts: OKLCH (CSS Color 4) to sRGB, held within what a screen can show. */
import { cosineOfTurns, sineOfTurns } from '../signal/sine.ts'
import type { Body } from './body.ts'

export interface Rgb {
  r: number
  g: number
  b: number
}

/**
 * A share of linear light as sRGB has it (IEC 61966-2-1), held between 0 and 1. Its power of 1 / 2.4 is the fourth root times
 * the sixth, which is the third root of the second: found by Halley's method, a third of the digits a step, from a line
 * that is within 16 % of it.
 */
function screened(light: number): number {
  if (!(light > 0)) return 0
  if (light >= 1) return 1
  if (light <= 0.0031308) return light * 12.92
  const root = Math.sqrt(light)
  let third = 0.37 + 0.66 * root
  for (let k = 0; k < 3; k++) {
    const cube = third * third * third
    third *= (cube + 2 * root) / (2 * cube + root)
  }
  return 1.055 * Math.sqrt(root) * third - 0.055
}

/**
 * Puts sRGB, 0 … 1 each, of a lightness 0–1, a chroma and a hue in turns into a list, with nothing made on the way: ten
 * thousand bulbs change their hue every frame. The matrices are those of OKLab (Ottosson, 2020).
 */
export function putRgb(out: Float64Array, at: number, lightness: number, chroma: number, hue: number): void {
  const a = chroma * cosineOfTurns(hue)
  const b = chroma * sineOfTurns(hue)
  const l = lightness + 0.3963377773761749 * a + 0.2158037573099136 * b
  const m = lightness - 0.1055613458156586 * a - 0.0638541728258133 * b
  const s = lightness - 0.0894841775298119 * a - 1.2914855480194092 * b
  const [L, M, S] = [l * l * l, m * m * m, s * s * s]
  out[at] = screened(4.0767416360759574 * L - 3.3077115392580616 * M + 0.2309699031821044 * S)
  out[at + 1] = screened(-1.2684379732850317 * L + 2.6097573492876887 * M - 0.3413193760026573 * S)
  out[at + 2] = screened(-0.0041960761386756 * L - 0.7034186179359362 * M + 1.7076146940746117 * S)
}

const one = new Float64Array(3)

/** The same as one colour. */
export function rgbOf(lightness: number, chroma: number, hue: number): Rgb {
  putRgb(one, 0, lightness, chroma, hue)
  return { r: one[0]!, g: one[1]!, b: one[2]! }
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
export const NO_PAINT: Rgb = { r: 0, g: 0, b: 0 }
