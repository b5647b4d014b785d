/**
 * From a checked formula to columns, a lane a copy. What is the same on every lane is compiled once, as the plain evaluator
 * has it; what differs becomes constants by lane, steady growth by lane, or a kernel over a block of lanes; and what has no
 * kernel is compiled for each lane and read lane by lane. Every step follows what `compile.ts` does with the same node, so
 * that the bits are the same.
 */
import type { Checked } from '../../formula/check.ts'
import { letRead, partBefore } from '../../formula/scope.ts'
import { builtinNamed } from '../../formula/words.ts'
import type { BinaryNode, CallNode, IfNode, MemberNode, Node } from '../../formula/tree.ts'
import { moving, one, pointwise, doubt, fixedLanes, type Column } from '../../columns/column.ts'
import { fractionsOf, gathered, lanesOf, signsOf, wholesOf, type Fractions } from '../../columns/fractions.ts'
import { PIECE, type Beat } from '../../form/beat.ts'
import { constantOf, isNear, type Form } from '../../form/form.ts'
import { HOLDS, MOST_FACTORS, type Comparison } from '../../form/operators.ts'
import type { Entry } from '../../functions/entry.ts'
import { isWhole, type Rational } from '../../time/rational.ts'
import { propertyKey } from '../../piece/schema.ts'
import { Compiler } from '../compile.ts'
import { CannotRun, type Env } from '../env.ts'
import { callColumn } from './calls.ts'
import { columnOf, comparedLanes, constantLanes, exactNegated, exactOf, exactSum, onesOn, truthLanes } from './exact.ts'
import { productColumn, type FactorColumn } from './product.ts'
import { NoColumn, noColumn, SplitLanes } from './split.ts'
import { Varying, type Surroundings } from './varies.ts'

/** What a plan reads of the program that it stands in. */
export interface Host extends Surroundings {
  /** A word of copies at every instance; null where it is none. */
  readonly copyWord: (name: string) => Fractions | null
  /** Whether something drives a property, with its slot made; null where that is being made itself. */
  readonly hasFormula: (key: string) => boolean | null
  /** Which instance of another part each of these instances reads; −1 where there is none. */
  readonly read: (part: string, instances: readonly number[], copy: readonly number[] | 'before' | null) => Int32Array
  /** A set value by instance, as forms. */
  readonly held: (part: string, property: string) => readonly Form[]
  /** Notes that so many pieces of formula are compiled lane by lane; false where that is too much. */
  readonly afford: (pieces: number) => boolean
}

/** Pieces of formula that a lane is taken to have where one is read by itself. */
const A_LANE = 2

export class Planner {
  readonly lanes: number
  /** Whether no lane is read by forms of its own. */
  isWhole = true
  private readonly plain: Compiler
  private readonly varying: Varying
  private readonly others: (Compiler | undefined)[] = []
  private readonly lets = new Map<Beat, Map<Node, Column>>()

  /** @param instances the copies that are planned together */
  constructor(
    readonly checked: Checked,
    readonly env: (instance: number) => Env,
    readonly instances: readonly number[],
    readonly host: Host,
  ) {
    this.lanes = instances.length
    const first = env(instances[0]!)
    this.plain = new Compiler(checked, first)
    this.varying = new Varying(checked, first, host)
  }

  get frameRate(): Rational {
    return this.plain.setting.frameRate
  }
  /** The compiler of what is the same on every lane, with the clock in force. */
  get compiler(): Compiler {
    return this.plain
  }
  /** A compiler for one lane, with the same clock in force. */
  private other(lane: number): Compiler {
    return (this.others[lane] ??= new Compiler(this.checked, this.env(this.instances[lane]!)))
  }

  /** The seed of a call on one instance. */
  seedOf(instance: number, node: CallNode, entry: Entry): number {
    return this.plain.seedBy(this.env(instance), node, entry)!
  }

  varies(node: Node): boolean {
    return this.varying.has(node)
  }

  column(node: Node): Column {
    if (!this.varies(node)) return one(this.plain.form(node))
    try {
      return this.varied(node)
    } catch (e) {
      if (!(e instanceof NoColumn)) throw e
      return this.byLane(node)
    }
  }

  private varied(node: Node): Column {
    switch (node.type) {
      case 'name':
        return this.name(node)
      case 'member':
        return this.member(node)
      case 'call':
        return callColumn(this, node)
      case 'unary':
        return this.unary(node)
      case 'binary':
        return this.binary(node)
      case 'if':
        return this.choice(node)
      case 'on':
        return this.plain.on(this.plain.clockNamed(node.clock), () => this.column(node.of))
      default:
        return noColumn()
    }
  }

  /** Compiled for each lane, and read lane by lane. */
  byLane(node: Node): Column {
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

  private name(node: Node & { type: 'name' }): Column {
    const own = letRead(this.checked.formula, node)
    if (own) {
      const { beat } = this.plain
      const kept = this.lets.get(beat) ?? new Map<Node, Column>()
      this.lets.set(beat, kept)
      if (!kept.has(own.value)) kept.set(own.value, this.column(own.value))
      return kept.get(own.value)!
    }
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

  private member(node: MemberNode): Column {
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

  private unary(node: Node & { type: 'unary' }): Column {
    const of = this.column(node.of)
    if (node.op === '+') return of
    const exact = exactOf(of, this.lanes)
    if (node.op === '-')
      return exact ? columnOf(exactNegated(exact), this.frameRate) : pointwise([of], this.lanes, x => -x)
    const known = constantLanes(of, this.lanes)
    if (known) return truthLanes(signsOf(known.exact).map(n => (n === 0 ? 1 : 0)))
    return pointwise([of], this.lanes, x => (x === 0 ? 1 : 0))
  }

  private binary(node: BinaryNode): Column {
    const { lanes } = this
    switch (node.op) {
      case '*':
      case '/':
        return productColumn(this.factors(node, false), lanes, this.frameRate)
      case '^':
        return this.power(node)
      case '+':
      case '-': {
        const [a, b] = [this.column(node.left), this.column(node.right)]
        const [x, y] = [exactOf(a, lanes), exactOf(b, lanes)]
        const down = node.op === '-'
        if (x && y) return columnOf(exactSum(x, down ? exactNegated(y) : y), this.frameRate)
        return pointwise([a, b], lanes, down ? (p, q) => p - q : (p, q) => p + q)
      }
      case 'and':
      case 'or':
        return this.joined(node)
      default:
        return this.compared(node.op, this.column(node.left), this.column(node.right))
    }
  }

  /** All factors of a product, in text order, through brackets and quotients. */
  factors(node: Node, inverse: boolean): FactorColumn[] {
    if (node.type === 'binary' && (node.op === '*' || node.op === '/'))
      return [...this.factors(node.left, inverse), ...this.factors(node.right, inverse !== (node.op === '/'))]
    if (node.type === 'unary' && node.op === '-') {
      const minus = columnOf(exactNegated({ rate: null, base: onesOn(this.lanes), paced: false }), this.frameRate)
      return [{ column: minus, inverse: false }, ...this.factors(node.of, inverse)]
    }
    return [{ column: this.column(node), inverse }]
  }

  /** A whole power of what moves, by multiplying. */
  private power(node: BinaryNode): Column {
    const base = this.column(node.left)
    const exponent = this.column(node.right)
    const e = exponent.type === 'one' ? constantOf(exponent.form) : null
    const n = e && isWhole(e) ? Number(e.n) : null
    if (n === null || Math.abs(n) > MOST_FACTORS || constantLanes(base, this.lanes)) return noColumn()
    return pointwise([base], this.lanes, x => {
      let y = 1
      for (let k = 0; k < Math.abs(n); k++) y *= x
      return n < 0 ? 1 / y : y
    })
  }

  private joined(node: BinaryNode): Column {
    const all = node.op === 'and'
    const [a, b] = [this.column(node.left), this.column(node.right)]
    const known = constantLanes(a, this.lanes)
    if (known) {
      const decides = signsOf(known.exact).map(n => ((n === 0) === all ? 1 : 0))
      if (decides.every(d => d === 1)) return truthLanes(decides.map(() => (all ? 0 : 1)))
      if (decides.every(d => d === 0)) return b
      throw new SplitLanes(decides)
    }
    return pointwise(
      [a, b],
      this.lanes,
      all ? (x, y) => (x !== 0 && y !== 0 ? 1 : 0) : (x, y) => (x !== 0 || y !== 0 ? 1 : 0),
    )
  }

  private compared(op: Comparison, a: Column, b: Column): Column {
    const holds = HOLDS[op]
    const [x, y] = [exactOf(a, this.lanes), exactOf(b, this.lanes)]
    if (!x || !y) return pointwise([a, b], this.lanes, (p, q, t) => (isNear(p, q, t) ? NaN : holds(p, q) ? 1 : 0))
    if (!x.rate && !y.rate) return truthLanes(comparedLanes(x.base, y.base).map(s => (holds(s, 0) ? 1 : 0)))
    // The sign of what grows steadily is that of the nearest double.
    const difference = columnOf(exactSum(x, exactNegated(y)), this.frameRate)
    return pointwise([difference], this.lanes, d => (holds(d, 0) ? 1 : 0))
  }

  private choice(node: IfNode): Column {
    const test = this.column(node.test)
    const known = constantLanes(test, this.lanes)
    if (known) {
      const yes = signsOf(known.exact).map(t => (t !== 0 ? 1 : 0))
      if (yes.every(t => t === 1)) return this.column(node.yes)
      if (yes.every(t => t === 0)) return this.column(node.no)
      throw new SplitLanes(yes)
    }
    const [yes, no] = [this.column(node.yes), this.column(node.no)]
    return pointwise([test, yes, no], this.lanes, (t, y, n) => (t !== 0 ? y : n))
  }
}

/** Thrown where the formula as a whole is left to the plain evaluator. */
export class CannotPlan extends Error {}

/** Whether an error of planning leaves a formula to the plain evaluator, which says what is wrong with it. */
export const leavesToPlain = (e: unknown): boolean =>
  e instanceof CannotPlan || e instanceof NoColumn || e instanceof CannotRun
