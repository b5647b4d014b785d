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
import type { Form } from '../form/form.ts'
import { guarded } from '../form/guarded.ts'
import { limited, workedOut } from '../form/working.ts'
import type { Instances } from './instances.ts'
import { compiledOf } from './deferred.ts'
import { compileInColumns, surroundingsOf } from './in-columns.ts'
import { Varying } from './plan/varies.ts'
import { Meanings, runningFormula, type Meaning, type Running } from './meaning.ts'
import { MOST_PIECES, lengthOf, tooHeavy, tooManyPieces, tooMuch, weightsOf } from './weight.ts'
import { Times, measuresOf } from './words.ts'
import { PIECE, type Beat } from '../form/beat.ts'
import { RunOrder } from './run-order.ts'
import { movedSlot, plainSlot, slotInColumns, type Slot } from './slot.ts'
import { groundOf, nothingTracked, surroundings, type Ground, type Tracked } from './surroundings.ts'
import { NO_MARKS, withLive, type Live } from './live.ts'
import { HandForms } from './keys.ts'
import { problem } from '../formula/problem.ts'

export class Program {
  readonly measures: Measures
  readonly meanings: Meanings
  readonly slots = new Map<string, Slot>()
  /** How many values a snapshot holds. */
  readonly size: number
  readonly lapStart: Rational
  private readonly instances: Map<string, Instances>
  readonly times: Times
  private readonly hands: HandForms
  /** What would take too long, and why: it holds its hand value. */
  resting: ReadonlyMap<string, string> = new Map()
  /** What formulas find around them; it holds no slots. */
  private readonly ground: Ground
  /** Pieces of formula that are compiled in all, those of every copy counted. */
  private pieces = 0
  private runOrder: RunOrder | null = null
  /** Where each slot begins in a snapshot. */
  private readonly offsets: ReadonlyMap<string, number>
  /** While slots are made: which stand as they were before. */
  private making: Keeps | null = null
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
    this.hands = before && standsByHand(before.piece, piece) ? before.hands : new HandForms(piece, this.measures)
    this.lapStart = fromNumber(piece.lap.start)
    this.instances = before?.piece.parts === piece.parts ? before.instances : new Map()
    this.meanings = new Meanings(piece, before?.meanings ?? null)
    this.times = new Times(withLive(piece, live), this.measures, this.lapStart)
    this.ground = groundOf(piece, this, this.instances, this.hands)
    let size = 0
    const offsets = new Map<string, number>()
    for (const [key, m] of this.meanings.all) {
      if (m.target.part === null) continue
      offsets.set(key, size)
      size += this.instancesOf(m.target.part).count
    }
    this.size = size
    this.offsets = offsets
    if (only === null) this.complete(before)
    else if (this.meanings.all.has(only)) this.make([only], before)
  }

  /** Makes all that is not made yet. A trial that has proved itself becomes the program this way. */
  complete(before: Program | null): this {
    this.make(this.meanings.order, before)
    const heavy = tooMuch(weightsOf(this.slots.values()))
    if (heavy.length === 0) return this
    this.resting = new Map([...this.resting, ...heavy.map(w => [w.slot.key, tooHeavy(w)] as const)])
    this.slots.clear()
    this.pieces = 0
    this.make(this.meanings.order, before)
    return this
  }

  private make(keys: Iterable<string>, before: Program | null): void {
    this.making = new Keeps(this, before)
    for (const key of keys) this.slot(key)
    // What is made may ask for others as long as it lives: it must not hold the program before by that.
    this.making = null
    this.runOrder = null
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
    const slot = kept ?? this.build(key, this.meanings.all.get(key)!, offset)
    if (kept) this.pieces += kept.pieces
    this.slots.set(key, slot)
    return slot
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
        return this.inColumns(key, m, checked, tracked, bases) ?? this.plainly(key, m, checked, tracked, bases)
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
    made ??= { forms: bases, readers: bases.map(f => guarded(f, f, this.measures.frameRate)) }
    const chained = runningFormula(m)?.reads.some(r => r.type === 'property' && r.before) ?? false
    const known = { key, running, problems, ...tracked, chained, pieces: this.pieces - before }
    return 'plan' in made ? slotInColumns(known, made.plan, made.copies, offset) : plainSlot(known, made, offset)
  }

  /** All copies as columns; null where that takes the plain evaluator, or is not worth it. */
  private inColumns(key: string, m: Meaning, checked: Checked, tracked: Tracked, bases: readonly Form[]): Made | null {
    const { pieces } = this
    // What reads its own copies is left to the plain evaluator, which makes them one after another.
    this.begun.set(key, [])
    const made = compileInColumns(m, checked, tracked, bases, {
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
      readers[i] = guarded(forms[i], bases[i]!, this.measures.frameRate)
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
        const says = `${this.meanings.label(key)} reads itself in a circle of copies. Read the copy before with before.`
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
    this.runOrder ??= this.runOrderOf(this.meanings.order)
    const { runOrder } = this
    limited(() => runOrder.run(m, out))
    return out
  }

  /** All copies of one driven value, or a signal, at a moment; nothing is left pending. */
  copiesAt(key: string, m: Moment): Float64Array {
    const slot = this.slots.get(key)!
    if (!slot.plan) return Float64Array.from(slot.readers, r => workedOut(() => r.at(m)))
    const all = new Float64Array(this.size)
    const order = this.runOrderOf([key])
    workedOut(() => order.run(m, all))
    return all.subarray(slot.offset, slot.offset + slot.count)
  }

  /** Slots and all that they read, each after what it reads: a column is read from what others have written. */
  private runOrderOf(keys: readonly string[]): RunOrder {
    const slots = new Set<Slot>()
    const add = (key: string): void => {
      const slot = this.slots.get(key)
      if (!slot || slots.has(slot)) return
      // What runs may read others than what is written does: the order of the texts is not enough.
      for (const other of slot.slots) add(other)
      slots.add(slot)
    }
    for (const key of keys) add(key)
    return new RunOrder([...slots], this.offsets)
  }

  /** One driven property of one instance at many moments. */
  stretch(
    key: string,
    instance: number,
    moments: readonly Moment[],
    out = new Float64Array(moments.length),
  ): Float64Array {
    const reader = this.slots.get(key)!.readers[instance]!
    for (let i = 0; i < moments.length; i++) out[i] = reader.at(moments[i]!)
    return out
  }
}

/** What a slot's formula is made into. */
type Made = Pick<Slot, 'forms' | 'readers'> | NonNullable<ReturnType<typeof compileInColumns>>

/** Whether all that is set by hand is as it was. */
const standsByHand = (was: Piece, is: Piece): boolean =>
  (['bases', 'parts', 'frameRate', 'lap'] as const).every(c => was[c] === is[c])

const sound = (c: Checked | null) => c !== null && !c.problems.some(p => p.level === 'error')
