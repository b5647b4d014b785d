/** Makes the slots of a program: each formula compiled, in columns where it can be, with all that it hangs on. */
import type { Checked } from '../formula/check.ts'
import { problem } from '../formula/problem.ts'
import type { CompiledExpression } from '../form/compiled-expression.ts'
import { withFallback } from '../form/with-fallback.ts'
import { ONE } from '../time/rational.ts'
import type { BatchLane } from './batches.ts'
import { compile } from './compile.ts'
import { compiledOf, DeferredCopies } from './deferred.ts'
import { CannotRun, setValueExpression, type Env } from './env.ts'
import { compileInColumns, FormulaCopies } from './in-columns.ts'
import { readKeys, runningFormula, type Meaning, type RunningText } from './meaning.ts'
import { plainSlot, SlotInColumns, type Slot } from './slot.ts'
import { nothingTracked, surroundings, type Ground, type Tracked } from './surroundings.ts'
import { MOST_PIECES, lengthOf, tooManyPieces } from './weight.ts'

/** What a slot's formula is made into. */
type Made = Pick<Slot, 'forms' | 'readers'> | NonNullable<ReturnType<typeof compileInColumns>>

export class SlotMaker {
  /** Pieces of formula that are compiled in all, those of every copy counted. */
  pieces = 0
  /** Readers of the slots that are being made. */
  private readonly begun = new Map<string, CompiledExpression[]>()

  /** @param slot the slot of a driven property or signal, made if it is not yet */
  constructor(
    private readonly ground: Ground,
    private readonly slot: (key: string) => Slot,
  ) {}

  /** A drive that is run with others of its shape. */
  lane(m: Meaning, { batch }: BatchLane, own: object, offset: number): Slot {
    const { ground } = this
    const { meanings } = ground
    const { operations, shared } = batch
    const checked = runningFormula(m)!
    const keys = readKeys(checked)
    const read = keys.length > 0 || shared.slots.size > 0 ? new Map<string, Slot>() : NOTHING_READ
    const setValueKeys = [m.key, ...shared.setValueKeys]
    for (const key of [...shared.slots, ...keys]) {
      if (meanings.all.has(key)) read.set(key, this.slot(key))
      else setValueKeys.push(key)
    }
    const known = {
      key: m.key,
      own,
      running: m.running,
      problems: m.problems,
      paces: shared.paces,
      dials: shared.dials,
      slots: read === NOTHING_READ ? shared.slots : new Set(read.keys()),
      setValueKeys,
      chained: false,
      pieces: 0,
    }
    const copies = new DeferredCopies(new FormulaCopies(m, checked, ground, read))
    return new SlotInColumns(known, null, operations, copies, offset)
  }

  /** Surroundings in which what many drives hang on alike is noted, and not what one of them links to. */
  readonly sharedEnv = (m: Meaning, tracked: Tracked): Env => {
    const { property } = this.env(m, nothingTracked())(0)
    return { ...this.env(m, tracked)(0), property }
  }

  /** @param says why it rests; undefined where it runs */
  make(m: Meaning, own: object, offset: number, says?: string): Slot {
    const { ground } = this
    const { key } = m
    const tracked = nothingTracked()
    tracked.setValueKeys.add(key)
    const problems = [...m.problems]
    const before = this.pieces
    const bases =
      m.target.part === null
        ? [setValueExpression(0, ONE, ground.measures.frameRate)]
        : ground.handForms(m.target.part, m.target.property!)
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
    if (says !== undefined) problems.push(problem('heavy', { from: 0, to: m.source.text.length }, says))
    let running: RunningText = says === undefined ? m.running : 'base'
    let made = running === 'base' ? null : attempt(runningFormula(m), running === 'text')
    if (!made && running === 'text' && m.source.good !== m.source.text && sound(m.good)) {
      running = 'good'
      made = attempt(m.good, false)
    }
    if (!made && running !== 'off') running = 'base'
    made ??= { forms: bases, readers: bases.map(f => withFallback(f, f, ground.measures.frameRate, ground.queue)) }
    const chained = runningFormula(m)?.reads.some(r => r.type === 'property' && r.before) ?? false
    const known = {
      key,
      own,
      running,
      problems,
      ...tracked,
      setValueKeys: [...tracked.setValueKeys],
      chained,
      pieces: this.pieces - before,
    }
    return 'plan' in made
      ? new SlotInColumns(known, made.plan, null, made.copies, offset)
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
      envOf: of => this.env(of, nothingTracked()),
      slot: of => (!this.ground.meanings.all.has(of) ? null : this.begun.has(of) ? 'being made' : this.slot(of)),
      afford: n => this.afford(n),
    })
    if (!made) this.pieces = pieces
    return made
  }

  /** Every copy by the plain evaluator. */
  private plainly(
    key: string,
    m: Meaning,
    checked: Checked,
    tracked: Tracked,
    bases: readonly CompiledExpression[],
  ): Made {
    const count = m.target.part === null ? 1 : this.ground.instancesOf(m.target.part).count
    const pieces = lengthOf(checked.formula) * count
    if (!this.afford(pieces))
      throw new CannotRun(problem('heavy', { from: 0, to: m.source.text.length }, tooManyPieces(count, pieces)))
    const forms: CompiledExpression[] = []
    const readers: CompiledExpression[] = []
    this.begun.set(key, readers)
    const env = this.env(m, tracked)
    // Copies that read later ones are made from the last on.
    const last = checked.reads.some(r => r.type === 'property' && r.after)
    for (let n = 0; n < count; n++) {
      const i = last ? count - 1 - n : n
      forms[i] = compile(checked, env(i))
      readers[i] = withFallback(forms[i], bases[i]!, this.ground.measures.frameRate, this.ground.queue)
    }
    return { forms, readers }
  }

  /** Takes so many pieces of formula off what a piece may have compiled; false where they don't fit. */
  private afford(pieces: number): boolean {
    if (this.pieces + pieces > MOST_PIECES) return false
    this.pieces += pieces
    return true
  }

  /** Surroundings of a formula, instance by instance; `tracked` notes what it hangs on. */
  env(m: Meaning, tracked: Tracked): (instance: number) => Env {
    const { meanings } = this.ground
    const read = (key: string, which: number): CompiledExpression | null => {
      if (!meanings.all.has(key)) return null
      const begun = this.begun.get(key)
      if (begun) {
        // Of a slot that is being made, the copies before this one are there.
        const made = begun[which]
        if (made) return made
        const says = `${meanings.label(key)} reads itself in a circle of copies. Read the previous copy with before.`
        throw new CannotRun(problem('cycle', { from: 0, to: m.source.text.length }, says))
      }
      tracked.slots.add(key)
      return compiledOf(this.slot(key).readers[which]!)
    }
    return surroundings(this.ground, m, tracked, read)
  }
}

const NOTHING_READ = new Map<string, Slot>()

const sound = (c: Checked | null) => c !== null && !c.problems.some(p => p.level === 'error')
