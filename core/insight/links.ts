/** The links of a piece, both ways: what each formula reads, and what reads it. */
import { readKeys, runningFormula } from '../engine/meaning.ts'
import type { Program } from '../engine/program.ts'

export interface Links {
  /** Keys of the properties and signals that the running formula reads, and ids of its dials. */
  readonly reads: readonly string[]
  readonly dials: readonly string[]
  /** Keys of the formulas that read it. */
  readonly readBy: readonly string[]
}

/** The links of every formula, by key; what is read but has no formula has an entry too. */
export function linksOf(program: Program): ReadonlyMap<string, Links> {
  const found = new Map<string, { reads: string[]; dials: string[]; readBy: string[] }>()
  const entry = (key: string) => {
    const known = found.get(key) ?? { reads: [], dials: [], readBy: [] }
    found.set(key, known)
    return known
  }
  for (const [key, meaning] of program.meanings.all) {
    const formula = runningFormula(meaning)
    const own = entry(key)
    own.dials.push(...(program.slots.get(key)?.dials ?? []))
    for (const read of new Set(formula ? readKeys(formula) : [])) {
      own.reads.push(read)
      entry(read).readBy.push(key)
    }
  }
  return found
}
