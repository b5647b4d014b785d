/**
 * The phase of a source: how many whole cycles (or cells, or steps) it has made and how far it is into the
 * next. The steady share is kept exact; a phase that itself moves is added after.
 */
import { joined, passing, turning, type Bends } from '../facts/bends.ts'
import { ALL, plus as plusIntervals, point, type Interval } from '../facts/interval.ts'
import { together, wholeRounds, type Repeats } from '../facts/repeats.ts'
import { add, constant, evaluateAffine, type Affine, type Split } from '../time/affine.ts'
import { momentNear, type Moment } from '../time/moment.ts'
import { fromFinite, isWhole, isZero, plus, times, toNumber, ONE, ZERO, type Rational } from '../time/rational.ts'
import type { Measures } from '../units/units.ts'
import { clockReadingOf, type ActiveClock } from './active-clock.ts'
import { constantOf, steadyExpression, sum, type Exactly, type CompiledExpression } from './compiled-expression.ts'
import { multiplyExpressions, type ProductContext } from './product.ts'
import { accumulationOf } from './accumulation.ts'

/** The parameters that set the pace of a source, by name. */
export interface Pacing {
  readonly freq: string
  readonly every?: string
  readonly phase?: string
}

export interface Phase {
  /** Valid until the next call. */
  readonly splitAt: (m: Moment) => Split
  /** What the pace has come to at a moment, in turns: the steady share is exact, a phase that moves is left out. */
  readonly exactAt: (m: Moment) => Rational
  /** The steady share, in seconds of the piece where the clock is steady, else in the clock's. */
  readonly turns: Affine
  /** The whole phase, steady in piece seconds, when it is that. */
  readonly affine: Affine | null
  /** Cells in a lap when it was written per lap and comes to a whole number; else 0. */
  readonly wrap: number
  readonly repeats: () => Repeats
  /** Lowest and highest pace, in turns a second of the piece. */
  readonly slope: () => Interval
  /** The whole phase as a fraction, where it is one: it may be null at a moment. */
  readonly exactly: Exactly | null
  /** Where it passes whole numbers once one of the offsets (in turns) has been taken off; all bends of its own count. */
  readonly passing: (...offsets: readonly number[]) => Bends
  /** Its own bends, and how fast a wave on it turns. */
  readonly bends: () => Bends
  /** Where it leaps itself. */
  readonly leaps: () => Bends
  /** Whether it surely has a value at every moment. */
  readonly finite: () => boolean
  /** Seconds up to which it can be worked out. */
  readonly reach: () => number
  /** Whether it stands still. */
  readonly still: boolean
}

/**
 * The phase of a call: its frequency counted over time, with the slip of the dials in it, plus the
 * phase that was written. A pace that changes with time is added up. `args` holds a period already inverted.
 */
export function phaseOf(
  names: Pacing | undefined,
  args: Readonly<Record<string, CompiledExpression | undefined>>,
  s: ProductContext & Measures,
  beat: ActiveClock,
  place: string,
): Phase {
  const pace = names && (args[names.freq] ?? (names.every ? args[names.every] : undefined))
  const ahead = names?.phase ? args[names.phase] : undefined
  const fixedAhead = ahead ? constantOf(ahead) : ZERO
  const moving = fixedAhead ? null : ahead!
  if (!pace) return phase(constant(fixedAhead ?? ZERO), moving, 0, s, beat)
  const freq = constantOf(pace)
  if (!freq) {
    const run = accumulationOf(pace, place, s, beat).form
    return phase(constant(fixedAhead ?? ZERO), moving ? sum(run, moving, s.frameRate) : run, 0, s, beat, run)
  }
  const time = steadyExpression(beat.steady ?? { rate: ONE, base: ZERO }, s.frameRate, { ofTime: true })
  const counted = multiplyExpressions(
    [
      { form: time, inverse: false },
      { form: pace, inverse: false },
    ],
    s,
  ).exact
  const turns = counted && add(counted, constant(fixedAhead ?? ZERO))
  if (!turns) return phase(constant(fixedAhead ?? ZERO), accumulationOf(pace, place, s, beat).form, 0, s, beat)
  const cells = times(freq, s.lapLength)
  const wrap = pace.perLap && isWhole(cells) ? Math.abs(toNumber(cells)) : 0
  return phase(turns, moving, wrap, s, beat)
}

function phase(
  turns: Affine,
  moving: CompiledExpression | null,
  wrap: number,
  s: ProductContext,
  beat: ActiveClock,
  run: CompiledExpression | null = null,
): Phase {
  const read = clockReadingOf(turns, beat.steady ? turns : null, beat, s.frameRate)
  const steadyAt = (m: Moment) => evaluateAffine(turns, beat.steady ? m : beat.when(m))
  const exactAt = run
    ? (m: Moment) => plus(steadyAt(m), fromFinite(Number.isFinite(run.at(m)) ? run.at(m) : 0))
    : steadyAt
  const still = isZero(turns.rate) && !moving
  const steadySlope = () => (read.affine ? point(toNumber(read.affine.rate)) : ALL)
  if (!moving) {
    return {
      splitAt: read.splitAt,
      exactAt,
      turns,
      affine: read.affine,
      wrap,
      repeats: () => read.cyclic,
      slope: steadySlope,
      finite: () => true,
      reach: () => Infinity,
      exactly: steadyAt,
      passing: (...offsets) => read.passing(...offsets),
      bends: () => joined(beat.bends, turning(Math.abs(toNumber(turns.rate)))),
      leaps: () => beat.bends,
      still,
    }
  }
  const slope = () => plusIntervals(steadySlope(), moving.facts().slope)
  const bends = () => {
    const { low, high } = slope()
    const pace = Math.max(Math.abs(low), Math.abs(high))
    return joined(beat.bends, moving.facts().bends, turning(Number.isFinite(pace) ? pace : 64))
  }
  const out: Split = { whole: 0, part: 0 }
  const splitAt = (m: Moment): Split => {
    const r = read.splitAt(m)
    const part = r.part + moving.at(m)
    const carry = Math.floor(part)
    out.whole = r.whole + carry
    out.part = part - carry
    return out
  }
  const repeats = () => together([read.cyclic, wholeRounds(moving.facts().repeats)])
  return {
    splitAt,
    exactAt,
    turns,
    affine: null,
    wrap,
    repeats,
    slope,
    finite: () => moving.facts().finite,
    reach: () => moving.facts().reach,
    exactly: moving.exactly
      ? m => {
          const more = moving.exactly!(m)
          return more && plus(steadyAt(m), more)
        }
      : null,
    passing: (...offsets) => {
      const value = (t: number) => {
        const { whole, part } = splitAt(momentNear(t, s.frameRate))
        return whole + part
      }
      return passing(value, bends(), v => offsets.reduce((n, offset) => n + Math.floor(v - offset), 0))
    },
    bends,
    leaps: () => joined(beat.bends, moving.facts().leaps),
    still,
  }
}
