/** Colours of the fair, and short ways to put parts on it. */
import type { Copies, Part } from '../core/piece/schema.ts'

/** Colours of the fair: lightness %, chroma, hue in degrees. */
export const COLOURS = {
  cream: [93, 0.03, 88],
  coral: [60, 0.16, 34],
  deepCoral: [48, 0.14, 32],
  sea: [58, 0.085, 215],
  deepSea: [36, 0.06, 225],
  wood: [66, 0.07, 76],
  plank: [34, 0.035, 66],
  darkWood: [46, 0.06, 66],
  brass: [78, 0.12, 82],
  light: [92, 0.1, 88],
  night: [17, 0.035, 235],
} as const
type Colour = keyof typeof COLOURS

export const paint = (of: 'fill' | 'stroke', name: Colour, alpha = 100) => {
  const [lightness, chroma, hue] = COLOURS[name]
  return { [`${of}Lightness`]: lightness, [`${of}Chroma`]: chroma, [`${of}Hue`]: hue, [`${of}Alpha`]: alpha }
}
export const ring = (count: number, radius: number, turn = true): Copies => ({
  layout: 'ring',
  count,
  radius,
  from: 90,
  sweep: 360,
  turn,
})
export const row = (count: number, dx: number): Copies => ({ layout: 'row', count, dx, dy: 0 })
/** A part that stands on its middle `order` above its siblings. */
export const on = (parent: string | null, order: number, more: Partial<Part> = {}): Partial<Part> => ({
  parent,
  order,
  ...more,
})

export const CENTRE = { x: 0, y: -72 }

/** A fill that is none of the fair's colours. */
export const fill = (lightness: number, chroma: number, hue: number) => ({
  fillLightness: lightness,
  fillChroma: chroma,
  fillHue: hue,
})
