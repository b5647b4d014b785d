/** The phase of a source on every lane: whole cycles, and the part of the next. */
import { moving, scratch, type Column, type Now } from './column.ts'
import type { SteadyLanes } from './steady.ts'

export interface PhaseLanes {
  /** Cells in a lap where the phase was written per lap; else 0. */
  readonly wrap: number
  /** Fills parts, 0 ≤ part < 1, and whole cycles where `wholes` is given. */
  readonly split: (now: Now, from: number, count: number, parts: Float64Array, wholes: Float64Array | null) => void
}

/** @param ahead a phase that moves, in turns, added after the steady share */
export function phaseLanes(steady: SteadyLanes, ahead: Column | null, wrap: number, lanes: number): PhaseLanes {
  if (!ahead) {
    return { wrap, split: (now, from, count, parts, wholes) => steady.split(now.moment, from, count, parts, wholes) }
  }
  const [more] = scratch(1, lanes)
  return {
    wrap,
    split: (now, from, count, parts, wholes) => {
      steady.split(now.moment, from, count, parts, wholes)
      ahead.fill(now, from, count, more)
      for (let i = 0; i < count; i++) {
        const part = parts[i]! + more[i]!
        const carry = Math.floor(part)
        parts[i] = part - carry
        if (wholes) wholes[i] = wholes[i]! + carry
      }
    },
  }
}

/** A wave of the part of its phase, between −1 and 1. */
export function waveOf(phase: PhaseLanes, wave: (part: number) => number): Column {
  return moving((now, from, count, out) => {
    phase.split(now, from, count, out, null)
    for (let i = 0; i < count; i++) out[i] = wave(out[i]!)
  })
}
