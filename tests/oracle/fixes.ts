/** Trials of fixes: the first that is offered for a wrong formula runs, and gives what was meant. */
import { tried } from './fair.ts'
import { q } from './fraction.ts'
import { TAKEN, WRONG, type Wrong } from './wrong.ts'
import { change } from '../../core/formula/problem.ts'

export interface FixTrial {
  readonly wrong: Wrong
  /** The text that the first fix gives; null when none is offered. */
  readonly fixed: string | null
  readonly fault: string | null
}

const MOMENTS = [q(0), q(1, 3), q(1), q(7, 5), q(5, 2), q(19, 4), q(7), q(100, 7)]

function tryOne(wrong: Wrong, taken: boolean): FixTrial {
  const [property, text, meant] = wrong
  const before = tried(text, property)
  const slot = before.program.slots.get(before.key)!
  const first = slot.problems.find(p => p.fixes.length > 0)
  // What is taken as it stands must mean what was meant.
  const asIs = taken || slot.problems.length === 0
  if (!asIs && !first) return { wrong, fixed: null, fault: `no fix: ${slot.problems[0]?.message}` }
  const fixed = asIs ? text : change(text, first!.fixes[0]!.changes)
  const [own, other] = [tried(fixed, property), tried(meant, property)]
  if (own.problems.length > 0) return { wrong, fixed, fault: `does not run: ${own.problems[0]}` }
  if (other.problems.length > 0) return { wrong, fixed, fault: `the trial itself is wrong: ${other.problems[0]}` }
  for (const t of MOMENTS) {
    for (const copy of [0, 2]) {
      const [a, b] = [own.value(t, copy), other.value(t, copy)]
      if (Math.abs(a - b) > 1e-9 * (1 + Math.abs(b)))
        return { wrong, fixed, fault: `gives ${a} where ${b} was meant (${Number(t.n) / Number(t.d)} s)` }
    }
  }
  return { wrong, fixed, fault: null }
}

export const tryFixes = (): FixTrial[] => [...WRONG.map(w => tryOne(w, false)), ...TAKEN.map(w => tryOne(w, true))]
