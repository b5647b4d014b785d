/** What can be looked at beside a running formula: its takes, and any part of its text. */
import { compile, compileNode } from '../engine/compile.ts'
import { CannotRun } from '../engine/env.ts'
import type { Program } from '../engine/program.ts'
import type { CompiledExpression } from '../form/compiled-expression.ts'
import { everyNode, outerSpan } from '../formula/tree.ts'
import { PLAIN, type Kind } from '../units/kinds.ts'

export interface ComparedTake {
  readonly text: string
  readonly form: Pick<CompiledExpression, 'at'>
  readonly kind: Kind
}

function orNull<T>(make: () => T): T | null {
  try {
    return make()
  } catch (e) {
    if (e instanceof CannotRun) return null
    throw e
  }
}

/** The takes of a drive that do not run now, by their names; those with errors are left out. */
export function takesBeside(program: Program, key: string, copy: number): ComparedTake[] {
  const drive = program.piece.drives[key]
  return (drive?.takes ?? []).flatMap(take => {
    if (take.text === drive!.text) return []
    const { checked, problems } = program.meanings.look(take.text, key)
    if (!checked || problems.some(p => p.level === 'error')) return []
    const form = orNull(() => compile(checked, program.envFor(key, copy)))
    return form ? [{ text: take.name, form, kind: kindOf(checked.result) }] : []
  })
}

const kindOf = (got: Kind | 'any' | undefined): Kind => (got === undefined || got === 'any' ? PLAIN : got)

/** The part of a formula between two places of its text; null where that is no whole part of it, or it does not run. */
export function partBetween(
  program: Program,
  key: string,
  copy: number,
  from: number,
  to: number,
): ComparedTake | null {
  const checked = program.slots.get(key)?.running === 'text' ? program.meanings.all.get(key)?.text : null
  if (!checked) return null
  const { text } = checked.formula
  const inside = text.slice(from, to)
  const [a, b] = [from + (inside.length - inside.trimStart().length), to - (inside.length - inside.trimEnd().length)]
  const node = everyNode(checked.formula).find(n => {
    const o = outerSpan(n)
    return (n.from === a && n.to === b) || (o.from === a && o.to === b)
  })
  const form = node && orNull(() => compileNode(checked, program.envFor(key, copy), node))
  return form ? { text: text.slice(a, b), form, kind: kindOf(checked.kinds.get(node)) } : null
}
