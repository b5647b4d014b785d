/**
 * A piece made ready to run: every driven property of every instance has an expression, and a snapshot holds all
 * their values at one moment. A program is made anew for each change of the piece and takes over from the
 * one before what the change does not reach.
 */
import type { Checked } from '../formula/check.ts'
import type { Piece } from '../piece/schema.ts'
import type { Property } from '../piece/properties.ts'
import type { Moment } from '../time/moment.ts'
import { fromNumber, type Rational } from '../time/rational.ts'
import type { Measures } from '../units/units.ts'
import type { Env } from './env.ts'
import { ForkedMap } from './forked-map.ts'
import { SlotReuse } from './slot-reuse.ts'
import { hasLag, lagsOf, type Lags } from './lags.ts'
import type { CompiledExpression } from '../form/compiled-expression.ts'
import { WorkQueue } from '../form/work-queue.ts'
import type { Instances } from './instances.ts'
import { Batches } from './batches.ts'
import { surroundingsOf } from './in-columns.ts'
import { Varying } from './plan/varies.ts'
import { Meanings, runningFormula } from './meaning.ts'
import { MOST_PIECES, MOST_WORK, reweighed, tooHeavy, tooMuch, weighed, weightsOf, type Weighed } from './weight.ts'
import { Times, measuresOf } from './time-words.ts'
import { PIECE_CLOCK, type ActiveClock } from '../form/active-clock.ts'
import { onlyDriveChanged, slotsReading } from './one-changed.ts'
import { RunOrder } from './run-order.ts'
import { movedSlot, type Slot } from './slot.ts'
import { SlotMaker } from './slot-maker.ts'
import { slotsInOrder, runningIn, Stretches, timetableHost, type RunningSlots, type Stretch } from './stretches.ts'
import { surroundingsInProgram, nothingTracked, type Ground } from './surroundings.ts'
import { NO_MARKS, withLiveMarks, type LiveMarks } from './live-marks.ts'
import { SetValueExpressions } from './keyframes.ts'

export class Program {
  readonly measures: Measures
  readonly meanings: Meanings
  slots = new ForkedMap<string, Slot>()
  /** How many values a snapshot holds. */
  readonly size: number
  readonly lapStart: Rational
  /** What takes long to add up, and is worked out bit by bit; the programs that take over from one another share it. */
  readonly queue: WorkQueue
  private readonly instances: Map<string, Instances>
  readonly times: Times
  private readonly hands: SetValueExpressions
  /** What would take too long, and why: it holds its set value. */
  resting: ReadonlyMap<string, string> = new Map()
  /** What formulas find around them; it holds no slots. */
  private readonly ground: Ground
  private runOrder: RunOrder | null = null
  /** Chains with lags, from the program before until it is found that they have changed. */
  private lags: Lags | null = null
  /** Where each slot begins in a snapshot. */
  private readonly offsets: ReadonlyMap<string, number>
  /** What its slots weigh, where none is too heavy. */
  private weighed: Weighed | null = null
  /** Drives of one shape that are run together. */
  private batches = new Batches()
  /** While slots are made: which stand as they were before. */
  private making: SlotReuse | null = null
  /** Whether nothing rests because it would take too long. */
  private isLight = false
  /** What the drive that was changed last reaches. */
  private reached: { readonly key: string; readonly by: ReadonlySet<string> } | null = null
  /** The one drive in which the piece differs from that of the program before, where that is all. */
  private readonly changed: string | null
  private readonly stretches = new Stretches()
  private readonly maker: SlotMaker

  constructor(
    readonly piece: Piece,
    before: Program | null = null,
    /** Marks tapped in this session, which the piece does not hold. */
    readonly live: LiveMarks = before?.live ?? NO_MARKS,
    /** Of a trial: the one drive that is made, with what it reads; null for all. */
    only: string | null = null,
  ) {
    this.measures = measuresOf(piece)
    this.queue = before?.queue ?? new WorkQueue()
    this.hands =
      before && standsByHand(before.piece, piece) ? before.hands : new SetValueExpressions(piece, this.measures)
    this.lapStart = fromNumber(piece.lap.start)
    this.instances = before?.piece.parts === piece.parts ? before.instances : new Map()
    const changed = before?.live === live ? onlyDriveChanged(before.piece, piece) : null
    this.changed = changed
    this.meanings = new Meanings(piece, before?.meanings ?? null, changed)
    this.times = changed === null ? new Times(withLiveMarks(piece, live), this.measures, this.lapStart) : before!.times
    this.ground = surroundingsInProgram(piece, this, this.instances, this.hands)
    this.maker = new SlotMaker(this.ground, this.slot)
    const { size, offsets } = changed === null ? this.places() : { size: before!.size, offsets: before!.offsets }
    this.size = size
    this.offsets = offsets
    if (only === null) this.complete(before)
    else if (this.meanings.all.has(only)) this.make([only], before)
  }

  private places(): { readonly size: number; readonly offsets: ReadonlyMap<string, number> } {
    let size = 0
    const offsets = new Map<string, number>()
    for (const [key, m] of this.meanings.all) {
      if (m.target.part === null) continue
      offsets.set(key, size)
      size += this.instancesOf(m.target.part).count
    }
    return { size, offsets }
  }

  /** Makes all that is not made yet. A trial that has proved itself becomes the program this way. */
  complete(before: Program | null): this {
    if (before && this.changed !== null && this.takesOver(before, this.changed)) return this
    this.make(this.meanings.order, before)
    const again = before?.weighed && reweighed(before.weighed, before.slots, this.slots)
    if (again && again.sum <= MOST_WORK) {
      this.weighed = again
      return this
    }
    const weights = weightsOf(slotsInOrder(this.slots, this.meanings.order))
    let heavy = tooMuch(weights)
    if (heavy.length === 0) {
      this.weighed = weighed(weights)
      return this
    }
    // Chains cost far less where a timetable works them out, which takes as long as their moments are many.
    if (heavy.every(w => w.moments <= MOST_MOMENTS)) {
      this.runOrder = this.wholeOrder()
      if (this.lags) heavy = tooMuch(weightsOf(slotsInOrder(this.slots, this.meanings.order), this.lags.keys))
      if (heavy.length === 0) return this
    }
    this.resting = new Map([...this.resting, ...heavy.map(w => [w.slot.key, tooHeavy(w)] as const)])
    this.slots.clear()
    this.lags = null
    this.maker.pieces = 0
    this.make(this.meanings.order, before)
    return this
  }

  /** Takes over all but one drive and what reads it; false where more than these has to be looked at. */
  private takesOver(before: Program, key: string): boolean {
    if (this.meanings.order !== before.meanings.order || !before.weighed || !before.isLight) return false
    if (before.batches.lane(key)) return false
    const { slot } = this
    const making = (this.making = new SlotReuse(this, before))
    this.batches = before.batches
    const reached = before.reached?.key === key ? before.reached : { key, by: slotsReading(before.slots, key) }
    slot(key)
    for (const of of reached.by) if (this.batches.lane(of) && !this.batches.holds({ making, slot }, of)) return false
    const others = new Map<string, Slot>()
    for (const of of reached.by) others.set(of, slot(of))
    // Each keeps its place, after all that it reads.
    this.slots = before.slots.fork()
    this.maker.pieces = before.maker.pieces
    for (const [of, now] of others) {
      this.maker.pieces += now.pieces - before.slots.get(of)!.pieces
      this.slots.set(of, now)
    }
    if (this.maker.pieces > MOST_PIECES) {
      // What doesn't fit is found out where all are counted.
      this.slots = new ForkedMap()
      this.maker.pieces = 0
      return false
    }
    const weighed = reweighed(before.weighed, before.slots, this.slots, others.keys())
    if (!weighed || weighed.sum > MOST_WORK) return false
    this.weighed = weighed
    this.making = null
    this.reached = reached
    this.isLight = [...others.values()].every(isLight)
    this.lags = before.lags
    const lagged = [before, this].map(p => hasLag(runningFormula(p.meanings.all.get(key)!)))
    this.runOrder = before.lags || lagged[0] !== lagged[1] ? null : (before.runOrder?.renewed(others) ?? null)
    return true
  }

  private make(keys: readonly string[], before: Program | null): void {
    this.lags ??= before?.lags ?? null
    const making = (this.making = new SlotReuse(this, before))
    if (keys === this.meanings.order) {
      const { meanings, ground, resting, slot } = this
      this.batches = new Batches()
      this.batches.form({ meanings, ground, making, resting, slot, env: this.maker.sharedEnv }, before?.batches ?? null)
    }
    for (const key of keys) this.slot(key)
    // What is made may ask for others as long as it lives: it must not hold the program before by that.
    this.making = null
    this.runOrder = null
    this.isLight = this.resting.size === 0 && [...this.slots.values()].every(isLight)
  }

  /** Whether every value has the place in a snapshot that it has in another program's. */
  hasPlacesOf({ offsets }: Program): boolean {
    if (offsets === this.offsets) return true
    return offsets.size === this.offsets.size && [...offsets].every(([key, at]) => this.offsets.get(key) === at)
  }

  instancesOf(part: string): Instances {
    return this.ground.instancesOf(part)
  }

  private readonly slot = (key: string): Slot => {
    const made = this.slots.get(key)
    if (made) return made
    const offset = this.offsets.get(key) ?? -1
    const old = this.making!.slot(key)
    // One that stands as it was is the very same object, so that whoever shows it need not look again.
    const kept = old && movedSlot(old, offset)
    const m = this.meanings.all.get(key)!
    const lane = kept ? undefined : this.batches.lane(key)
    const own = kept ? kept.own : this.making!.own(key)
    const slot =
      kept ?? (lane ? this.maker.lane(m, lane, own, offset) : this.maker.make(m, own, offset, this.resting.get(key)))
    if (kept) this.maker.pieces += kept.pieces
    this.slots.set(key, slot)
    return slot
  }

  /** Which pieces of a formula in the place of this one differ from copy to copy. */
  varying(key: string, checked: Checked): Varying {
    const m = this.meanings.all.get(key)!
    return new Varying(
      checked,
      this.envFor(key, 0),
      surroundingsOf(m, this.piece, of => this.instancesOf(of).count),
    )
  }

  /** Surroundings for a formula at an instance, also for looking into its parts. */
  envFor(key: string, instance: number): Env {
    return this.maker.env(this.meanings.all.get(key)!, nothingTracked())(instance)
  }

  /** What a property holds by hand at each instance, in base measure. */
  handForms(part: string, property: Property, beat: ActiveClock = PIECE_CLOCK): readonly CompiledExpression[] {
    return this.hands.of(part, property, this.instancesOf(part).count, beat)
  }

  /** The same as plain numbers, for what nothing drives. */
  handNumbers(part: string, property: Property): ReturnType<SetValueExpressions['numbers']> {
    return this.hands.numbers(part, property, this.instancesOf(part).count)
  }

  /** All driven values at a moment, written into `out` (of length `size`). */
  moment(m: Moment, out: Float64Array): Float64Array {
    const runOrder = (this.runOrder ??= this.wholeOrder())
    this.queue.withinBudget(() => runOrder.run(m, out))
    return out
  }

  /** How many driven values are worked out in chains with lags, once a moment has been asked for. */
  get inChains(): number {
    return this.lags?.slots.reduce((n, s) => n + s.count, 0) ?? 0
  }

  /** The same, and what each slot took of it. */
  timed(m: Moment, out: Float64Array, took: (slot: Slot, ms: number) => void, now: () => number): void {
    const runOrder = (this.runOrder ??= this.wholeOrder())
    this.queue.withinBudget(() => runOrder.timed(m, out, took, now))
  }

  /** All copies of one driven value, or a signal, at a moment; nothing is left pending. */
  copiesAt(key: string, m: Moment): Float64Array {
    const slot = this.slots.get(key)!
    if (!slot.plan) return Float64Array.from(slot.readers, r => this.queue.settle(() => r.at(m)))
    const all = new Float64Array(this.size)
    const order = RunOrder.of(slotsInOrder(this.slots, [key]), this.offsets)
    this.queue.settle(() => order.run(m, all))
    return all.subarray(slot.offset, slot.offset + slot.count)
  }

  private wholeOrder(): RunOrder {
    const slots = slotsInOrder(this.slots, this.meanings.order)
    if (!this.lags?.stands(this.slots))
      this.lags = lagsOf(slots, s => runningIn(this.runs, s.key), timetableHost(this.runs, slots), this.lags)
    return RunOrder.of(slots, this.offsets, this.lags, this.batches.all)
  }

  private get runs(): RunningSlots {
    return { slots: this.slots, meanings: this.meanings, ground: this.ground }
  }

  /** One driven property of one instance at many moments. */
  stretch(key: string, instance: number, over: Stretch, out = new Float64Array(over.count)): Float64Array {
    return this.stretches.values(this.runs, key, instance, over, out)
  }

  /** Whether a stretch of it, all that it reads included, is worked out in columns. */
  hasTimeColumns(key: string, instance: number): boolean {
    return this.stretches.hasColumns(this.runs, key, instance)
  }
}

/** What reading an expression takes of the program that it belongs to. */
export type ProgramHome = Pick<Program, 'measures' | 'queue'>

/** Moments at which a link of a chain that is tried may be read, at most. */
const MOST_MOMENTS = 2000

/** Whether all that is set by hand is as it was. */
const standsByHand = (was: Piece, is: Piece): boolean =>
  (['bases', 'parts', 'frameRate', 'lap'] as const).every(c => was[c] === is[c])

const isLight = ({ problems }: Slot): boolean => problems.length === 0 || !problems.some(p => p.code === 'heavy')
