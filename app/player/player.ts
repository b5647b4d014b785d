/**
 * The one frame loop. It keeps the moment, asks the program for all values there, and hands one snapshot to
 * whoever draws. Nothing here is reactive: what is drawn each frame is drawn on canvases and into text.
 */
import type { Program } from '~~/core/engine/program.ts'
import { Moment, TICKS } from '~~/core/time/moment.ts'
import { floor, fromNumber, plus, rational, times, toNumber, type Rational } from '~~/core/time/rational.ts'

export interface PlayerSnapshot {
  readonly program: Program
  readonly moment: Moment
  /** Every driven value; valid until the next frame. */
  readonly values: Float64Array
  readonly playing: boolean
}

export type Watcher = (snapshot: PlayerSnapshot) => void

/** Seconds that a frame may take before playing lets time slip, as after a sleeping tab. */
const LONGEST = 0.5

/** Milliseconds of a frame that may go into working out. */
const SHARE = 9

export class Player {
  /** Whether something that is shown is still being worked out. */
  busy = false
  /** Playing runs to the end of the marked stretch and begins it again. */
  replaying = false
  /** Seconds between which playing goes to and fro; null for on and on. */
  between: readonly [number, number] | null = null
  /** Every frame is shown, however long it takes; else it keeps true time. */
  everyFrame = false
  /** 1 is true time; negative runs backwards. */
  pace = 1
  private frames: Rational = rational(0)
  private rest = 0
  private running = false
  private held = false
  private dirty = true
  private last = 0
  private request = 0
  private values: Float64Array
  private moment: Moment
  private readonly watchers = new Set<Watcher>()
  private readonly onChange = new Set<() => void>()

  constructor(private program: Program) {
    this.values = new Float64Array(program.size)
    this.moment = new Moment(this.frames, program.measures.frameRate)
    this.request = requestAnimationFrame(this.step)
  }

  /** Another program: the moment in seconds stays. */
  run(program: Program): void {
    const { frameRate } = program.measures
    if (frameRate !== this.program.measures.frameRate) this.frames = times(this.moment.exactSeconds, frameRate)
    // Of another moment, or of formulas that are gone.
    this.program.queue.clear()
    this.program = program
    this.values = program.size === this.values.length ? this.values : new Float64Array(program.size)
    this.dirty = true
  }

  /** Where it stands: the moment that is shown, or will be with the next frame. */
  now(): Moment {
    const { frameRate } = this.program.measures
    if (this.moment.frames !== this.frames || this.moment.rate !== frameRate)
      this.moment = new Moment(this.frames, frameRate)
    return this.moment
  }

  get playing(): boolean {
    return this.running
  }

  play(on: boolean): void {
    this.running = on
    if (!on) this.between = null
    this.last = performance.now()
    this.dirty = true
    this.tell()
  }

  setPace(pace: number): void {
    this.pace = pace
    this.tell()
  }

  replay(on: boolean): void {
    this.replaying = on
    this.tell()
  }

  /** To and fro between two moments, beginning at the first. */
  toAndFro(from: number, to: number): void {
    this.goto(fromNumber(from))
    this.play(true)
    this.between = [from, to]
    this.tell()
  }

  showEveryFrame(on: boolean): void {
    this.everyFrame = on
    this.tell()
  }

  /** While the tape is in the hand, time does not run by itself. */
  hold(on: boolean): void {
    this.held = on
    this.last = performance.now()
  }

  goto(seconds: Rational): void {
    this.frames = times(seconds, this.program.measures.frameRate)
    this.rest = 0
    this.dirty = true
  }

  /** Moves by seconds, rounded to the parts of a frame that live playing rounds to. */
  move(seconds: number): void {
    const ticks = seconds * toNumber(this.program.measures.frameRate) * TICKS + this.rest
    const whole = Math.round(ticks)
    this.rest = ticks - whole
    // Live playing stands on whole parts of a frame; a typed time may not have.
    const at = floor(times(this.frames, rational(TICKS)))
    this.frames = plus(rational(at, TICKS), rational(whole, TICKS))
    this.dirty = true
  }

  /** Frames on or back, to a whole frame. */
  stepFrames(n: number): void {
    this.frames = plus(rational(floor(this.frames)), rational(n))
    this.rest = 0
    this.dirty = true
  }

  watch(watcher: Watcher): () => void {
    this.watchers.add(watcher)
    this.dirty = true
    return () => this.watchers.delete(watcher)
  }

  /** Called when playing or pace change, not each frame. */
  changed(listener: () => void): () => void {
    this.onChange.add(listener)
    return () => this.onChange.delete(listener)
  }

  /** Draw again, though neither time nor piece has changed. */
  refresh(): void {
    this.dirty = true
  }

  /** Goes there and shows it at once, without waiting for a frame. */
  flush(): PlayerSnapshot {
    const moment = this.now()
    this.program.moment(moment, this.values)
    const snapshot = { program: this.program, moment, values: this.values, playing: this.running }
    for (const watcher of this.watchers) this.program.queue.withinBudget(() => watcher(snapshot))
    this.dirty = false
    return snapshot
  }

  stop(): void {
    cancelAnimationFrame(this.request)
    this.watchers.clear()
    this.onChange.clear()
  }

  private tell(): void {
    for (const listener of this.onChange) listener()
  }

  private advance(passed: number): void {
    if (this.everyFrame) this.stepFrames(this.pace < 0 ? -1 : 1)
    else this.move(passed * this.pace)
    if (this.between) {
      const [from, to] = this.between
      const here = toNumber(this.frames) / toNumber(this.program.measures.frameRate)
      if ((this.pace > 0 && here >= to) || (this.pace < 0 && here <= from)) this.setPace(-this.pace)
      return
    }
    const { stretch } = this.program.piece
    if (!this.replaying || !stretch || !(stretch.to > stretch.from)) return
    const at = toNumber(this.frames) / toNumber(this.program.measures.frameRate)
    if (this.pace >= 0 ? at >= stretch.to : at <= stretch.from)
      this.goto(fromNumber(this.pace >= 0 ? stretch.from : stretch.to))
  }

  private readonly step = (now: number): void => {
    this.request = requestAnimationFrame(this.step)
    const passed = Math.min(LONGEST, (now - this.last) / 1000)
    this.last = now
    if (this.running && !this.held && passed > 0) this.advance(passed)
    // What takes long to add up is worked out between frames, and shown when it is there.
    const before = this.busy
    const { queue } = this.program
    if (queue.isPending) this.dirty = queue.advanceWhile(() => performance.now() < now + SHARE) || this.dirty
    if (this.dirty) this.flush()
    this.busy = queue.isShownPending
    if (this.busy !== before) this.tell()
  }
}
