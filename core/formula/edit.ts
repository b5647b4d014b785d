/** Changing one number in a text and leaving every other letter as it was. */
import { canonical } from '../units/names.ts'
import { change, type Change } from './problem.ts'
import type { Formula, Node, NumberNode } from './tree.ts'
import { everyNode, handles } from './tree.ts'
import { compare, toNumber } from '../time/rational.ts'

/** The decimals that a number was written with. */
export const decimalsOf = (text: string): number => /\.(\d+)/.exec(text)?.[1]?.length ?? 0

/** The digits of a number in a text, without its unit. */
export const digitsOf = (text: string, n: NumberNode): string => text.slice(n.from, n.unitFrom)

/**
 * The change that makes a number `value`, rounded to `decimals`. Negative values of a number are written with
 * a minus, which joins a sign before it: `a + 3px` becomes `a - 3px`, `-3px` becomes `3px`.
 */
export function numberChange(text: string, n: NumberNode, value: number, decimals: number): Change {
  const rounded = Number(Math.abs(value).toFixed(Math.min(12, decimals)))
  const digits = rounded.toFixed(Math.min(12, decimals))
  if (value >= 0 || rounded === 0) return { from: n.from, to: n.unitFrom, insert: digits }
  const before = /([+-])(\s*)$/.exec(text.slice(0, n.from))
  if (!before) return { from: n.from, to: n.unitFrom, insert: `-${digits}` }
  const at = n.from - before[0].length
  const leading =
    /(^|[(,:=*/^<>])\s*$/.test(text.slice(0, at)) || /\b(then|else|and|or|not|if)\s*$/i.test(text.slice(0, at))
  const sign = before[1] === '-' ? (leading ? '' : '+') : '-'
  return { from: at, to: n.unitFrom, insert: sign + (sign ? before[2] : '') + digits }
}

/** The text with the n-th handle (number with digits) set; unchanged when there is no such handle. */
export function setHandle(formula: Formula, nth: number, value: number, decimals: number): string {
  const n = handles(formula)[nth]
  return n ? change(formula.text, [numberChange(formula.text, n, value, decimals)]) : formula.text
}

/** How far one step of a drag or an arrow key goes: the last written place, at least a hundredth part of the size. */
export function strideOf(text: string, n: NumberNode): number {
  const written = Number(`1e-${decimalsOf(digitsOf(text, n))}`)
  const steps = Math.floor(Math.abs(toNumber(n.value)) / (20 * written))
  return steps >= 10 ? written * Number(`1e${String(steps).length - 1}`) : written
}

/** Pairs of numbers that differ between two trees of the same shape; null when anything else differs. */
export const numbersThatDiffer = (a: Formula, b: Formula): [NumberNode, NumberNode][] | null =>
  a.lets.length === b.lets.length ? matchingNumbers(everyNode(a), everyNode(b)) : null

/** The same of two lists of nodes, in the order of their trees. */
export function matchingNumbers(x: readonly Node[], y: readonly Node[]): [NumberNode, NumberNode][] | null {
  if (x.length !== y.length) return null
  const pairs: [NumberNode, NumberNode][] = []
  for (let i = 0; i < x.length; i++) {
    const [m, n] = [x[i]!, y[i]!]
    if (m.type === 'number' && n.type === 'number') {
      if (canonical(m.unit) !== canonical(n.unit) || compare(m.value, n.value) !== 0) pairs.push([m, n])
    } else if (skeleton(m) !== skeleton(n)) return null
  }
  return pairs
}

/** What a node is, without what stands below it. */
function skeleton(n: Node): string {
  switch (n.type) {
    case 'name':
      return `name ${canonical(n.name)}`
    case 'member':
      return `member ${canonical(n.name)}`
    case 'call':
      return `call ${canonical(n.name)} ${n.args.map(a => canonical(a.label ?? '')).join()}`
    case 'unary':
    case 'binary':
      return `${n.type} ${n.op}`
    case 'on':
      return `on ${canonical(n.clock)}`
    default:
      return n.type
  }
}
