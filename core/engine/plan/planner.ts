/**
 * From a checked formula to columns: what is the same on every lane is compiled once, as the plain evaluator has it; what
 * differs becomes constants by lane, steady growth by lane, or a kernel over a block of lanes. Every step follows what
 * `compile.ts` does with the same node, so that the bits are the same. What a lane is, a copy or a moment, says who plans.
 */
import type { Checked } from '../../formula/check.ts'
import { letRead } from '../../formula/scope.ts'
import type { BinaryNode, CallNode, IfNode, MemberNode, NameNode, Node } from '../../formula/tree.ts'
import { arithmetic, moving, pointwise, scratch, type Column } from '../../columns/column.ts'
import { signsOf, uniform, type Fractions } from '../../columns/fractions.ts'
import type { Elsewhere } from '../../columns/kernel.ts'
import type { SteadyLanes } from '../../columns/steady.ts'
import { clockReading, type ActiveClock } from '../../form/active-clock.ts'
import { constantOf, isNear, type CompiledExpression } from '../../form/compiled-expression.ts'
import { HOLDS, MOST_FACTORS, type Comparison } from '../../form/operators.ts'
import type { Entry } from '../../functions/entry.ts'
import { ONE, isWhole, negate, over, type Rational } from '../../time/rational.ts'
import { Compiler } from '../compile.ts'
import { CannotRun, type Env } from '../env.ts'
import { callColumn } from './call-columns.ts'
import {
  columnOf,
  comparedLanes,
  constantLanes,
  exactNegated,
  exactOf,
  exactSum,
  oneLanes,
  truthLanes,
} from './exact-lanes.ts'
import { productColumn, type FactorColumn } from './product-column.ts'
import { NoColumn, noColumn, SplitLanes } from './split.ts'

/** Links at other moments that are followed into one another, at most: a chain has a timetable. */
export const DEEPEST_FOLLOWED = 2

export abstract class Planner {
  /** Operations of other formulas that are followed. */
  operations = 0
  protected readonly plain: Compiler
  private readonly lets = new Map<object | null, Map<ActiveClock, Map<Node, Column>>>()

  constructor(
    readonly checked: Checked,
    /** Surroundings of what is the same on every lane. */
    private readonly common: Env,
    readonly lanes: number,
  ) {
    this.plain = new Compiler(checked, common)
  }

  get frameRate(): Rational {
    return this.plain.setting.frameRate
  }
  /** The compiler of what is the same on every lane, with the clock in force. */
  get compiler(): Compiler {
    return this.plain
  }

  /** What the plain evaluator alone gives on all lanes; null where a node has to be planned. */
  protected abstract leaf(node: Node): Column | null
  /** The same of an argument that is made ready. */
  abstract argument(node: Node, form: CompiledExpression | undefined): Column | null
  /** A node without a kernel. */
  protected abstract byLane(node: Node): Column
  /** A word of the language, a dial, a signal. */
  protected abstract named(node: NameNode): Column
  protected abstract member(node: MemberNode): Column
  /** The seed of each lane, for a call that draws on chance and was given none. */
  abstract seeds(node: CallNode, entry: Entry): number[]
  /** Growth by lane in seconds of the piece, or of a clock that is not steady; null where only the plain evaluator follows. */
  abstract steady(rate: Fractions | Rational, base: Fractions, beat: ActiveClock | null): SteadyLanes | null
  /** An argument at other moments. */
  abstract elsewhere(value: Node): Elsewhere
  /** Something of its own for each other moment at which things are read; null where that is the plan's. */
  protected get place(): object | null {
    return null
  }

  column(node: Node): Column {
    const leaf = this.leaf(node)
    if (leaf) return leaf
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

  private name(node: NameNode): Column {
    const own = letRead(this.checked.formula, node)
    if (!own) return this.named(node)
    // A let means another column on another clock, and at another moment.
    const { beat } = this.plain
    const here = this.lets.get(this.place) ?? new Map<ActiveClock, Map<Node, Column>>()
    this.lets.set(this.place, here)
    const kept = here.get(beat) ?? new Map<Node, Column>()
    here.set(beat, kept)
    if (!kept.has(own.value)) kept.set(own.value, this.column(own.value))
    return kept.get(own.value)!
  }

  /** How far a lap is on, or which it is, at the moments of the lanes. */
  protected lap(word: 'lapProgress' | 'lapIndex'): Column {
    const { lapLength, lapStart } = this.common
    const counted = { rate: over(ONE, lapLength), base: negate(over(lapStart, lapLength)) }
    const { affine } = clockReading(counted, this.plain.beat, this.frameRate)
    const laps = affine && this.steady(affine.rate, uniform(affine.base, this.lanes), null)
    if (!laps) return noColumn()
    const [other] = scratch(1, this.lanes)
    return word === 'lapProgress'
      ? moving((now, from, count, out) => laps.split(now.moment, from, count, out, null))
      : moving((now, from, count, out) => laps.split(now.moment, from, count, other, out))
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
        return arithmetic(down ? '-' : '+', a, b, lanes)
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
      const minus = columnOf(exactNegated({ rate: null, base: oneLanes(this.lanes), paced: false }), this.frameRate)
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
