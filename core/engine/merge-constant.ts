/**
 * Writing a small difference into a sum, so that tuning the same number again and again leaves one constant:
 * it is merged with a constant that already stands there, else put behind the term.
 */
import type { Change } from '../formula/problem.ts'
import { outerSpan, type Node, type NumberNode } from '../formula/tree.ts'
import { compare, floor, fraction, minus, over, plus, rational, tenTo, times, type Rational } from '../time/rational.ts'
import { inBase, readUnit, type Measures } from '../units/units.ts'

/** A difference in base measure that a text must make up for. */
export interface Offset {
  readonly value: Rational
  /** The factor it is multiplied with, as text, when it differs from copy to copy. */
  readonly carry: string | null
  /** For a phase: what it must come to; rounding then stays on the side of its steps. */
  readonly keep: Rational | null
}

export const isSum = (n: Node): boolean => n.type === 'binary' && (n.op === '+' || n.op === '-')

export interface Summand {
  readonly node: Node
  readonly sign: 1 | -1
  /** The sum it is the right side of; null for a first summand. */
  readonly rightOf: (Node & { type: 'binary' }) | null
}

/** What a sum is made of, each with the sign it has in it. */
export function summands(n: Node, sign: 1 | -1 = 1, rightOf: Summand['rightOf'] = null): Summand[] {
  if (n.type === 'binary' && (n.op === '+' || n.op === '-')) {
    const turned = n.op === '-' ? (-sign as 1 | -1) : sign
    return [...summands(n.left, sign, rightOf), ...summands(n.right, turned, n)]
  }
  return [{ node: n, sign, rightOf }]
}

/**
 * The changes that add a gap to `term` within the sum `root` (to the whole sum when `term` is null), in `unit`
 * unless a constant that takes it up has its own.
 */
export function mergeIntoConstant(
  text: string,
  root: Node,
  term: Node | null,
  gap: Offset,
  unit: string,
  m: Measures,
): Change[] {
  const all = summands(root)
  const own = all.find(s => s.node === term)
  const sign = own?.sign ?? 1
  for (const s of all) {
    const number = constantIn(text, s.node, gap.carry)
    if (number && readUnit(number.unit || unit)) return [merged(text, s, number, gap, sign, unit, m)]
  }
  const at = own?.node ?? root
  const loose = at.type === 'if' && !at.outer
  const end = at.outer ? at.to : outerSpan(at).to
  const value = offsetText(gap, unit, m)
  // Inside its own brackets a term keeps its sign; without them a minus before it turns what follows.
  const down = value.startsWith('-') !== (sign < 0 && !at.outer)
  const insert = `${loose ? ')' : ''} ${down ? '-' : '+'} ${value.replace(/^-/, '')}`
  const closing = { from: end, to: end, insert }
  return loose ? [{ from: at.from, to: at.from, insert: '(' }, closing] : [closing]
}

/** The number of a summand that is a constant: `12deg`, `-12deg`, or `12deg * carry`. */
function constantIn(text: string, node: Node, carry: string | null): NumberNode | null {
  if (carry === null) {
    if (node.type === 'number') return node
    return node.type === 'unary' && node.op === '-' && node.of.type === 'number' ? node.of : null
  }
  if (node.type !== 'binary' || node.op !== '*') return null
  const { from, to } = outerSpan(node.right)
  return text.slice(from, to) === carry ? constantIn(text, node.left, null) : null
}

function merged(
  text: string,
  s: Summand,
  number: NumberNode,
  gap: Offset,
  sign: 1 | -1,
  unit: string,
  m: Measures,
): Change {
  const used = number.unit || unit
  const negated =
    /-\s*$/.test(text.slice(0, number.from)) &&
    (s.node.type === 'unary' || s.node.type === 'binary') &&
    s.node.from < number.from
  const held = inBase(number.value, readUnit(used)!, m)
  const now = negated ? { n: -held.n, d: held.d } : held
  const step = times(gap.value, rational(sign * s.sign))
  const value = offsetText({ value: plus(now, step), carry: null, keep: gap.keep }, used, m)
  const from = negated ? s.node.from : number.from
  if (!s.rightOf || s.node.outer) return { from, to: number.to, insert: value }
  // The sign before it is part of the number: `- 12deg` may become `+ 3deg`.
  const op = text.slice(0, from).search(/[+-]\s*$/)
  const down = value.startsWith('-') !== (s.rightOf.op === '-')
  return { from: op, to: number.to, insert: `${down ? '-' : '+'} ${value.replace(/^-/, '')}` }
}

const PLACES = 12
const SCALE = tenTo(PLACES)

/**
 * A gap with its unit, of 12 decimals at most, times its carry. A phase is rounded to the side on which it
 * stays in the cycle it is in, so that a value right at a step does not fall back over it.
 */
export function offsetText(gap: Offset, unit: string, m: Measures): string {
  const size = readUnit(unit)!.size(m)
  const scaled = times(over(gap.value, size), rational(SCALE))
  const down = floor(scaled)
  const nearest = compare(fraction(scaled), rational(1, 2)) >= 0 ? down + 1n : down
  const error = (n: bigint) => minus(times(rational(n, SCALE), size), gap.value)
  const stays = (n: bigint) => gap.keep === null || floor(plus(gap.keep, error(n))) === floor(gap.keep)
  const chosen = stays(nearest) ? nearest : nearest === down ? down + 1n : down
  return `${decimal(chosen)}${unit}${gap.carry === null ? '' : ` * ${gap.carry}`}`
}

/** Trillionths as decimal text without needless zeros. */
function decimal(trillionths: bigint): string {
  const size = trillionths < 0n ? -trillionths : trillionths
  const digits = size.toString().padStart(PLACES + 1, '0')
  const text = `${digits.slice(0, -PLACES)}.${digits.slice(-PLACES)}`.replace(/\.?0+$/, '')
  return trillionths < 0n && size !== 0n ? `-${text}` : text
}
