/**
 * Columns of a formula on many copies, a lane a copy. What has no kernel is compiled for each and read lane by lane. What is
 * read at other moments (`delay(x, index * 50ms)`) is planned for those: what grows steadily begins earlier or later on each
 * lane, and of what others are driven by, the formulas are followed.
 */
import { propertyKey } from '../../piece/drive-key.ts'
import type { Checked } from '../../formula/check.ts'
import { partBefore } from '../../formula/scope.ts'
import { builtinNamed } from '../../formula/words.ts'
import { everyNode, type CallNode, type MemberNode, type NameNode, type Node } from '../../formula/tree.ts'
import { doubt, fixedLanes, isExact, moving, one, type Column } from '../../columns/column.ts'
import { orSet, readAt, readAtMoment } from '../../columns/elsewhere.ts'
import {
  fractionsOf,
  gathered,
  lanesOf,
  negatedLanes,
  plusLanes,
  scaledLanes,
  signsOf,
  timesLanes,
  toNumbers,
  uniform,
  wholesOf,
  type Fractions,
} from '../../columns/fractions.ts'
import type { Elsewhere } from '../../columns/kernel.ts'
import { SteadyLanes } from '../../columns/steady.ts'
import { PIECE_CLOCK, type ActiveClock } from '../../form/active-clock.ts'
import { constantOf, type CompiledExpression } from '../../form/compiled-expression.ts'
import type { Entry } from '../../functions/entry.ts'
import type { Rational } from '../../time/rational.ts'
import { Compiler } from '../compile.ts'
import type { Env } from '../env.ts'
import { columnOf, constantLanes, zeroLanes, type Exact } from './exact-lanes.ts'
import { CannotPlan, DEEPEST_FOLLOWED, Planner } from './planner.ts'
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
  /** A set value by instance, as expressions. */
  readonly held: (part: string, property: string) => readonly CompiledExpression[]
  /** Notes that so many pieces of formula are compiled lane by lane; false where that is too much. */
  readonly afford: (pieces: number) => boolean
  /** What drives a property, to be planned at other moments; null where only the plain evaluator follows. */
  readonly formulaOf: (key: string) => Followed | null
}

/** A formula that is followed from another. */
export interface Followed {
  readonly checked: Checked
  readonly env: (instance: number) => Env
  readonly host: Host
}

/** Pieces of formula that a lane is taken to have where one is read by itself. */
const A_LANE = 2

export class PlannerOfCopies extends Planner {
  /** Whether no lane is read by expressions of its own. */
  isWhole = true
  private readonly varying: Varying
  private readonly others: (Compiler | undefined)[] = []
  /** How many seconds ahead of the moment each lane is read; null where at the moment itself. */
  private ahead: Fractions | null = null
  /** Something of its own for each other moment at which something is read; null where that is the plan's. */
  private there: object | null = null

  /**
   * @param instances the copies that are planned together
   * @param deep how many links at other moments led here
   */
  constructor(
    checked: Checked,
    readonly env: (instance: number) => Env,
    readonly instances: readonly number[],
    readonly host: Host,
    private readonly deep = 0,
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

  steady(rate: Fractions | Rational, base: Fractions, beat: ActiveClock | null): SteadyLanes | null {
    if (!this.ahead) return new SteadyLanes(rate, base, this.frameRate, beat)
    const grown = beat ? null : 'big' in rate ? timesLanes(this.ahead, rate) : scaledLanes(this.ahead, rate)
    const all = grown && plusLanes(grown, base)
    return all && new SteadyLanes(rate, all, this.frameRate)
  }

  elsewhere(value: Node): Elsewhere {
    return {
      earlier: seconds => {
        const ahead = plusLanes(this.ahead ?? zeroLanes(this.lanes), negatedLanes(seconds)) ?? noColumn()
        const signs = signsOf(ahead)
        if (!this.ahead && signs.every(s => s === 0)) return this.column(value)
        const of = this.whileThere(ahead, value)
        if (isExact(of)) return of
        const most = toNumbers(ahead).reduce((a, b) => Math.max(a, Math.abs(b)), 0)
        return readAt(of, ({ moment }) => ({ moment, seconds: Math.abs(moment.seconds) + most }))
      },
      at: to => {
        if (this.ahead) return noColumn()
        return readAtMoment(this.whileThere(null, value), to)
      },
    }
  }

  private whileThere(ahead: Fractions | null, value: Node): Column {
    const before = { ahead: this.ahead, there: this.there }
    this.ahead = ahead
    this.there = {}
    try {
      return this.column(value)
    } finally {
      Object.assign(this, before)
    }
  }

  protected override get place(): object | null {
    return this.there
  }

  protected leaf(node: Node): Column | null {
    return this.varying.has(node) ? null : this.alike(this.plain.form(node))
  }
  argument(node: Node, form: CompiledExpression | undefined): Column | null {
    return form && !this.varying.has(node) ? this.alike(form) : null
  }

  /** What is the same on every lane; null where it moves and is read at other moments of each. */
  private alike(form: CompiledExpression): Column | null {
    if (!this.ahead || constantOf(form)) return one(form)
    if (form.exact) {
      const { rate, base } = form.exact
      return this.exactly({ rate: uniform(rate, this.lanes), base: uniform(base, this.lanes), paced: false })
    }
    // Time on a clock that is not steady is counted on that.
    return form.onClock ? noColumn() : null
  }

  /** What is exact, at the moments that are read. */
  private exactly(exact: Exact): Column {
    const grown = exact.rate && this.ahead && (timesLanes(exact.rate, this.ahead) ?? noColumn())
    const base = grown ? (plusLanes(grown, exact.base) ?? noColumn()) : exact.base
    return columnOf({ ...exact, base }, this.frameRate)
  }

  /** Compiled for each lane, and read lane by lane. */
  protected byLane(node: Node): Column {
    // Elsewhere only what stands still is the same, such as what chance gives each copy for good.
    const isElsewhere = this.ahead !== null || this.deep > 0
    if (isElsewhere && !constantOf(this.plain.form(node))) return noColumn()
    if (!this.host.afford(this.lanes * A_LANE)) throw new CannotPlan()
    const { beat } = this.plain
    const forms: CompiledExpression[] = []
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
    if (isElsewhere) return noColumn()
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
    if (builtin.name === 'base' && this.plain.beat !== PIECE_CLOCK) return noColumn()
    if (builtin.name === 'base') return this.set(this.host.own.part, this.host.own.property, this.instances)
    if (builtin.name === 'lapProgress' || builtin.name === 'lapIndex') return this.lap(builtin.name)
    return this.word(builtin.name)
  }

  private word(name: string): Column {
    const all = this.host.copyWord(name)
    if (!all) return noColumn()
    const isWhole = lanesOf(all) === this.lanes && this.instances.every((instance, i) => instance === i)
    return fixedLanes(isWhole ? all : gathered(all, this.instances))
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
    if (exact) return this.exactly(exact)
    if (this.there || this.deep > 0) return this.followed(key, which)
    return moving((now, from, count, out) => {
      const offset = now.offsets.get(key)!
      for (let i = 0; i < count; i++) out[i] = now.values[offset + which[from + i]!]!
    })
  }

  /** A driven property of some instances at a moment that is not the snapshot's. */
  private followed(key: string, which: Int32Array): Column {
    const found = this.deep < DEEPEST_FOLLOWED ? this.host.formulaOf(key) : null
    if (!found) return noColumn()
    const { checked, env, host } = found
    const planner = new PlannerOfCopies(checked, env, Array.from(which), host, this.deep + 1)
    planner.ahead = this.ahead
    planner.there = {}
    const of = planner.column(checked.formula.body)
    this.operations += planner.operations + everyNode(checked.formula).length
    return orSet(of)
  }

  /** What is set by hand at some instances. */
  private set(part: string, name: string, which: ArrayLike<number>): Column {
    const held = this.host.held(part, name)
    const first = held[which[0]!]!
    if (Array.prototype.every.call(which, (i: number) => held[i] === first)) return this.alike(first) ?? noColumn()
    const constants = Array.from(which, i => constantOf(held[i]!))
    return constants.every(c => c !== null) ? fixedLanes(fractionsOf(constants)) : noColumn()
  }
}
