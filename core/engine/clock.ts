/** The clocks of a piece, made ready to be read. A clock may run on another; a circle of clocks stands still. */
import { NONE } from '../insight/edges.ts'
import { ALWAYS, NEVER, everySeconds, type Repeats } from '../insight/repeats.ts'
import type { Clock, Piece } from '../piece/schema.ts'
import { drawn } from '../signal/drawn.ts'
import { Marks } from '../signal/marks.ts'
import { evaluateAffine, type Affine } from '../time/affine.ts'
import { momentOfSeconds, type Moment } from '../time/moment.ts'
import {
  ONE,
  ZERO,
  absolute,
  floor,
  fraction,
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
import { PIECE, onSteady, type Beat } from './beat.ts'

/** The beat of a clock by its id. */
export function beatOf(piece: Piece, id: string, seen: readonly string[] = []): Beat {
  const clock = piece.clocks[id]
  if (!clock || seen.includes(id)) return steadyBeat({ rate: ZERO, base: ZERO })
  const parent = clock.on === null ? PIECE : beatOf(piece, clock.on, [...seen, id])
  const { way } = clock
  const own: Affine | null = way.type === 'steady' ? { rate: fromNumber(way.rate), base: fromNumber(way.ahead) } : null
  if (own && parent.steady && clock.hold === null) return steadyBeat(onSteady(own, parent.steady))
  const turned = own ? (t: Rational) => plus(times(own.rate, t), own.base) : bent(piece, clock)
  const step = clock.hold === null ? null : fromNumber(clock.hold)
  return {
    steady: null,
    ...remembering(m => {
      const t = turned(parent.seconds(m))
      return step ? over(rational(floor(times(t, step))), step) : t
    }),
    repeats: repeatsOf(clock, parent),
    edges: ['anywhere'],
  }
}

function steadyBeat(steady: Affine): Beat {
  return { steady, when: m => m, seconds: m => evaluateAffine(steady, m), repeats: ALWAYS, edges: NONE }
}

/** Clock seconds of a moment, remembered for the last one. */
function remembering(seconds: (m: Moment) => Rational): Pick<Beat, 'when' | 'seconds'> {
  let last: Moment | null = null
  let made: Moment | null = null
  const when = (m: Moment): Moment => {
    if (m === last) return made!
    made = momentOfSeconds(seconds(m), m.rate)
    last = m
    return made
  }
  return { when, seconds: m => when(m).exactSeconds }
}

/** What a clock that is not steady makes of seconds. */
function bent(piece: Piece, clock: Clock): (t: Rational) => Rational {
  const { way } = clock
  switch (way.type) {
    case 'toAndFro': {
      const length = fromNumber(way.length)
      return t => {
        const laps = over(t, length)
        const part = fraction(laps)
        return times(floor(laps) % 2n === 0n ? part : minus(ONE, part), length)
      }
    }
    case 'restart': {
      const every = fromNumber(way.every)
      return t => times(fraction(over(t, every)), every)
    }
    case 'cue': {
      const cue = piece.cues[way.cue]
      const marks = new Marks(cue?.marks ?? [], cue?.every ?? null)
      return t => minus(t, marks.latest(t)?.at ?? marks.first ?? ZERO)
    }
    case 'curve': {
      const points = piece.curves[way.curve]?.channels[way.channel]
      const curve = points && drawn(points)
      return t => (curve ? fromNumber(curve.at(toNumber(t))) : t)
    }
    case 'steady':
      return t => t
  }
}

function repeatsOf(clock: Clock, parent: Beat): Repeats {
  const { way } = clock
  if (!parent.steady || isZero(parent.steady.rate)) return NEVER
  const pace = absolute(parent.steady.rate)
  const after = (seconds: number): Repeats => everySeconds(over(fromNumber(seconds), pace))
  if (way.type === 'toAndFro') return after(2 * way.length)
  if (way.type === 'restart') return after(way.every)
  return NEVER
}
