/**
 * The shape of a formula: its text without the digits of its numbers and the names of the parts that it reads. Formulas of
 * one shape have the same tree, so they can be run together, a lane each. Numbers per lap count as written, since
 * what is paced by them is tuned together.
 */
import type { Checked } from '../formula/check.ts'
import type { Span } from '../formula/problem.ts'
import { everyNode, type CallNode, type NumberNode } from '../formula/tree.ts'
import { functionNamed } from '../functions/index.ts'
import { isPerLap } from './compile.ts'
import { filledIn } from './call-compiler.ts'

const shapes = new WeakMap<Checked, string>()

/** The numbers of a formula, those of formulas of one shape in the same order. */
export const numberNodes = ({ formula }: Checked): NumberNode[] =>
  everyNode(formula).filter((n): n is NumberNode => n.type === 'number')

/** Arguments that are words, such as `powIn(3)`: what is in them is no value. */
function wordsOf(node: CallNode): Span[] {
  const entry = functionNamed(node.name)
  return entry ? filledIn(node, entry).filled.flatMap(f => (f.word ? [f.arg.value] : [])) : []
}

export function shapeOf(checked: Checked): string {
  const known = shapes.get(checked)
  if (known !== undefined) return known
  const { text } = checked.formula
  const words = everyNode(checked.formula).flatMap(n => (n.type === 'call' ? wordsOf(n) : []))
  const holes: { from: number; to: number; filling: string }[] = []
  for (const n of numberNodes(checked))
    if (n.unitFrom > n.from && !isPerLap(checked, n) && !words.some(w => w.from <= n.from && n.to <= w.to))
      holes.push({ from: n.from, to: n.unitFrom, filling: `#${checked.bare.get(n) ?? ''}` })
  for (const r of checked.reads)
    if (r.type === 'property') holes.push({ from: r.from, to: r.to, filling: `@${r.property}` })
  holes.sort((a, b) => a.from - b.from)
  let shape = ''
  let at = 0
  for (const { from, to, filling } of holes) {
    // What stands in another hole, such as the index of a copy, goes with it.
    if (from < at) continue
    shape += text.slice(at, from) + filling
    at = to
  }
  shape += text.slice(at)
  shapes.set(checked, shape)
  return shape
}
