/**
 * Live marks: taps and clicks on a cue while it plays. They are marks like any other, kept in the session beside the
 * piece until they are kept in it. A mark is placed at now plus the longest lead, so that no gesture's beginning is
 * skipped.
 */
import { argumentsOf } from '../formula/arguments.ts'
import { functionNamed } from '../formula/functions/index.ts'
import { canonical } from '../formula/names.ts'
import { everyNode } from '../formula/tree.ts'
import { operation, type Operation } from '../piece/operation.ts'
import type { Piece } from '../piece/schema.ts'
import type { Moment } from '../time/moment.ts'
import { runningFormula } from './meaning.ts'
import type { Program } from './program.ts'

/** Seconds of live marks, by the cue's id. */
export type Live = Readonly<Record<string, readonly number[]>>

export const NO_MARKS: Live = {}

/** The piece as it plays with the live marks on it. */
export function withLive(piece: Piece, live: Live): Piece {
  const added = Object.entries(live).filter(
    ([id, marks]) => marks.length > 0 && piece.cues[id] && !piece.cues[id].every,
  )
  if (added.length === 0) return piece
  const cues = { ...piece.cues }
  for (const [id, marks] of added) cues[id] = { ...cues[id]!, marks: [...cues[id]!.marks, ...marks] }
  return { ...piece, cues }
}

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
export function tapped(program: Program, live: Live, cue: string, at: Moment): { live: Live } | { says: string } {
  const { name, every } = program.piece.cues[cue]!
  if (every) return { says: `${name} comes again by itself every ${every} s. Tap on a cue that has a list of marks.` }
  const mark = Number((at.seconds + longestLead(program, cue)).toFixed(6))
  return { live: { ...live, [cue]: [...(live[cue] ?? []), mark] } }
}

/** Keeps the live marks of a cue in the piece. */
export function keepLive(piece: Piece, live: Live, cue: string): Operation {
  const old = piece.cues[cue]!
  const marks = [...new Set([...old.marks, ...(live[cue] ?? [])])].sort((a, b) => a - b)
  return operation(`keep the marks of ${old.name}`, { in: 'cues', id: cue, value: { ...old, marks } })
}
