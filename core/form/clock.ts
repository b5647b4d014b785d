/** The clocks of a piece, made ready to be read. A clock may run on another; a circle of clocks stands still. */
import { SMOOTH, atSeconds, passing, steadily, type Bends } from '../facts/bends.ts'
import { ALL, interval, type Interval } from '../facts/interval.ts'
import { ALWAYS, NEVER, everySeconds, growing, onlyFrom, rests, scaled, type Repeats } from '../facts/repeats.ts'
import type { Clock, Piece } from '../piece/schema.ts'
import { drawnCurve } from '../signal/drawn.ts'
import { marksOf } from '../signal/marks.ts'
import { evaluateAffine, type Affine } from '../time/affine.ts'
import { momentNear, momentOfSeconds, type Moment } from '../time/moment.ts'
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
import { PIECE_CLOCK, onSteady, settledBy, type ActiveClock } from './active-clock.ts'

/** The points that a drawn clock follows; undefined where they are not there. */
function channelOf(piece: Piece, way: Extract<Clock['way'], { type: 'curve' }>) {
  const channels = Object.hasOwn(piece.curves, way.curve) ? piece.curves[way.curve]!.channels : {}
  return Object.hasOwn(channels, way.channel) ? channels[way.channel] : undefined
}

/** What a clock follows that is not there, in words; null when all is. */
export function lostBy(piece: Piece, id: string): string | null {
  const seen = new Set<string>()
  for (let at: string | null = id; at !== null && !seen.has(at); at = piece.clocks[at]!.on) {
    seen.add(at)
    if (!Object.hasOwn(piece.clocks, at)) return 'a clock'
    const { way } = piece.clocks[at]!
    if (way.type === 'curve' && !channelOf(piece, way)) return 'a curve'
    if (way.type === 'cue' && !Object.hasOwn(piece.cues, way.cue)) return 'a cue'
  }
  return null
}

/** How fast a steady clock goes: its rate, times a dial where one sets it. */
export function clockRate(piece: Piece, way: Extract<Clock['way'], { type: 'steady' }>): Rational {
  const dial = way.dial === undefined ? undefined : piece.dials[way.dial]
  const rate = fromNumber(way.rate)
  if (!dial) return rate
  return times(rate, over(fromNumber(dial.value), rational(dial.unit === '%' ? 100 : 1)))
}

/** The dials that set the pace of a clock, or of one it runs on. */
export function dialsOfClock(piece: Piece, id: string, seen: readonly string[] = []): string[] {
  const clock = piece.clocks[id]
  if (!clock || seen.includes(id)) return []
  const own = clock.way.type === 'steady' && clock.way.dial !== undefined ? [clock.way.dial] : []
  return clock.on === null ? own : [...own, ...dialsOfClock(piece, clock.on, [...seen, id])]
}

/** The beat of a clock by its id. */
export function activeClockOf(piece: Piece, id: string, seen: readonly string[] = []): ActiveClock {
  const clock = piece.clocks[id]
  if (!clock || seen.includes(id)) return steadyBeat(id, { rate: ZERO, base: ZERO })
  const parent = clock.on === null ? PIECE_CLOCK : activeClockOf(piece, clock.on, [...seen, id])
  const { way } = clock
  const own: Affine | null = way.type === 'steady' ? { rate: clockRate(piece, way), base: fromNumber(way.ahead) } : null
  if (own && parent.steady && clock.hold === null) return steadyBeat(id, onSteady(own, parent.steady))
  const turned = own ? (t: Rational) => plus(times(own.rate, t), own.base) : bent(piece, clock)
  const step = clock.hold === null ? null : fromNumber(clock.hold)
  return {
    id,
    steady: null,
    ...remembering(m => {
      const t = turned(parent.seconds(m))
      return step ? over(rational(floor(times(t, step))), step) : t
    }),
    repeats: repeatsOf(piece, clock, parent),
    bends: bendsOf(piece, clock, parent, turned),
    bounds: boundsOf(clock),
  }
}

function steadyBeat(id: string, steady: Affine): ActiveClock {
  return {
    id,
    steady,
    when: m => m,
    seconds: m => evaluateAffine(steady, m),
    repeats: ALWAYS,
    bends: SMOOTH,
    bounds: ALL,
  }
}

/** Between which of its seconds a clock stays. */
function boundsOf({ way }: Clock): Interval {
  if (way.type === 'toAndFro') return interval(0, way.length)
  return way.type === 'restart' ? interval(0, way.every) : ALL
}

/** Where a clock that is not steady leaps or turns: at its own moments, and at those of what it runs on. */
function bendsOf(piece: Piece, clock: Clock, parent: ActiveClock, turned: (t: Rational) => Rational): Bends {
  const rate = rational(piece.frameRate.n, piece.frameRate.d)
  const seconds = (t: number) => toNumber(parent.seconds(momentNear(t, rate)))
  const own = ownBends(piece, clock, parent, seconds)
  if (clock.hold === null) return own
  const step = clock.hold
  const shown = (t: number) => toNumber(turned(parent.seconds(momentNear(t, rate))))
  const { steady } = parent
  if (clock.way.type === 'steady' && steady) {
    const { rate: pace, base } = onSteady(
      { rate: clockRate(piece, clock.way), base: fromNumber(clock.way.ahead) },
      steady,
    )
    return steadily(toNumber(pace) * step, toNumber(base) * step, [0])
  }
  return passing(shown, { ...own, grain: Math.min(own.grain, 1) }, v => Math.floor(v * step))
}

function ownBends(piece: Piece, { way }: Clock, parent: ActiveClock, seconds: (t: number) => number): Bends {
  const { steady } = parent
  const rounds = (every: number): Bends =>
    steady
      ? steadily(toNumber(steady.rate) / every, toNumber(steady.base) / every, [0])
      : passing(seconds, parent.bends, v => Math.floor(v / every))
  const single = (times: readonly number[]): Bends =>
    steady && !isZero(steady.rate)
      ? atSeconds(times.map(t => (t - toNumber(steady.base)) / toNumber(steady.rate)))
      : passing(seconds, parent.bends, v => times.filter(t => t <= v).length)
  switch (way.type) {
    case 'toAndFro':
      return rounds(way.length)
    case 'restart':
      return rounds(way.every)
    case 'cue': {
      const cue = piece.cues[way.cue]
      if (!cue?.every) return single(cue?.marks ?? [])
      const { every } = cue
      const offsets = cue.marks.map(t => t / every)
      if (steady) return steadily(toNumber(steady.rate) / every, toNumber(steady.base) / every, offsets)
      return passing(seconds, parent.bends, v => offsets.reduce((n, o) => n + Math.floor(v / every - o), 0))
    }
    case 'curve':
      return single((channelOf(piece, way) ?? []).map(p => p.time))
    case 'steady':
      return parent.bends
  }
}

/** Clock seconds of a moment, remembered for the last one. */
function remembering(seconds: (m: Moment) => Rational): Pick<ActiveClock, 'when' | 'seconds'> {
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
      const marks = marksOf(cue?.marks ?? [], cue?.every ?? null)
      return t => minus(t, marks.latest(t)?.at ?? marks.first ?? ZERO)
    }
    case 'curve': {
      const points = channelOf(piece, way)
      const curve = points && drawnCurve(points)
      return t => (curve ? fromNumber(curve.at(toNumber(t))) : t)
    }
    case 'steady':
      return t => t
  }
}

/** How the seconds of a clock that is not steady come back. */
function repeatsOf(piece: Piece, clock: Clock, parent: ActiveClock): Repeats {
  const turned = turnedRepeats(piece, clock, parent)
  if (clock.hold === null || rests(turned)) return turned
  // Steps of its own seconds: a steady clock gains one with each; any other comes back when its source does.
  if (!isZero(turned.gain)) return { ...turned, every: absolute(over(ONE, times(fromNumber(clock.hold), turned.gain))) }
  return turned
}

function turnedRepeats(piece: Piece, clock: Clock, parent: ActiveClock): Repeats {
  const { way } = clock
  const pace = parent.steady?.rate
  if (way.type === 'steady' && !parent.steady) return scaled(parent.repeats, clockRate(piece, way))
  if (!pace || isZero(pace)) return pace ? ALWAYS : NEVER
  const after = (seconds: number): Repeats => everySeconds(absolute(over(fromNumber(seconds), pace)))
  const inPiece = (t: Rational): Rational => over(minus(t, parent.steady!.base), pace)
  switch (way.type) {
    case 'steady':
      return growing(times(clockRate(piece, way), pace))
    case 'toAndFro':
      return after(2 * way.length)
    case 'restart':
      return after(way.every)
    case 'cue': {
      const cue = piece.cues[way.cue]
      const first = cue?.marks.length ? fromNumber(Math.min(...cue.marks)) : null
      return cue?.every && first && pace.n > 0n ? onlyFrom(after(cue.every), inPiece(first)) : NEVER
    }
    case 'curve': {
      const points = channelOf(piece, way)
      if (!points) return growing(pace)
      const { start, end } = drawnCurve(points)
      return settledBy({ rate: pace, base: parent.steady.base }, fromNumber(start), fromNumber(end))
    }
  }
}
