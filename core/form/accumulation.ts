/**
 * What a rate comes to: added up over the clock in force from its second 0, exactly where the rate is constant. Sums
 * and constant factors split, so that a pace made of dials keeps its slip (`dial-factors.ts`) whatever else the rate does.
 */
import { ALL, point, times as scaled } from '../facts/interval.ts'
import { joined, turning } from '../facts/bends.ts'
import { costSummed } from '../facts/cost.ts'
import { DAY, NEVER, rests, type Repeats } from '../facts/repeats.ts'
import { momentOfSeconds, type Moment } from '../time/moment.ts'
import {
  ONE,
  ZERO,
  absolute,
  compare,
  fromFinite,
  fromNumber,
  isZero,
  minus,
  over,
  plus,
  rational,
  times,
  toNumber,
  type Rational,
} from '../time/rational.ts'
import { PIECE_CLOCK, type ActiveClock } from './active-clock.ts'
import { clockTime } from './clock-time.ts'
import { combineFactors, paceOf, secondsFrom, type DialFactors, type ElapsedTime } from './dial-factors.ts'
import { constantOf, expressionOf, type CompiledExpression } from './compiled-expression.ts'
import { Cells } from './cells.ts'
import { integralOf, integralReach, type Integral } from './integral.ts'
import { multiplyExpressions, type ProductContext } from './product.ts'

/** A constant with dials in it before what is added up; `of` null stands for 1. */
interface Term {
  readonly by: Rational
  readonly dials: DialFactors | null
  readonly of: CompiledExpression | null
}

/** Seconds of the longest period whose gain is found step by step, and cells in it. */
const LONGEST_ASKED = rational(3600)
const CELLS_ASKED = 4000
/** Readings that a sum of a rate takes, as a figure of its cost. */
const READINGS = 9

export interface Accumulation {
  /** What the rate comes to by a moment of the piece. */
  readonly form: CompiledExpression
  /** The same by a second of the clock. */
  readonly by: (second: Rational) => number
}

/**
 * The sum of `rate`, which is read by the seconds of the clock.
 * @param place tells its slips from those of other sums with the same dials
 */
export function accumulationOf(
  rate: CompiledExpression,
  place: string,
  s: ProductContext,
  beat: ActiveClock,
): Accumulation {
  if (constantOf(rate)) {
    const time = clockTime({ rate: ONE, base: ZERO }, beat, s.frameRate)
    const all = multiplyExpressions(
      [
        { form: time, inverse: false },
        { form: rate, inverse: false },
      ],
      s,
    )
    return { form: all, by: t => constantBy(all, t, beat, s.frameRate) }
  }
  const sum = summed(rate, place, s, beat)
  const all = expressionOf(m => sum(onClock(m, beat)), {
    bounds: () => ALL,
    repeats: () => gained(rate, sum, s, beat),
    // A sum leaps only with its clock; where its rate leaps it bends.
    leaps: () => beat.bends,
    bends: () => joined(beat.bends, rate.facts().bends, turning(paceIn(rate))),
    cost: () => costSummed(1, rate.facts(), READINGS),
    finite: () => rate.facts().finite,
    reach: () => Math.min(rate.facts().reach, integralReach(rate)),
    slope: () => (beat.steady ? scaled(rate.facts().bounds, point(toNumber(beat.steady.rate))) : ALL),
  })
  return { form: all, by: t => sum(momentOfSeconds(t, s.frameRate)) }
}

/** Turns a second that a wave on the sum makes at most, as far as it is known. */
function paceIn(rate: CompiledExpression): number {
  const { low, high } = rate.facts().bounds
  const pace = Math.max(Math.abs(low), Math.abs(high))
  return Number.isFinite(pace) ? pace : 64
}

/** The sum of a constant rate by a second of the clock. */
function constantBy(all: CompiledExpression, second: Rational, beat: ActiveClock, frameRate: Rational): number {
  const affine = all.onClock?.affine
  if (affine) return toNumber(plus(times(affine.rate, second), affine.base))
  // A steady clock shows that second at one moment of the piece; one that stands still at all or none.
  const clock = beat.steady
  return all.at(
    momentOfSeconds(clock && !isZero(clock.rate) ? over(minus(second, clock.base), clock.rate) : ZERO, frameRate),
  )
}

/** The moment that a clock shows, as one of the piece. */
const onClock = (m: Moment, beat: ActiveClock): Moment =>
  beat === PIECE_CLOCK ? m : momentOfSeconds(beat.seconds(m), m.rate)

function summed(rate: CompiledExpression, place: string, s: ProductContext, beat: ActiveClock): Integral {
  const terms = termsOf(rate, { by: ONE, dials: null, of: null })
  if (!terms.some(t => t.dials)) return integralOf(rate, s.frameRate, s.queue)
  const parts = terms.map(({ by, dials, of }, nth) => {
    const whole = of && integralOf(of, s.frameRate, s.queue)
    const run: ElapsedTime = whole
      ? { key: `~${place}.${nth}`, at: m => fromFinite(finite(whole(onClock(m, beat)))), clocked: false }
      : secondsFrom(ZERO)
    const slip = dials ? toNumber(times(s.slip(dials, paceOf(dials, by), run), dials.factor)) : 0
    const factor = toNumber(by)
    return whole ? (m: Moment) => factor * whole(m) + slip : (m: Moment) => toNumber(times(by, m.exactSeconds)) + slip
  })
  return m => parts.reduce((sum, part) => sum + part(m), 0)
}

/** What is not worked out yet, or lies beyond its end, has left no slip. */
const finite = (x: number): number => (Number.isFinite(x) ? x : 0)

function termsOf(f: CompiledExpression, before: Term): Term[] {
  const c = constantOf(f)
  if (c) {
    const dials = both(before.dials, f.dials, before.by, c)
    return [{ by: times(before.by, c), dials, of: before.of }]
  }
  if (f.rate?.type === 'sum') return [...termsOf(f.rate.a, before), ...termsOf(f.rate.b, before)]
  if (f.rate?.type === 'scaled') {
    const { by, dials, of } = f.rate
    return termsOf(of, { by: times(before.by, by), dials: both(before.dials, dials, before.by, by), of: null })
  }
  return [{ ...before, of: f }]
}

/** The dials of a product of two constants, either of which may have none. */
function both(a: DialFactors | null, b: DialFactors | null, ca: Rational, cb: Rational): DialFactors | null {
  if (!a && !b) return null
  const plain = (factor: Rational): DialFactors => ({ atoms: new Map(), factor })
  return combineFactors(a ?? plain(ca), b ?? plain(cb), false)
}

/** How a sum comes back: over each period of the rate it gains the same. A gain that is no decimal is not said to be exact. */
function gained(
  rate: CompiledExpression,
  sum: Integral,
  { frameRate, queue }: ProductContext,
  beat: ActiveClock,
): Repeats {
  const { every, gain, from } = rate.facts().repeats
  const pace = beat.steady?.rate
  if (!pace || isZero(pace) || !every || isZero(every) || !isZero(gain) || from || rests(rate.facts().repeats))
    return NEVER
  // Adding up step by step over a long period to learn what it gains would hold up whoever asks.
  if (compare(every, rate.integral ? DAY : LONGEST_ASKED) > 0) return NEVER
  if (!rate.integral && toNumber(every) / Cells.lengthFor(rate) > CELLS_ASKED) return NEVER
  const whole = queue.settle(() => sum(momentOfSeconds(every, frameRate)) - sum(momentOfSeconds(ZERO, frameRate)))
  if (!Number.isFinite(whole)) return NEVER
  const rounded = Math.round(whole * 1e9) / 1e9
  const clocked = over(every, absolute(pace))
  const grown = fromNumber(rounded)
  return Math.abs(whole - rounded) < 1e-12
    ? { every: clocked, gain: over(pace.n < 0n ? { n: -grown.n, d: grown.d } : grown, clocked), from: null }
    : NEVER
}
