/**
 * A strip of gauge paper: one drive as a curve under a nib that stands still. Values are sampled at fixed
 * columns of time, so a frame works out only the columns that have come in.
 */
import type { Program } from '~~/core/engine/program.ts'
import type { Slot } from '~~/core/engine/slot.ts'
import { isBounded } from '~~/core/facts/interval.ts'
import { symmetriesOf } from '~~/core/insight/report.ts'
import { toNumber } from '~~/core/time/rational.ts'
import type { Palette } from '~/composables/usePalette.ts'
import { NIB } from './tape-scale.ts'
import { AskedFacts } from './asked-facts.ts'
import { PER_SECOND, drawCurve, drawNib, drawPaper, wrapped } from './curve.ts'
import type { PlayerSnapshot } from './player.ts'
import { Columns, Samples } from './samples.ts'
import { SizedCanvas } from './sized-canvas.ts'

/** Pixels between two samples. */
const GAP = 2
/** Shared by all strips. */
const COLUMNS = new Columns(PER_SECOND / GAP)

/** Copies that are drawn faintly behind the first. */
const MOST_COPIES = 12

export class Strip {
  private slot: Slot | null = null
  private samples: Samples[] = []
  private low = -Infinity
  private high = Infinity
  /** Whether it leaps at all. */
  private leaps = false
  /** A value that grows for ever but comes round again is drawn within one turn. */
  private turn = 0
  private natural = 0
  private readonly facts = new AskedFacts()
  /** Whether all this is of the formula that is drawn. */
  private settled = false

  private readonly sheet: SizedCanvas

  /** @param turned called when its size has changed and it wants to be drawn again */
  constructor(
    canvas: HTMLCanvasElement,
    private readonly key: string,
    private readonly palette: Palette,
    turned: () => void,
  ) {
    this.sheet = new SizedCanvas(canvas, turned)
  }

  stop(): void {
    this.sheet.stop()
  }

  private adopt(program: Program, slot: Slot): void {
    const { natural } = symmetriesOf(program, this.key)
    this.slot = slot
    const shown = Math.min(slot.count, MOST_COPIES)
    this.samples = Array.from({ length: shown }, (_, i) => this.samples[i] ?? new Samples())
    this.samples.forEach(s => s.forget())
    this.natural = toNumber(natural)
    this.facts.of(slot.forms.slice(0, shown))
    this.settled = false
  }

  /** Takes over what is known by now; until then the strip is drawn as it was. */
  private settle(program: Program): void {
    const facts = this.settled ? null : this.facts.known(program.queue)
    if (!facts) return
    this.settled = true
    ;({ low: this.low, high: this.high } = facts.bounds)
    this.leaps = facts.leaps
    this.turn = isBounded(facts.bounds) ? 0 : this.natural
  }

  draw({ program, moment }: PlayerSnapshot): void {
    const slot = program.slots.get(this.key)
    const c = slot ? this.sheet.begin() : null
    if (!slot || !c) return
    const { width, height } = this.sheet
    if (this.slot?.forms !== slot.forms) this.adopt(program, slot)
    this.settle(program)
    const nib = Math.round(width * NIB) + 0.5
    const now = moment.seconds * PER_SECOND
    const first = Math.floor((now - nib) / GAP)
    const count = Math.ceil(width / GAP) + 2
    const x = (column: number) => column * GAP - now + nib

    const [low, high] = this.range(slot, first, count, program)
    const pad = 5
    const y = (v: number) => pad + (height - 2 * pad) * (1 - (v - low) / (high - low))
    const value = (i: number, column: number) =>
      wrapped(this.samples[i]!.at(column, COLUMNS, slot.readers[i]!, program), this.turn)

    drawPaper(c, this.palette.rule, width, height, now, nib, low < 0 && high > 0 ? y(0) : null)
    const leap = this.leaps ? 0.2 * (high - low) : Infinity
    const line = (i: number, from: number, to: number, every: number) =>
      drawCurve(c, k => value(i, k), { from, to, every, x, y, leap, turn: this.turn })
    c.lineJoin = 'round'
    this.samples.forEach(s => s.resize(count + 64))
    c.strokeStyle = this.palette.sea
    c.lineWidth = 1
    c.globalAlpha = 0.13
    for (let i = this.samples.length - 1; i > 0; i--) line(i, first, first + count, 2)
    c.globalAlpha = 0.55
    c.lineWidth = 1.5
    const here = Math.floor(now / GAP)
    line(0, here, first + count, 1)
    c.globalAlpha = 1
    c.lineWidth = 2
    c.save()
    c.beginPath()
    c.rect(0, 0, nib, height)
    c.clip()
    line(0, first, here + 1, 1)
    c.restore()
    drawNib(c, this.palette, nib, height, y(wrapped(slot.readers[0]!.at(moment), this.turn)))
  }

  /** The values between which it is drawn: its bounds, one turn, or what is in sight. */
  private range(slot: Slot, first: number, count: number, program: Program): [number, number] {
    if (this.turn > 0) return [0, this.turn]
    let [low, high] = [this.low, this.high]
    if (!isBounded({ low, high })) {
      this.samples.forEach(s => s.resize(count + 64))
      ;[low, high] = [Infinity, -Infinity]
      for (let k = first; k <= first + count; k += 4) {
        const v = this.samples[0]!.at(k, COLUMNS, slot.readers[0]!, program)
        low = Math.min(low, v)
        high = Math.max(high, v)
      }
    }
    if (high - low < 1e-9) return [low - 1, high + 1]
    return [low, high]
  }
}
