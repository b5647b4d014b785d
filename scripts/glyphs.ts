/**
 * Writes core/rig/text/glyphs.json: the outlines of the letters that text parts are drawn with, from the shipped font
 * (Spline Sans, SIL Open Font License), as polygons in thousandths of an em with their triangles.
 */
import { readFileSync, writeFileSync } from 'node:fs'
import opentype from 'opentype.js'
import { ShapeUtils, Vector2 } from 'three'

const file = new URL('../node_modules/@fontsource/spline-sans/files/spline-sans-latin-600-normal.woff', import.meta.url)
const bytes = readFileSync(file)
const font = opentype.parse(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length) as ArrayBuffer)
const em = 1000 / font.unitsPerEm

/** ASCII, Latin-1, and the signs that people write in titles and numbers. */
const letters = [
  ...Array.from({ length: 95 }, (_, i) => String.fromCharCode(32 + i)),
  ...Array.from({ length: 96 }, (_, i) => String.fromCharCode(160 + i)),
  ...'–—‘’“”…•−€×',
]

/** Straight pieces of a curve. */
const PIECES = 4

function contours(letter: string): number[][] {
  const found: number[][] = []
  let line: number[] = []
  let [x, y] = [0, 0]
  const to = (u: number, v: number) => {
    line.push(Math.round(u * em), Math.round(v * em))
    ;[x, y] = [u, v]
  }
  for (const c of font.charToGlyph(letter).path.commands) {
    if (c.type === 'M') {
      line = []
      found.push(line)
      to(c.x, c.y)
    } else if (c.type === 'L') to(c.x, c.y)
    else if (c.type === 'Q' || c.type === 'C') {
      const [x0, y0] = [x, y]
      for (let k = 1; k <= PIECES; k++) {
        const t = k / PIECES
        const s = 1 - t
        const at = (a: number, b: number, d: number, e: number) =>
          c.type === 'C'
            ? s * s * s * a + 3 * s * s * t * b + 3 * s * t * t * d + t * t * t * e
            : s * s * a + 2 * s * t * b + t * t * e
        const [bx, by] = [c.x1, c.y1]
        const [dx, dy] = c.type === 'C' ? [c.x2, c.y2] : [0, 0]
        to(at(x0, bx, dx, c.x), at(y0, by, dy, c.y))
      }
    }
  }
  return found.map(cleaned).filter(p => p.length >= 6)
}

/** Without points that fall on the one before. */
function cleaned(points: number[]): number[] {
  const out: number[] = []
  for (let i = 0; i < points.length; i += 2) {
    const last = out.length - 2
    if (last >= 0 && out[last] === points[i] && out[last + 1] === points[i + 1]) continue
    out.push(points[i]!, points[i + 1]!)
  }
  if (out[0] === out.at(-2) && out[1] === out.at(-1)) out.length -= 2
  return out
}

const vectors = (p: number[]) => Array.from({ length: p.length / 2 }, (_, i) => new Vector2(p[2 * i], p[2 * i + 1]))
function inside(p: number[], x: number, y: number): boolean {
  let within = false
  for (let i = 0, j = p.length - 2; i < p.length; j = i, i += 2) {
    const [xi, yi, xj, yj] = [p[i]!, p[i + 1]!, p[j]!, p[j + 1]!]
    if (yi > y !== yj > y && x < ((xj - xi) * (y - yi)) / (yj - yi) + xi) within = !within
  }
  return within
}

const glyphs: Record<string, unknown> = {}
for (const letter of letters) {
  const glyph = font.charToGlyph(letter)
  if (letter !== ' ' && letter !== '\u00a0' && glyph.index === 0) continue
  const all = contours(letter)
  const depth = all.map((p, i) => all.filter((q, j) => j !== i && inside(q, p[0]!, p[1]!)).length)
  const parts: { at: number[]; holes: number[][]; triangles: number[] }[] = []
  all.forEach((p, i) => {
    if (depth[i]! % 2 === 1) return
    const holes = all.filter((q, j) => depth[j] === depth[i]! + 1 && inside(p, q[0]!, q[1]!))
    const triangles = ShapeUtils.triangulateShape(vectors(p), holes.map(vectors)).flat()
    parts.push({ at: p, holes, triangles })
  })
  glyphs[letter] = { wide: Math.round(glyph.advanceWidth * em), parts }
}
/** How much closer or further apart two letters stand than their widths say. */
const kern: Record<string, Record<string, number>> = {}
const [...all] = letters.filter(l => glyphs[l])
for (const a of all)
  for (const b of all) {
    const by = Math.round(font.getKerningValue(font.charToGlyph(a), font.charToGlyph(b)) * em)
    if (by !== 0) (kern[a] ??= {})[b] = by
  }
/** The height of an upright capital. */
const capital = Math.max(...contours('H').flatMap(p => p.filter((_, i) => i % 2 === 1)))
const text = JSON.stringify({
  capital,
  rise: Math.round(font.ascender * em),
  fall: Math.round(-font.descender * em),
  glyphs,
  kern,
})
writeFileSync(new URL('../core/rig/text/glyphs.json', import.meta.url), `${text}\n`)
console.log(`${Object.keys(glyphs).length} letters, ${Math.round(text.length / 1024)} kB`)
