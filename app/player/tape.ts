/** Draws the tideline: an endless strip of time, laps as bands, running under a fixed nib. */
import { toNumber } from '~~/core/time/rational.ts'
import type { Palette } from '~/composables/usePalette.ts'
import { NIB, TAPE_PER_SECOND } from './tape-scale.ts'
import { drawLeads, drawMarks, drawStretch, marksBetween } from './tape-marks.ts'
import type { PlayerSnapshot } from './player.ts'
import type { SizedCanvas } from './sized-canvas.ts'

/** Seconds between two written times and between two ticks, for a density of the tape. */
const STEPS = [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 30, 60, 120, 300] as const
const labelEvery = (perSecond: number): number => STEPS.find(s => s * perSecond >= 60) ?? STEPS.at(-1)!

/** @param inHand the entry in hand, whose marks stand out */
export function drawTape(
  sheet: SizedCanvas,
  snapshot: PlayerSnapshot,
  palette: Palette,
  perSecond = TAPE_PER_SECOND,
  inHand: string | null = null,
): void {
  const c = sheet.begin()
  if (!c) return
  const { width, height } = sheet
  const { program, moment } = snapshot
  const nib = Math.round(width * NIB) + 0.5
  const now = moment.seconds
  const x = (s: number) => (s - now) * perSecond + nib
  const first = now - nib / perSecond
  const last = now + (width - nib) / perSecond
  const lap = toNumber(program.measures.lapLength)
  const start = program.piece.lap.start

  c.fillStyle = palette.sheet
  c.fillRect(0, 0, width, height)
  c.font = '500 11px "Spline Sans"'
  c.textBaseline = 'alphabetic'
  const from = Math.floor((first - start) / lap)
  const to = Math.min(from + 400, Math.floor((last - start) / lap))
  for (let n = from; n <= to; n++) {
    const [a, b] = [x(start + n * lap), x(start + (n + 1) * lap)]
    if (((n % 2) + 2) % 2 === 1) {
      c.fillStyle = palette.band
      c.fillRect(a, 13, b - a, height - 27)
    }
    if (b - a < 46) continue
    const text = `lap ${String(n).replace('-', '−')}`
    const room = c.measureText(text).width + 14
    const at = Math.max(a + 7, Math.min(b - room, 7))
    if (Math.abs(at + room / 2 - nib) > room / 2 + 8) {
      c.fillStyle = palette.faded
      c.fillText(text, at, 29)
    }
  }

  // The holes of the tape run with it.
  c.strokeStyle = palette.rule
  c.lineWidth = 1
  const label = labelEvery(perSecond)
  const hole = label / 4
  for (let k = Math.floor(first / hole); k <= last / hole; k++) {
    c.beginPath()
    c.arc(x(k * hole), 7, 2, 0, 2 * Math.PI)
    c.stroke()
  }
  c.beginPath()
  c.moveTo(0, 13.5)
  c.lineTo(width, 13.5)
  c.moveTo(0, height - 14.5)
  c.lineTo(width, height - 14.5)
  c.stroke()

  c.strokeStyle = palette.faded
  const tick = label / 10
  for (let k = Math.floor(first / tick); k <= last / tick; k++) {
    const whole = k % 5 === 0
    c.globalAlpha = whole ? 0.9 : 0.35
    const at = Math.round(x(k * tick)) + 0.5
    c.beginPath()
    c.moveTo(at, height - 14.5 - (whole ? 8 : 4))
    c.lineTo(at, height - 14.5)
    c.stroke()
  }
  c.globalAlpha = 1
  c.font = '400 11px "Spline Sans Mono"'
  c.textAlign = 'center'
  c.fillStyle = palette.faded
  for (let k = Math.floor(first / label); k <= last / label; k++) {
    const s = Number((k * label).toFixed(3))
    const at = x(s)
    if (Math.abs(at - nib) < 30) continue
    c.fillText(secondsText(s), at, height - 3)
  }
  c.textAlign = 'left'
  if (program.piece.stretch) drawStretch(c, program.piece.stretch, x, height, palette)
  const marks = marksBetween(program.piece, first, last)
  drawLeads(c, marks, x, program, palette)
  drawMarks(c, marks, x, inHand, height, palette)
  nibMark(c, nib, height, palette)
}

function secondsText(s: number): string {
  if (Math.abs(s) < 600) return `${String(s).replace('-', '−')} s`
  const all = Math.abs(s)
  const two = (n: number) => String(n).padStart(2, '0')
  const [h, m] = [Math.floor(all / 3600), Math.floor(all / 60) % 60]
  const text = h > 0 ? `${h % 24}:${two(m)}:${two(all % 60)}` : `${m}:${two(all % 60)}`
  return s < 0 ? `−${text}` : text
}

function nibMark(c: CanvasRenderingContext2D, x: number, height: number, palette: Palette): void {
  c.fillStyle = palette.ink
  c.strokeStyle = palette.ink
  c.beginPath()
  c.moveTo(x - 6.5, 0)
  c.lineTo(x + 6.5, 0)
  c.lineTo(x + 5, 10)
  c.lineTo(x, 20)
  c.lineTo(x - 5, 10)
  c.closePath()
  c.fill()
  c.beginPath()
  c.moveTo(x, 18)
  c.lineTo(x, height)
  c.stroke()
  c.strokeStyle = palette.sheet
  c.beginPath()
  c.moveTo(x, 9)
  c.lineTo(x, 18)
  c.stroke()
  c.fillStyle = palette.sheet
  c.beginPath()
  c.arc(x, 8, 1.4, 0, 2 * Math.PI)
  c.fill()
}
