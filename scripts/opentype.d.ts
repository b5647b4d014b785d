/** What of the font reader is used here; it ships without types. */
declare module 'opentype.js' {
  export interface Command {
    readonly type: 'M' | 'L' | 'C' | 'Q' | 'Z'
    readonly x: number
    readonly y: number
    readonly x1: number
    readonly y1: number
    readonly x2: number
    readonly y2: number
  }
  export interface Glyph {
    readonly index: number
    readonly advanceWidth: number
    readonly path: { readonly commands: readonly Command[] }
  }
  export interface Font {
    readonly unitsPerEm: number
    readonly ascender: number
    readonly descender: number
    charToGlyph(letter: string): Glyph
    getKerningValue(a: Glyph, b: Glyph): number
  }
  export function parse(bytes: ArrayBuffer): Font
  const all: { parse: typeof parse }
  export default all
}
