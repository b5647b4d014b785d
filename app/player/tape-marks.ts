/** What hangs on the tape of time: marks of cues in its upper edge, and the marked stretch along its ruler. */
import type { Piece } from '~~/core/piece/schema.ts'
import type { Palette } from '~/composables/usePalette.ts'
import { marksFrom } from './marks.ts'

export interface TapeMark {
  readonly cue: string
  readonly name: string
  readonly second: number
}

/** Height of the ruler at the foot of the tape, px. */
export const RULER = 14
/** Height of the edge in which marks hang. */
export const EDGE = 14

/** Marks of all cues within a stretch of seconds. */
export const marksBetween = (piece: Piece, from: number, to: number): TapeMark[] =>
  Object.entries(piece.cues).flatMap(([cue, c]) =>
    marksFrom(c, from, to).map(second => ({ cue, name: c.name, second })),
  )

export function drawMarks(
  c: CanvasRenderingContext2D,
  marks: readonly TapeMark[],
  x: (s: number) => number,
  inHand: string | null,
  palette: Palette,
): void {
  c.lineWidth = 1.5
  c.strokeStyle = palette.coral
  for (const m of marks) {
    const at = Math.round(x(m.second)) + 0.5
    c.beginPath()
    c.moveTo(at - 5.5, EDGE)
    c.lineTo(at + 5.5, EDGE)
    c.lineTo(at, EDGE + 10)
    c.closePath()
    c.fillStyle = inHand === `cues/${m.cue}` ? palette.coral : palette.sheet
    c.fill()
    c.stroke()
  }
}

/** A bracket along the ruler. */
export function drawStretch(
  c: CanvasRenderingContext2D,
  stretch: { readonly from: number; readonly to: number },
  x: (s: number) => number,
  height: number,
  palette: Palette,
): void {
  const [a, b] = [Math.round(x(stretch.from)) + 0.5, Math.round(x(stretch.to)) + 0.5]
  const foot = height - RULER
  c.strokeStyle = palette.ink
  c.lineWidth = 1.5
  c.beginPath()
  c.moveTo(a, foot - 12)
  c.lineTo(a, foot - 3)
  c.lineTo(b, foot - 3)
  c.lineTo(b, foot - 12)
  c.stroke()
}
