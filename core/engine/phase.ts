/**
 * The phase of a source: how many whole cycles (or cells, or steps) it has made and how far it is into the
 * next. The steady share is kept exact; a phase that itself moves is added after.
 */
import { AffineReader, type Affine, type Split } from '../time/affine.ts'
import type { Moment } from '../time/moment.ts'
import { absolute, isZero, over, ONE, type Rational } from '../time/rational.ts'
import { ALWAYS, everySeconds, together, type Repeats } from '../insight/repeats.ts'
import type { Form } from './form.ts'

export interface Phase {
  /** Valid until the next call. */
  readonly splitAt: (m: Moment) => Split
  /** Cells in a lap when it was written per lap and comes to a whole number; else 0. */
  readonly wrap: number
  readonly repeats: () => Repeats
  /** Whether it stands still. */
  readonly still: boolean
}

/** The phase `turns` plus a moving part (in turns) when there is one. */
export function phase(turns: Affine, moving: Form | null, wrap: number, frameRate: Rational): Phase {
  const reader = new AffineReader(turns, frameRate)
  const own = isZero(turns.rate) ? ALWAYS : everySeconds(absolute(over(ONE, turns.rate)))
  const still = isZero(turns.rate) && !moving
  if (!moving) return { splitAt: m => reader.splitAt(m), wrap, repeats: () => own, still }
  const out: Split = { whole: 0, part: 0 }
  const splitAt = (m: Moment): Split => {
    const s = reader.splitAt(m)
    const part = s.part + moving.at(m)
    const carry = Math.floor(part)
    out.whole = s.whole + carry
    out.part = part - carry
    return out
  }
  return { splitAt, wrap, repeats: () => together([own, moving.facts().repeats]), still }
}
