/** Columns of a formula on many copies at one moment, a lane a copy. What has no kernel is compiled for each and read lane by lane. */
import type { Checked } from '../../formula/check.ts'
import { partBefore } from '../../formula/scope.ts'
import { builtinNamed } from '../../formula/words.ts'
import type { CallNode, MemberNode, NameNode, Node } from '../../formula/tree.ts'
import { moving, one, doubt, fixedLanes, type Column } from '../../columns/column.ts'
import { fractionsOf, gathered, lanesOf, wholesOf, type Fractions } from '../../columns/fractions.ts'
import { SteadyLanes } from '../../columns/steady.ts'
import { PIECE, type Beat } from '../../form/beat.ts'
import { constantOf, type Form } from '../../form/form.ts'
import type { Entry } from '../../functions/entry.ts'
import type { Rational } from '../../time/rational.ts'
import { propertyKey } from '../../piece/schema.ts'
import { Compiler } from '../compile.ts'
import type { Env } from '../env.ts'
import { columnOf, constantLanes, type Exact } from './exact.ts'
import { CannotPlan, Planner } from './planner.ts'
import { noColumn, SplitLanes } from './split.ts'
import { Varying, type Surroundings } from './varies.ts'

/** What a plan reads of the program that it stands in. */
export interface Host extends Surroundings {
  /** A word of copies at every instance; null where it is none. */
  readonly copyWord: (name: string) => Fractions | null
  /** Whether something drives a property, with its slot made; null where that is being made itself. */
  readonly hasFormula: (key: string) => boolean | null
  /** What a driven property is exactly on these instances; null where it moves in any other way. */
  readonly exact: (key: string, instances: Int32Array) => Exact | null
  /** Which instance of another part each of these instances reads; −1 where there is none. */
  readonly read: (part: string, instances: readonly number[], copy: readonly number[] | 'before' | null) => Int32Array
  /** A set value by instance, as forms. */
  readonly held: (part: string, property: string) => readonly Form[]
  /** Notes that so many pieces of formula are compiled lane by lane; false where that is too much. */
  readonly afford: (pieces: number) => boolean
}

/** Pieces of formula that a lane is taken to have where one is read by itself. */
const A_LANE = 2

export class PlannerOfCopies extends Planner {
  /** Whether no lane is read by forms of its own. */
  isWhole = true
  private readonly varying: Varying
  private readonly others: (Compiler | undefined)[] = []

  /** @param instances the copies that are planned together */
  constructor(
    checked: Checked,
    readonly env: (instance: number) => Env,
    readonly instances: readonly number[],
    readonly host: Host,
  ) {
    super(checked, env(instances[0]!), instances.length)
    this.varying = new Varying(checked, env(instances[0]!), host)
  }

  /** A compiler for one lane, with the same clock in force. */
  private other(lane: number): Compiler {
    return (this.others[lane] ??= new Compiler(this.checked, this.env(this.instances[lane]!)))
  }

  seeds(node: CallNode, entry: Entry): number[] {
    return this.instances.map(i => this.plain.seedBy(this.env(i), node, entry)!)
  }

  steady(rate: Fractions | Rational, base: Fractions, beat: Beat | null): SteadyLanes {
    return new SteadyLanes(rate, base, this.frameRate, beat)
  }

  earlier(): null {
    return null
  }

  protected leaf(node: Node): Column | null {
    return this.varying.has(node) ? null : one(this.plain.form(node))
  }
  argument(node: Node, form: Form | undefined): Column | null {
    return form && !this.varying.has(node) ? one(form) : null
  }

  /** Compiled for each lane, and read lane by lane. */
  protected byLane(node: Node): Column {
    if (!this.host.afford(this.lanes * A_LANE)) throw new CannotPlan()
    const { beat } = this.plain
    const forms: Form[] = []
    for (let i = 0; i < this.lanes; i++) {
      const other = this.other(i)
      forms.push(other.on(beat, () => other.form(node)))
    }
    const constants = forms.map(constantOf)
    if (constants.every(c => c !== null))
      return fixedLanes(
        fractionsOf(constants),
        forms.some(f => f.perLap || f.dials !== null),
      )
    this.isWhole = false
    return moving((now, from, count, out) => {
      for (let i = 0; i < count; i++) {
        const v = forms[from + i]!.at(now.moment)
        out[i] = v
        if (v !== v) doubt(now, from + i)
      }
    })
  }

  protected named(node: NameNode): Column {
    const builtin = builtinNamed(node.name)
    if (!builtin) return noColumn()
    if (builtin.name === 'base' && this.plain.beat !== PIECE) return noColumn()
    if (builtin.name === 'base') return this.set(this.host.own.part, this.host.own.property, this.instances)
    return this.word(builtin.name)
  }

  private word(name: string): Column {
    const all = this.host.copyWord(name)
    if (!all) return noColumn()
    return fixedLanes(lanesOf(all) === this.lanes ? all : gathered(all, this.instances))
  }

  protected member(node: MemberNode): Column {
    const before = partBefore(node)
    if (!before) return noColumn()
    const { word, relative, index } = before
    const copyWord = builtinNamed(node.name)
    if (relative && word.startsWith('parent') && copyWord?.copies) return this.word(`${word}.${copyWord.name}`)
    const feature = this.plain.feature(word, node.name, relative)
    if (!feature || 'setting' in feature) return noColumn()
    let copy: readonly number[] | 'before' | null = relative && word === 'before' ? 'before' : null
    if (index) {
      const which = constantLanes(this.column(index), this.lanes)?.exact
      const whole = which && wholesOf(which)
      if (!whole) return noColumn()
      copy = [...whole]
    }
    return this.property(feature.part, feature.property, copy)
  }

  /** A property of another part at the copy that each lane reads, as it is at this moment. */
  private property(part: string, name: string, copy: readonly number[] | 'before' | null): Column {
    const which = this.host.read(part, this.instances, copy)
    // Copies that have none before them read what is set; those that read what is not there are told so by the compiler.
    if (which.some(i => i < 0)) {
      if (copy === 'before' && !which.every(i => i < 0))
        throw new SplitLanes(Float64Array.from(which, i => (i < 0 ? 1 : 0)))
      return noColumn()
    }
    const key = propertyKey(part, name)
    const found = this.host.hasFormula(key)
    if (found === null) throw new CannotPlan()
    if (!found) return this.set(part, name, which)
    const exact = this.host.exact(key, which)
    if (exact) return columnOf(exact, this.frameRate)
    return moving((now, from, count, out) => {
      const offset = now.offsets.get(key)!
      for (let i = 0; i < count; i++) out[i] = now.values[offset + which[from + i]!]!
    })
  }

  /** What is set by hand at some instances. */
  private set(part: string, name: string, which: ArrayLike<number>): Column {
    const held = this.host.held(part, name)
    const first = held[which[0]!]!
    if (Array.prototype.every.call(which, (i: number) => held[i] === first)) return one(first)
    const constants = Array.from(which, i => constantOf(held[i]!))
    return constants.every(c => c !== null) ? fixedLanes(fractionsOf(constants)) : noColumn()
  }
}
