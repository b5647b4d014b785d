/** The values of the words of the language that do not depend on the part: the time names and pi. */
import type { Piece } from '../piece/schema.ts'
import * as I from '../insight/interval.ts'
import * as R from '../insight/repeats.ts'
import { AffineReader } from '../time/affine.ts'
import { ONE, ZERO, fromNumber, negate, over, times, type Rational } from '../time/rational.ts'
import type { Measures } from '../units/units.ts'
import { fixed, fixedNumber, form, steady, type Form } from './form.ts'

export function timeWords(piece: Piece, m: Measures, lapStart: Rational): ReadonlyMap<string, Form> {
  const rate = m.frameRate
  const lap = new AffineReader({ rate: over(ONE, m.lapLength), base: negate(over(lapStart, m.lapLength)) }, rate)
  const lapEnd = { n: lapStart.n * m.lapLength.d + m.lapLength.n * lapStart.d, d: lapStart.d * m.lapLength.d }
  const stretch = piece.stretch
  return new Map<string, Form>([
    ['time', steady({ rate: ONE, base: ZERO }, rate, { ofTime: true })],
    ['frame', steady({ rate, base: ZERO }, rate, { ofTime: true })],
    ['fps', fixed(rate, rate)],
    ['frameTime', fixed(over(ONE, rate), rate)],
    ['lapLength', fixed(m.lapLength, rate, { perLap: true })],
    [
      'lapProgress',
      form(
        t => lap.splitAt(t).part,
        () => ({ bounds: I.interval(0, 1), repeats: R.everySeconds(m.lapLength), leaps: true }),
      ),
    ],
    [
      'lapIndex',
      form(
        t => lap.splitAt(t).whole,
        () => ({ bounds: I.ALL, repeats: R.NEVER, leaps: true }),
      ),
    ],
    ['spanStart', fixed(lapStart, rate)],
    ['spanEnd', fixed(times(lapEnd, ONE), rate)],
    ['stretchStart', fixed(stretch ? fromNumber(stretch.from) : lapStart, rate)],
    ['stretchEnd', fixed(stretch ? fromNumber(stretch.to) : times(lapEnd, ONE), rate)],
    ['pi', fixedNumber(Math.PI, rate)],
  ])
}
