/** What hangs on the tape of time: marks of cues in its upper edge, and the marked stretch along its ruler. */
import type { Program } from '~~/core/engine/program.ts'
import { longestLead } from '~~/core/engine/taps.ts'
import type { Piece } from '~~/core/piece/schema.ts'
import type { Palette } from '~/composables/usePalette.ts'
import { marksFrom } from './marks-in-sight.ts'

export interface TapeMark {
  /** A mark of a cue, or a moment that is a dial: which, by its id. */
  readonly of: 'cues' | 'dials'
  readonly id: string
  readonly name: string
  readonly second: number
}

/** Height of the ruler at the foot of the tape, px. */
export const TAPE_RULER = 14
/** Height of the edge in which marks hang. */
export const EDGE = 14

/** Marks of all cues and moments within a stretch of seconds. */
export const marksBetween = (piece: Piece, from: number, to: number): TapeMark[] => [
  ...Object.entries(piece.cues).flatMap(([id, c]) =>
    marksFrom(c, from, to).map(second => ({ of: 'cues' as const, id, name: c.name, second })),
  ),
  ...Object.entries(piece.dials).flatMap(([id, d]) =>
    d.type === 'moment' && d.value >= from && d.value <= to
      ? [{ of: 'dials' as const, id, name: d.name, second: d.value }]
      : [],
  ),
]

export function drawMarks(
  c: CanvasRenderingContext2D,
  marks: readonly TapeMark[],
  x: (s: number) => number,
  inHand: string | null,
  height: number,
  palette: Palette,
): void {
  for (const m of marks) {
    const at = Math.round(x(m.second)) + 0.5
    if (m.of === 'dials') {
      moment(c, at, m.name, height, palette)
      continue
    }
    c.beginPath()
    c.moveTo(at - 5.5, EDGE)
    c.lineTo(at + 5.5, EDGE)
    c.lineTo(at, EDGE + 10)
    c.closePath()
    c.strokeStyle = palette.coral
    c.lineWidth = 1.5
    c.fillStyle = inHand === `cues/${m.id}` ? palette.coral : palette.sheet
    c.fill()
    c.stroke()
  }
}

const leads = new WeakMap<Program, Map<string, number>>()
/** How long before a mark of a cue the earliest gesture on it sets off, seconds; looked for once a program. */
function leadOf(program: Program, cue: string): number {
  let known = leads.get(program)
  if (!known) leads.set(program, (known = new Map()))
  let lead = known.get(cue)
  if (lead === undefined) known.set(cue, (lead = longestLead(program, cue)))
  return lead
}

/** Under each mark of a cue the run-up of what is played on it, to its hit point. */
export function drawLeads(
  c: CanvasRenderingContext2D,
  marks: readonly TapeMark[],
  x: (s: number) => number,
  program: Program,
  palette: Palette,
): void {
  c.strokeStyle = palette.coral
  c.lineWidth = 1
  for (const m of marks) {
    const lead = m.of === 'cues' ? leadOf(program, m.id) : 0
    if (!(lead > 0)) continue
    const [from, to] = [Math.round(x(m.second - lead)) + 0.5, Math.round(x(m.second)) + 0.5]
    const y = EDGE + 12.5
    c.beginPath()
    c.moveTo(from, y - 2.5)
    c.lineTo(from, y)
    c.lineTo(to, y)
    c.lineTo(to, y - 2.5)
    c.stroke()
  }
}

/** A moment that is a dial: a line to the ruler, with its name on a tab. */
function moment(c: CanvasRenderingContext2D, at: number, name: string, height: number, palette: Palette): void {
  c.font = '500 11px "Spline Sans"'
  const wide = c.measureText(name).width + 10
  c.strokeStyle = palette.brass
  c.lineWidth = 1.2
  c.beginPath()
  c.moveTo(at, 0)
  c.lineTo(at, height - TAPE_RULER)
  c.stroke()
  c.fillStyle = palette.sheet
  c.fillRect(at, 0.5, wide, EDGE - 1)
  c.strokeRect(at, 0.5, wide, EDGE - 1)
  c.fillStyle = palette.brass
  c.fillText(name, at + 5, EDGE - 4)
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
  const foot = height - TAPE_RULER
  c.strokeStyle = palette.ink
  c.lineWidth = 1.5
  c.beginPath()
  c.moveTo(a, foot - 12)
  c.lineTo(a, foot - 3)
  c.lineTo(b, foot - 3)
  c.lineTo(b, foot - 12)
  c.stroke()
}
