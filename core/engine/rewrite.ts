/** Another text for a drive, made at a moment: checked, tuned so that nothing jumps, and kept good or not. */
import { setText } from '../acts/drives.ts'
import { apply, type Operation } from '../piece/operation.ts'
import type { Moment } from '../time/moment.ts'
import { Program } from './program.ts'
import { tuneText } from './tune.ts'

export interface Rewritten {
  readonly op: Operation
  readonly program: Program
  /** The text that the drive now has. */
  readonly text: string
  /** Why a value jumps all the same; null when none does. */
  readonly jumps: string | null
}

/** `keep` false writes the text as it is, and values may jump. */
export function rewrite(program: Program, key: string, wanted: string, at: Moment, keep: boolean): Rewritten {
  const { piece } = program
  const trial = new Program(apply(piece, setText(piece, key, wanted, false)), program)
  const runs = trial.slots.get(key)?.running === 'text'
  const tuned = runs && keep ? tuneText(program, trial, key, at) : { text: wanted, jumps: null }
  const op = setText(piece, key, tuned.text, runs)
  return { op, program: new Program(apply(piece, op), program), text: tuned.text, jumps: tuned.jumps }
}
