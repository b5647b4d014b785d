/** What runs, but hardly as meant: time multiplied by something that itself changes leaps and runs back. */
import { functionNamed } from '../functions/index.ts'
import { canonical } from '../units/names.ts'
import { replacing, type Problem } from './problem.ts'
import { children, everyNode, outerSpan, walk, type Formula, type Node } from './tree.ts'

const isProduct = (n: Node): boolean => n.type === 'binary' && (n.op === '*' || n.op === '/')

function factors(n: Node): Node[] {
  return n.type === 'binary' && n.op === '*' ? [...factors(n.left), ...factors(n.right)] : [n]
}

/** Whether a node changes with time by itself, through a source. */
function moves(n: Node): boolean {
  let found = false
  walk(n, c => {
    if (c.type === 'call') found ||= functionNamed(c.name)?.group === 'source' || canonical(c.name) === 'accumulate'
  })
  return found
}

/** The warnings of a formula, with the fix that adds the pace up instead. */
export function warnings(formula: Formula): Problem[] {
  const found: Problem[] = []
  const inner = new Set(
    everyNode(formula)
      .filter(isProduct)
      .flatMap(n => children(n).filter(isProduct)),
  )
  for (const n of everyNode(formula)) {
    if (!isProduct(n) || inner.has(n)) continue
    const all = factors(n)
    const time = all.find(f => f.type === 'name' && canonical(f.name) === 'time')
    const rest = all.filter(f => f !== time)
    if (!time || !rest.some(moves)) continue
    const text = rest.map(f => formula.text.slice(outerSpan(f).from, outerSpan(f).to)).join(' * ')
    const at = outerSpan(n)
    const says =
      'Time multiplied by a changing pace jumps and runs backwards. Use accumulate to add the pace up instead.'
    found.push({
      code: 'varying',
      level: 'warning',
      from: at.from,
      to: at.to,
      message: says,
      fixes: [replacing(at, `accumulate(${text})`)],
    })
  }
  return found
}
