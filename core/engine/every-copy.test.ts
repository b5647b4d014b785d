/** What is known of all copies together, held against each by itself. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { isBounded } from '../facts/interval.ts'
import { ofEveryCopy } from '../form/differs-by-copy.ts'
import { anAngleOfCopies } from '../testing/made-up-formulas.ts'
import { at, fairOfCopies } from '../testing/fair.ts'
import { toNumber } from '../time/rational.ts'
import { everyCopy } from './every-copy.ts'

/** A formula on so many copies, and the expression of all; null where it doesn't run. */
function ring(text: string, count: number) {
  const f = fairOfCopies(text, count)
  return f.slot.running === 'text' ? { ...f, every: everyCopy(f.program, f.key) } : null
}
const facts = (text: string, count = 12) => ring(text, count)!.every!.facts()
const RUNS = Number(process.env.RUNS ?? 400)

describe('all copies together', () => {
  it('whatever is known of them is so of each', () => {
    const known = { made: 0, bounded: 0, repeats: 0, smooth: 0, slope: 0 }
    fc.assert(
      fc.property(
        anAngleOfCopies,
        fc.integer({ min: 2, max: 12 }),
        fc.array(fc.integer({ min: 0, max: 40_000 }), { minLength: 4, maxLength: 4 }),
        (text, count, drawn) => {
          const f = ring(text, count)
          if (!f?.every) return
          known.made++
          const of = f.every.facts()
          const bounds = ofEveryCopy(() => of.bounds)
          const repeats = ofEveryCopy(() => of.repeats)
          const slope = ofEveryCopy(() => of.slope)
          const never = ofEveryCopy(() => of.leaps)?.only?.length === 0
          if (bounds && isBounded(bounds)) known.bounded++
          if (repeats?.every) known.repeats++
          if (never) known.smooth++
          if (slope && isBounded(slope)) known.slope++
          for (const [copy, reader] of f.slot.readers.entries()) {
            const read = (s: number) => f.program.queue.settle(() => reader.at(at(s)))
            const says = `${text}, copy ${copy + 1} of ${count}`
            let off = 0
            for (const ms of drawn) {
              const [t, v] = [ms / 1000, read(ms / 1000)]
              if (bounds) {
                expect(v, says).toBeGreaterThanOrEqual(bounds.low - 1e-9)
                expect(v, says).toBeLessThanOrEqual(bounds.high + 1e-9)
              }
              if (repeats?.every && t >= (repeats.from ? toNumber(repeats.from) + 0.01 : 0)) {
                const every = toNumber(repeats.every) || 7.3
                if (
                  every < 1e4 &&
                  Math.abs(read(t + every) - v - toNumber(repeats.gain) * every) > 1e-6 * (1 + Math.abs(v))
                )
                  off++
              }
              if (never && slope && isBounded(slope)) {
                const speed = (read(t + 1e-4) - v) / 1e-4
                expect(speed, says).toBeGreaterThanOrEqual(slope.low - 1e-3 * (1 + Math.abs(slope.low)))
                expect(speed, says).toBeLessThanOrEqual(slope.high + 1e-3 * (1 + Math.abs(slope.high)))
              }
            }
            // Where the last bit of a sum decides on which side of a leap a moment lies, one look may differ.
            expect(off, `${says}: every ${repeats?.every && toNumber(repeats.every)} s`).toBeLessThanOrEqual(1)
          }
        },
      ),
      { numRuns: RUNS, interruptAfterTimeLimit: RUNS > 400 ? 900_000 : 12_000 },
    )
    if (RUNS > 400) console.log(known)
    expect(Math.min(...Object.values(known))).toBeGreaterThan(5)
  })

  it('what waves alike, each later than the one before, comes back with the wave, within its swing', () => {
    const of = facts('sine(every: 4s, amp: 30deg, phase: index * 17deg)')
    expect(toNumber(of.repeats.every!)).toBe(4)
    expect(of.bounds.low * 360).toBeCloseTo(-30, 9)
    expect(of.bounds.high * 360).toBeCloseTo(30, 9)
    expect(of.leaps.only).toEqual([])
  })

  it('what turns at one pace turns at one pace, wherever each begins', () => {
    const { repeats } = facts('time * 45deg/s + index * 3deg')
    expect(repeats.every && [toNumber(repeats.every), toNumber(repeats.gain) * 360]).toEqual([0, 45])
  })

  it('a name read twice is one value in both places', () => {
    const { bounds } = facts('index * 10deg - index * 9deg + 5deg')
    // Between 5 and 16, and no more than what a range cut in pieces leaves beside that.
    expect(bounds.high * 360).toBeGreaterThanOrEqual(16)
    expect(bounds.high * 360).toBeLessThan(25)
  })

  it('chance of each copy’s own is within its ends, and nothing of one seed is taken for all', () => {
    const one = facts('random(low: 10deg, high: 20deg)')
    expect([one.bounds.low * 360, one.bounds.high * 360].map(v => Math.round(v * 1e9) / 1e9)).toEqual([10, 20])
    const wrapped = facts('noise(freq: 3/lap, amp: 6deg)')
    expect(wrapped.bounds.high * 360).toBeCloseTo(6, 9)
    expect(toNumber(wrapped.repeats.every!)).toBeGreaterThan(0)
  })

  it('a pace of each copy’s own is not known to come back', () => {
    const made = ring('sine(freq: 1Hz + index * 0.1Hz, amp: 9deg)', 12)!.every!
    expect(ofEveryCopy(() => made.facts().repeats.every) ?? null).toBeNull()
    expect(made.facts().bounds.high * 360).toBeCloseTo(9, 9)
  })

  it('asked within a limit leaves no work that would take one copy to do', () => {
    for (const text of [
      'accumulate(noise(freq: 1Hz) * (index + 1) * 20deg/s)',
      'sine(freq: 1Hz + index * noise(2Hz) * 0.1Hz, amp: 9deg)',
      'hold(accumulate(random(low: 0deg/s, high: 9deg/s, rate: 3Hz) * along), 4Hz)',
      'if accumulate(noise(1Hz) ^ 2 * 1deg/s) > index * 1deg then 1deg else 2deg',
    ]) {
      const { every, program } = ring(text, 12)!
      const { queue } = program
      const of = every!.facts()
      for (const fact of ['bounds', 'repeats', 'leaps', 'slope', 'finite', 'reach', 'cost'] as const)
        queue.withinBudget(() => ofEveryCopy(() => of[fact]))
      expect(() => queue.advance(10_000), text).not.toThrow()
    }
  })

  it('cannot be read: a reading would be that of one copy', () => {
    const every = ring('sine(every: 4s, amp: 30deg, phase: index * 17deg)', 12)!.every!
    expect(ofEveryCopy(() => every.at(at(1)))).toBeNull()
    // Where all are the same, there is nothing to tell apart.
    expect(ring('20deg', 12)!.every!.facts().bounds.high * 360).toBeCloseTo(20, 12)
  })
})
