/** Points of drawn curves and of hand keys: put, moved, taken away; channels of a curve. */
import type { Operation } from '../piece/operation.ts'
import type { Base, Curve, Piece } from '../piece/schema.ts'
import { changeNamed } from './named.ts'
import { setKeys } from './parts.ts'

export type Point = Curve['channels'][string][number]
export type Points = readonly Point[]

/** In the order of their time, of two at one moment the later one; decimals as people read them. */
export function inOrder(points: Points): Point[] {
  const round = (x: number) => Number(x.toFixed(6))
  const byTime = new Map<number, Point>()
  for (const p of points) byTime.set(round(p.time), { ...p, time: round(p.time), value: round(p.value) })
  return [...byTime.values()].sort((a, b) => a.time - b.time)
}

/** Another set of points for a channel; one that is not there yet is made. */
export function setChannel(piece: Piece, id: string, channel: string, points: Points): Operation {
  const { channels, name } = piece.curves[id]!
  const op = changeNamed(piece, 'curves', id, { channels: { ...channels, [channel]: inOrder(points) } })
  return { ...op, says: `draw ${name}` }
}

/** A channel that begins and ends like the first of the curve, straight. */
export function addChannel(piece: Piece, id: string): Operation {
  const { channels } = piece.curves[id]!
  let n = Object.keys(channels).length + 1
  while (Object.hasOwn(channels, `channel${n}`)) n++
  const first = Object.values(channels)[0]!
  const ends = [first[0]!, first.at(-1)!].map(p => ({ ...p, value: 0, shape: 'straight' as const }))
  return { ...setChannel(piece, id, `channel${n}`, ends), says: `add a channel to ${piece.curves[id]!.name}` }
}

export function removeChannel(piece: Piece, id: string, channel: string): Operation {
  const { [channel]: _gone, ...channels } = piece.curves[id]!.channels
  return changeNamed(piece, 'curves', id, { channels })
}

/** Why a channel cannot be called so; null when it can. */
export function channelProblem(curve: Curve, name: string, own: string): string | null {
  const trimmed = name.trim()
  if (!/^[\p{L}_][\p{L}\p{N}_]{0,59}$/u.test(trimmed)) return 'A channel is called by one word of letters and digits.'
  if (trimmed in {}) return 'Choose another word.'
  return trimmed !== own && Object.hasOwn(curve.channels, trimmed) ? `There is already a channel ${trimmed}.` : null
}

/** A channel under another name; formulas that ask for it by the old one say so. */
export function nameChannel(piece: Piece, id: string, channel: string, name: string): Operation {
  const { channels } = piece.curves[id]!
  const next = Object.fromEntries(Object.entries(channels).map(([c, p]) => [c === channel ? name.trim() : c, p]))
  return changeNamed(piece, 'curves', id, { channels: next })
}

/** Another set of hand keys; none takes them away. */
export function setKeyPoints(piece: Piece, part: string, property: string, points: Points): Operation {
  const after = piece.bases[`${part}.${property}`]?.keys?.after ?? 'hold'
  const keys: Base['keys'] | null = points.length === 0 ? null : { points: inOrder(points), after }
  return setKeys(piece, part, property, keys)
}
