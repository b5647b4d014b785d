/**
 * The phase of a source: how many whole cycles (or cells, or steps) it has made and how far it is into the
 * next. The steady share is kept exact; a phase that itself moves is added after.
 */
import type { Edges } from '../facts/edges.ts'
import { ALL, plus as plusIntervals, point, type Interval } from '../facts/interval.ts'
import { together, wholeRounds, type Repeats } from '../facts/repeats.ts'
import { add, constant, evaluateAffine, type Affine, type Split } from '../time/affine.ts'
import type { Moment } from '../time/moment.ts'
import { fromFinite, isWhole, isZero, plus, times, toNumber, ONE, ZERO, type Rational } from '../time/rational.ts'
import type { Measures } from '../units/units.ts'
import { readingOf, type Beat } from './beat.ts'
import { constantOf, steady, sum, type Form } from './form.ts'
import { product, type Setting } from './product.ts'
import { totalOf } from './total.ts'

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
  /** The whole phase, steady in piece seconds, when it is that. */
  readonly affine: Affine | null
  /** Cells in a lap when it was written per lap and comes to a whole number; else 0. */
  readonly wrap: number
  readonly repeats: () => Repeats
  /** Lowest and highest pace, in turns a second of the piece. */
  readonly slope: () => Interval
  /** Where it passes whole numbers. */
  readonly wholes: () => Edges
  /** Whether it surely has a value at every moment. */
  readonly finite: () => boolean
  /** Whether it stands still. */
  readonly still: boolean
}

/**
 * The phase of a call: its frequency counted over time, with the slip of the dials in it, plus the
 * phase that was written. A pace that changes with time is added up. `args` holds a period already inverted.
 */
export function phaseOf(
  names: Pacing | undefined,
  args: Readonly<Record<string, Form | undefined>>,
  s: Setting & Measures,
  beat: Beat,
  place: string,
): Phase {
  const pace = names && (args[names.freq] ?? (names.every ? args[names.every] : undefined))
  const ahead = names?.phase ? args[names.phase] : undefined
  const fixedAhead = ahead ? constantOf(ahead) : ZERO
  const moving = fixedAhead ? null : ahead!
  if (!pace) return phase(constant(fixedAhead ?? ZERO), moving, 0, s, beat)
  const freq = constantOf(pace)
  if (!freq) {
    const run = totalOf(pace, place, s, beat).form
    return phase(constant(fixedAhead ?? ZERO), moving ? sum(run, moving, s.frameRate) : run, 0, s, beat, run)
  }
  const time = steady(beat.steady ?? { rate: ONE, base: ZERO }, s.frameRate, { ofTime: true })
  const counted = product(
    [
      { form: time, inverse: false },
      { form: pace, inverse: false },
    ],
    s,
  ).exact
  const turns = counted && add(counted, constant(fixedAhead ?? ZERO))
  if (!turns) return phase(constant(fixedAhead ?? ZERO), totalOf(pace, place, s, beat).form, 0, s, beat)
  const cells = times(freq, s.lapLength)
  const wrap = pace.perLap && isWhole(cells) ? Math.abs(toNumber(cells)) : 0
  return phase(turns, moving, wrap, s, beat)
}

function phase(
  turns: Affine,
  moving: Form | null,
  wrap: number,
  s: Setting,
  beat: Beat,
  run: Form | null = null,
): Phase {
  const read = readingOf(turns, beat.steady ? turns : null, beat, s.frameRate)
  const steadyAt = (m: Moment) => evaluateAffine(turns, beat.steady ? m : beat.when(m))
  const exactAt = run ? (m: Moment) => plus(steadyAt(m), fromFinite(run.at(m))) : steadyAt
  const still = isZero(turns.rate) && !moving
  const steadySlope = () => (read.affine ? point(toNumber(read.affine.rate)) : ALL)
  if (!moving) {
    return {
      splitAt: read.splitAt,
      exactAt,
      affine: read.affine,
      wrap,
      repeats: () => read.cyclic,
      slope: steadySlope,
      finite: () => true,
      wholes: () => read.wholes,
      still,
    }
  }
  const slope = () => plusIntervals(steadySlope(), moving.facts().slope)
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
    affine: null,
    wrap,
    repeats,
    slope,
    finite: () => moving.facts().finite,
    wholes: () => ['anywhere'],
    still,
  }
}
