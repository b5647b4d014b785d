/** Channels of drawn curves, ready to be followed. */
import { dialUnit } from '../formula/scope.ts'
import { channelsOf } from '../piece/channels.ts'
import { canonical } from '../units/names.ts'
import type { Piece } from '../piece/schema.ts'
import { rational, toNumber } from '../time/rational.ts'
import type { Measures } from '../units/units.ts'
import { drawnCurve } from '../signal/drawn.ts'

/** A channel of a curve by their names; the first in order when none is named. */
export function channelOf(piece: Piece, curve: string, channel: string | null, m: Measures) {
  const { channels, unit, hit } = piece.curves[curve]!
  const names = channelsOf(piece.curves[curve]!)
  const key = channel === null ? names[0] : names.find(c => canonical(c) === canonical(channel))
  const points = key === undefined ? undefined : channels[key]
  // A channel lasts as long as its curve: they are on one time axis.
  const times = Object.values(channels).flatMap(c => c.map(p => p.time))
  return points
    ? {
        drawn: drawnCurve(points, [Math.min(...times), Math.max(...times)]),
        size: toNumber(dialUnit(unit)?.size(m) ?? rational(1)),
        hit,
      }
    : null
}
