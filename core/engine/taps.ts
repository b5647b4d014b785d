/** Taps on a cue while it plays: where the mark is placed. */
import { argumentsOf } from '../formula/arguments.ts'
import { everyNode } from '../formula/tree.ts'
import { functionNamed } from '../functions/index.ts'
import type { Moment } from '../time/moment.ts'
import { canonical } from '../units/names.ts'
import type { LiveMarks } from './live-marks.ts'
import { runningFormula } from './meaning.ts'
import type { Program } from './program.ts'

/** How long before a mark of a cue the earliest gesture on it sets off, in seconds; 0 when none does. */
export function longestLead(program: Program, cue: string): number {
  const { piece } = program
  const name = canonical(piece.cues[cue]!.name)
  let longest = 0
  for (const meaning of program.meanings.all.values()) {
    const formula = runningFormula(meaning)?.formula
    for (const node of formula ? everyNode(formula) : []) {
      const entry = node.type === 'call' ? functionNamed(node.name) : undefined
      if (node.type !== 'call' || entry?.name !== 'play') continue
      const words = new Map(argumentsOf(node, entry).filled.map(f => [f.parameter.name, f.word?.name]))
      if (canonical(words.get('cue') ?? '') !== name) continue
      const curve = Object.values(piece.curves).find(c => canonical(c.name) === canonical(words.get('curve') ?? ''))
      longest = Math.max(longest, curve?.hit ?? 0)
    }
  }
  return longest
}

/** The live marks with one more on a cue, tapped at a moment; or why it cannot be, in one sentence. */
export function tapped(
  program: Program,
  live: LiveMarks,
  cue: string,
  at: Moment,
): { live: LiveMarks } | { says: string } {
  const { name, every } = program.piece.cues[cue]!
  if (every) return { says: `${name} repeats by itself every ${every} s. Tap a cue that has a list of marks.` }
  const mark = Number((at.seconds + longestLead(program, cue)).toFixed(6))
  return { live: { ...live, [cue]: [...(live[cue] ?? []), mark] } }
}
