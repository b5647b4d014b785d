/**
 * Tuning without a jump: a change that sets pace, made at a moment, keeps every value there and only changes
 * where it goes next. In a formula the difference goes into `phase:` or into a constant beside the time term
 * (`merge-constant.ts`); for a dial, which many formulas read, into the slips of the piece (`retime.ts`).
 */
import type { Checked } from '../formula/check.ts'
import { argumentsOf } from '../formula/arguments.ts'
import { numbersThatDiffer } from '../formula/edit.ts'
import { functionNamed } from '../functions/index.ts'
import { canonical } from '../units/names.ts'
import { change, type Change } from '../formula/problem.ts'
import { children, everyNode, outerSpan, type CallNode, type Formula, type Node } from '../formula/tree.ts'
import { evaluateAffine } from '../time/affine.ts'
import { momentOfSeconds, type Moment } from '../time/moment.ts'
import {
  compare,
  equal,
  floor,
  fraction,
  fromFinite,
  isZero,
  minus,
  over,
  plus,
  rational,
  times,
  type Rational,
} from '../time/rational.ts'
import { unitOfKind, type Measures } from '../units/units.ts'
import { mergeIntoConstant, isSum, offsetText, summands, type Offset } from './merge-constant.ts'
import { compileNode, compilePhase } from './compile.ts'
import { rampGap } from './ramp-gap.ts'
import { constantsOf, mentionsTime, retypedNumbers } from './retyped.ts'
import { CannotRun } from './env.ts'
import type { Program } from './program.ts'

export interface TunedText {
  readonly text: string
  /** Why a value jumps at the moment of the change, in one sentence; null when none does. */
  readonly jumps: string | null
}

/**
 * The text that `wanted` becomes when the drive with this key runs `running` up to a moment: numbers that set
 * pace are made up for, so that no value jumps. Both programs are those with the old and the new text.
 */
export function tuneText(before: Program, after: Program, key: string, at: Moment): TunedText {
  const old = before.meanings.all.get(key)?.text
  const next = after.meanings.all.get(key)?.text
  const wanted = after.meanings.all.get(key)?.source.text ?? ''
  const same: TunedText = { text: wanted, jumps: null }
  if (!old || !next || before.slots.get(key)?.running !== 'text' || after.slots.get(key)?.running !== 'text')
    return same
  const numbers = numbersThatDiffer(old.formula, next.formula)
  const pairs = numbers ?? retypedNumbers(old.formula, next.formula)
  if (!pairs || pairs.length === 0) return same
  const a = distinct(pairs.flatMap(([n]) => paceTerms(old.formula, n)))
  const b = distinct(pairs.flatMap(([, n]) => paceTerms(next.formula, n)))
  let jumps: string | null = null
  const changes: Change[] = []
  for (let i = 0; i < Math.min(a.length, b.length); i++) {
    const [x, y] = [a[i]!, b[i]!]
    try {
      const difference = gap(before, after, key, old, next, x, y, at, numbers === null)
      if (typeof difference === 'string') jumps = difference
      else if (!isZero(difference.value)) changes.push(...written(next, y, difference, after.measures))
    } catch (e) {
      if (!(e instanceof CannotRun)) throw e
    }
  }
  return { text: change(wanted, changes), jumps }
}

/** A source call, a product of time with constants, or a rate that is added up: what a number sets the pace of. */
type Term =
  | { readonly type: 'sum'; readonly node: CallNode }
  | { readonly type: 'phase'; readonly node: CallNode }
  | { readonly type: 'ramp'; readonly node: CallNode }
  | { readonly type: 'time'; readonly node: Node; readonly sum: Node }

const distinct = (terms: readonly Term[]): Term[] => [...new Map(terms.map(t => [t.node, t])).values()]

/** What a node sets the pace of; one in a `let` does so wherever that is used. */
function paceTerms(formula: Formula, node: Node): Term[] {
  const own = paceTerm(formula, node)
  if (own) return [own]
  const named = formula.lets.find(l => contains(l.value, node))
  if (!named) return []
  const uses = everyNode(formula).filter(n => n.type === 'name' && canonical(n.name) === canonical(named.name))
  return uses.flatMap(n => paceTerms(formula, n))
}

/** The pace term round a node, or null when it sets no pace there. */
function paceTerm(formula: Formula, number: Node): Term | null {
  const path = pathTo(formula, number)
  for (let i = path.length - 2; i >= 0; i--) {
    const node = path[i]!
    const below = path[i + 1]!
    if (node.type === 'call') {
      const entry = functionNamed(node.name)
      const filled = entry && argumentsOf(node, entry).filled.find(f => f.arg.value === below)
      const name = filled?.parameter.name
      if (entry?.pace && name && (name === entry.pace.freq || name === entry.pace.every)) return { type: 'phase', node }
      if (entry?.pace && name === entry.pace.phase) return null
      if (filled?.parameter.kind === 'perSecond') return { type: 'sum', node }
      if (entry?.name === 'ramp' && name === 'length' && comesAgain(node)) return { type: 'ramp', node }
    }
    if (isProduct(node) && !(i > 0 && isProduct(path[i - 1]!))) {
      const time = factors(node).find(f => mentionsTime(f))
      if (time && !contains(time, number)) return { type: 'time', node, sum: path[sumFrom(path, i)]! }
    }
  }
  return null
}

/** Whether a ramp goes on after its end: then its length is a pace. */
const comesAgain = (node: CallNode): boolean =>
  argumentsOf(node, functionNamed('ramp')!).filled.some(
    f => f.parameter.name === 'after' && ['repeat', 'mirror'].includes(canonical(f.word?.name ?? '')),
  )

const isProduct = (n: Node): boolean =>
  (n.type === 'binary' && (n.op === '*' || n.op === '/')) || (n.type === 'unary' && n.op === '-')

function factors(n: Node): Node[] {
  if (n.type === 'binary' && (n.op === '*' || n.op === '/')) return [...factors(n.left), ...factors(n.right)]
  return n.type === 'unary' && n.op === '-' ? factors(n.of) : [n]
}

/** Where the sum begins that a term on a path stands in; the term itself when it is in none. */
function sumFrom(path: readonly Node[], term: number): number {
  let at = term
  while (at > 0 && isSum(path[at - 1]!)) at--
  return at
}

const contains = (n: Node, wanted: Node): boolean => n === wanted || children(n).some(c => contains(c, wanted))

function pathTo(formula: Formula, wanted: Node): Node[] {
  const visit = (n: Node): Node[] | null => {
    if (n === wanted) return [n]
    for (const c of children(n)) {
      const found = visit(c)
      if (found) return [n, ...found]
    }
    return null
  }
  for (const root of [...formula.lets.map(l => l.value), formula.body]) {
    const found = visit(root)
    if (found) return found
  }
  return []
}

/**
 * What the new text lacks against the old at the moment, or a sentence when it cannot be made up for.
 * @param retyped the constants beside a time term count too: they were not typed again
 */
function gap(
  before: Program,
  after: Program,
  key: string,
  old: Checked,
  next: Checked,
  x: Term,
  y: Term,
  at: Moment,
  retyped: boolean,
): Offset | string {
  if (x.type === 'ramp' && y.type === 'ramp') {
    const { exactSeconds } = momentRead(old, before, key, x.node, 0, at)
    return rampGap(before, after, key, old, next, x.node, y.node, exactSeconds)
  }
  const { count: copies } = after.slots.get(key)!
  // What is the same for all copies is made up for once.
  const alike =
    copies > 1 &&
    !(retyped && x.type === 'time') &&
    isAlike(before, old, x, key) &&
    isAlike(after, next, y, key) &&
    sameAhead(old, next, x, y)
  const count = alike ? 1 : copies
  const gaps: Rational[] = []
  let keep: Rational | null = null
  for (let i = 0; i < count; i++) {
    const was = paced(old, before, key, x, i, retyped)
    const is = paced(next, after, key, y, i, retyped)
    if (!was || !is) return 'The pace isn’t linear in time here, so the value jumps.'
    if (was.wrap !== is.wrap && y.type === 'phase' && functionNamed(y.node.name)?.seeded) {
      return 'The lap has a whole number of steps here, so changing it makes the value jump.'
    }
    const [a, b] = [
      was.at(momentRead(old, before, key, x.node, i, at)),
      is.at(momentRead(next, after, key, y.node, i, at)),
    ]
    if (i === 0 && y.type === 'phase') keep = a
    gaps.push(minus(a, b))
  }
  const cyclic = y.type === 'phase' && !functionNamed(y.node.name)?.seeded
  const first = gaps[0]!
  if (gaps.every(g => equal(g, first))) return { value: cyclic ? centred(first) : first, carry: null, keep }
  const carry = carried(next, y, gaps, after, key)
  return carry ?? 'Each copy has its own pace here, so the value jumps.'
}

/** Whether the pace of a term, and the moment at which it is read, are the same on every copy. */
function isAlike(program: Program, checked: Checked, { type, node }: Term, key: string): boolean {
  const varying = program.varying(key, checked)
  const path = pathTo(checked.formula, node)
  const moves = path.some(
    (n, i) =>
      n.type === 'call' &&
      MOVES.has(canonical(n.name)) &&
      n.args.some(({ value }) => value !== path[i + 1] && varying.has(value)),
  )
  if (moves) return false
  if (type !== 'phase') return !varying.has(node)
  const pace = paceGiven(node)
  return pace !== null && !varying.has(pace)
}

/** Whether two sources are written with the same phase, which then takes nothing off the difference. */
function sameAhead(old: Checked, next: Checked, x: Term, y: Term): boolean {
  if (x.type !== 'phase' || y.type !== 'phase') return true
  const written = (c: Checked, call: CallNode): string => {
    const entry = functionNamed(call.name)!
    const at = argumentsOf(call, entry).filled.find(f => f.parameter.name === entry.pace!.phase)?.arg.value
    return at ? c.formula.text.slice(at.from, at.to) : ''
  }
  return written(old, x.node) === written(next, y.node)
}

/** The moment at which a term is read when the formula is read at one: a delay, a hold or an `at` round it moves it. */
function momentRead(checked: Checked, program: Program, key: string, node: Node, instance: number, at: Moment): Moment {
  const path = pathTo(checked.formula, node)
  let moment = at
  path.forEach((n, i) => {
    if (n.type !== 'call' || !MOVES.has(canonical(n.name)) || path[i + 1] === undefined) return
    const { filled } = argumentsOf(n, functionNamed(n.name)!)
    const [x, by] = [filled[0]?.arg.value, filled[1]?.arg.value]
    if (x !== path[i + 1] || !by) return
    const value = compileNode(checked, program.envFor(key, instance), by)
    const amount = value.exact ? evaluateAffine(value.exact, moment) : fromFinite(value.at(moment))
    const t = moment.exactSeconds
    const name = canonical(n.name)
    if (name === 'hold' && isZero(amount)) return
    const there =
      name === 'delay' ? minus(t, amount) : name === 'at' ? amount : over(rational(floor(times(t, amount))), amount)
    moment = momentOfSeconds(there, moment.rate)
  })
  return moment
}
const MOVES = new Set(['delay', 'hold', 'at'])

/** Within half a turn either way: whole turns make no difference to an oscillator. */
function centred(turns: Rational): Rational {
  const part = fraction(turns)
  return compare(part, rational(1, 2)) > 0 ? minus(part, rational(1)) : part
}

function paced(checked: Checked, program: Program, key: string, term: Term, instance: number, whole: boolean) {
  const env = program.envFor(key, instance)
  if (term.type === 'phase') {
    const phase = compilePhase(checked, env, term.node)
    return { at: phase.exactAt, wrap: phase.wrap }
  }
  const { exact, at } = compileNode(checked, env, term.node)
  if (term.type === 'sum' && !exact) return { at: (m: Moment) => fromFinite(Number(at(m).toFixed(15))), wrap: 0 }
  if (!exact) return null
  let beside = rational(0)
  if (whole && term.type === 'time' && isSum(term.sum))
    for (const { node, sign } of constantsOf(term.sum)) {
      const { exact } = compileNode(checked, env, node)
      if (!exact || !isZero(exact.rate)) return null
      beside = plus(beside, times(exact.base, rational(sign)))
    }
  const own = term.type === 'time' ? signOf(term) : 1
  return { at: (m: Moment) => plus(evaluateAffine(exact, m), times(beside, rational(own))), wrap: 0 }
}

/** Whether a time term is added in its sum or taken from it. */
const signOf = ({ node, sum }: Term & { type: 'time' }): 1 | -1 => summands(sum).find(s => s.node === node)?.sign ?? 1

/** When the gap is a constant times one factor of the pace that differs from copy to copy, that factor's text. */
function carried(next: Checked, term: Term, gaps: readonly Rational[], after: Program, key: string): Offset | null {
  const pace = term.type === 'time' ? term.node : term.type === 'sum' ? null : paceArgument(term.node)
  if (!pace) return null
  for (const f of factors(pace)) {
    if (mentionsTime(f)) continue
    const values = gaps.map((_, i) => {
      const { exact } = compileNode(next, after.envFor(key, i), f)
      return exact && isZero(exact.rate) ? exact.base : null
    })
    const k = values.findIndex(v => v !== null && !isZero(v))
    if (k < 0) continue
    const share = over(gaps[k]!, values[k]!)
    if (!values.every((v, i) => v !== null && equal(times(share, v), gaps[i]!))) continue
    const { from, to } = outerSpan(f)
    return { value: share, carry: next.formula.text.slice(from, to), keep: null }
  }
  return null
}

/** What a source's pace is written as, a frequency or a period. */
function paceGiven(call: CallNode): Node | null {
  const { pace } = functionNamed(call.name)!
  const { filled } = argumentsOf(call, functionNamed(call.name)!)
  return filled.find(f => f.parameter.name === pace!.freq || f.parameter.name === pace!.every)?.arg.value ?? null
}

function paceArgument(call: CallNode): Node | null {
  const entry = functionNamed(call.name)!
  return argumentsOf(call, entry).filled.find(f => f.parameter.name === entry.pace!.freq)?.arg.value ?? null
}

/** The changes that write a gap into the text. */
function written(next: Checked, term: Term, gap: Offset, measures: Measures): Change[] {
  const { text } = next.formula
  if (term.type === 'time') {
    const kind = next.kinds.get(term.node)
    const unit = kind && kind !== 'any' ? unitOfKind(kind) : undefined
    return unit === undefined ? [] : mergeIntoConstant(text, term.sum, term.node, gap, unit, measures)
  }
  const entry = functionNamed(term.node.name)!
  const kind = next.kinds.get(term.node)
  const unit =
    term.type === 'ramp' ? 's' : term.type === 'phase' ? 'turn' : kind && kind !== 'any' ? unitOfKind(kind) : undefined
  if (unit === undefined) return []
  const name = term.type === 'ramp' ? 'start' : term.type === 'phase' ? entry.pace!.phase! : 'from'
  const given = argumentsOf(term.node, entry).filled.find(f => f.parameter.name === name)?.arg.value
  if (given) return mergeIntoConstant(text, given, null, gap, unit, measures)
  const end = term.node.to - 1
  return [{ from: end, to: end, insert: `, ${name}: ${offsetText(gap, unit, measures)}` }]
}
