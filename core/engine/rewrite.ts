/** Another text for a drive, made at a moment: checked, tuned so that nothing jumps, and kept good or not. */
import { setText } from '../acts/sources.ts'
import { plainly } from '../formula/parse.ts'
import { apply, applyInstead, type Operation } from '../piece/operation.ts'
import type { Moment } from '../time/moment.ts'
import { Program } from './program.ts'
import { shiftOf, type Shift } from './shift.ts'
import { tuneText } from './tune.ts'

export interface Rewritten {
  readonly op: Operation
  readonly program: Program
  /** The text that the drive now has. */
  readonly text: string
  /** Why a value jumps all the same; null when none does, or when no reason is known. */
  readonly jumps: string | null
  /** The largest jump that it makes at the moment, of what ran before; null when every value stays. */
  readonly shift: Shift | null
}

/** `keep` false writes the text as it is, and values may jump. */
export function rewrite(program: Program, key: string, typed: string, at: Moment, keep: boolean): Rewritten {
  const { piece } = program
  const wanted = plainly(typed)
  // Most texts run: whether this one does is tried with the one drive alone, and what reads it is made once.
  const hoped =
    program.meanings.all.has(key) && !program.meanings.look(wanted, key).problems.some(p => p.level === 'error')
  const trial = new Program(apply(piece, setText(piece, key, wanted, hoped)), program, program.live, key)
  if (hoped && trial.slots.get(key)?.running === 'text') {
    const tuned = keep ? tuneText(program, trial, key, at) : { text: wanted, jumps: null }
    const op = setText(piece, key, tuned.text, true)
    const made = tuned.text === wanted ? trial.complete(program) : new Program(applyInstead(trial.piece, op), program)
    if (made.slots.get(key)?.running === 'text') {
      const ran = program.slots.get(key)?.running === 'text'
      const shift = keep && ran ? shiftOf(program, made, at, [key]) : null
      return { op, program: made, text: tuned.text, jumps: tuned.jumps, shift }
    }
  }
  return asIs(program, key, wanted)
}

/** A text that does not run by what is known beforehand: it is kept, and so is the last good one. */
function asIs(program: Program, key: string, text: string): Rewritten {
  const { piece } = program
  const made = (good: boolean) => {
    const op = setText(piece, key, text, good)
    return { op, program: new Program(apply(piece, op), program), text, jumps: null, shift: null }
  }
  const first = made(false)
  return first.program.slots.get(key)?.running === 'text' ? made(true) : first
}
