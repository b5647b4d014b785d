/** Renaming in a text: every use of a name changed, and no word of the language that only looks like it. */
import { functionNamed } from '../functions/index.ts'
import { canonical } from '../units/names.ts'
import { argumentsOf } from './arguments.ts'
import { parse } from './parse.ts'
import { change, type Change } from './problem.ts'
import { everyNode, type Formula, type NameNode } from './tree.ts'
import { RELATIVES, builtinNamed, quotedName } from './words.ts'

/** The names in a formula by what they stand for: things of the piece, or words of the language. */
function namesIn(formula: Formula): { things: NameNode[]; builtins: NameNode[] } {
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
  const found = { things: [] as NameNode[], builtins: [] as NameNode[] }
  for (const n of everyNode(formula)) {
    if (n.type !== 'name' || words.has(n)) continue
    if (n.quoted || named.has(n)) found.things.push(n)
    else if (lets.has(canonical(n.name))) continue
    else if (!before.has(n)) found[builtinNamed(n.name) ? 'builtins' : 'things'].push(n)
    else if (!(RELATIVES as readonly string[]).includes(canonical(n.name))) found.things.push(n)
  }
  return found
}

/** A text with every use of a name changed. A text that cannot be read stays. */
export function renamedIn(text: string, from: string, to: string): string {
  const { formula } = parse(text)
  if (!formula) return text
  const is = (name: string) => canonical(name) === canonical(from)
  const changes: Change[] = namesIn(formula)
    .things.filter(n => is(n.name))
    .map(n => ({ from: n.from, to: n.to, insert: quotedName(to) }))
  for (const n of everyNode(formula)) {
    if (n.type === 'on' && is(n.clock)) changes.push({ ...n.clockAt, insert: quotedName(to) })
  }
  return change(text, changes)
}

/** What the words of copies are where there is one alone: the first of one, where it stands. */
const ONE_ALONE: Readonly<Record<string, string>> = {
  count: '1',
  rows: '1',
  columns: '1',
  layers: '1',
  homex: '0px',
  homey: '0px',
  homeangle: '0deg',
}

/** A text for a part that has no copies: its words of copies are what they are of a single one. */
export function ofOneAlone(text: string): string {
  const { formula } = parse(text)
  if (!formula) return text
  const changes: Change[] = namesIn(formula)
    .builtins.filter(n => builtinNamed(n.name)!.copies)
    .map(n => ({ from: n.from, to: n.to, insert: ONE_ALONE[canonical(n.name)] ?? '0' }))
  return change(text, changes)
}
