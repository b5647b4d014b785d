/**
 * The scope: one drive large, over axes of time and value, under a nib. The paper runs with time; while something on it
 * is held it stands still, and the nib runs on.
 */
import type { Slot } from '~~/core/engine/slot.ts'
import type { Program } from '~~/core/engine/program.ts'
import { ALL, isBounded, type Interval } from '~~/core/facts/interval.ts'
import { propertyOf, showValue, symmetriesOf } from '~~/core/insight/report.ts'
import type { DriveJumps } from '~~/core/insight/drive-facts.ts'
import { toNumber } from '~~/core/time/rational.ts'
import { inUnit, printNumber } from '~~/core/units/units.ts'
import type { Palette } from '~/composables/usePalette.ts'
import { NIB } from './tape-scale.ts'
import { AskedFacts } from './asked-facts.ts'
import { drawCurve, drawNib, axisStep, wrapped } from './curve.ts'
import type { PlayerSnapshot } from './player.ts'
import { Columns, Samples } from './samples.ts'
import { PartLayer, drawLeaps, leapsWithin } from './scope-layers.ts'
import { SizedCanvas } from './sized-canvas.ts'

/** What of a value is drawn. */
export type ScopeQuantity = 'value' | 'speed' | 'acceleration'

/** Screen pixels: between two samples, of the axes, above and below the curve, where the brackets stand. */
const GAP = 2
const LEFT = 58
const FOOT = 22
const HEAD = 44
const PAD = 14
/** Screen pixels a second: at first, at least, at most. */
const FIRST = 104
const LEAST = 4
const MOST = 4000
const MOST_COPIES = 24

/** Columns for a density of the paper: a whole number a second, so that their moments are exact. */
const columnsOf = (perSecond: number): Columns => new Columns(Math.max(1, Math.round(perSecond / GAP)))

export class Scope {
  /** Pixels a second. */
  perSecond = FIRST
  shown: ScopeQuantity = 'value'
  /** The value axis stays as it is, so that what is pulled stays under the hand. */
  fixed = false
  /** The copy that is in hand. */
  copy = 0
  /** The curve before the change, drawn as a ghost. */
  ghost: Slot | null = null
  /** Limits that are drawn as lines, in base measure, with their words. */
  limits: readonly { readonly value: number; readonly says: string }[] = []
  /** Where it leaps, as the worker tells. */
  leapsAt: DriveJumps['at'] = []
  /** The terms of its sum, where they are shown apart. */
  readonly layer = new PartLayer()
  private readonly sheet: SizedCanvas
  private columns = columnsOf(FIRST)
  private slot: Slot | null = null
  private own = new Samples()
  private readonly old = new Samples()
  private oldSlot: Slot | null = null
  private copies: Samples[] = []
  private turn = 0
  private leaps = false
  private natural = 0
  /** Of the copy in hand, once they are known. */
  private bounds: Interval = ALL
  private readonly facts = new AskedFacts()
  private factsOf = 0
  private settled = false
  /** Where the paper stands while it is held, as seconds at the nib's place; null when it runs. */
  private held: number | null = null
  /** Seconds at the nib's place, and the values at the foot and the head of the picture. */
  private middle = 0
  private low = -1
  private high = 1
  /** How far the value axis was zoomed and moved by hand. */
  private tall = 1
  private raised = 0

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

  get width(): number {
    return this.sheet.width
  }
  private get nibX(): number {
    return LEFT + Math.round((this.sheet.width - LEFT) * NIB)
  }
  /** The seconds that are seen. */
  get from(): number {
    return this.middle - (this.nibX - LEFT) / this.perSecond
  }
  get seconds(): number {
    return (this.sheet.width - LEFT) / this.perSecond
  }
  x(seconds: number): number {
    return this.nibX + (seconds - this.middle) * this.perSecond
  }
  y(value: number): number {
    return HEAD + (this.sheet.height - FOOT - HEAD - PAD) * (1 - (value - this.low) / (this.high - this.low))
  }
  /** The value a pixel further up. */
  get perPixel(): number {
    return (this.high - this.low) / Math.max(1, this.sheet.height - FOOT - HEAD - PAD)
  }

  hold(is: boolean): void {
    this.held = is ? (this.held ?? this.middle) : null
  }
  /** Zooms time about the nib. */
  zoom(factor: number): void {
    this.perSecond = Math.min(MOST, Math.max(LEAST, this.perSecond * factor))
    this.columns = columnsOf(this.perSecond)
    this.forget()
  }
  /** Zooms values about the middle. */
  stretch(factor: number): void {
    this.tall = Math.min(50, Math.max(0.05, this.tall * factor))
  }
  lift(pixels: number): void {
    this.raised += pixels * this.perPixel
  }
  fit(): void {
    this.tall = 1
    this.raised = 0
    this.perSecond = FIRST
    this.columns = columnsOf(FIRST)
    this.forget()
  }

  private forget(): void {
    this.own.forget()
    this.old.forget()
    this.copies.forEach(s => s.forget())
    this.layer.forget()
  }

  private adopt(program: Program, slot: Slot): void {
    const { natural } = symmetriesOf(program, this.key)
    this.slot = slot
    this.copies = Array.from({ length: Math.min(slot.count, MOST_COPIES) }, (_, i) => this.copies[i] ?? new Samples())
    this.forget()
    this.natural = toNumber(natural)
    this.facts.of([slot.forms[Math.min(this.copy, slot.count - 1)]!])
    this.factsOf = this.copy
    this.settled = false
  }

  /** Takes over what is known by now; until then it is drawn as it was. */
  private settle(program: Program): void {
    const facts = this.settled ? null : this.facts.known(program.queue)
    if (!facts) return
    this.settled = true
    this.bounds = facts.bounds
    this.leaps = facts.leaps
    this.turn = isBounded(facts.bounds) ? 0 : this.natural
  }

  draw({ program, moment }: Pick<PlayerSnapshot, 'program' | 'moment'>): void {
    const slot = program.slots.get(this.key)
    const c = slot ? this.sheet.begin() : null
    if (!slot || !c) return
    if (this.slot?.forms !== slot.forms || this.factsOf !== this.copy) this.adopt(program, slot)
    this.settle(program)
    if (this.oldSlot !== this.ghost) this.old.forget()
    this.oldSlot = this.ghost
    this.copy = Math.min(this.copy, slot.count - 1)
    this.middle = this.held ?? moment.seconds
    const { width, height } = this.sheet
    const per = this.columns.perSecond
    const first = Math.floor(this.from * per)
    const last = Math.ceil((this.from + this.seconds) * per) + 1
    for (const s of [this.own, this.old, ...this.copies]) s.resize(last - first + 80)

    const read = (s: Samples, of: Slot, copy: number) => {
      const v = (k: number) => s.at(k, this.columns, of.readers[Math.min(copy, of.count - 1)]!, program)
      if (this.shown === 'speed') return (k: number) => ((v(k + 1) - v(k - 1)) * per) / 2
      if (this.shown === 'acceleration') return (k: number) => (v(k + 1) - 2 * v(k) + v(k - 1)) * per * per
      return (k: number) => wrapped(v(k), this.turn)
    }
    const own = read(this.own, slot, this.copy)
    this.range(own, first, last)
    this.paper(c, program, width, height)

    c.save()
    c.beginPath()
    c.rect(LEFT, 0, width - LEFT, height - FOOT)
    c.clip()
    const turn = this.shown === 'value' ? this.turn : 0
    const drawn = {
      from: first,
      to: last,
      x: (k: number) => this.x(k / per),
      y: (v: number) => this.y(v),
      leap: this.leaps && this.shown === 'value' && turn === 0 ? 0.2 * (this.high - this.low) : Infinity,
      turn,
    }
    const line = (at: (k: number) => number, every: number) => drawCurve(c, at, { ...drawn, every })
    c.lineJoin = 'round'
    c.strokeStyle = this.palette.sea
    c.lineWidth = 1
    c.globalAlpha = 0.16
    this.copies.forEach((s, i) => i !== this.copy && line(read(s, slot, i), 2))
    c.globalAlpha = 1
    if (this.shown === 'value') this.layer.draw(c, this.palette.faded, this.columns, program, drawn)
    if (this.ghost) {
      c.setLineDash([1.5, 4])
      c.strokeStyle = this.palette.ink
      c.lineWidth = 1.5
      line(read(this.old, this.ghost, this.copy), 1)
      c.setLineDash([])
    }
    this.lines(c, width)
    c.strokeStyle = this.palette.sea
    c.lineWidth = 2
    line(own, 1)
    if (this.shown === 'value' && turn === 0)
      drawLeaps(c, leapsWithin(this.leapsAt, this.from, this.from + this.seconds), this.palette.coral, {
        x: s => this.x(s),
        y: v => this.y(v),
        says: by => showValue(by, propertyOf(program, this.key), program.measures),
      })
    drawNib(c, this.palette, this.x(moment.seconds), height - FOOT, this.y(own(Math.round(moment.seconds * per))))
    c.restore()
  }

  /** The values between which it is drawn: its bounds, one turn, or what is in sight; then as zoomed by hand. */
  private range(own: (k: number) => number, first: number, last: number): void {
    const { bounds } = this
    let [low, high] = this.shown === 'value' && isBounded(bounds) ? [bounds.low, bounds.high] : [Infinity, -Infinity]
    if (this.shown === 'value' && this.turn > 0) [low, high] = [0, this.turn]
    if (low > high)
      for (let k = first; k <= last; k += 2) {
        const v = own(k)
        if (!Number.isFinite(v)) continue
        low = Math.min(low, v)
        high = Math.max(high, v)
      }
    // The parts of a sum are in sight too.
    if (this.shown === 'value' && this.turn === 0)
      for (const v of this.layer.ends(first, last, this.columns)) [low, high] = [Math.min(low, v), Math.max(high, v)]
    if (!(high - low > 1e-9)) [low, high] = Number.isFinite(low) ? [low - 1, high + 1] : [-1, 1]
    if (this.fixed) return
    const middle = (low + high) / 2 - this.raised
    const half = (high - low) / 2 / this.tall
    this.low = middle - half
    this.high = middle + half
  }

  private paper(c: CanvasRenderingContext2D, program: Program, width: number, height: number): void {
    const property = propertyOf(program, this.key)
    const shown = inUnit(property.unit, program.measures)
    const foot = height - FOOT
    c.font = '12px "Spline Sans Mono", monospace'
    c.strokeStyle = this.palette.rule
    c.fillStyle = this.palette.faded
    c.lineWidth = 1
    c.beginPath()
    c.textAlign = 'center'
    const step = axisStep(74 / this.perSecond)
    for (let k = Math.ceil(this.from / step); k * step <= this.from + this.seconds; k++) {
      const x = Math.round(this.x(k * step)) + 0.5
      c.moveTo(x, 0)
      c.lineTo(x, foot)
      if (x > LEFT + 14) c.fillText(`${printNumber(k * step, 6)} s`.replace('-', '−'), x, height - 6)
    }
    c.textAlign = 'right'
    const unit = Math.abs(shown(1)) || 1
    const mark = axisStep(34 * this.perPixel * unit)
    const [low, high] = [this.low - PAD * this.perPixel, this.high + HEAD * this.perPixel]
    for (let k = Math.ceil((low * unit) / mark); (k * mark) / unit <= high; k++) {
      const y = Math.round(this.y((k * mark) / unit)) + 0.5
      if (y > foot - 2 || y < 8) continue
      c.moveTo(LEFT, y)
      c.lineTo(width, y)
      c.fillText(printNumber(k * mark, 6).replace('-', '−'), LEFT - 8, y + 4)
    }
    c.stroke()
  }

  private lines(c: CanvasRenderingContext2D, width: number): void {
    if (this.shown !== 'value' || this.turn > 0) return
    c.lineWidth = 1
    c.strokeStyle = this.palette.kelp
    c.fillStyle = this.palette.kelp
    c.textAlign = 'left'
    c.font = '12px "Spline Sans", sans-serif'
    for (const { value, says } of this.limits) {
      const y = Math.round(this.y(value)) + 0.5
      c.beginPath()
      c.moveTo(LEFT, y)
      c.lineTo(width, y)
      c.stroke()
      c.fillText(says, LEFT + 6, y - 5)
    }
  }
}
