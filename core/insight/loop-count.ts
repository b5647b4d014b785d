/** How many drives loop in the lap, and how many do not: one count for masthead, Lap page, export and prompt. */
import type { Piece } from '../piece/schema.ts'
import { compare, floor, fromNumber, minus, over, rational, toNumber, type Rational } from '../time/rational.ts'
import type { Measures } from '../units/units.ts'
import { printNumber } from '../units/units.ts'
import type { Closure } from './closure.ts'

export interface LoopCount {
  readonly all: number
  /** Loop in this lap. */
  readonly loop: number
  /** Loop in a later lap, and after which second of the piece all of these do. */
  readonly later: number
  readonly after: Rational | null
  /** Do not loop, or are not proven to. */
  readonly open: number
}

/** Whether a drive is counted: what is turned off does not move. */
export const isCounted = (piece: Piece, key: string): boolean => piece.drives[key]?.off === false

export function loopCountOf(closures: Iterable<Closure>): LoopCount {
  let [all, loop, later, open] = [0, 0, 0, 0]
  let after: Rational | null = null
  for (const c of closures) {
    all++
    if (c.verdict === 'yes' || c.verdict === 'symmetry') loop++
    else if (c.verdict === 'later') {
      later++
      if (!after || compare(c.from, after) > 0) after = c.from
    } else open++
  }
  return { all, loop, later, after, open }
}

/** The first whole lap, counted from 0, in which all that loop later do; 0 where none does. */
export function firstLoopingLap(piece: Piece, { after }: LoopCount, { lapLength }: Measures): number {
  if (!after) return 0
  const laps = over(minus(after, fromNumber(piece.lap.start)), lapLength)
  const whole = floor(laps)
  return Math.max(0, Number(compare(laps, rational(whole)) > 0 ? whole + 1n : whole))
}

/** `30 of 32 loop`, `1 of 1 loops`. */
export const loopText = ({ all, loop }: LoopCount): string => `${loop} of ${all} ${all === 1 ? 'loops' : 'loop'}`

/** `2 settle after 4 s`; '' where none does. */
export const laterText = ({ later, after }: LoopCount): string =>
  later === 0 || !after
    ? ''
    : `${later} ${later === 1 ? 'settles' : 'settle'} after ${printNumber(toNumber(after), 2)} s`
