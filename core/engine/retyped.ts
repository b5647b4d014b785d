/**
 * A line typed anew while it runs: the same formula but for its numbers and for the constants that tuning once wrote
 * into it (`- 558deg` beside a time term, `phase:`, `from:`, `start:`), which a hand leaves out.
 */
import { matchingNumbers } from '../formula/edit.ts'
import { functionNamed } from '../functions/index.ts'
import { canonical } from '../units/names.ts'
import { children, type CallNode, type Formula, type Node, type NumberNode } from '../formula/tree.ts'
import { isSum, summands, type Summand } from './merge-constant.ts'

const TIME_NAMES = new Set(['time', 'frame'])
export const mentionsTime = (n: Node): boolean =>
  n.type === 'name' ? TIME_NAMES.has(canonical(n.name)) : n.type !== 'call' && children(n).some(mentionsTime)

/** A number, or one times something: what tuning puts beside a time term. */
export function isConstantTerm(n: Node): boolean {
  if (n.type === 'number') return true
  if (n.type === 'unary') return isConstantTerm(n.of)
  return n.type === 'binary' && n.op === '*' && !mentionsTime(n.right) && isConstantTerm(n.left)
}

/** The constants beside a time term in a sum. */
export const constantsOf = (sum: Node): Summand[] => summands(sum).filter(s => isConstantTerm(s.node))

/** The nodes of a formula in order, without what tuning writes into it. */
function bare(formula: Formula): Node[] {
  const all: Node[] = []
  const visit = (n: Node): void => {
    if (isSum(n)) {
      const parts = summands(n)
      const kept = parts.some(s => mentionsTime(s.node)) ? parts.filter(s => !isConstantTerm(s.node)) : parts
      if (kept.length < parts.length) return void kept.forEach(s => visit(s.sign < 0 ? negative(s.node) : s.node))
    }
    if (n.type === 'call') n = withoutCorrection(n)
    all.push(n)
    children(n).forEach(visit)
  }
  for (const l of formula.lets) visit(l.value)
  visit(formula.body)
  return all
}
const negative = (of: Node): Node => ({ type: 'unary', op: '-', of, from: of.from, to: of.to })

/** A call without the constant that makes up for its pace. */
function withoutCorrection(call: CallNode): CallNode {
  const entry = functionNamed(call.name)
  const name = entry?.pace?.phase ?? (entry?.name === 'ramp' ? 'start' : 'from')
  const args = call.args.filter(a => !(a.label && canonical(a.label) === name && isConstantTerm(a.value)))
  return args.length < call.args.length ? { ...call, args } : call
}

/** Pairs of numbers that differ between two formulas that are the same but for those and for corrections; null otherwise. */
export const retypedNumbers = (a: Formula, b: Formula): [NumberNode, NumberNode][] | null =>
  a.lets.length === b.lets.length ? matchingNumbers(bare(a), bare(b)) : null
