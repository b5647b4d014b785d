/**
 * A checked formula made ready to be read: its tree becomes an expression. This is the plain evaluator, one closure a
 * node; it says what a formula means, and anything faster must give the same bits.
 */
import type { Checked } from '../formula/check.ts'
import { canonical } from '../units/names.ts'
import type { Span } from '../formula/problem.ts'
import { PIECE_CLOCK, type ActiveClock } from '../form/active-clock.ts'
import { asPlace } from '../formula/lookup.ts'
import { letRead, partBefore } from '../formula/scope.ts'
import { builtinNamed } from '../formula/words.ts'
import {
  everyNode,
  type BinaryNode,
  type CallNode,
  type IfNode,
  type Let,
  type MemberNode,
  type NameNode,
  type Node,
  type NumberNode,
} from '../formula/tree.ts'
import { isWhole, isZero, toNumber, within, type Rational } from '../time/rational.ts'
import { inBase, readUnit, type Measures } from '../units/units.ts'
import { dialFactor } from '../form/dial-factors.ts'
import { cannotRun, type Env } from './env.ts'
import {
  constantOf,
  constantExpression,
  constantNumber,
  negateExpression,
  sum,
  type CompiledExpression,
} from '../form/compiled-expression.ts'
import { conditional, comparison, logicalJunction, logicalNot, raiseToPower } from '../form/operators.ts'
import { multiplyExpressions, type Factor } from '../form/product.ts'
import { CallCompiler } from './call-compiler.ts'

/** The expression of a whole formula. Throws `CannotRun` with the problem. */
export function compile(checked: Checked, env: Env): CompiledExpression {
  const c = new Compiler(checked, env)
  return c.form(checked.formula.body)
}

/** The exact share of a node that grows steadily: a source's phase in turns, or a value in base measure. */
export function compileNode(checked: Checked, env: Env, node: Node): CompiledExpression {
  const c = new Compiler(checked, env)
  return c.within(node, () => c.form(node))
}

/** The phase of a source call, in turns, as far as it grows steadily. */
export function compilePhase(checked: Checked, env: Env, node: CallNode) {
  const c = new Compiler(checked, env)
  return c.within(node, () => c.phase(node))
}

const unitIn = (checked: Checked, node: NumberNode) =>
  readUnit(node.unit === '' ? (checked.bare.get(node) ?? '') : node.unit)!

/** A number of a formula in base measure. */
export const numberIn = (checked: Checked, node: NumberNode, measures: Measures): Rational =>
  inBase(node.value, unitIn(checked, node), measures)

/** Whether it counts in laps. */
export const isPerLap = (checked: Checked, node: NumberNode): boolean =>
  unitIn(checked, node).perLap || canonical(node.unit) === 'lap'

export class Compiler extends CallCompiler {
  /** Expressions of the `let`s, for each clock they are read on. */
  private readonly lets = new Map<ActiveClock, Map<Node, CompiledExpression>>()

  /** Does something with the clock in force where a node stands. */
  within<T>(node: Node, make: () => T): T {
    let beat = PIECE_CLOCK
    for (const n of everyNode(this.checked.formula)) {
      if (n.type === 'on' && n.of.from <= node.from && node.to <= n.of.to) beat = this.env.clock(n.clock)
    }
    return this.on(beat, make)
  }

  /** The clock of a name, and a feature of a part as it is written. */
  clockNamed(name: string): ActiveClock {
    return this.env.clock(name)
  }
  feature(...as: Parameters<Env['feature']>): ReturnType<Env['feature']> {
    return this.env.feature(...as)
  }

  private letForm({ value }: Let): CompiledExpression {
    const kept = this.lets.get(this.beat) ?? new Map<Node, CompiledExpression>()
    this.lets.set(this.beat, kept)
    if (!kept.has(value)) kept.set(value, this.form(value))
    return kept.get(value)!
  }

  form(node: Node): CompiledExpression {
    switch (node.type) {
      case 'number':
        return this.number(node)
      case 'name':
        return this.name(node)
      case 'member':
        return this.member(node)
      case 'call':
        return this.call(node)
      case 'unary':
        return this.unary(node)
      case 'binary':
        return this.binary(node)
      case 'if':
        return this.choice(node)
      case 'on':
        return this.on(this.env.clock(node.clock), () => this.form(node.of))
      default:
        return cannotRun('syntax', node, 'This can’t be used here.')
    }
  }

  private constant(value: Rational, at: Span, perLap = false): CompiledExpression {
    if (!within(value)) return cannotRun('limit', at, 'This number is too large or too small to be exact.')
    return constantExpression(value, this.env.frameRate, { perLap })
  }

  private number(node: NumberNode): CompiledExpression {
    return this.constant(numberIn(this.checked, node, this.env), node, isPerLap(this.checked, node))
  }

  private name(node: NameNode): CompiledExpression {
    const own = letRead(this.checked.formula, node)
    if (own) return this.letForm(own)
    const builtin = node.quoted ? undefined : builtinNamed(node.name)
    if (builtin) return this.env.builtin(builtin.name, this.beat)
    const read = this.checked.reads.find(r => r.from === node.from && r.to === node.to)
    if (read?.type === 'dial') return this.env.dial(read.id)
    if (read?.type === 'signal') return this.env.signal(read.id)
    // A curve by its bare name is followed as curve(…) would.
    if (this.env.hasCurve(node.name)) {
      const arg = { from: node.from, to: node.to, value: node }
      return this.call({ type: 'call', from: node.from, to: node.to, name: 'curve', nameAt: node, args: [arg] })
    }
    return cannotRun('unknown-name', node, `Unknown name “${node.name}”.`)
  }

  private member(node: MemberNode): CompiledExpression {
    const { word, relative, index } = partBefore(node)!
    const copyWord = builtinNamed(node.name)
    if (relative && word.startsWith('parent') && copyWord?.copies)
      return this.env.builtin(`${word}.${copyWord.name}`, this.beat)
    const feature = this.env.feature(word, node.name, relative)
    if (!feature) return this.call(asPlace(node))
    if ('setting' in feature) return constantNumber(feature.setting, this.env.frameRate)
    let copy: number | 'before' | null = relative && word === 'before' ? 'before' : null
    if (index) {
      const which = constantOf(this.form(index))
      if (!which || !isWhole(which))
        return cannotRun('index', index, 'The copy number must be a whole number that doesn’t change with time.')
      copy = toNumber(which)
    }
    const found = this.env.property(feature.part, feature.property, copy)
    return (
      found ??
      cannotRun('index', node.of, `There’s no copy ${copy} of ${word}. Guard it with if, or choose an existing one.`)
    )
  }

  private unary(node: Node & { type: 'unary' }): CompiledExpression {
    const of = this.form(node.of)
    if (node.op === '+') return of
    if (node.op === '-') return negateExpression(of, this.env.frameRate)
    return logicalNot(of, this.env.frameRate)
  }

  private binary(node: BinaryNode): CompiledExpression {
    switch (node.op) {
      case '*':
      case '/':
        return multiplyExpressions(this.factors(node, false), this.setting)
      case '^':
        return this.dialled(node, raiseToPower(this.form(node.left), this.form(node.right), this.env.frameRate))
      case '+':
        return this.dialled(node, sum(this.form(node.left), this.form(node.right), this.env.frameRate))
      case '-': {
        const right = this.form(node.right)
        const made = sum(this.form(node.left), negateExpression(right, this.env.frameRate), this.env.frameRate)
        return this.dialled(node, made)
      }
      case 'and':
      case 'or':
        return logicalJunction(node.op === 'and', this.form(node.left), this.form(node.right), this.env.frameRate)
      default:
        return comparison(node.op, this.form(node.left), this.form(node.right), this.env.frameRate)
    }
  }

  /** All factors of a product, in text order, through brackets and quotients. */
  protected factors(node: Node, inverse: boolean): Factor[] {
    if (node.type === 'binary' && (node.op === '*' || node.op === '/')) {
      return [...this.factors(node.left, inverse), ...this.factors(node.right, inverse !== (node.op === '/'))]
    }
    if (node.type === 'unary' && node.op === '-') {
      return [
        { form: constantExpression({ n: -1n, d: 1n }, this.env.frameRate), inverse: false },
        ...this.factors(node.of, inverse),
      ]
    }
    return [{ form: this.form(node), inverse }]
  }

  /** A constant made of dials by other means than a product is an atom of its own. */
  protected dialled(node: Node, made: CompiledExpression): CompiledExpression {
    if (!constantOf(made)) return made
    const reads = this.checked.reads.filter(r => r.type === 'dial' && r.from >= node.from && r.to <= node.to)
    if (reads.length === 0) return made
    const { text } = this.checked.formula
    let key = ''
    let at = node.from
    for (const r of reads) {
      key += text.slice(at, r.from) + (r.type === 'dial' ? r.id : '')
      at = r.to
    }
    key = (key + text.slice(at, node.to)).replace(/\s+/g, '')
    return { ...made, dials: dialFactor(key) }
  }

  private choice(node: IfNode): CompiledExpression {
    const test = this.form(node.test)
    const known = constantOf(test)
    // The other branch is not looked at: `if index > 0 then mount[index - 1].y else 0px` guards itself.
    if (known) return this.form(isZero(known) ? node.no : node.yes)
    return conditional(test, this.form(node.yes), this.form(node.no), this.env.frameRate, this.env.queue)
  }
}
