/**
 * Operations that change the pace of many formulas at once, made at a moment so that nothing jumps: a dial, the
 * length of the lap. No formula's text changes.
 */
import { operation, type Operation, type Put } from '../piece/operation.ts'
import type { Dial, Piece } from '../piece/schema.ts'
import type { Moment } from '../time/moment.ts'
import {
  floor,
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
import { apply } from '../piece/operation.ts'
import { activeClockOf, clockRate } from '../form/clock.ts'
import { Program } from './program.ts'
import type { Pace } from './slot.ts'

/**
 * Sets a dial. Each pace made of dials keeps what it has run up to: its slip grows by (old − new) · t, with t the
 * seconds from where it counts, or the sum of what else its rate is made of. `keep` false leaves the slips alone:
 * values then jump.
 */
export function setDial(program: Program, id: string, value: number, at: Moment, keep = true): Operation {
  const { piece } = program
  const dial: Dial = { ...piece.dials[id]!, value }
  const op = operation(`set ${dial.name}`, { in: 'dials', id, value: dial })
  if (!keep) return op
  const before = pacesOf(program)
  const after = pacesOf(new Program(apply(piece, op), program))
  const slips: Put[] = []
  for (const [key, { pace, run }] of before) {
    const next = after.get(key)
    if (!next) continue
    const change = minus(times(pace, run(at)), times(next.pace, next.run(at)))
    if (isZero(change)) continue
    slips.push({ in: 'slips', id: key, value: toNumber(plus(fromNumber(piece.slips[key] ?? 0), change)) })
  }
  return { ...op, puts: [...op.puts, ...slips, ...clocksWith(piece, id, value, at)] }
}

/** Clocks whose pace a dial sets stay where they are at the moment, and go on from there. */
function clocksWith(piece: Piece, dial: string, value: number, at: Moment): Put[] {
  const next: Piece = { ...piece, dials: { ...piece.dials, [dial]: { ...piece.dials[dial]!, value } } }
  return Object.entries(piece.clocks).flatMap(([id, clock]): Put[] => {
    const { way } = clock
    if (way.type !== 'steady' || way.dial !== dial) return []
    const parent = clock.on === null ? at.exactSeconds : activeClockOf(piece, clock.on).seconds(at)
    const gone = times(minus(clockRate(piece, way), clockRate(next, way)), parent)
    const ahead = toNumber(plus(fromNumber(way.ahead), gone))
    return [{ in: 'clocks', id, value: { ...clock, way: { ...way, ahead } } }]
  })
}

/** The slips that a dial has a part in: their keys. */
export function slipsOf(piece: Piece, dial: string): string[] {
  return Object.keys(piece.slips).filter(key => key.split(/[^A-Za-z0-9_]+/).includes(dial))
}

/** Clears the slips a dial has gathered, so that frame 0 is where the formulas alone put it. */
export function settleFrom0(piece: Piece, dial: string): Operation {
  const puts: Put[] = slipsOf(piece, dial).map(key => ({ in: 'slips', id: key, value: null }))
  return operation(`settle ${piece.dials[dial]!.name} from 0`, ...puts)
}

/** Sets a steady clock's rate; it stays where it is at the moment, and goes on from there at the new rate. */
export function setClockRate(piece: Piece, id: string, rate: number, at: Moment, keep = true): Operation {
  const clock = piece.clocks[id]!
  const { way } = clock
  if (way.type !== 'steady') return operation(`change ${clock.name}`)
  const parent = clock.on === null ? at.exactSeconds : activeClockOf(piece, clock.on).seconds(at)
  const gone = times(minus(clockRate(piece, way), clockRate(piece, { ...way, rate })), parent)
  const ahead = keep ? toNumber(plus(fromNumber(way.ahead), gone)) : way.ahead
  return operation(`set the rate of ${clock.name}`, {
    in: 'clocks',
    id,
    value: { ...clock, way: { ...way, rate, ahead } },
  })
}

/** Sets the lap's length; with `keep` its start moves, to the whole frame at which the lap is as far on at the moment as it was. */
export function setLap(piece: Piece, length: { n: number; d: number }, at: Moment, keep = true): Operation {
  const old = toRational(piece.lap.length)
  const start = fromNumber(piece.lap.start)
  const run = minus(at.exactSeconds, start)
  const next = minus(at.exactSeconds, over(times(run, toRational(length)), old))
  const moved = onFrame(piece, next)
  return operation('set the lap', { set: 'lap', value: { length, start: keep ? moved : piece.lap.start } })
}

/** Sets the second at which lap 0 begins, to the nearest whole frame. */
export const setLapStart = (piece: Piece, seconds: number): Operation =>
  operation('set the start of the lap', {
    set: 'lap',
    value: { ...piece.lap, start: onFrame(piece, fromNumber(seconds)) },
  })

/** The nearest whole frame, in seconds. */
function onFrame(piece: Piece, seconds: Rational): number {
  const rate = toRational(piece.frameRate)
  return toNumber(over(rational(floor(plus(times(seconds, rate), rational(1, 2)))), rate))
}

const toRational = (f: { n: number; d: number }): Rational => over({ n: BigInt(f.n), d: 1n }, { n: BigInt(f.d), d: 1n })

/** Every pace made of dials that runs, by the key of its slip. */
function pacesOf(program: Program): Map<string, Pace> {
  return new Map([...program.slots.values()].flatMap(s => [...s.paces]))
}
