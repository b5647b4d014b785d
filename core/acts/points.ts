/** Points of drawn curves and of keyframes: put, moved, taken away; channels of a curve. */
import type { Operation } from '../piece/operation.ts'
import type { Base, Curve, Piece } from '../piece/schema.ts'
import { channelsOf } from '../piece/channels.ts'
import { changeNamed } from './named-things.ts'
import { setKeys } from './parts.ts'

export type CurvePoint = Curve['channels'][string][number]
export type Points = readonly CurvePoint[]

/** In the order of their time, of two at one moment the later one; decimals as people read them. */
export function pointsInOrder(points: Points): CurvePoint[] {
  const round = (x: number) => Number(x.toFixed(6))
  const byTime = new Map<number, CurvePoint>()
  for (const p of points) byTime.set(round(p.time), { ...p, time: round(p.time), value: round(p.value) })
  return [...byTime.values()].sort((a, b) => a.time - b.time)
}

/** Another set of points for a channel; one that is not there yet is made. */
export function setChannel(piece: Piece, id: string, channel: string, points: Points): Operation {
  const { channels, name } = piece.curves[id]!
  const op = changeNamed(piece, 'curves', id, { channels: { ...channels, [channel]: pointsInOrder(points) } })
  return { ...op, undoLabel: `draw ${name}` }
}

/** A channel that begins and ends like the first of the curve, straight. */
export function addChannel(piece: Piece, id: string): Operation {
  const curve = piece.curves[id]!
  const { channels, name } = curve
  let n = Object.keys(channels).length + 1
  while (Object.hasOwn(channels, `channel${n}`)) n++
  // What names no channel goes on with the one it had.
  const [first] = channelsOf(curve)
  const like = channels[first]!
  const ends = [like[0]!, like.at(-1)!].map(p => ({ ...p, value: 0, shape: 'straight' as const }))
  const op = changeNamed(piece, 'curves', id, {
    channels: { ...channels, [`channel${n}`]: pointsInOrder(ends) },
    first,
  })
  return { ...op, undoLabel: `add a channel to ${name}` }
}

export function removeChannel(piece: Piece, id: string, channel: string): Operation {
  const { [channel]: _gone, ...channels } = piece.curves[id]!.channels
  return changeNamed(piece, 'curves', id, { channels })
}

/** Why a channel cannot be called so; null when it can. */
export function channelProblem(curve: Curve, name: string, own: string): string | null {
  const trimmed = name.trim()
  if (!/^[\p{L}_][\p{L}\p{N}_]{0,59}$/u.test(trimmed)) return 'A channel name is one word of letters and digits.'
  if (trimmed in {}) return 'Choose another word.'
  return trimmed !== own && Object.hasOwn(curve.channels, trimmed) ? `There’s already a channel ${trimmed}.` : null
}

/** A channel under another name; formulas that ask for it by the old one say so. */
export function nameChannel(piece: Piece, id: string, channel: string, name: string): Operation {
  const curve = piece.curves[id]!
  const to = (c: string) => (c === channel ? name.trim() : c)
  const channels = Object.fromEntries(Object.entries(curve.channels).map(([c, p]) => [to(c), p]))
  return changeNamed(piece, 'curves', id, { channels, first: to(channelsOf(curve)[0]) })
}

/** Another set of keyframes; none takes them away. */
export function setKeyPoints(piece: Piece, part: string, property: string, points: Points): Operation {
  const after = piece.bases[`${part}.${property}`]?.keys?.after ?? 'hold'
  const keys: Base['keys'] | null = points.length === 0 ? null : { points: pointsInOrder(points), after }
  return setKeys(piece, part, property, keys)
}
