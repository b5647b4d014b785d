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
import { ONE, fromNumber, rational, times, toNumber, type Rational } from '../time/rational.ts'
import type { Measures } from '../units/units.ts'
import { slipKey, type Dialled, type Run } from '../form/dialled.ts'
import { compile } from './compile.ts'
import { CannotRun, dialForm, handForm, stop, type Env } from './env.ts'
import { gearing } from '../piece/gearing.ts'
import { channelOf } from './channels.ts'
import { Keeps } from './keeps.ts'
import { fixed, type Form } from '../form/form.ts'
import { guarded } from '../form/guarded.ts'
import { limited } from '../form/working.ts'
import { copyWords, indicesOf, instanceRead, instancesOf, type Instances } from './instances.ts'
import { Meanings, runningFormula, signalKey, type Meaning, type Running } from './meaning.ts'
import { tooHeavy, tooMuch, unmade, weightsOf } from './weight.ts'
import { Times, measuresOf, windowsOf } from './words.ts'
import { PIECE, type Beat } from '../form/beat.ts'
import { spotOf } from './whereabouts.ts'
import { dialsOfClock, lostBy } from '../form/clock.ts'
import type { Pace, Slot } from './slot.ts'
import { NO_MARKS, withLive, type Live } from './live.ts'
import { HandForms } from './keys.ts'
import { problem } from '../formula/problem.ts'
import { Marks } from '../signal/marks.ts'
import { wavesOf } from '../signal/waves.ts'

export class Program {
  readonly measures: Measures
  readonly meanings: Meanings
  readonly slots = new Map<string, Slot>()
  /** How many values a snapshot holds. */
  readonly size: number
  private readonly lapStart: Rational
  private readonly instances = new Map<string, Instances>()
  private readonly times: Times
  private readonly hands: HandForms
  /** What would take too long, and why: it holds its hand value. */
  resting: ReadonlyMap<string, string>
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
    if (only !== null) {
      const m = this.meanings.all.get(only)
      if (m) this.slot(only, m, offsets, new Keeps(this, before))
      return
    }
    this.makeAll(offsets, before)
    const heavy = tooMuch(weightsOf(this.slots.values()))
    if (heavy.length === 0) return
    this.resting = new Map([...this.resting, ...heavy.map(w => [w.slot.key, tooHeavy(w)] as const)])
    this.slots.clear()
    this.makeAll(offsets, before)
  }

  private makeAll(offsets: ReadonlyMap<string, number>, before: Program | null): void {
    const keeps = new Keeps(this, before)
    for (const key of this.meanings.order) this.slot(key, this.meanings.all.get(key)!, offsets, keeps)
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
        const env = this.env(m, tracked, slotOf)
        for (let i = 0; i < count; i++) {
          forms.push(compile(checked, env(i)))
          readers.push(guarded(forms[i]!, bases[i]!, this.measures.frameRate))
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
    return this.env(m, { paces: new Map(), dials: new Set(), slots: new Set() }, k => this.slots.get(k)!)(instance)
  }

  /** Surroundings for a formula, instance by instance; what all instances share is made once. */
  private env(
    m: Meaning,
    tracked: { paces: Map<string, Pace>; dials: Set<string>; slots: Set<string> },
    slotOf: (key: string) => Slot,
  ): (instance: number) => Env {
    const { piece, measures } = this
    const { part, property } = m.target
    const here = part === null ? { levels: [], count: 1 } : this.instancesOf(part)
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
    const formOf = (of: string, name: string, which: number): Form =>
      read(propertyKey(of, name), which) ?? this.handForms(of, propertyNamed(name)!)[which]!
    const span = part === null ? null : piece.parts[part]!.span
    const windows = windowsOf(piece, measures, this.lapStart)
    const partOf = (of: string, near: boolean): string =>
      near ? (relative(piece, of, part) as string) : this.meanings.names.named(of)!.id
    const shared: Omit<Env, 'place' | 'builtin' | 'property' | 'spot' | 'seed'> = {
      ...measures,
      lapStart: this.lapStart,
      slip: (dials: Dialled, pace: Rational, run: Run) => {
        const key = slipKey(dials, run)
        tracked.paces.set(key, { pace, run: run.at })
        return fromNumber(piece.slips[key] ?? 0)
      },
      clock: name => {
        const { id } = this.meanings.names.named(name)!
        const lost = lostBy(piece, id)
        if (lost)
          return stop(
            'unknown-name',
            { from: 0, to: m.source.text.length },
            `The clock ${name} follows ${lost} that is not there.`,
          )
        for (const dial of dialsOfClock(piece, id)) tracked.dials.add(dial)
        return this.times.beat(id)
      },
      cue: name => {
        const { marks, every } = this.times.piece.cues[this.meanings.names.named(name)!.id]!
        return new Marks(marks, every)
      },
      gear: name => {
        const other = this.meanings.names.named(name)!.id
        return { rotation: formOf(other, 'rotation', 0), ...gearing(piece, other, part!) }
      },
      surface: name => {
        const { id } = this.meanings.names.named(name)!
        const { shape } = piece.parts[id]!
        const waves = shape.type === 'waves' ? wavesOf(shape, toNumber(measures.lapLength)) : []
        return { waves, swell: formOf(id, 'swell', 0), crest: formOf(id, 'crest', 0) }
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
      feature: (of, name, near) => {
        const found = partOf(of, near)
        const feature = featureOf(piece, found, name)
        return feature && ('setting' in feature ? feature : { part: found, property: feature.name })
      },
    }
    return instance => {
      const indices = indicesOf(here, instance)
      let copies: ReturnType<typeof copyWords> | undefined
      return {
        ...shared,
        place: here.count > 1 ? `${m.key}.${instance}` : m.key,
        builtin: (name, beat) => {
          const copy = (copies ??= copyWords(piece, here, instance)).get(name)
          if (copy) return fixed(copy, measures.frameRate)
          if (name === 'base') return this.handForms(part!, property!, beat)[instance]!
          if (span && name === 'spanStart') return handForm(span.from, rational(1), measures.frameRate)
          if (span && name === 'spanEnd') return handForm(span.to, rational(1), measures.frameRate)
          return this.times.words(beat).get(name)!
        },
        property: (of, name, copy) => {
          const there = this.instancesOf(of)
          if (copy === 'before' && indices.at(-1) === 0) return this.handForms(of, propertyNamed(name)!)[instance]!
          const which = copy === 'before' ? instance - 1 : instanceRead(here, instance, there, copy)
          if (which === null) return null
          return formOf(of, name, which)
        },
        spot: (of, near, copy) => {
          const id = partOf(of, near)
          const which = instanceRead(here, instance, this.instancesOf(id), copy)
          if (which === null) return null
          return spotOf(piece, formOf, id, which)
        },
        seed: (name, nth, forAll = false) =>
          nth < 0 ? seedOf('shared', name) : seedOf(m.source.seed, name, nth, ...(forAll ? [] : indices)),
      }
    }
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
