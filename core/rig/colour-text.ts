/** Colours as the web writes them, and as a part holds them: OKLCH, with lightness in per cent and hue in degrees. */
import { converter, formatHex, parse } from 'culori'

export interface Oklch {
  /** 0 to 100. */
  readonly lightness: number
  readonly chroma: number
  /** Degrees. */
  readonly hue: number
}

const oklch = converter('oklch')
/** The strongest that a part may be. */
const MOST_CHROMA = 0.4

/** The nearest colour that a screen shows, such as `#1b7286`. */
export const hexOf = ({ lightness, chroma, hue }: Oklch): string =>
  formatHex({ mode: 'oklch', l: lightness / 100, c: chroma, h: hue })

/** What was typed, in any way that CSS writes colours; null where it is none. A grey keeps hue 0. */
export function oklchOf(text: string): Oklch | null {
  const typed = text.trim()
  const colour = oklch(parse(/^[0-9a-f]{3}([0-9a-f]{3})?$/i.test(typed) ? `#${typed}` : typed))
  if (!colour) return null
  const to = (x: number, digits: number) => Number(x.toFixed(digits))
  return {
    lightness: to(Math.min(100, Math.max(0, colour.l * 100)), 2),
    chroma: to(Math.min(MOST_CHROMA, Math.max(0, colour.c)), 4),
    hue: to(colour.h ?? 0, 2),
  }
}
