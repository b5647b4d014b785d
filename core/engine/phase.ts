/**
 * The phase of a source: how many whole cycles (or cells, or steps) it has made and how far it is into the
 * next. The steady share is kept exact; a phase that itself moves is added after.
 */
import { AffineReader, add, constant, type Affine, type Split } from '../time/affine.ts'
import type { Moment } from '../time/moment.ts'
import { absolute, isWhole, isZero, over, times, toNumber, ONE, ZERO } from '../time/rational.ts'
import { ALWAYS, everySeconds, together, type Repeats } from '../insight/repeats.ts'
import type { Entry } from '../formula/functions/entry.ts'
import type { Measures } from '../units/units.ts'
import { constantOf, steady, type Form } from './form.ts'
import { product, type Setting } from './product.ts'

export interface Phase {
  /** Valid until the next call. */
  readonly splitAt: (m: Moment) => Split
  /** The steady share, in turns. */
  readonly turns: Affine
  /** Cells in a lap when it was written per lap and comes to a whole number; else 0. */
  readonly wrap: number
  readonly repeats: () => Repeats
  /** Whether it stands still. */
  readonly still: boolean
}

/**
 * The phase of an entry's call: its frequency counted over time, with the slip of the dials in it, plus the
 * phase that was written. Null when the pace changes with time. `args` holds a period already inverted.
 */
export function phaseOf(
  entry: Entry,
  args: Readonly<Record<string, Form | undefined>>,
  s: Setting & Measures,
): Phase | null {
  const names = entry.pace
  const pace = names && (args[names.freq] ?? (names.every ? args[names.every] : undefined))
  const ahead = names?.phase ? args[names.phase] : undefined
  const fixedAhead = ahead ? constantOf(ahead) : ZERO
  const moving = fixedAhead ? null : ahead!
  if (!pace) return phase(constant(fixedAhead ?? ZERO), moving, 0, s)
  const freq = constantOf(pace)
  if (!freq) return null
  const time = steady({ rate: ONE, base: ZERO }, s.frameRate, { ofTime: true })
  const counted = product(
    [
      { form: time, inverse: false },
      { form: pace, inverse: false },
    ],
    s,
  ).exact
  const turns = counted && add(counted, constant(fixedAhead ?? ZERO))
  if (!turns) return null
  const cells = times(freq, s.lapLength)
  const wrap = pace.perLap && isWhole(cells) ? Math.abs(toNumber(cells)) : 0
  return phase(turns, moving, wrap, s)
}

function phase(turns: Affine, moving: Form | null, wrap: number, s: Setting): Phase {
  const reader = new AffineReader(turns, s.frameRate)
  const own = isZero(turns.rate) ? ALWAYS : everySeconds(absolute(over(ONE, turns.rate)))
  const still = isZero(turns.rate) && !moving
  if (!moving) return { splitAt: m => reader.splitAt(m), turns, wrap, repeats: () => own, still }
  const out: Split = { whole: 0, part: 0 }
  const splitAt = (m: Moment): Split => {
    const r = reader.splitAt(m)
    const part = r.part + moving.at(m)
    const carry = Math.floor(part)
    out.whole = r.whole + carry
    out.part = part - carry
    return out
  }
  return { splitAt, turns, wrap, repeats: () => together([own, moving.facts().repeats]), still }
}
