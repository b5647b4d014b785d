/**
 * A piece made ready to run: every driven property of every instance has a form, and a snapshot holds all
 * their values at one moment. A program is made anew for each change of the piece and takes over from the
 * one before what the change does not reach.
 */
import type { Checked } from '../formula/check.ts'
import { dialUnit, featureOf, relative } from '../formula/scope.ts'
import { propertyKey, type Piece } from '../piece/schema.ts'
import { propertyNamed, type Property } from '../piece/properties.ts'
import { seedOf } from '../signal/hash.ts'
import type { Moment } from '../time/moment.ts'
import { fromNumber, rational, times, toNumber, type Rational } from '../time/rational.ts'
import type { Measures } from '../units/units.ts'
import { slipKey, type Dialled, type Run } from '../form/dialled.ts'
import { compile } from './compile.ts'
import { CannotRun, dialForm, handForm, type Env } from './env.ts'
import { gearing } from '../piece/gearing.ts'
import { channelOf } from './channels.ts'
import { Keeps } from './keeps.ts'
import { fixed, type Form } from '../form/form.ts'
import { guarded } from '../form/guarded.ts'
import { copyWords, indicesOf, instanceRead, instancesOf, type Instances } from './instances.ts'
import { Meanings, runningFormula, signalKey, type Meaning } from './meaning.ts'
import { timeWords, windowsOf } from './words.ts'
import { PIECE, type Beat } from '../form/beat.ts'
import { applyX, applyY } from '../piece/transform.ts'
import { whereabouts } from './whereabouts.ts'
import { beatOf, dialsOfClock } from '../form/clock.ts'
import type { Pace, Slot } from './slot.ts'
import { NO_MARKS, withLive, type Live } from './live.ts'
import { handFormsOf } from './keys.ts'
import { problem } from '../formula/problem.ts'
import { Marks } from '../signal/marks.ts'
import { wavesOf } from '../signal/waves.ts'

export const measuresOf = (piece: Piece): Measures => ({
  frameRate: rational(piece.frameRate.n, piece.frameRate.d),
  lapLength: rational(piece.lap.length.n, piece.lap.length.d),
})

export class Program {
  readonly measures: Measures
  readonly meanings: Meanings
  readonly slots = new Map<string, Slot>()
  /** How many values a snapshot holds. */
  readonly size: number
  /** The piece with the live marks on its cues. */
  private readonly marked: Piece
  private readonly lapStart: Rational
  private readonly instances = new Map<string, Instances>()
  /** The time words on each clock that is read. */
  private readonly words: Map<Beat, ReadonlyMap<string, Form>>
  private readonly beats = new Map<string, Beat>()
  /** Readers of the slots that are being made. */
  private readonly begun = new Map<string, Form[]>()

  constructor(
    readonly piece: Piece,
    before: Program | null = null,
    /** Marks tapped in this session, which the piece does not hold. */
    readonly live: Live = before?.live ?? NO_MARKS,
  ) {
    this.marked = withLive(piece, live)
    this.measures = measuresOf(piece)
    this.lapStart = fromNumber(piece.lap.start)
    this.meanings = new Meanings(piece, before?.meanings ?? null)
    this.words = new Map([[PIECE, timeWords(piece, this.measures, this.lapStart, PIECE)]])
    let size = 0
    const offsets = new Map<string, number>()
    for (const [key, m] of this.meanings.all) {
      if (m.target.part === null) continue
      offsets.set(key, size)
      size += this.instancesOf(m.target.part).count
    }
    this.size = size
    const keeps = new Keeps(this, before)
    for (const [key, m] of this.meanings.all) this.slot(key, m, offsets, keeps)
  }

  instancesOf(part: string): Instances {
    let found = this.instances.get(part)
    if (!found) this.instances.set(part, (found = instancesOf(this.piece, part)))
    return found
  }

  private slot(key: string, m: Meaning, offsets: ReadonlyMap<string, number>, keeps: Keeps): Slot {
    const made = this.slots.get(key)
    if (made) return made
    const offset = offsets.get(key) ?? -1
    const old = keeps.slot(key)
    // One that stands as it was is the very same object, so that whoever shows it need not look again.
    const kept = old && (old.offset === offset ? old : { ...old, offset })
    const slot = kept ?? this.build(key, m, offset, k => this.slot(k, this.meanings.all.get(k)!, offsets, keeps))
    this.slots.set(key, slot)
    return slot
  }

  private build(key: string, m: Meaning, offset: number, slotOf: (key: string) => Slot): Slot {
    const tracked = { paces: new Map<string, Pace>(), dials: new Set<string>(), slots: new Set<string>() }
    const problems = [...m.problems]
    const bases = m.target.part === null ? [zero(this.measures)] : this.handForms(m.target.part, m.target.property!)
    const attempt = (checked: Checked | null, report: boolean): Form[] | null => {
      if (!checked) return null
      try {
        const count = m.target.part === null ? 1 : this.instancesOf(m.target.part).count
        const forms: Form[] = []
        const readers: Form[] = []
        this.begun.set(key, readers)
        for (let i = 0; i < count; i++) {
          forms.push(compile(checked, this.env(m, i, tracked, slotOf)))
          readers.push(guarded(forms[i]!, bases[i]!, this.measures.frameRate))
        }
        return forms
      } catch (e) {
        if (!(e instanceof CannotRun)) throw e
        if (report) problems.push(e.problem)
        return null
      } finally {
        this.begun.delete(key)
      }
    }
    let running = m.running
    let forms = attempt(runningFormula(m), running === 'text')
    if (!forms && running === 'text' && m.source.good !== m.source.text && sound(m.good)) {
      running = 'good'
      forms = attempt(m.good, false)
    }
    if (!forms && running !== 'off') running = 'base'
    const used = forms ?? bases
    const readers = used.map((f, i) => guarded(f, bases[i]!, this.measures.frameRate))
    return { key, forms: used, readers, running, problems, ...tracked, offset }
  }

  /** Surroundings for a formula at an instance, also for looking into its parts. */
  envFor(key: string, instance: number): Env {
    const m = this.meanings.all.get(key)!
    return this.env(m, instance, { paces: new Map(), dials: new Set(), slots: new Set() }, k => this.slots.get(k)!)
  }

  private env(
    m: Meaning,
    instance: number,
    tracked: { paces: Map<string, Pace>; dials: Set<string>; slots: Set<string> },
    slotOf: (key: string) => Slot,
  ): Env {
    const { piece, measures } = this
    const { part, property } = m.target
    const here = part === null ? { levels: [], count: 1 } : this.instancesOf(part)
    let copies: ReturnType<typeof copyWords> | undefined
    const indices = indicesOf(here, instance)
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
      return slotOf(key).readers[which]!
    }
    const span = part === null ? null : piece.parts[part]!.span
    const windows = windowsOf(piece, measures, this.lapStart)
    const partOf = (of: string, near: boolean): string =>
      near ? (relative(piece, of, part) as string) : this.meanings.names.named(of)!.id
    return {
      ...measures,
      lapStart: this.lapStart,
      place: here.count > 1 ? `${m.key}.${instance}` : m.key,
      slip: (dials: Dialled, pace: Rational, run: Run) => {
        const key = slipKey(dials, run)
        tracked.paces.set(key, { pace, run: run.at })
        return fromNumber(piece.slips[key] ?? 0)
      },
      builtin: (name, beat) => {
        const copy = (copies ??= copyWords(piece, here, instance)).get(name)
        if (copy) return fixed(copy, measures.frameRate)
        if (name === 'base') return this.handForms(part!, property!, beat)[instance]!
        if (span && name === 'spanStart') return handForm(span.from, rational(1), measures.frameRate)
        if (span && name === 'spanEnd') return handForm(span.to, rational(1), measures.frameRate)
        return this.wordsOn(beat).get(name)!
      },
      clock: name => {
        const { id } = this.meanings.names.named(name)!
        for (const dial of dialsOfClock(piece, id)) tracked.dials.add(dial)
        return this.beat(id)
      },
      cue: name => {
        const { marks, every } = this.marked.cues[this.meanings.names.named(name)!.id]!
        return new Marks(marks, every)
      },
      gear: name => {
        const other = this.meanings.names.named(name)!.id
        const rotation =
          read(propertyKey(other, 'rotation'), 0) ?? this.handForms(other, propertyNamed('rotation')!)[0]!
        return { rotation, ...gearing(piece, other, part!) }
      },
      surface: name => {
        const id = this.meanings.names.named(name)!.id
        const { shape } = piece.parts[id]!
        const of = (property: string) =>
          read(propertyKey(id, property), 0) ?? this.handForms(id, propertyNamed(property)!)[0]!
        const waves = shape.type === 'waves' ? wavesOf(shape, toNumber(measures.lapLength)) : []
        return { waves, swell: of('swell'), crest: of('crest') }
      },
      hasCurve: name => this.meanings.names.named(name)?.type === 'curve',
      channels: name => Object.keys(piece.curves[this.meanings.names.named(name)!.id]!.channels),
      curve: (name, channel) => channelOf(piece, this.meanings.names.named(name)!.id, channel, measures),
      windows: { ...windows, span: span ? [fromNumber(span.from), fromNumber(span.to)] : windows.lap },
      dial: id => {
        tracked.dials.add(id)
        const dial = piece.dials[id]!
        return dialForm(
          id,
          times(fromNumber(dial.value), dialUnit(dial.unit)?.size(measures) ?? rational(1)),
          measures.frameRate,
        )
      },
      signal: id => read(signalKey(id), 0)!,
      property: (of, name, copy) => {
        const there = this.instancesOf(of)
        if (copy === 'before' && indices.at(-1) === 0) return this.handForms(of, propertyNamed(name)!)[instance]!
        const which = copy === 'before' ? instance - 1 : instanceRead(here, instance, there, copy)
        if (which === null) return null
        return read(propertyKey(of, name), which) ?? this.handForms(of, propertyNamed(name)!)[which]!
      },
      feature: (of, name, near) => {
        const found = partOf(of, near)
        const feature = featureOf(piece, found, name)
        return feature && ('setting' in feature ? feature : { part: found, property: feature.name })
      },
      spot: (of, near, copy) => {
        const id = partOf(of, near)
        const which = instanceRead(here, instance, this.instancesOf(id), copy)
        if (which === null) return null
        const formOf = (p: string, property: string, i: number) =>
          read(propertyKey(p, property), i) ?? this.handForms(p, propertyNamed(property)!)[i]!
        const there = whereabouts(piece, formOf, id, which)
        return {
          x: (m, dx, dy) => applyX(there.at(m), dx, dy),
          y: (m, dx, dy) => applyY(there.at(m), dx, dy),
          pivot: piece.parts[id]!.pivot,
          of: there.of,
        }
      },
      seed: (name, nth, forAll = false) =>
        nth < 0 ? seedOf('shared', name) : seedOf(m.source.seed, name, nth, ...(forAll ? [] : indices)),
    }
  }

  private beat(clock: string): Beat {
    let found = this.beats.get(clock)
    if (!found) this.beats.set(clock, (found = beatOf(this.marked, clock)))
    return found
  }

  private wordsOn(beat: Beat): ReadonlyMap<string, Form> {
    let found = this.words.get(beat)
    if (!found) this.words.set(beat, (found = timeWords(this.piece, this.measures, this.lapStart, beat)))
    return found
  }

  /** What a property holds by hand at each instance, in base measure. */
  handForms(part: string, property: Property, beat: Beat = PIECE): Form[] {
    return handFormsOf(this.piece, this.measures, part, property, this.instancesOf(part).count, beat)
  }

  /** All driven values at a moment, written into `out` (of length `size`). */
  moment(m: Moment, out: Float64Array): Float64Array {
    for (const slot of this.slots.values()) {
      if (slot.offset < 0) continue
      for (let i = 0; i < slot.readers.length; i++) out[slot.offset + i] = slot.readers[i]!.at(m)
    }
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

  /** Every pace made of dials that runs, by the key of its slip. */
  paces(): Map<string, Pace> {
    return new Map([...this.slots.values()].flatMap(s => [...s.paces]))
  }
}

const sound = (c: Checked | null) => c !== null && !c.problems.some(p => p.level === 'error')
const zero = (m: Measures) => handForm(0, rational(1), m.frameRate)
