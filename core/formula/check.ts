/**
 * What a formula means where it stands: each name looked up, each kind worked out and compared, each bare
 * number given its unit. Nothing is computed here; problems come back as data with their fixes.
 */
import {
  FREQUENCY,
  PLAIN,
  TRUTH,
  TIME,
  isPlain,
  kindName,
  power,
  product,
  quotient,
  sameKind,
  type Kind,
} from '../units/kinds.ts'
import { UNITS, readUnit } from '../units/units.ts'
import { isWhole, isZero, toNumber } from '../time/rational.ts'
import { argumentsOf, type Filled } from './arguments.ts'
import { kindFixes } from './fixes.ts'
import { FUNCTIONS, functionNamed } from './functions/index.ts'
import type { Entry } from './functions/entry.ts'
import { canonical, meant, nearest, written } from './names.ts'
import { parse } from './parse.ts'
import { problem, replacing, type Problem, type Span } from './problem.ts'
import { BUILTINS, RELATIVES, builtinNamed, featureOf, levelsOf, relative, type Names, type Target } from './scope.ts'
import { propertiesOf } from '../rig/properties.ts'
import {
  outerSpan,
  type BinaryNode,
  type CallNode,
  type Formula,
  type MemberNode,
  type NameNode,
  type Node,
  type NumberNode,
} from './tree.ts'

/** A kind, or `any` for 0 and for what already has a problem. */
export type Got = Kind | 'any'

/** What else of the piece a formula reads. */
export type Read =
  | ({ readonly type: 'property'; readonly part: string; readonly property: string } & Span)
  | ({ readonly type: 'dial' | 'signal'; readonly id: string } & Span)

export interface Checked {
  readonly formula: Formula
  readonly problems: readonly Problem[]
  /** The unit that a bare number took from the driven property. */
  readonly bare: ReadonlyMap<NumberNode, string>
  readonly reads: readonly Read[]
  /** What each node gives. */
  readonly kinds: ReadonlyMap<Node, Got>
  readonly result: Got
}

/** The kind of a signal, or `any` while it has a problem of its own. */
export type SignalKind = (id: string) => Got

/** Checks a formula for a target. `fixing` is false where a fix is itself being tried. */
export function check(formula: Formula, names: Names, target: Target, signalKind: SignalKind, fixing = true): Checked {
  const run = new Check(names, target, signalKind)
  const lets = new Map<string, Got>()
  for (const l of formula.lets) {
    const got = run.infer(l.value, false)
    if (builtinNamed(l.name) || names.named(l.name)) {
      run.problems.push(
        problem('unknown-name', l.nameAt, `${l.name} already means something else. Choose another name.`),
      )
    }
    lets.set(canonical(l.name), got)
    run.lets = lets
  }
  const result = run.infer(formula.body, true)
  const wanted = target.property?.kind
  // What is wrong inside comes first: the kind of the whole says nothing new then.
  if (fixing && run.problems.some(p => p.code === 'kind')) return done(result)
  if (result !== 'any' && result.truth) {
    run.mismatch(
      formula.body,
      result,
      wanted ?? PLAIN,
      'This gives a yes or no. Choose a value for each with if … then … else ….',
    )
  } else if (wanted && result !== 'any' && !sameKind(result, wanted)) {
    const says = `This gives ${kindName(result)}; ${target.property!.name} wants ${kindName(wanted)}.`
    run.mismatch(formula.body, result, wanted, says)
  }
  return done(result)

  function done(kind: Got): Checked {
    return { formula, problems: mended(), bare: run.bare, reads: run.reads, kinds: run.kinds, result: kind }
  }
  function mended(): readonly Problem[] {
    if (!fixing) return run.problems
    return run.problems.map(p => {
      const clash = run.clashes.get(p)
      return clash
        ? { ...p, fixes: kindFixes(formula, clash, p, text => kindProblems(text, names, target, signalKind)) }
        : p
    })
  }
}

/** How a text fares when it is tried as a fix: its number of problems, or null when it cannot be read. */
function kindProblems(text: string, names: Names, target: Target, signalKind: SignalKind): number | null {
  const { formula } = parse(text)
  return formula && check(formula, names, target, signalKind, false).problems.length
}

/** Where two kinds met that do not fit: what stood there, and what was wanted. */
export interface Clash {
  readonly node: Node
  readonly got: Kind
  readonly wanted: Kind
}

class Check {
  readonly problems: Problem[] = []
  readonly clashes = new Map<Problem, Clash>()
  readonly bare = new Map<NumberNode, string>()
  readonly reads: Read[] = []
  readonly kinds = new Map<Node, Got>()
  lets: ReadonlyMap<string, Got> = new Map()

  constructor(
    private readonly names: Names,
    private readonly target: Target,
    private readonly signalKind: SignalKind,
  ) {}

  private wrong(p: Problem): 'any' {
    this.problems.push(p)
    return 'any'
  }

  mismatch(node: Node, got: Kind, wanted: Kind, says: string): 'any' {
    const p = problem('kind', outerSpan(node), says)
    this.clashes.set(p, { node, got, wanted })
    return this.wrong(p)
  }

  /** The kind of a node. `place`: whether a bare number here takes the driven property's unit. */
  infer(node: Node, place: boolean): Got {
    const got = this.look(node, place)
    this.kinds.set(node, got)
    return got
  }

  private look(node: Node, place: boolean): Got {
    switch (node.type) {
      case 'number':
        return this.number(node, place)
      case 'name':
        return this.name(node)
      case 'member':
        return this.member(node)
      case 'index':
        return this.wrong(problem('syntax', node, 'Behind a copy in [ ] comes a property, as in mount[2].y.'))
      case 'call':
        return this.call(node, place)
      case 'unary':
        if (node.op === 'not') return this.truth(node.of)
        return this.measured(node.of, this.infer(node.of, place))
      case 'binary':
        return this.binary(node, place)
      case 'if': {
        this.truth(node.test)
        return this.alike(
          node.yes,
          this.infer(node.yes, place),
          node.no,
          this.infer(node.no, place),
          'The two branches differ',
        )
      }
      case 'on':
        this.infer(node.of, place)
        return this.wrong(problem('unknown-name', node.clockAt, `There is no clock named ${node.clock}.`))
    }
  }

  private number(node: NumberNode, place: boolean): Got {
    if (node.unit === '') {
      const unit = this.target.property?.unit
      if (place && unit && unit !== '%') {
        this.bare.set(node, unit)
        return this.target.property!.kind
      }
      return isZero(node.value) ? 'any' : PLAIN
    }
    const unit = readUnit(node.unit)
    if (unit) return unit.kind
    const at = { from: node.unitFrom, to: node.to }
    const known = UNITS.map(u => u.name)
    const near = nearest(node.unit, known)
    const says = `${node.unit} is no unit.${meant(near) || ` Units are ${known.join(', ')}.`}`
    return this.wrong(problem('unit', at, says, ...near.map(n => replacing(at, n))))
  }

  private name(node: NameNode): Got {
    const own = this.lets.get(canonical(node.name))
    if (own !== undefined) return own
    const builtin = builtinNamed(node.name)
    if (builtin) return this.builtin(node, builtin.name)
    const thing = this.names.named(node.name)
    if (thing?.type === 'dial') {
      this.reads.push({ type: 'dial', id: thing.id, from: node.from, to: node.to })
      return thing.kind
    }
    if (thing?.type === 'signal') {
      this.reads.push({ type: 'signal', id: thing.id, from: node.from, to: node.to })
      return this.signalKind(thing.id)
    }
    if (thing?.type === 'part') {
      const first = propertiesOf(this.names.piece.parts[thing.id]!.shape.type)
      const wanted = first.find(p => p.name === this.target.property?.name) ?? first[0]!
      const fix = replacing({ from: node.to, to: node.to }, `.${wanted.name}`, `${written(thing.name)}.${wanted.name}`)
      return this.wrong(
        problem(
          'syntax',
          node,
          `${thing.name} is a part. Say which property, as in ${written(thing.name)}.${wanted.name}.`,
          fix,
        ),
      )
    }
    if (functionNamed(node.name)) {
      return this.wrong(
        problem('syntax', node, `${node.name} is a function: its arguments stand in brackets behind it.`),
      )
    }
    if ((RELATIVES as readonly string[]).includes(canonical(node.name))) {
      return this.wrong(problem('syntax', node, `Behind ${node.name} comes a property, as in ${node.name}.rotation.`))
    }
    return this.unknown(node, node.name, [...BUILTINS.map(b => b.name), ...this.valueNames()], 'There is nothing named')
  }

  private valueNames(): string[] {
    return [...this.names.all().map(t => t.name), ...this.lets.keys()]
  }

  private unknown(at: Span, name: string, known: readonly string[], says: string): 'any' {
    const near = nearest(name, known)
    return this.wrong(
      problem('unknown-name', at, `${says} ${name}.${meant(near)}`, ...near.map(n => replacing(at, written(n)))),
    )
  }

  private builtin(node: NameNode, name: string): Got {
    const builtin = builtinNamed(name)!
    if (builtin.copies && (!this.target.part || levelsOf(this.names.piece, this.target.part).length === 0)) {
      const what = this.target.part ? 'This part has no copies' : 'A signal belongs to no copy'
      return this.wrong(problem('index', node, `${what}, so there is no ${name} here.`))
    }
    if (builtin.kind !== 'base') return builtin.kind
    return (
      this.target.property?.kind ??
      this.wrong(problem('unknown-name', node, 'A signal drives no property, so it has no base.'))
    )
  }

  private member(node: MemberNode): Got {
    const { piece } = this.names
    const of = node.of.type === 'index' ? node.of.of : node.of
    if (of.type !== 'name') return this.wrong(problem('syntax', node, 'Before the dot stands the name of a part.'))
    const word = canonical(of.name)
    let part: string
    if ((RELATIVES as readonly string[]).includes(word)) {
      if (word === 'parent' && ['index', 'count', 'along'].includes(canonical(node.name))) return this.outerCopy(node)
      const found = relative(piece, word, this.target.part)
      if (typeof found !== 'string') return this.wrong(problem('unknown-name', of, found.says))
      part = found
    } else {
      const thing = this.names.named(of.name)
      if (thing?.type !== 'part') {
        const parts = this.names.all().filter(t => t.type === 'part')
        return this.unknown(
          of,
          of.name,
          parts.map(t => t.name),
          'There is no part named',
        )
      }
      part = thing.id
    }
    const feature = featureOf(piece, part, node.name)
    const { name, shape } = piece.parts[part]!
    if (!feature) {
      return this.unknown(
        node.nameAt,
        node.name,
        propertiesOf(shape.type).map(p => p.name),
        `${name} has no property`,
      )
    }
    this.copyOf(node, of, part)
    if ('setting' in feature) return PLAIN
    this.reads.push({ type: 'property', part, property: feature.name, from: node.from, to: node.to })
    return feature.kind
  }

  /** `parent.index` and its like: the copies one level further out. */
  private outerCopy(node: MemberNode): Got {
    const levels = this.target.part ? levelsOf(this.names.piece, this.target.part).length : 0
    if (levels > 1) return PLAIN
    return this.wrong(
      problem('index', node, `There are no copies further out, so there is no parent.${node.name} here.`),
    )
  }

  /** A copied part read from outside its copies needs to say which. */
  private copyOf(node: MemberNode, of: NameNode, part: string): void {
    const { piece } = this.names
    const there = levelsOf(piece, part)
    const here = this.target.part ? levelsOf(piece, this.target.part) : []
    const shared = there.filter((l, i) => here[i]?.part === l.part).length
    if (node.of.type === 'index') {
      const got = this.infer(node.of.at, false)
      if (got !== 'any' && !isPlain(got))
        this.mismatch(node.of.at, got, PLAIN, `Which copy is a plain number; this is ${kindName(got)}.`)
      if (there.length === 0) {
        const at = { from: of.to, to: node.of.to }
        this.wrong(problem('index', at, `${of.name} has no copies.`, replacing(at, '', `${of.name}.${node.name}`)))
      }
      return
    }
    if (there.length > shared) {
      const { count } = there.at(-1)!.copies
      const fix = replacing({ from: of.to, to: of.to }, '[0]', `${of.name}[0].${node.name}`)
      this.wrong(
        problem('index', of, `${of.name} has ${count} copies. Say which one, from [0] to [${count - 1}].`, fix),
      )
    }
  }

  private truth(node: Node): Got {
    const got = this.infer(node, false)
    if (got !== 'any' && !got.truth) {
      this.wrong(
        problem('kind', outerSpan(node), `Here a comparison is wanted, such as time < 3s; this is ${kindName(got)}.`),
      )
    }
    return TRUTH
  }

  /** A number of any kind, but no yes or no. */
  private measured(node: Node, got: Got): Got {
    if (got === 'any' || !got.truth) return got
    return this.wrong(
      problem('kind', outerSpan(node), 'A yes or no cannot be reckoned with. Choose with if … then … else ….'),
    )
  }

  /** Both kinds must be the same. */
  private alike(a: Node, x: Got, b: Node, y: Got, says: string): Got {
    if (x === 'any') return y
    if (y === 'any' || sameKind(x, y)) return x
    // The plain side is the one that most likely lacks its unit.
    const plainLeft = isPlain(x)
    return this.mismatch(
      plainLeft ? a : b,
      plainLeft ? x : y,
      plainLeft ? y : x,
      `${says}: ${kindName(x)} and ${kindName(y)}.`,
    )
  }

  private binary(node: BinaryNode, place: boolean): Got {
    const { op, left, right } = node
    if (op === 'and' || op === 'or') {
      this.truth(left)
      return this.truth(right)
    }
    const through = place && (op === '+' || op === '-')
    const x = this.measured(left, this.infer(left, through))
    const y = this.measured(right, this.infer(right, through))
    switch (op) {
      case '+':
      case '-':
        return this.alike(left, x, right, y, `These cannot be ${op === '+' ? 'added' : 'subtracted'}`)
      case '*':
        return x === 'any' || y === 'any' ? 'any' : product(x, y)
      case '/':
        return x === 'any' || y === 'any' ? 'any' : quotient(x, y)
      case '^':
        return this.powered(right, x, y)
      default:
        this.alike(left, x, right, y, 'These cannot be compared')
        return TRUTH
    }
  }

  private powered(right: Node, x: Got, y: Got): Got {
    if (y !== 'any' && !isPlain(y))
      return this.mismatch(right, y, PLAIN, `A power is a plain number; this is ${kindName(y)}.`)
    if (x === 'any' || isPlain(x)) return x
    const whole = right.type === 'number' && isWhole(right.value)
    if (whole) return power(x, toNumber(right.value))
    return this.wrong(problem('kind', right, `${kindName(x)} can be raised to a whole number only, such as 2.`))
  }

  private call(node: CallNode, place: boolean): Got {
    const entry = functionNamed(node.name)
    if (!entry) {
      for (const a of node.args) this.infer(a.value, false)
      return this.unknown(
        node.nameAt,
        node.name,
        FUNCTIONS.map(f => f.name),
        'There is no function',
      )
    }
    const { filled, problems } = argumentsOf(node, entry)
    this.problems.push(...problems)
    const got = new Map<Filled, Got>()
    for (const f of filled) {
      if (f.word) continue
      got.set(f, this.measured(f.arg.value, this.infer(f.arg.value, place && f.parameter.valuePlace === true)))
    }
    for (const [f, kind] of got) {
      const wanted = f.parameter.kind
      if (typeof wanted === 'string' || kind === 'any' || sameKind(kind, wanted)) continue
      const what = sameKind(wanted, FREQUENCY) && sameKind(kind, TIME) ? ' (every: takes a time)' : ''
      this.mismatch(
        f.arg.value,
        kind,
        wanted,
        `${f.parameter.name} wants ${kindName(wanted)}${what}; this is ${kindName(kind)}.`,
      )
    }
    this.oneKind(
      entry,
      [...got].filter(([f]) => f.parameter.kind === 'other'),
      'other',
    )
    const result = this.oneKind(
      entry,
      [...got].filter(([f]) => f.parameter.kind === 'result'),
      'result',
      node,
    )
    if (problems.length > 0) return 'any'
    return entry.result === 'result' ? result : entry.result
  }

  /** All arguments that share a kind must have one; a number left out that is not 0 counts as plain. */
  private oneKind(
    entry: Entry,
    given: readonly (readonly [Filled, Got])[],
    kind: 'result' | 'other',
    call?: CallNode,
  ): Got {
    let first: readonly [Filled, Kind] | null = null
    for (const [f, got] of given) {
      if (got === 'any') continue
      if (!first) first = [f, got]
      else if (!sameKind(first[1], got)) {
        const plainFirst = isPlain(first[1])
        const [at, has, other] = plainFirst ? [first[0], first[1], got] : [f, got, first[1]]
        const names = `${first[0].parameter.name} is ${kindName(first[1])} and ${f.parameter.name} ${kindName(got)}`
        return this.mismatch(at.arg.value, has, other, `In ${entry.name} ${names}; they must be of one kind.`)
      }
    }
    if (!call) return first?.[1] ?? PLAIN
    const names = new Set(given.map(([f]) => f.parameter.name))
    const second = entry.either?.some(([, b]) =>
      b.some(n => names.has(n) && entry.takes.find(p => p.name === n)?.kind === kind),
    )
    const missing = entry.takes.find(
      p => p.kind === kind && p.initial !== undefined && p.initial !== 0 && !names.has(p.name),
    )
    if (!missing || second) return first?.[1] ?? 'any'
    if (first && !isPlain(first[1])) {
      const says = `In ${entry.name} ${first[0].parameter.name} is ${kindName(first[1])}, and ${missing.name}, left out, is a plain ${missing.initial}.`
      return this.mismatch(call, PLAIN, first[1], says)
    }
    return PLAIN
  }
}
