import { describe, expect, it } from 'vitest'
import { Builder } from '../acts/build.ts'
import { withTuned } from './handing.ts'
import { lendable, lentStep, limitToLent } from './lent.ts'
import { incomingOf, outOf } from './device.ts'

const b = new Builder('Lent', 1)
const pace = b.dial('pace', { low: 0, high: 200, value: 100, initial: 100, unit: '%' })
const count = b.dial('count', { type: 'whole', low: 1, high: 9, value: 4, initial: 4 })
b.dial('kept', { low: 0, high: 1, value: 0, initial: 0, locked: true })
const { dials } = b.piece

describe('a lent dial', () => {
  it('goes no further than its locks, nor than the dial itself, and to whole numbers where it is whole', () => {
    expect(
      [-1e9, 40, 60, 75.5, 121, Infinity, NaN].map(v => limitToLent(dials[pace]!, { low: 60, high: 120 }, v)),
    ).toEqual([60, 60, 60, 75.5, 120, null, null])
    expect(limitToLent(dials[pace]!, { low: -50, high: 500 }, 300)).toBe(200)
    expect([1.2, 3.5, 8.9].map(v => limitToLent(dials[count]!, { low: 2.5, high: 7.5 }, v))).toEqual([3, 4, 7])
  })
  it('is any that is not locked, with its own limits', () => {
    expect(lendable(b.piece)).toEqual([
      { dial: pace, says: 'pace', low: 0, high: 200 },
      { dial: count, says: 'count', low: 1, high: 9 },
    ])
    expect(lentStep(dials[count]!, { low: 1, high: 9 })).toBe(1)
    expect(lentStep(dials[pace]!, { low: 0, high: 2 })).toBe(0.01)
  })
  it('tuned changes its value alone', () => {
    const tuned = withTuned(b.piece, { [pace]: 75, gone: 3 })
    expect(tuned.dials[pace]).toEqual({ ...dials[pace], value: 75 })
    expect(tuned.dials[count]).toBe(dials[count])
    expect(Object.keys(tuned.dials)).toEqual(Object.keys(dials))
  })
})

describe('a device', () => {
  it('gets values in its own range, never beyond', () => {
    const channel = { drive: 'x', address: '/servo/1', low: -60, high: 60, outLow: 0, outHigh: 180 }
    expect([-90, -60, 0, 60, 99].map(v => outOf(channel, v))).toEqual([0, 0, 90, 180, 180])
    expect(outOf({ ...channel, outLow: 1, outHigh: 0 }, 60)).toBe(0)
    expect(outOf({ ...channel, low: 5, high: 5 }, 60)).toBe(0)
  })
  it('sets dials and taps cues by name, and nothing else', () => {
    expect(incomingOf('/dial/pace', 65)).toEqual({ is: 'dial', name: 'pace', value: 65 })
    expect(incomingOf('/cue/strike', undefined)).toEqual({ is: 'cue', name: 'strike' })
    for (const [address, value] of [
      ['/dial/pace', 'x'],
      ['/dial/pace', NaN],
      ['/dial/', 1],
      ['/dial/a/b', 1],
      ['/other/x', 1],
    ] as const)
      expect(incomingOf(address, value)).toBeNull()
  })
})
