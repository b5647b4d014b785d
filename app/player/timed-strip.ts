/** Strips of what shapes time: a clock by its seconds, a cue by its marks, a drawn curve over its own length. */
import type { Program } from '~~/core/engine/program.ts'
import { activeClockOf } from '~~/core/form/clock.ts'
import type { ActiveClock } from '~~/core/form/active-clock.ts'
import { curveEnds } from '~~/core/acts/time-edits.ts'
import type { TimedIn } from '~~/core/insight/sentence.ts'
import type { Cue, Piece } from '~~/core/piece/schema.ts'
import { drawnCurve } from '~~/core/signal/drawn.ts'
import type { Moment } from '~~/core/time/moment.ts'
import { toNumber } from '~~/core/time/rational.ts'
import { printNumber } from '~~/core/units/units.ts'
import type { Palette } from '~/composables/usePalette.ts'
import { PER_SECOND, drawCurve, drawNib, drawPaper } from './curve.ts'
import { markAfter, marksFrom } from './marks-in-sight.ts'
import type { PlayerSnapshot } from './player.ts'
import { Columns, Samples } from './samples.ts'
import { SizedCanvas } from './sized-canvas.ts'
import { NIB } from './tape-scale.ts'

const GAP = 2
const COLUMNS = new Columns(PER_SECOND / GAP)
const PAD = 6

type Draw = (c: CanvasRenderingContext2D, snapshot: PlayerSnapshot) => string

export class TimedStrip {
  private readonly sheet: SizedCanvas
  private made: { readonly of: Piece; readonly draw: Draw } | null = null
  private readonly samples = new Samples()
  /** What a curve that stands still was drawn of. */
  private drawn: { readonly of: unknown; readonly wide: number; readonly sea: string; readonly says: string } | null =
    null

  constructor(
    canvas: HTMLCanvasElement,
    private readonly collection: TimedIn,
    private readonly id: string,
    private readonly palette: Palette,
    turned: () => void,
  ) {
    this.sheet = new SizedCanvas(canvas, turned)
  }

  stop(): void {
    this.sheet.stop()
  }

  /** @returns what it is at now, in words */
  draw(snapshot: PlayerSnapshot): string {
    const { piece } = snapshot.program
    if (!piece[this.collection][this.id]) return ''
    if (this.made?.of !== piece) this.made = { of: piece, draw: this.drawing(snapshot.program) }
    const still = this.collection === 'curves' ? piece.curves[this.id] : null
    const { sea } = this.palette
    const wide = this.sheet.width + this.sheet.height / 1e4
    const { drawn } = this
    if (still && drawn?.of === still && drawn.wide === wide && drawn.sea === sea) return drawn.says
    const c = this.sheet.begin()
    const says = c ? this.made.draw(c, snapshot) : ''
    this.drawn = c && still ? { of: still, wide, sea, says } : null
    return says
  }

  private drawing({ piece }: Program): Draw {
    if (this.collection === 'clocks') return this.clock(activeClockOf(piece, this.id))
    if (this.collection === 'cues') return this.cue(piece.cues[this.id]!)
    return this.curve(piece.curves[this.id]!)
  }

  /** The tape under the nib: seconds to pixels. */
  private tape(now: number): { nib: number; x: (second: number) => number } {
    const nib = Math.round(this.sheet.width * NIB) + 0.5
    return { nib, x: second => (second - now) * PER_SECOND + nib }
  }

  private clock(beat: ActiveClock): Draw {
    const reader = { at: (m: Moment) => toNumber(beat.seconds(m)) }
    this.samples.forget()
    return (c, { program, moment }) => {
      const { width, height } = this.sheet
      const { nib, x } = this.tape(moment.seconds)
      this.samples.resize(Math.ceil(width / GAP) + 64)
      const at = (column: number) => this.samples.at(column, COLUMNS, reader, program)
      const first = Math.floor(((moment.seconds - nib / PER_SECOND) * PER_SECOND) / GAP)
      const last = first + Math.ceil(width / GAP) + 2
      let [low, high] = [Infinity, -Infinity]
      for (let k = first; k <= last; k += 4) [low, high] = [Math.min(low, at(k)), Math.max(high, at(k))]
      const span = Math.max(high - low, 1e-6)
      const y = (v: number) => PAD + (height - 2 * PAD) * (1 - (v - low) / span)
      drawPaper(c, this.palette.rule, width, height, moment.seconds * PER_SECOND, nib, null)
      c.strokeStyle = this.palette.sea
      c.lineWidth = 1.5
      drawCurve(c, at, {
        from: first,
        to: last,
        every: 1,
        x: k => x((k * GAP) / PER_SECOND),
        y,
        leap: 0.3 * span,
        turn: 0,
      })
      const now = reader.at(moment)
      drawNib(c, this.palette, nib, height, y(now))
      return `${printNumber(Number(now.toFixed(2)), 2).replace('-', '−')} s`
    }
  }

  private cue(cue: Cue): Draw {
    return (c, { moment }) => {
      const { width, height } = this.sheet
      const { nib, x } = this.tape(moment.seconds)
      drawPaper(c, this.palette.rule, width, height, moment.seconds * PER_SECOND, nib, null)
      c.fillStyle = this.palette.coral
      c.strokeStyle = this.palette.coral
      c.lineWidth = 1.5
      const from = moment.seconds - nib / PER_SECOND
      for (const second of marksFrom(cue, from, moment.seconds + width / PER_SECOND)) {
        const at = Math.round(x(second)) + 0.5
        c.beginPath()
        c.moveTo(at - 5, 3)
        c.lineTo(at + 5, 3)
        c.lineTo(at, 11)
        c.closePath()
        c.fill()
        c.beginPath()
        c.moveTo(at, 11)
        c.lineTo(at, height - 3)
        c.stroke()
      }
      drawNib(c, this.palette, nib, height, height / 2)
      if (cue.marks.length === 0) return 'no mark'
      const next = markAfter(cue, moment.seconds)
      return next === null ? 'past' : `in ${(next - moment.seconds).toFixed(1)} s`
    }
  }

  private curve(curve: Piece['curves'][string]): Draw {
    const [start, end] = curveEnds(curve)
    const all = Object.values(curve.channels).map(points => drawnCurve(points, [start, end]))
    const low = Math.min(...all.map(d => d.low))
    const span = Math.max(1e-9, Math.max(...all.map(d => d.high)) - low)
    return c => {
      const { width, height } = this.sheet
      const x = (t: number) => PAD + ((width - 2 * PAD) * (t - start)) / Math.max(1e-9, end - start)
      const y = (v: number) => PAD + (height - 2 * PAD) * (1 - (v - low) / span)
      c.strokeStyle = this.palette.rule
      c.lineWidth = 1
      c.beginPath()
      c.moveTo(Math.round(x(curve.hit)) + 0.5, 0)
      c.lineTo(Math.round(x(curve.hit)) + 0.5, height)
      c.stroke()
      all.forEach((d, i) => {
        c.strokeStyle = i === 0 ? this.palette.sea : this.palette.faded
        c.lineWidth = i === 0 ? 2 : 1.2
        c.beginPath()
        for (let px = 0; px <= width - 2 * PAD; px += 2)
          c.lineTo(PAD + px, y(d.at(start + ((end - start) * px) / Math.max(1, width - 2 * PAD))))
        c.stroke()
      })
      return `${printNumber(Number((end - start).toFixed(2)), 2)} s`
    }
  }
}
