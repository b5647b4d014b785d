/** Another text for a drive, made at a moment: checked, tuned so that nothing jumps, and kept good or not. */
import { setText } from '../acts/sources.ts'
import { workedOut } from '../form/working.ts'
import { numbersThatDiffer } from '../formula/edit.ts'
import { plainly } from '../formula/parse.ts'
import { apply, type Operation } from '../piece/operation.ts'
import type { Moment } from '../time/moment.ts'
import { Program } from './program.ts'
import { tuneText } from './tune.ts'

/** A value that is another at the moment of a change: of which copy, from what to what, in base measure. */
export interface Shift {
  readonly copy: number
  readonly from: number
  readonly to: number
}

export interface Rewritten {
  readonly op: Operation
  readonly program: Program
  /** The text that the drive now has. */
  readonly text: string
  /** Why a value jumps all the same; null when none does, or when no reason is known. */
  readonly jumps: string | null
  /** The largest jump that a change of numbers makes at the moment; null when every value stays. */
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
    const made = tuned.text === wanted ? trial.complete(program) : new Program(apply(piece, op), program)
    if (made.slots.get(key)?.running === 'text') {
      const shift = keep && onlyNumbers(program, trial, key) ? shiftOf(program, made, key, at) : null
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

/** Whether the text differs from the one that ran in numbers alone. */
function onlyNumbers(before: Program, after: Program, key: string): boolean {
  const [a, b] = [before.meanings.all.get(key)?.text, after.meanings.all.get(key)?.text]
  return before.slots.get(key)?.running === 'text' && !!a && !!b && numbersThatDiffer(a.formula, b.formula) !== null
}

/** Less than this share of a value, or of a unit of it, is no jump. */
const SMALL = 1e-9

function shiftOf(before: Program, after: Program, key: string, at: Moment): Shift | null {
  const [a, b] = [before.slots.get(key)!.readers, after.slots.get(key)!.readers]
  let most: Shift | null = null
  for (let copy = 0; copy < Math.min(a.length, b.length); copy++) {
    const [from, to] = workedOut(() => [a[copy]!.at(at), b[copy]!.at(at)] as const)
    const size = Math.abs(to - from)
    if (size > SMALL * (1 + Math.abs(from)) && size > (most ? Math.abs(most.to - most.from) : 0))
      most = { copy, from, to }
  }
  return most
}
