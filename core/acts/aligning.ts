/** Several parts lined up as they stand: on a side or a middle of them all, or with even gaps between. */
import { operation, type Operation } from '../piece/operation.ts'
import type { Piece } from '../piece/schema.ts'
import { moveBy, type Grip } from './stage-edits.ts'

export const SIDES = ['left', 'middle', 'right', 'top', 'centre', 'foot', 'across', 'upward'] as const
/** `middle` and `centre` are those across and up; `across` and `upward` make the gaps between them even. */
export type Side = (typeof SIDES)[number]

/** A part that is held, and the box round it on the stage, px. */
export interface Boxed {
  readonly grip: Grip
  readonly left: number
  readonly right: number
  readonly low: number
  readonly high: number
}

/** @param now seconds, for what has keyframes */
export function aligned(piece: Piece, all: readonly Boxed[], side: Side, now: number): Operation {
  const moves = side === 'across' || side === 'upward' ? spread(all, side) : lined(all, side)
  const puts = all.flatMap((b, i) => {
    const [dx, dy] = moves[i]!
    return Math.abs(dx) + Math.abs(dy) < 0.005 ? [] : moveBy(piece, [b.grip], dx, dy, now).puts
  })
  return operation(`align ${all.length} parts`, ...puts)
}

function lined(all: readonly Boxed[], side: Exclude<Side, 'across' | 'upward'>): [number, number][] {
  const of = {
    left: Math.min(...all.map(b => b.left)),
    right: Math.max(...all.map(b => b.right)),
    foot: Math.min(...all.map(b => b.low)),
    top: Math.max(...all.map(b => b.high)),
  }
  return all.map(b => {
    switch (side) {
      case 'left':
        return [of.left - b.left, 0]
      case 'right':
        return [of.right - b.right, 0]
      case 'middle':
        return [(of.left + of.right - b.left - b.right) / 2, 0]
      case 'top':
        return [0, of.top - b.high]
      case 'foot':
        return [0, of.foot - b.low]
      case 'centre':
        return [0, (of.top + of.foot - b.high - b.low) / 2]
    }
  })
}

/** The outermost two stay, the others take even gaps in the order in which they stand. */
function spread(all: readonly Boxed[], way: 'across' | 'upward'): [number, number][] {
  const ends = (b: Boxed): [number, number] => (way === 'across' ? [b.left, b.right] : [b.low, b.high])
  const order = all.map((_, i) => i).sort((a, b) => ends(all[a]!)[0] - ends(all[b]!)[0])
  const [from, to] = [ends(all[order[0]!]!)[0], Math.max(...all.map(b => ends(b)[1]))]
  const filled = all.reduce((sum, b) => sum + ends(b)[1] - ends(b)[0], 0)
  const gap = (to - from - filled) / Math.max(1, all.length - 1)
  const moves = all.map((): [number, number] => [0, 0])
  let at = from
  for (const i of order) {
    const [low, high] = ends(all[i]!)
    moves[i] = way === 'across' ? [at - low, 0] : [0, at - low]
    at += high - low + gap
  }
  return moves
}
