/** Time on a clock as a form. */
import { costOf } from '../facts/facts.ts'
import * as I from '../facts/interval.ts'
import { scaled } from '../facts/repeats.ts'
import type { Affine } from '../time/affine.ts'
import type { Rational } from '../time/rational.ts'
import { reading, type Beat } from './beat.ts'
import { form, steady, type Form } from './form.ts'

/** What grows steadily in a clock's seconds, as a form: exact where the clock is steady. */
export function clockTime(a: Affine, beat: Beat, frameRate: Rational): Form {
  const read = reading(a, beat, frameRate)
  if (read.affine) return steady(read.affine, frameRate, { ofTime: true })
  const bent = form(read.at, {
    bounds: () => I.ALL,
    repeats: () => scaled(beat.repeats, a.rate),
    edges: () => beat.edges,
    cost: () => costOf(1, []),
    finite: () => true,
  })
  return { ...bent, onClock: { affine: a, beat } }
}
