/**
 * A checked formula made ready to be read: its tree becomes a form. This is the plain evaluator, one closure a
 * node; it says what a formula means, and anything faster must give the same bits.
 */
import type { Checked } from '../formula/check.ts'
import { argumentsOf } from '../formula/arguments.ts'
import { functionNamed } from '../formula/functions/index.ts'
import type { Call, Entry, Word } from '../formula/functions/entry.ts'
import { ALL } from '../insight/interval.ts'
import { argsOf, costOfArgs, edgesOfArgs, repeatsOfArgs } from '../formula/functions/entry.ts'
import { canonical, nearest, written } from '../formula/names.ts'
import { replacing, type Span } from '../formula/problem.ts'
import type { Marks } from '../signal/marks.ts'
import { PIECE, reading, type Beat } from './beat.ts'
import { builtinNamed } from '../formula/scope.ts'
import {
  everyNode,
  outerSpan,
  type BinaryNode,
  type CallNode,
  type IfNode,
  type MemberNode,
  type NameNode,
  type Node,
  type NumberNode,
} from '../formula/tree.ts'
import { ONE, ZERO, compare, isWhole, isZero, negate, over, toNumber, within, type Rational } from '../time/rational.ts'
import { inBase, readUnit } from '../units/units.ts'
import { atom, type Run } from './dialled.ts'
import { stop, type Env } from './env.ts'
import { constantOf, fixed, fixedNumber, form, negated, steady, sum, type Form } from './form.ts'
import { phaseOf } from './phase.ts'
import { either, compared, joined, opposed, raised } from './operators.ts'
import { product, type Factor, type Setting } from './product.ts'
import { totalOf } from './total.ts'

/** The form of a whole formula. Throws `CannotRun` with the problem. */
export function compile(checked: Checked, env: Env): Form {
  const c = new Compiler(checked, env)
  return c.form(checked.formula.body)
}

/** The exact share of a node that grows steadily: a source's phase in turns, or a value in base measure. */
export function compileNode(checked: Checked, env: Env, node: Node): Form {
  const c = new Compiler(checked, env)
  return c.within(node, () => c.form(node))
}

/** The phase of a source call, in turns, as far as it grows steadily. */
export function compilePhase(checked: Checked, env: Env, node: CallNode) {
  const c = new Compiler(checked, env)
  return c.within(node, () => c.phase(node))
}

class Compiler {
  private readonly nth = new Map<Node, number>()
  private beat: Beat = PIECE
  /** Forms of the `let`s, for each clock they are read on. */
  private readonly lets = new Map<Beat, Map<string, Form>>()

  constructor(
    private readonly checked: Checked,
    private readonly env: Env,
  ) {
    // Each call's place among the calls of its name, in text order.
    const counts = new Map<string, number>()
    for (const n of everyNode(checked.formula)) {
      if (n.type !== 'call') continue
      const name = canonical(n.name)
      this.nth.set(n, counts.get(name) ?? 0)
      counts.set(name, (counts.get(name) ?? 0) + 1)
    }
  }

  /** Does something with another clock in force. */
  private on<T>(beat: Beat, make: () => T): T {
    const before = this.beat
    this.beat = beat
    try {
      return make()
    } finally {
      this.beat = before
    }
  }

  /** Does something with the clock in force where a node stands. */
  within<T>(node: Node, make: () => T): T {
    let beat = PIECE
    for (const n of everyNode(this.checked.formula)) {
      if (n.type === 'on' && n.of.from <= node.from && node.to <= n.of.to) beat = this.env.clock(n.clock)
    }
    return this.on(beat, make)
  }

  private letNamed(name: string): Form | undefined {
    const at = this.checked.formula.lets.find(l => canonical(l.name) === name)
    if (!at) return undefined
    const kept = this.lets.get(this.beat) ?? new Map<string, Form>()
    this.lets.set(this.beat, kept)
    if (!kept.has(name)) kept.set(name, this.form(at.value))
    return kept.get(name)
  }

  form(node: Node): Form {
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
        return stop('syntax', node, 'This cannot stand here.')
    }
  }

  /** On a clock that is not steady a pace runs over the clock's own seconds. */
  private get setting(): Setting {
    const { beat, env } = this
    if (beat.steady) return env
    const there = (run: Run): Run =>
      run.clocked ? { key: `~${beat.id}${run.key}`, at: m => run.at(beat.when(m)), clocked: false } : run
    return { ...env, slip: (dials, pace, run) => env.slip(dials, pace, there(run)) }
  }

  private constant(value: Rational, at: Span, perLap = false): Form {
    if (!within(value)) return stop('limit', at, 'This number is too large or too small to be kept exact.')
    return fixed(value, this.env.frameRate, { perLap })
  }

  private number(node: NumberNode): Form {
    const unit = readUnit(node.unit === '' ? (this.checked.bare.get(node) ?? '') : node.unit)!
    return this.constant(inBase(node.value, unit, this.env), node, unit.perLap || canonical(node.unit) === 'lap')
  }

  private name(node: NameNode): Form {
    const name = canonical(node.name)
    const own = this.letNamed(name)
    if (own) return own
    if (builtinNamed(name)) return this.env.builtin(builtinNamed(name)!.name, this.beat)
    const read = this.checked.reads.find(r => r.from === node.from && r.to === node.to)
    if (read?.type === 'dial') return this.env.dial(read.id)
    if (read?.type === 'signal') return this.env.signal(read.id)
    return stop('unknown-name', node, `There is nothing named ${node.name}.`)
  }

  private member(node: MemberNode): Form {
    const of = node.of.type === 'index' ? node.of.of : node.of
    const word = of.type === 'name' ? of.name : ''
    if (canonical(word) === 'parent' && builtinNamed(node.name)?.copies)
      return this.env.builtin(`parent.${builtinNamed(node.name)!.name}`, this.beat)
    const feature = this.env.feature(word, node.name)
    if ('setting' in feature) return fixedNumber(feature.setting, this.env.frameRate)
    let copy: number | 'before' | null = canonical(word) === 'before' ? 'before' : null
    if (node.of.type === 'index') {
      const which = constantOf(this.form(node.of.at))
      if (!which || !isWhole(which))
        return stop('index', node.of.at, 'Which copy must be a whole number that does not change with time.')
      copy = toNumber(which)
    }
    const found = this.env.property(feature.part, feature.property, copy)
    return (
      found ??
      stop('index', node.of, `There is no copy ${copy} of ${word}. Guard it with if, or choose one that is there.`)
    )
  }

  private unary(node: Node & { type: 'unary' }): Form {
    const of = this.form(node.of)
    if (node.op === '+') return of
    if (node.op === '-') return negated(of, this.env.frameRate)
    return opposed(of, this.env.frameRate)
  }

  private binary(node: BinaryNode): Form {
    switch (node.op) {
      case '*':
      case '/':
        return product(this.factors(node, false), this.setting)
      case '^':
        return this.dialled(node, raised(this.form(node.left), this.form(node.right), this.env.frameRate))
      case '+':
        return this.dialled(node, sum(this.form(node.left), this.form(node.right), this.env.frameRate))
      case '-': {
        const right = this.form(node.right)
        const made = sum(this.form(node.left), negated(right, this.env.frameRate), this.env.frameRate)
        return this.dialled(node, made)
      }
      case 'and':
      case 'or':
        return joined(node.op === 'and', this.form(node.left), this.form(node.right), this.env.frameRate)
      default:
        return compared(node.op, this.form(node.left), this.form(node.right), this.env.frameRate)
    }
  }

  /** All factors of a product, in text order, through brackets and quotients. */
  private factors(node: Node, inverse: boolean): Factor[] {
    if (node.type === 'binary' && (node.op === '*' || node.op === '/')) {
      return [...this.factors(node.left, inverse), ...this.factors(node.right, inverse !== (node.op === '/'))]
    }
    if (node.type === 'unary' && node.op === '-') {
      return [{ form: fixed({ n: -1n, d: 1n }, this.env.frameRate), inverse: false }, ...this.factors(node.of, inverse)]
    }
    return [{ form: this.form(node), inverse }]
  }

  /** A constant made of dials by other means than a product is an atom of its own. */
  private dialled(node: Node, made: Form): Form {
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
    return { ...made, dials: atom(key) }
  }

  private choice(node: IfNode): Form {
    const test = this.form(node.test)
    const known = constantOf(test)
    // The other branch is not looked at: `if index > 0 then mount[index - 1].y else 0px` guards itself.
    if (known) return this.form(isZero(known) ? node.no : node.yes)
    return either(test, this.form(node.yes), this.form(node.no), this.env.frameRate)
  }

  /** The call of an entry with its arguments made ready. */
  private prepared(node: CallNode): { entry: Entry; call: Call } {
    const entry = functionNamed(node.name)!
    const args: Record<string, Form | undefined> = {}
    const words: Record<string, Word | undefined> = {}
    const many: Form[] = []
    const given = new Set<string>()
    const { filled } = argumentsOf(node, entry)
    const last = entry.takes.at(-1)!
    for (const { parameter, arg, word } of filled) {
      given.add(parameter.name)
      if (word) {
        words[parameter.name] = word
        continue
      }
      // A period is turned into a frequency factor by factor, so that `2s / fairPace` may come to rest at 0.
      const made =
        parameter.name === entry.pace?.every
          ? this.on(PIECE, () => product(this.factors(arg.value, true), this.setting))
          : parameter.kind === 'perSecond' || parameter.name === entry.pace?.freq
            ? this.on(PIECE, () => this.form(arg.value))
            : this.form(arg.value)
      this.fits(parameter, made, arg.value, parameter.name === entry.pace?.every)
      if (entry.many && parameter === last) many.push(made)
      else args[parameter.name] = made
    }
    for (const p of entry.takes) {
      if (args[p.name] === undefined && p.initial !== undefined)
        args[p.name] = fixedNumber(p.initial, this.env.frameRate)
    }
    const { frameRate, lapLength } = this.env
    const place = `${this.env.place}.${entry.name}${this.nth.get(node) ?? 0}`
    const phase = phaseOf(entry, args, { ...this.setting, lapLength }, this.beat, place)
    const total = args.rate && entry.takes.some(p => p.kind === 'perSecond') ? args.rate : null
    const { beat } = this
    const call: Call = {
      args,
      given,
      many,
      words,
      phase,
      total: total && totalOf(total, place, this.setting, beat),
      seed: this.seed(node, entry, args),
      frameRate,
      measures: { frameRate, lapLength },
      beat,
      read: a => reading(a, beat, frameRate),
      curve: this.curve(entry, node, words),
      cue: this.cue(entry, words),
      gear: entry.name === 'engage' ? this.env.gear(words.gear!.name) : null,
      surface: words.surface ? this.surface(words.surface.name) : null,
      windows: this.env.windows,
    }
    return { entry, call }
  }

  private curve(entry: Entry, node: CallNode, words: Call['words']): Call['curve'] {
    const parameter = entry.takes.find(p => p.thing === 'curve')
    const name = parameter && words[parameter.name]?.name
    if (name === undefined) return null
    const channel = words.channel?.name ?? null
    const found = this.env.curve(name, channel)
    if (found) return found
    const known = this.env.channels(name)
    const at = node.args.find(a => a.value.type === 'name' && a.value.name === channel)?.value ?? node
    const fixes = nearest(channel ?? '', known).map(n => replacing(at, written(n)))
    return stop('argument-unknown', at, `${name} has no channel ${channel}. It has ${known.join(', ')}.`, ...fixes)
  }

  /** A wave surface is read at the moment, on the piece's own time, as links are. */
  private surface(name: string): Call['surface'] {
    const { lapStart, lapLength, frameRate } = this.env
    const lap = reading({ rate: over(ONE, lapLength), base: negate(over(lapStart, lapLength)) }, PIECE, frameRate)
    return { ...this.env.surface(name), lap }
  }

  private cue(entry: Entry, words: Call['words']): Marks | null {
    const parameter = entry.takes.find(p => p.thing === 'cue')
    const name = parameter && words[parameter.name]?.name
    return name === undefined ? null : this.env.cue(name)
  }

  private fits(p: Entry['takes'][number], made: Form, at: Node, inverted: boolean): void {
    const c = constantOf(made)
    if (p.steady && !c) stop('varying', outerSpan(at), `${p.name} must not change with time.`)
    if (!p.positive) return
    const low = c ? compare(c, ZERO) : 1
    const never = inverted && c === null && made.exact === null && !Number.isFinite(made.facts().bounds.high)
    if (inverted ? low < 0 || (never && at.type === 'number') : low <= 0) {
      stop('domain', outerSpan(at), `${p.name} must be more than 0.`)
    }
  }

  private seed(node: CallNode, entry: Entry, args: Record<string, Form | undefined>): number {
    if (!entry.seeded) return 0
    const own = args.seed && constantOf(args.seed)
    return own ? this.env.seed(`=${own.n}/${own.d}`, -1) : this.env.seed(canonical(entry.name), this.nth.get(node) ?? 0)
  }

  phase(node: CallNode) {
    return this.prepared(node).call.phase
  }

  private call(node: CallNode): Form {
    const { entry, call } = this.prepared(node)
    const exact = entry.exact?.(call)
    if (exact && isZero(exact.rate)) return this.dialled(node, fixed(exact.base, this.env.frameRate))
    if (exact) return steady(exact, this.env.frameRate)
    const known = {
      bounds: () => entry.bounds(call),
      repeats: () => (entry.repeats ?? repeatsOfArgs)(call),
      edges: () => (entry.edges ?? edgesOfArgs)(call),
      cost: () => (entry.cost ?? costOfArgs)(call),
      finite: () => argsOf(call).every(f => f.facts().finite) && (entry.finite?.(call) ?? true),
      slope: () => entry.slope?.(call) ?? ALL,
    }
    return form(entry.value(call), known, entry.integral?.(call) ?? null)
  }
}
