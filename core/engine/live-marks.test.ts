import { describe, expect, it } from 'vitest'
import { apply } from '../piece/operation.ts'
import { at, fair } from '../testing/fair.ts'
import { keepLiveMarks, type LiveMarks } from './live-marks.ts'
import { longestLead, tapped } from './taps.ts'
import { Program } from './program.ts'

const cue = (f: ReturnType<typeof fair>, name: string) =>
  Object.keys(f.piece.cues).find(id => f.piece.cues[id]!.name === name)!

describe('a live mark', () => {
  it('is placed a lead after the tap, so that the gesture begins there and its hit lands on the mark', () => {
    const f = fair('play(swing, cue: never, channel: arm)', { with: { 'Flag.rotation': 'play(climb, never) * 1deg' } })
    const never = cue(f, 'never')
    // `swing` hits 0.9 s in, `climb` at once.
    expect(longestLead(f.program, never)).toBe(0.9)
    expect(f.value(50)).toBe(0)
    const made = tapped(f.program, {}, never, at(7.25))
    expect(made).toEqual({ live: { [never]: [8.15] } })
    const program = new Program(f.piece, f.program, (made as { live: LiveMarks }).live)
    const value = (s: number) => program.slots.get(f.key)!.readers[0]!.at(at(s)) * 360
    expect(value(7.25)).toBe(0)
    expect(value(7.85)).toBeCloseTo(40, 9)
    expect(value(8.15)).toBeCloseTo(-60, 9)
    // The one before the tap is not skipped, and nothing else has moved.
    expect(value(7.2)).toBe(0)
    expect(f.piece.cues[never]!.marks).toEqual([])
  })
  it('adds to the marks that are there, on clocks too, and is kept when it is wished', () => {
    const f = fair('since(blow) / 1s * 1turn on onBlow')
    const blow = cue(f, 'blow')
    const { live } = tapped(f.program, {}, blow, at(9)) as { live: LiveMarks }
    const program = new Program(f.piece, null, live)
    const running = (p: Program) => [1, 3, 8, 9.5, 20].map(s => p.slots.get(f.key)!.readers[0]!.at(at(s)))
    expect(running(program)).not.toEqual(running(f.program))
    const kept = apply(f.piece, keepLiveMarks(f.piece, live, blow))
    expect(kept.cues[blow]!.marks).toEqual([2, 5, 5.5, 9])
    expect(running(new Program(kept))).toEqual(running(program))
  })
  it('is refused on a cue that comes again by itself, with the way out', () => {
    const f = fair('0')
    expect(tapped(f.program, {}, cue(f, 'beat'), at(3))).toEqual({
      says: 'beat repeats by itself every 2 s. Tap a cue that has a list of marks.',
    })
  })
})
