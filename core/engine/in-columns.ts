/** The copies of a part run in columns: their plan, and their expressions for when something asks for one copy. */
import { propertyKey } from '../piece/drive-key.ts'
import type { Checked } from '../formula/check.ts'
import type { CompiledExpression } from '../form/compiled-expression.ts'
import { withFallback } from '../form/with-fallback.ts'
import { propertyNamed } from '../piece/properties.ts'
import type { Piece } from '../piece/schema.ts'
import { compile } from './compile.ts'
import { compiledOf, DeferredCopies, type CopySource } from './deferred.ts'
import { CannotRun, type Env } from './env.ts'
import { copyWordOfAll, instancesRead } from './instances.ts'
import { runningFormula, type Meaning } from './meaning.ts'
import { PlannerOfCopies, type Host } from './plan/planner-of-copies.ts'
import { planOf, type Plan } from './plan/plan.ts'
import type { Surroundings } from './plan/varies.ts'
import { exactOn, type Slot } from './slot.ts'
import { nothingTracked, surroundings, type Ground, type Tracked } from './surroundings.ts'

/** Copies from which on they are run in columns. */
const FEW = 4
/** The same where some of what they are made of has no kernel. */
const MANY = 256

/** What is asked of the program while it is made. */
export interface ColumnsContext {
  readonly ground: Ground
  readonly env: (instance: number) => Env
  /** The slot of a driven property, made if it is not yet; null where there is none, or it is being made itself. */
  readonly slot: (key: string) => Slot | 'being made' | null
  /** The surroundings of a formula that is followed from another, whose slot notes what that hangs on. */
  readonly envOf: (m: Meaning) => (instance: number) => Env
  /** Takes so many pieces of formula off what a piece may have compiled; false where they don't fit. */
  readonly afford: (pieces: number) => boolean
}

/** All copies as columns; null where that takes the plain evaluator, or is not worth it. */
export function compileInColumns(
  m: Meaning,
  checked: Checked,
  tracked: Tracked,
  making: ColumnsContext,
): { readonly plan: Plan; readonly copies: DeferredCopies } | null {
  const { ground, env, slot } = making
  const { part } = m.target
  const count = part === null ? 0 : ground.instancesOf(part).count
  if (count < FEW || readsItself(m, checked)) return null
  const host = hostOf(m, tracked, making)
  const plan = planOf(checked, count, lanes => new PlannerOfCopies(checked, env, lanes, host))
  // Of few copies those that need expressions of their own are read by these alone.
  if (!plan || (!plan.isWhole && count < MANY)) return null
  const read = new Map<string, Slot>()
  for (const key of tracked.slots) {
    const found = slot(key)
    if (found && found !== 'being made') read.set(key, found)
  }
  return { plan, copies: new DeferredCopies(new FormulaCopies(m, checked, ground, read)) }
}

/** What a plan of copies reads of the program. */
function hostOf(m: Meaning, tracked: Tracked, making: ColumnsContext): Host {
  const { ground, slot, afford, envOf } = making
  const { piece } = ground
  const here = ground.instancesOf(m.target.part!)
  return {
    ...surroundingsOf(m, piece, of => ground.instancesOf(of).count),
    copyWord: name => copyWordOfAll(piece, here, name),
    hasFormula: key => {
      const found = slot(key)
      if (found === null || found === 'being made') return found ? null : false
      tracked.slots.add(key)
      return true
    },
    exact: (key, instances) => exactOn(slot(key) as Slot, instances),
    read: (of, instances, copy) => instancesRead(here, instances, ground.instancesOf(of), copy),
    held: (of, name) => {
      tracked.setValueKeys.add(propertyKey(of, name))
      return ground.handForms(of, propertyNamed(name)!)
    },
    afford,
    formulaOf: key => {
      const [found, other] = [slot(key), ground.meanings.all.get(key)!]
      const checked = runningFormula(other)
      if (!found || found === 'being made' || found.running !== other.running) return null
      if (!checked || readsItself(other, checked)) return null
      return { checked, env: envOf(other), host: hostOf(other, nothingTracked(), making) }
    },
  }
}

/** Copies that are compiled one by one later on: what they read is at hand by then, whatever has become of the program. */
export class FormulaCopies implements CopySource {
  private env: ((instance: number) => Env) | null = null

  constructor(
    private readonly m: Meaning,
    private readonly checked: Checked,
    private readonly ground: Ground,
    private readonly read: ReadonlyMap<string, Slot>,
  ) {}

  get count(): number {
    return this.ground.instancesOf(this.m.target.part!).count
  }

  /** A copy that cannot be compiled by itself holds what is set. */
  compile(instance: number): CompiledExpression {
    const { m, checked, ground, read } = this
    this.env ??= surroundings(ground, m, nothingTracked(), (key, which) => {
      const found = read.get(key)
      return found ? compiledOf(found.readers[which]!) : null
    })
    try {
      return compile(checked, this.env(instance))
    } catch (e) {
      if (!(e instanceof CannotRun)) throw e
      return this.base(instance)
    }
  }

  guard(form: CompiledExpression, instance: number): CompiledExpression {
    const { measures, queue } = this.ground
    return withFallback(form, this.base(instance), measures.frameRate, queue)
  }

  private base(instance: number): CompiledExpression {
    const { part, property } = this.m.target
    return this.ground.handForms(part!, property!)[instance]!
  }
}

/** Whether copies read others of their own, which the plain evaluator makes one after another. */
const readsItself = (m: Meaning, checked: Checked): boolean =>
  checked.reads.some(r => r.type === 'property' && propertyKey(r.part, r.property) === m.key)

/** What decides whether a piece of formula differs from copy to copy. */
export const surroundingsOf = (
  { target: { part, property } }: Meaning,
  piece: Piece,
  instancesOf: (part: string) => number,
): Surroundings => ({
  own: { part: part!, property: property!.name },
  instancesOf,
  hasOwn: (of, name) => piece.bases[propertyKey(of, name)]?.copies !== undefined,
})
