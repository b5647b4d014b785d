/**
 * What a formula means where it stands: each name looked up, each kind worked out and compared, each bare
 * number given its unit. Nothing is computed here; problems come back as data with their fixes.
 */
import {
  FREQUENCY,
  PLAIN,
  TIME,
  TRUTH,
  isPlain,
  kindName,
  power,
  product,
  quotient,
  sameKind,
  type Kind,
} from '../units/kinds.ts'
import { UNITS, readUnit, unitOfKind } from '../units/units.ts'
import { isWhole, isZero, toNumber } from '../time/rational.ts'
import { argumentsOf, type Filled } from './arguments.ts'
import { kindFixes } from './fixes.ts'
import { FUNCTIONS, functionNamed } from './functions/index.ts'
import type { Entry } from './functions/entry.ts'
import { Lookup, type Got, type Read, type SignalKind } from './lookup.ts'
import { canonical, meant, nearest } from './names.ts'
import { parse } from './parse.ts'
import { problem, replacing, type Problem } from './problem.ts'
import { warnings } from './warnings.ts'
import { builtinNamed, kindOfUnit, type Names, type Target, type Thing } from './scope.ts'
import {
  outerSpan,
  walk,
  type BinaryNode,
  type CallNode,
  type Formula,
  type Node,
  type NumberNode,
  type OnNode,
} from './tree.ts'

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
    const hints = run.problems.length === 0 ? warnings(formula) : []
    return [...run.problems, ...hints].map(p => {
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

class Check extends Lookup {
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
        return this.onClock(node, place)
    }
  }

  private onClock(node: OnNode, place: boolean): Got {
    const got = this.infer(node.of, place)
    const clock = this.names.named(node.clock)
    if (clock?.type !== 'clock') {
      const known = this.names.all().filter(t => t.type === 'clock')
      this.unknown(
        node.clockAt,
        node.clock,
        known.map(t => t.name),
        'There is no clock named',
      )
    } else if (!readsTime(node.of) && !(node.of.type === 'name' && this.lets.has(canonical(node.of.name)))) {
      this.wrong(
        problem(
          'clock',
          node,
          'Links, signals and dials keep their own clock, and nothing else is read here. Take the clock away, or put it where the time is read.',
        ),
      )
    }
    return got
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
      if (f.word) {
        if (f.parameter.thing) this.thing(f, f.parameter.thing)
        continue
      }
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
    const shared = [...got].filter(([f]) => f.parameter.kind === 'result' || f.parameter.kind === 'perSecond')
    const perSecond = (f: Filled, kind: Got): Got =>
      f.parameter.kind === 'perSecond' && kind !== 'any' ? product(kind, TIME) : kind
    const result = this.oneKind(
      entry,
      shared.map(([f, kind]) => [f, perSecond(f, kind)] as const),
      'result',
      node,
    )
    if (problems.length > 0) return 'any'
    this.mustBePlain(entry, node, result, new Set(filled.map(f => f.parameter.name)))
    if (entry.result === 'result') return result
    if (entry.result === 'curve') return this.curveKind(filled)
    if (entry.result !== 'rate') return entry.result
    const first = [...got.values()][0]
    return first === undefined || first === 'any' ? 'any' : quotient(first, TIME)
  }

  /** A value that is not plain is cut in steps of a size that must be said. */
  private mustBePlain(entry: Entry, node: CallNode, result: Got, given: ReadonlySet<string>): void {
    if (!entry.plainUnless || given.has(entry.plainUnless) || result === 'any' || isPlain(result)) return
    const unit = unitOfKind(result)
    const end = { from: node.to - 1, to: node.to - 1 }
    const fix = unit
      ? [replacing(end, `, ${entry.plainUnless}: 1${unit}`, `${entry.name}(…, ${entry.plainUnless}: 1${unit})`)]
      : []
    const says = `${entry.name} wants a plain value, or ${entry.plainUnless}: to say in what steps; this is ${kindName(result)}.`
    this.wrong(problem('kind', node, says, ...fix))
  }

  /** The name of a thing of the piece as an argument. */
  private thing(f: Filled, type: 'cue' | 'curve' | 'gear'): void {
    const { piece } = this.names
    const fits = (t: Thing) =>
      type === 'gear' ? t.type === 'part' && piece.parts[t.id]!.shape.type === 'gear' : t.type === type
    const named = this.names.named(f.word!.name)
    const own = this.target.part === null ? undefined : piece.parts[this.target.part]
    if (type === 'gear' && (own?.shape.type !== 'gear' || this.target.property?.name !== 'rotation')) {
      this.wrong(problem('argument-unknown', f.arg.value, 'Only the rotation of a gear can engage with another gear.'))
    } else if (!named || !fits(named)) {
      const known = this.names.all().filter(fits)
      this.unknown(
        f.arg.value,
        f.word!.name,
        known.map(t => t.name),
        `There is no ${type} named`,
      )
    } else if (type === 'gear') {
      const { from, to } = f.arg.value
      this.reads.push({ type: 'property', part: named.id, property: 'rotation', from, to, before: false })
    }
  }

  private curveKind(filled: readonly Filled[]): Got {
    const name = filled.find(f => f.parameter.thing === 'curve')?.word?.name
    const named = name === undefined ? undefined : this.names.named(name)
    return named?.type === 'curve' ? kindOfUnit(this.names.piece.curves[named.id]!.unit) : 'any'
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

/** Whether a node reads the time by itself: a time name, a source, or what the property holds by hand. */
function readsTime(node: Node): boolean {
  let found = false
  walk(node, n => {
    if (n.type === 'name') found ||= TIME_WORDS.has(canonical(n.name))
    if (n.type === 'call') found ||= functionNamed(n.name)?.group === 'source' || canonical(n.name) === 'accumulate'
  })
  return found
}
const TIME_WORDS = new Set(['time', 'frame', 'lapprogress', 'lapindex', 'base'])
