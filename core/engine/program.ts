/**
 * A piece made ready to run: every driven property of every instance has a form, and a snapshot holds all
 * their values at one moment. A program is made anew for each change of the piece and takes over from the
 * one before what the change does not reach.
 */
import type { Checked } from '../formula/check.ts'
import type { Piece } from '../piece/schema.ts'
import type { Property } from '../piece/properties.ts'
import type { Moment } from '../time/moment.ts'
import { ONE, fromNumber, type Rational } from '../time/rational.ts'
import type { Measures } from '../units/units.ts'
import { compile } from './compile.ts'
import { CannotRun, handForm, type Env } from './env.ts'
import { Keeps } from './keeps.ts'
import { hasLag, lagsOf, type Lags } from './lags.ts'
import type { Form } from '../form/form.ts'
import { guarded } from '../form/guarded.ts'
import { WorkQueue } from '../form/work-queue.ts'
import type { Instances } from './instances.ts'
import { compiledOf } from './deferred.ts'
import { Batches, type BatchLane } from './batches.ts'
import { compiledLater, compileInColumns, surroundingsOf } from './in-columns.ts'
import { Varying } from './plan/varies.ts'
import { Meanings, readKeys, runningFormula, type Meaning, type Running } from './meaning.ts'
import {
  MOST_PIECES,
  MOST_WORK,
  lengthOf,
  reweighed,
  tooHeavy,
  tooManyPieces,
  tooMuch,
  weighed,
  weightsOf,
  type Weighed,
} from './weight.ts'
import { Times, measuresOf } from './words.ts'
import { PIECE, type Beat } from '../form/beat.ts'
import { onlyDriveChanged, readersOf } from './one-changed.ts'
import { RunOrder } from './run-order.ts'
import { movedSlot, plainSlot, slotInColumns, type Slot } from './slot.ts'
import { inOrder, runningIn, Stretches, timetableHost, type Runs, type Stretch } from './stretches.ts'
import { groundOf, nothingTracked, surroundings, type Ground, type Tracked } from './surroundings.ts'
import { NO_MARKS, withLive, type Live } from './live.ts'
import { HandForms } from './keys.ts'
import { problem } from '../formula/problem.ts'

export class Program {
  readonly measures: Measures
  readonly meanings: Meanings
  slots = new Map<string, Slot>()
  /** How many values a snapshot holds. */
  readonly size: number
  readonly lapStart: Rational
  /** What takes long to add up, and is worked out bit by bit; the programs that take over from one another share it. */
  readonly queue: WorkQueue
  private readonly instances: Map<string, Instances>
  readonly times: Times
  private readonly hands: HandForms
  /** What would take too long, and why: it holds its set value. */
  resting: ReadonlyMap<string, string> = new Map()
  /** What formulas find around them; it holds no slots. */
  private readonly ground: Ground
  /** Pieces of formula that are compiled in all, those of every copy counted. */
  private pieces = 0
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
  private making: Keeps | null = null
  /** Whether nothing rests because it would take too long. */
  private isLight = false
  /** What the drive that was changed last reaches. */
  private reached: { readonly key: string; readonly by: ReadonlySet<string> } | null = null
  /** The one drive in which the piece differs from that of the program before, where that is all. */
  private readonly changed: string | null
  private readonly stretches = new Stretches()
  /** Readers of the slots that are being made. */
  private readonly begun = new Map<string, Form[]>()

  constructor(
    readonly piece: Piece,
    before: Program | null = null,
    /** Marks tapped in this session, which the piece does not hold. */
    readonly live: Live = before?.live ?? NO_MARKS,
    /** Of a trial: the one drive that is made, with what it reads; null for all. */
    only: string | null = null,
  ) {
    this.measures = measuresOf(piece)
    this.queue = before?.queue ?? new WorkQueue()
    this.hands = before && standsByHand(before.piece, piece) ? before.hands : new HandForms(piece, this.measures)
    this.lapStart = fromNumber(piece.lap.start)
    this.instances = before?.piece.parts === piece.parts ? before.instances : new Map()
    const changed = before?.live === live ? onlyDriveChanged(before.piece, piece) : null
    this.changed = changed
    this.meanings = new Meanings(piece, before?.meanings ?? null, changed)
    this.times = changed === null ? new Times(withLive(piece, live), this.measures, this.lapStart) : before!.times
    this.ground = groundOf(piece, this, this.instances, this.hands)
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
    const weights = weightsOf(inOrder(this.slots, this.meanings.order))
    let heavy = tooMuch(weights)
    if (heavy.length === 0) {
      this.weighed = weighed(weights)
      return this
    }
    // Chains cost far less where a timetable works them out, which takes as long as their moments are many.
    if (heavy.every(w => w.moments <= MOST_MOMENTS)) {
      this.runOrder = this.wholeOrder()
      if (this.lags) heavy = tooMuch(weightsOf(inOrder(this.slots, this.meanings.order), this.lags.keys))
      if (heavy.length === 0) return this
    }
    this.resting = new Map([...this.resting, ...heavy.map(w => [w.slot.key, tooHeavy(w)] as const)])
    this.slots.clear()
    this.lags = null
    this.pieces = 0
    this.make(this.meanings.order, before)
    return this
  }

  /** Takes over all but one drive and what reads it; false where more than these has to be looked at. */
  private takesOver(before: Program, key: string): boolean {
    if (this.meanings.order !== before.meanings.order || !before.weighed || !before.isLight) return false
    if (before.batches.lane(key)) return false
    const { slot } = this
    const making = (this.making = new Keeps(this, before))
    this.batches = before.batches
    const reached = before.reached?.key === key ? before.reached : { key, by: readersOf(before.slots, key) }
    slot(key)
    for (const of of reached.by) if (this.batches.lane(of) && !this.batches.holds({ making, slot }, of)) return false
    const others = new Map<string, Slot>()
    for (const of of reached.by) others.set(of, slot(of))
    // Each keeps its place, after all that it reads.
    this.slots = new Map(before.slots)
    this.pieces = before.pieces
    for (const [of, now] of others) {
      this.pieces += now.pieces - before.slots.get(of)!.pieces
      this.slots.set(of, now)
    }
    const weighed = reweighed(before.weighed, before.slots, this.slots, others.keys())
    if (!weighed || weighed.sum > MOST_WORK || this.pieces > MOST_PIECES) return false
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
    const making = (this.making = new Keeps(this, before))
    if (keys === this.meanings.order) {
      const { meanings, ground, resting, slot } = this
      this.batches = new Batches()
      this.batches.form({ meanings, ground, making, resting, slot, env: this.sharedEnv }, before?.batches ?? null)
    }
    for (const key of keys) this.slot(key)
    // What is made may ask for others as long as it lives: it must not hold the program before by that.
    this.making = null
    this.runOrder = null
    this.isLight = this.resting.size === 0 && [...this.slots.values()].every(isLight)
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
    const slot = kept ?? (lane ? this.inBatch(m, lane, offset) : this.build(key, m, offset))
    if (kept) this.pieces += kept.pieces
    this.slots.set(key, slot)
    return slot
  }

  /** A drive that is run with others of its shape. */
  private inBatch(m: Meaning, { batch }: BatchLane, offset: number): Slot {
    const { meanings, ground } = this
    const { operations, shared } = batch
    const checked = runningFormula(m)!
    const read = new Map<string, Slot>()
    const hands = new Set([m.key, ...shared.hands])
    for (const key of [...shared.slots, ...readKeys(checked)]) {
      if (meanings.all.has(key)) read.set(key, this.slot(key))
      else hands.add(key)
    }
    const known = {
      key: m.key,
      own: this.making!.own(m.key),
      running: m.running,
      problems: m.problems,
      paces: shared.paces,
      dials: shared.dials,
      slots: new Set(read.keys()),
      hands,
      chained: false,
      pieces: 0,
    }
    const copies = compiledLater(m, checked, ground, read)
    return slotInColumns(known, { plan: null, laneOperations: operations }, copies, offset)
  }

  /** Surroundings in which what many drives hang on alike is noted, and not what one of them links to. */
  private readonly sharedEnv = (m: Meaning, tracked: Tracked): Env => {
    const { property } = this.env(m, nothingTracked())(0)
    return { ...this.env(m, tracked)(0), property }
  }

  private build(key: string, m: Meaning, offset: number): Slot {
    const tracked = nothingTracked()
    tracked.hands.add(key)
    const problems = [...m.problems]
    const before = this.pieces
    const bases =
      m.target.part === null
        ? [handForm(0, ONE, this.measures.frameRate)]
        : this.handForms(m.target.part, m.target.property!)
    const attempt = (checked: Checked | null, report: boolean): Made | null => {
      if (!checked) return null
      try {
        return this.inColumns(key, m, checked, tracked) ?? this.plainly(key, m, checked, tracked, bases)
      } catch (e) {
        if (!(e instanceof CannotRun)) throw e
        if (report) problems.push(e.problem)
        return null
      } finally {
        this.begun.delete(key)
      }
    }
    const says = this.resting.get(key)
    if (says !== undefined) problems.push(problem('heavy', { from: 0, to: m.source.text.length }, says))
    let running: Running = says === undefined ? m.running : 'base'
    let made = running === 'base' ? null : attempt(runningFormula(m), running === 'text')
    if (!made && running === 'text' && m.source.good !== m.source.text && sound(m.good)) {
      running = 'good'
      made = attempt(m.good, false)
    }
    if (!made && running !== 'off') running = 'base'
    made ??= { forms: bases, readers: bases.map(f => guarded(f, f, this.measures.frameRate, this.queue)) }
    const chained = runningFormula(m)?.reads.some(r => r.type === 'property' && r.before) ?? false
    const known = {
      key,
      own: this.making!.own(key),
      running,
      problems,
      ...tracked,
      chained,
      pieces: this.pieces - before,
    }
    return 'plan' in made
      ? slotInColumns(known, { plan: made.plan, laneOperations: null }, made.copies, offset)
      : plainSlot(known, made, offset)
  }

  /** All copies as columns; null where that takes the plain evaluator, or is not worth it. */
  private inColumns(key: string, m: Meaning, checked: Checked, tracked: Tracked): Made | null {
    const { pieces } = this
    // What reads its own copies is left to the plain evaluator, which makes them one after another.
    this.begun.set(key, [])
    const made = compileInColumns(m, checked, tracked, {
      ground: this.ground,
      env: this.env(m, tracked),
      slot: of => (!this.meanings.all.has(of) ? null : this.begun.has(of) ? 'being made' : this.slot(of)),
      afford: n => this.afford(n),
    })
    if (!made) this.pieces = pieces
    return made
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

  /** Every copy by the plain evaluator. */
  private plainly(key: string, m: Meaning, checked: Checked, tracked: Tracked, bases: readonly Form[]): Made {
    const count = m.target.part === null ? 1 : this.instancesOf(m.target.part).count
    const pieces = lengthOf(checked.formula) * count
    if (!this.afford(pieces))
      throw new CannotRun(problem('heavy', { from: 0, to: m.source.text.length }, tooManyPieces(count, pieces)))
    const forms: Form[] = []
    const readers: Form[] = []
    this.begun.set(key, readers)
    const env = this.env(m, tracked)
    // Copies that read later ones are made from the last on.
    const last = checked.reads.some(r => r.type === 'property' && r.after)
    for (let n = 0; n < count; n++) {
      const i = last ? count - 1 - n : n
      forms[i] = compile(checked, env(i))
      readers[i] = guarded(forms[i], bases[i]!, this.measures.frameRate, this.queue)
    }
    return { forms, readers }
  }

  /** Takes so many pieces of formula off what a piece may have compiled; false where they don't fit. */
  private afford(pieces: number): boolean {
    if (this.pieces + pieces > MOST_PIECES) return false
    this.pieces += pieces
    return true
  }

  /** Surroundings for a formula at an instance, also for looking into its parts. */
  envFor(key: string, instance: number): Env {
    const m = this.meanings.all.get(key)!
    return this.env(m, nothingTracked())(instance)
  }

  private env(m: Meaning, tracked: Tracked): (instance: number) => Env {
    const read = (key: string, which: number): Form | null => {
      if (!this.meanings.all.has(key)) return null
      const begun = this.begun.get(key)
      if (begun) {
        // Of a slot that is being made, the copies before this one are there.
        const made = begun[which]
        if (made) return made
        const says = `${this.meanings.label(key)} reads itself in a circle of copies. Read the previous copy with before.`
        throw new CannotRun(problem('cycle', { from: 0, to: m.source.text.length }, says))
      }
      tracked.slots.add(key)
      return compiledOf(this.slot(key).readers[which]!)
    }
    return surroundings(this.ground, m, tracked, read)
  }

  /** What a property holds by hand at each instance, in base measure. */
  handForms(part: string, property: Property, beat: Beat = PIECE): readonly Form[] {
    return this.hands.of(part, property, this.instancesOf(part).count, beat)
  }

  /** The same as plain numbers, for what nothing drives. */
  handNumbers(part: string, property: Property): ReturnType<HandForms['numbers']> {
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
    const order = RunOrder.of(inOrder(this.slots, [key]), this.offsets)
    this.queue.settle(() => order.run(m, all))
    return all.subarray(slot.offset, slot.offset + slot.count)
  }

  private wholeOrder(): RunOrder {
    const slots = inOrder(this.slots, this.meanings.order)
    if (!this.lags?.stands(this.slots))
      this.lags = lagsOf(slots, s => runningIn(this.runs, s.key), timetableHost(this.runs, slots), this.lags)
    return RunOrder.of(slots, this.offsets, this.lags, this.batches.all)
  }

  private get runs(): Runs {
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

/** What reading a form takes of the program that it belongs to. */
export type Home = Pick<Program, 'measures' | 'queue'>

/** Moments at which a link of a chain that is tried may be read, at most. */
const MOST_MOMENTS = 2000

/** What a slot's formula is made into. */
type Made = Pick<Slot, 'forms' | 'readers'> | NonNullable<ReturnType<typeof compileInColumns>>

/** Whether all that is set by hand is as it was. */
const standsByHand = (was: Piece, is: Piece): boolean =>
  (['bases', 'parts', 'frameRate', 'lap'] as const).every(c => was[c] === is[c])

const isLight = ({ problems }: Slot): boolean => problems.length === 0 || !problems.some(p => p.code === 'heavy')

const sound = (c: Checked | null) => c !== null && !c.problems.some(p => p.level === 'error')
