/** The values of the words of the language that do not depend on the part: the time names and pi. */
import type { Piece } from '../piece/schema.ts'
import { costOf } from '../facts/cost.ts'
import * as I from '../facts/interval.ts'
import type { Affine } from '../time/affine.ts'
import {
  ONE,
  ZERO,
  absolute,
  floor,
  fraction,
  fromNumber,
  isZero,
  negate,
  over,
  plus,
  rational,
  toNumber,
  type Rational,
} from '../time/rational.ts'
import type { Measures } from '../units/units.ts'
import { clockReading, type ActiveClock } from '../form/active-clock.ts'
import { activeClockOf } from '../form/clock.ts'
import { clockTime } from '../form/clock-time.ts'
import {
  constantExpression,
  constantNumber,
  expressionOf,
  type CompiledExpression,
} from '../form/compiled-expression.ts'

export const measuresOf = (piece: Piece): Measures => ({
  frameRate: rational(piece.frameRate.n, piece.frameRate.d),
  lapLength: rational(piece.lap.length.n, piece.lap.length.d),
})

/** First and last second of the lap, and of the marked stretch (the lap where none is marked). */
export function windowsOf(piece: Piece, m: Measures, lapStart: Rational) {
  const lap = [lapStart, plus(lapStart, m.lapLength)] as const
  const stretch = piece.stretch ? ([fromNumber(piece.stretch.from), fromNumber(piece.stretch.to)] as const) : lap
  return { lap, stretch }
}

/** The words on a clock. */
function timeWords(
  piece: Piece,
  m: Measures,
  lapStart: Rational,
  beat: ActiveClock,
): ReadonlyMap<string, CompiledExpression> {
  const rate = m.frameRate
  const { lap: window, stretch } = windowsOf(piece, m, lapStart)
  const counted = (a: Affine): CompiledExpression => clockTime(a, beat, rate)
  const lap = clockReading({ rate: over(ONE, m.lapLength), base: negate(over(lapStart, m.lapLength)) }, beat, rate)
  const lapRate = lap.affine?.rate
  return new Map<string, CompiledExpression>([
    ['time', counted({ rate: ONE, base: ZERO })],
    ['frame', counted({ rate, base: ZERO })],
    ['fps', constantExpression(rate, rate)],
    ['frameTime', constantExpression(over(ONE, rate), rate)],
    ['lapLength', constantExpression(m.lapLength, rate, { perLap: true })],
    [
      'lapProgress',
      expressionOf(
        t => lap.splitAt(t).part,
        {
          bounds: () => I.interval(0, 1),
          repeats: () => lap.cyclic,
          slope: () => (lapRate ? I.point(toNumber(lapRate)) : I.ALL),
          bends: () => lap.passing(),
          cost: () => costOf(1, []),
          finite: () => true,
        },
        { exactly: t => fraction(lap.exactAt(t)) },
      ),
    ],
    [
      'lapIndex',
      expressionOf(
        t => lap.splitAt(t).whole,
        {
          bounds: () => I.ALL,
          repeats: () =>
            lapRate && !isZero(lapRate) ? { every: absolute(over(ONE, lapRate)), gain: lapRate, from: null } : lap.once,
          bends: () => lap.passing(),
          cost: () => costOf(1, []),
          finite: () => true,
        },
        { exactly: t => rational(floor(lap.exactAt(t))) },
      ),
    ],
    ['spanStart', constantExpression(window[0], rate)],
    ['spanEnd', constantExpression(window[1], rate)],
    ['stretchStart', constantExpression(stretch[0], rate)],
    ['stretchEnd', constantExpression(stretch[1], rate)],
    ['stageWidth', constantExpression(rational(piece.stage.width), rate)],
    ['stageHeight', constantExpression(rational(piece.stage.height), rate)],
    ['pi', constantNumber(Math.PI, rate)],
  ])
}

/** The clocks of a piece with the words on each, made when they are first read. */
export class Times {
  private readonly made = new Map<ActiveClock, ReadonlyMap<string, CompiledExpression>>()
  private readonly beats = new Map<string, ActiveClock>()

  /** @param piece with the live marks on its cues */
  constructor(
    readonly piece: Piece,
    private readonly measures: Measures,
    private readonly lapStart: Rational,
  ) {}

  beat(clock: string): ActiveClock {
    let found = this.beats.get(clock)
    if (!found) this.beats.set(clock, (found = activeClockOf(this.piece, clock)))
    return found
  }

  words(beat: ActiveClock): ReadonlyMap<string, CompiledExpression> {
    let found = this.made.get(beat)
    if (!found) this.made.set(beat, (found = timeWords(this.piece, this.measures, this.lapStart, beat)))
    return found
  }
}
