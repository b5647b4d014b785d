/** Ramps that repeat or mirror: another length keeps how far on they are, by their start. */
import type { Checked } from '../formula/check.ts'
import { argumentsOf } from '../formula/arguments.ts'
import { functionNamed } from '../functions/index.ts'
import { everyNode, type CallNode, type Node } from '../formula/tree.ts'
import { isZero, minus, over, rational, times, type Rational } from '../time/rational.ts'
import type { Offset } from './merge-constant.ts'
import { compileNode } from './compile.ts'
import type { Program } from './program.ts'

/** A ramp of another length is as far on at second t as it was, if it has set off at another time. */
export function rampGap(
  before: Program,
  after: Program,
  key: string,
  old: Checked,
  next: Checked,
  x: CallNode,
  y: CallNode,
  t: Rational,
): Offset | string {
  const clocked = (c: Checked, node: Node) =>
    everyNode(c.formula).some(n => n.type === 'on' && n.from <= node.from && node.to <= n.to)
  if (clocked(old, x) || clocked(next, y)) return 'This ramp runs on a clock, so the value jumps.'
  const read = (c: Checked, p: Program, node: CallNode, name: string): Rational | null => {
    const arg = argumentsOf(node, functionNamed('ramp')!).filled.find(f => f.parameter.name === name)?.arg.value
    if (!arg) return rational(0)
    const { exact } = compileNode(c, p.envFor(key, 0), arg)
    return exact && isZero(exact.rate) ? exact.base : null
  }
  const [s1, l1] = [read(old, before, x, 'start'), read(old, before, x, 'length')]
  const [s2, l2] = [read(next, after, y, 'start'), read(next, after, y, 'length')]
  if (!s1 || !l1 || !s2 || !l2 || isZero(l1)) return 'The length isn’t a constant here, so the value jumps.'
  const gone = over(minus(t, s1), l1)
  if (gone.n < 0n) return { value: rational(0), carry: null, keep: null }
  return { value: minus(minus(t, times(gone, l2)), s2), carry: null, keep: null }
}
