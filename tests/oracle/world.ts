/** The small fair the trials run on, as plain facts: what the design page calls dials, clocks, cues, curves, links. */
import { q, type Q } from './fraction.ts'

export const FPS = q(30)
export const LAP = q(8)

export const DIALS: Readonly<Record<string, Q>> = { fairpace: q(1), wind: q(35, 100), dusk: q(4, 5) }

/** Seconds on the piece's time to seconds on the clock, for the clocks that have a rate. */
export const STEADY: Readonly<Record<string, readonly [rate: Q, ahead: Q]>> = {
  slow: [q(1, 2), q(0)],
  back: [q(-1), q(3)],
  slower: [q(1, 4), q(1)],
}

export const CUES: Readonly<Record<string, { readonly marks: readonly Q[]; readonly every: Q | null }>> = {
  blow: { marks: [q(2), q(5), q(11, 2)], every: null },
  beat: { marks: [q(1)], every: q(2) },
  never: { marks: [], every: null },
}

/** Points of the straight and the stepped curves: time, value in base measure, whether it holds until the next. */
export const CURVES: Readonly<Record<string, Readonly<Record<string, readonly (readonly [Q, Q, boolean])[]>>>> = {
  climb: {
    height: [
      [q(0), q(0), false],
      [q(2), q(1), false],
    ],
  },
  zigzag: {
    left: [
      [q(0), q(0), false],
      [q(1, 2), q(1, 12), false],
      [q(3, 2), q(-1, 6), false],
      [q(2), q(1, 24), false],
    ],
    right: [
      [q(0), q(0), true],
      [q(3, 4), q(1, 4), true],
      [q(1), q(1, 8), true],
    ],
  },
}
export const HITS: Readonly<Record<string, Q>> = { climb: q(0), zigzag: q(1, 2) }

/** The driven things that formulas may read. */
export const LINKS: Readonly<Record<string, string>> = {
  'idler.rotation': 'time * 30deg/s',
  'pinion.rotation': 'sine(every: 2s, amp: 20deg)',
  'arch.rotation': 'saw(every: 4s, low: 0deg, high: 80deg)',
  'flag.rotation': 'if index == 0 then sine(every: 2s, amp: 30deg) else delay(before.rotation, 100ms) * 0.5',
  gust: 'triangle(every: 4s, amp: 0.5) + 0.5',
}
