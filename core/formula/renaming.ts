/** Renaming in a text: every use of a name changed, and no word of the language that only looks like it. */
import { functionNamed } from '../functions/index.ts'
import { canonical } from '../units/names.ts'
import { argumentsOf } from './arguments.ts'
import { parse } from './parse.ts'
import { change, type Change } from './problem.ts'
import { everyNode, type Formula, type NameNode } from './tree.ts'
import { RELATIVES, builtinNamed, written } from './words.ts'

/** The names in a formula that stand for things of the piece, not for words of the language. */
function things(formula: Formula): NameNode[] {
  const before = new Set<unknown>()
  const words = new Set<unknown>()
  const named = new Set<unknown>()
  for (const n of everyNode(formula)) {
    if (n.type === 'member' || n.type === 'index') before.add(n.of)
    const entry = n.type === 'call' ? functionNamed(n.name) : undefined
    if (n.type !== 'call' || !entry) continue
    for (const f of argumentsOf(n, entry).filled) {
      if (f.parameter.thing || f.word?.curve) named.add(f.arg.value)
      else if (f.word) words.add(f.arg.value)
    }
  }
  const lets = new Set(formula.lets.map(l => canonical(l.name)))
  return everyNode(formula).filter((n): n is NameNode => {
    if (n.type !== 'name' || words.has(n)) return false
    if (n.quoted || named.has(n)) return true
    if (lets.has(canonical(n.name))) return false
    if (before.has(n)) return !(RELATIVES as readonly string[]).includes(canonical(n.name))
    return !builtinNamed(n.name)
  })
}

/** A text with every use of a name changed. A text that cannot be read stays. */
export function renamedIn(text: string, from: string, to: string): string {
  const { formula } = parse(text)
  if (!formula) return text
  const is = (name: string) => canonical(name) === canonical(from)
  const changes: Change[] = things(formula)
    .filter(n => is(n.name))
    .map(n => ({ from: n.from, to: n.to, insert: written(to) }))
  for (const n of everyNode(formula)) {
    if (n.type === 'on' && is(n.clock)) changes.push({ ...n.clockAt, insert: written(to) })
  }
  return change(text, changes)
}
