/**
 * What a formula means where it stands: each name looked up, each kind worked out and compared, each bare
 * number given its unit. Nothing is computed here; problems come back as data with their fixes.
 */
import { PLAIN, TRUTH, isPlain, kindName, powerKind, productKind, quotientKind, sameKind } from '../units/kinds.ts'
import { UNITS, printNumber, readUnit } from '../units/units.ts'
import { ONE, compare, isWhole, isZero, toNumber } from '../time/rational.ts'
import { kindFixes } from './fixes.ts'
import { functionNamed } from '../functions/index.ts'
import { Calls } from './calls.ts'
import type { Got, FormulaRead, SignalKind } from './lookup.ts'
import { canonical, meant, nearest } from '../units/names.ts'
import { parse } from './parse.ts'
import { problem, replacing, type Problem } from './problem.ts'
import { warnings } from './warnings.ts'
import type { Names, Target } from './scope.ts'
import { builtinNamed } from './words.ts'
import { outerSpan, walk, type BinaryNode, type Formula, type Node, type NumberNode, type OnNode } from './tree.ts'

export interface Checked {
  readonly formula: Formula
  readonly problems: readonly Problem[]
  /** The unit that a bare number took from the driven property. */
  readonly bare: ReadonlyMap<NumberNode, string>
  readonly reads: readonly FormulaRead[]
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
    if (lets.has(canonical(l.name))) {
      run.problems.push(
        problem('unknown-name', l.nameAt, `${l.name} is defined twice. Give the second one another name.`),
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
      'This is a yes or no. Choose a value for each with if … then … else ….',
    )
  } else if (wanted && result !== 'any' && !sameKind(result, wanted)) {
    const says = `This is ${kindName(result)}, but ${target.property.name} needs ${kindName(wanted)}.`
    run.mismatch(formula.body, result, wanted, says)
  }
  return done(result)

  function done(kind: Got): Checked {
    return { formula, problems: mended(), bare: run.bare, reads: run.reads, kinds: run.kinds, result: kind }
  }
  function mended(): readonly Problem[] {
    if (!fixing) return run.problems
    const hints = run.problems.length === 0 ? [...warnings(formula), ...percents(run.shares)] : []
    return [...run.problems, ...hints].map(p => {
      const clash = run.clashes.get(p)
      return clash
        ? { ...p, fixes: kindFixes(formula, clash, p, text => kindProblems(text, names, target, signalKind)) }
        : p
    })
  }
}

/** A plain number above 1 on a property in per cent: said in per cent, since one is likely meant. */
function percents(shares: readonly NumberNode[]): Problem[] {
  const [first] = shares
  if (!first) return []
  const n = toNumber(first.value)
  const says = `${printNumber(n)} is ${(n * 100).toLocaleString('en', { maximumFractionDigits: 2 })} % here.`
  const changes = shares.map(s => ({ from: s.to, to: s.to, insert: '%' }))
  const fix = { label: `${printNumber(n)}%`, changes }
  return [{ code: 'kind', level: 'warning', from: first.from, to: first.to, message: says, fixes: [fix] }]
}

/** How a text fares when it is tried as a fix: its number of problems, or null when it cannot be read. */
function kindProblems(text: string, names: Names, target: Target, signalKind: SignalKind): number | null {
  const { formula } = parse(text)
  return formula && check(formula, names, target, signalKind, false).problems.length
}

class Check extends Calls {
  /** Bare numbers above 1 that stand where a share of the driven property is wanted. */
  readonly shares: NumberNode[] = []

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
        return this.wrong(problem('syntax', node, 'After a copy in [ ] write a property, as in mount[2].y.'))
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
        'Unknown clock',
      )
    } else if (
      !readsTime(node.of, this.names) &&
      !(node.of.type === 'name' && this.lets.has(canonical(node.of.name)))
    ) {
      this.wrong(
        problem(
          'clock',
          node,
          'Links, signals and dials keep their own clock, and nothing else here reads the time. Delete the clock, or put it where time is read.',
        ),
      )
    }
    return got
  }

  private number(node: NumberNode, place: boolean): Got {
    if (node.unit === '') {
      const unit = this.target.property?.unit
      if (place && (unit === 'deg' || unit === 'px')) {
        this.bare.set(node, unit)
        return this.target.property!.kind
      }
      if (place && unit === '%' && compare(node.value, ONE) > 0) this.shares.push(node)
      return isZero(node.value) ? 'any' : PLAIN
    }
    const unit = readUnit(node.unit)
    if (unit) return unit.kind
    const at = { from: node.unitFrom, to: node.to }
    const known = UNITS.map(u => u.name)
    const near = nearest(node.unit, known)
    const says = `${node.unit} isn’t a unit.${meant(near) || ` Units are ${known.join(', ')}.`}`
    return this.wrong(problem('unit', at, says, ...near.map(n => replacing(at, n))))
  }

  private truth(node: Node): Got {
    const got = this.infer(node, false)
    if (got !== 'any' && !got.truth && !this.isSwitch(node)) {
      this.wrong(
        problem('kind', outerSpan(node), `This must be a comparison, such as time < 3s; this is ${kindName(got)}.`),
      )
    }
    return TRUTH
  }

  /** A dial that is a switch is a yes or no by itself. */
  private isSwitch(node: Node): boolean {
    if (node.type !== 'name') return false
    const thing = this.names.named(node.name)
    return thing?.type === 'dial' && this.names.piece.dials[thing.id]!.type === 'switch'
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
        return this.alike(left, x, right, y, `These can’t be ${op === '+' ? 'added' : 'subtracted'}`)
      case '*':
        return x === 'any' || y === 'any' ? 'any' : productKind(x, y)
      case '/':
        return x === 'any' || y === 'any' ? 'any' : quotientKind(x, y)
      case '^':
        return this.powered(right, x, y)
      default:
        this.alike(left, x, right, y, 'These can’t be compared')
        return TRUTH
    }
  }

  private powered(right: Node, x: Got, y: Got): Got {
    if (y !== 'any' && !isPlain(y))
      return this.mismatch(right, y, PLAIN, `An exponent must be a plain number; this is ${kindName(y)}.`)
    if (x === 'any' || isPlain(x)) return x
    const whole = right.type === 'number' && isWhole(right.value)
    if (whole) return powerKind(x, toNumber(right.value))
    return this.wrong(problem('kind', right, `${kindName(x)} can only be raised to a whole number, such as 2.`))
  }
}

/** Whether a node reads the time by itself: a time name, a source, or what the property holds by hand. */
function readsTime(node: Node, names: Names): boolean {
  let found = false
  walk(node, n => {
    if (n.type === 'name')
      found ||= (!n.quoted && TIME_WORDS.has(canonical(n.name))) || names.named(n.name)?.type === 'curve'
    if (n.type === 'call') found ||= functionNamed(n.name)?.group === 'source' || canonical(n.name) === 'accumulate'
  })
  return found
}
const TIME_WORDS = new Set(['time', 'frame', 'lapprogress', 'lapindex', 'base'])
