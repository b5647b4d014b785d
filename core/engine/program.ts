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
import { limited } from '../form/working.ts'
import { instancesOf, type Instances } from './instances.ts'
import { Meanings, runningFormula, type Meaning, type Running } from './meaning.ts'
import { tooHeavy, tooMuch, unmade, weightsOf } from './weight.ts'
import { Times, measuresOf } from './words.ts'
import { PIECE, type Beat } from '../form/beat.ts'
import type { Slot } from './slot.ts'
import { surroundings, type Tracked } from './surroundings.ts'
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
  resting: ReadonlyMap<string, string>
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
    this.hands = new HandForms(piece, this.measures)
    this.lapStart = fromNumber(piece.lap.start)
    this.instances = before?.piece.parts === piece.parts ? before.instances : new Map()
    this.meanings = new Meanings(piece, before?.meanings ?? null)
    this.times = new Times(withLive(piece, live), this.measures, this.lapStart)
    let size = 0
    const offsets = new Map<string, number>()
    for (const [key, m] of this.meanings.all) {
      if (m.target.part === null) continue
      offsets.set(key, size)
      size += this.instancesOf(m.target.part).count
    }
    this.size = size
    this.resting = unmade(this.meanings, part => this.instancesOf(part).count)
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
    this.make(this.meanings.order, before)
    return this
  }

  private make(keys: Iterable<string>, before: Program | null): void {
    this.making = new Keeps(this, before)
    for (const key of keys) this.slot(key)
    // What is made may ask for others as long as it lives: it must not hold the program before by that.
    this.making = null
  }

  instancesOf(part: string): Instances {
    let found = this.instances.get(part)
    if (!found) this.instances.set(part, (found = instancesOf(this.piece, part)))
    return found
  }

  private readonly slot = (key: string): Slot => {
    const made = this.slots.get(key)
    if (made) return made
    const offset = this.offsets.get(key) ?? -1
    const old = this.making!.slot(key)
    // One that stands as it was is the very same object, so that whoever shows it need not look again.
    const kept = old && (old.offset === offset ? old : { ...old, offset })
    const slot = kept ?? this.build(key, this.meanings.all.get(key)!, offset)
    this.slots.set(key, slot)
    return slot
  }

  private build(key: string, m: Meaning, offset: number): Slot {
    const tracked = nothingYet()
    tracked.hands.add(key)
    const problems = [...m.problems]
    const bases =
      m.target.part === null
        ? [handForm(0, ONE, this.measures.frameRate)]
        : this.handForms(m.target.part, m.target.property!)
    const attempt = (checked: Checked | null, report: boolean): Pick<Slot, 'forms' | 'readers'> | null => {
      if (!checked) return null
      try {
        const count = m.target.part === null ? 1 : this.instancesOf(m.target.part).count
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
    return { key, ...made, running, problems, ...tracked, chained, offset }
  }

  /** Surroundings for a formula at an instance, also for looking into its parts. */
  envFor(key: string, instance: number): Env {
    const m = this.meanings.all.get(key)!
    return this.env(m, nothingYet())(instance)
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
      return this.slot(key).readers[which]!
    }
    return surroundings(this, m, tracked, read)
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
    limited(() => {
      for (const { offset, readers } of this.slots.values())
        if (offset >= 0) for (let i = 0; i < readers.length; i++) out[offset + i] = readers[i]!.at(m)
    })
    return out
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

const sound = (c: Checked | null) => c !== null && !c.problems.some(p => p.level === 'error')

const nothingYet = (): Tracked => ({ paces: new Map(), dials: new Set(), slots: new Set(), hands: new Set() })
