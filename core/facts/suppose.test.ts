import { describe, expect, it } from 'vitest'
import { fair, type Place } from '../testing/fair.ts'

/** The bounds of a formula in degrees. */
const bounds = (text: string, place?: Place) => {
  const f = fair(text, place)
  expect(f.slot.problems.map(p => p.message)).toEqual([])
  const { low, high } = f.slot.readers[0]!.facts().bounds
  return [low * 360, high * 360] as const
}
const near = (seen: readonly [number, number], low: number, high: number, slack: number) => {
  // Guaranteed: they reach what is true; and they are tight: hardly further.
  expect(seen[0]).toBeLessThanOrEqual(low + 1e-9)
  expect(seen[1]).toBeGreaterThanOrEqual(high - 1e-9)
  expect(seen[0]).toBeGreaterThan(low - slack)
  expect(seen[1]).toBeLessThan(high + slack)
}

describe('a name that is read twice has one value in both places', () => {
  it('x · (1 − x) of a lap reaches a quarter, not one', () => {
    near(bounds('lapProgress * (1 - lapProgress) * 100deg'), 0, 25, 0.5)
  })
  it('a square is never below zero', () => {
    near(bounds('let s = sine(every: 2s); s * s * 10deg'), 0, 10, 0.2)
    near(bounds('let s = sine(every: 2s); (s ^ 3 - s) * 9deg'), -3.4642, 3.4642, 0.2)
  })
  it('a link less itself is nothing', () => {
    const flag = { 'Flag.rotation': 'sine(every: 2s, amp: 30deg)' }
    near(bounds('flag[0].rotation - flag[0].rotation', { with: flag }), 0, 0, 0.5)
    near(bounds('flag[0].rotation + 0.5 * flag[0].rotation', { with: flag }), -45, 45, 0.001)
  })
  it('but not one that is read at another moment', () => {
    const flag = { 'Flag.rotation': 'sine(every: 2s, amp: 30deg)' }
    for (const text of [
      'flag[0].rotation - 0.3 * delay(flag[0].rotation, 0.4s)',
      'flag[0].rotation - 0.3 * hold(flag[0].rotation, 3Hz)',
      'flag[0].rotation - 0.3 * at(flag[0].rotation, time: time + 0.7s)',
      'flag[0].rotation - 0.3 * average(flag[0].rotation, 0.6s)',
    ]) {
      const f = fair(text, { with: flag })
      const b = f.slot.readers[0]!.facts().bounds
      for (let t = 0; t < 8; t += 0.0137) {
        expect(f.value(t), text).toBeLessThanOrEqual(b.high)
        expect(f.value(t), text).toBeGreaterThanOrEqual(b.low)
      }
    }
  })
  it('a dial that stands in both terms has its one value', () => {
    near(bounds('wind * 10deg + (1 - wind) * 10deg'), 10, 10, 0.001)
  })
  it('and an if is taken by its branches, each within what its question leaves', () => {
    near(bounds('if time < 3s then 10deg else 20deg'), 10, 20, 0.001)
    near(bounds('if 2 < 1 then 90deg else 20deg'), 20, 20, 0.001)
  })
})

describe('bounds as tight as the structure allows', () => {
  it('noise that wraps at the lap is looked at cell by cell', () => {
    const f = fair('noise(freq: 8/lap, amp: 6deg)')
    const { low, high } = f.slot.readers[0]!.facts().bounds
    const seen = Array.from({ length: 8000 }, (_, k) => f.value(k / 1000) * 360)
    near([low * 360, high * 360], Math.min(...seen), Math.max(...seen), 1)
  })
  it('random that wraps holds so many values and no others', () => {
    const f = fair('random(10deg, 30deg, rate: 4/lap)')
    const { low, high } = f.slot.readers[0]!.facts().bounds
    const seen = [0, 2, 4, 6].map(t => f.value(t))
    near([low, high], Math.min(...seen), Math.max(...seen), 1e-9)
    const fixed = fair('random(10deg, 30deg)')
    const only = fixed.slot.readers[0]!.facts().bounds
    near([only.low, only.high], fixed.value(0), fixed.value(0), 1e-9)
  })
  it('a value that is held takes but the values it is read at', () => {
    near(bounds('hold(sine(every: 8s, amp: 10deg), rate: 4/lap)'), -10, 10, 0.001)
    near(
      bounds('hold(sine(every: 8s, amp: 10deg, phase: 45deg), rate: 4/lap)'),
      -10 / Math.SQRT2,
      10 / Math.SQRT2,
      0.001,
    )
  })
  it('the direction of what is always to the right', () => {
    near(bounds('atan2(sine(every: 2s, amp: 3px), 3px)'), -45, 45, 1e-6)
    expect(fair('atan2(sine(every: 2s, amp: 3px), 3px)').slot.forms[0]!.facts().bends.between(-9, 9)).toEqual([])
    near(bounds('atan2(sine(every: 2s, amp: 3px), sine(every: 2s, amp: 3px, phase: 0.25turn))'), -180, 180, 1e-6)
  })
  it('what has no value somewhere is said, and its set value counted in', () => {
    const f = fair('90deg / sign(sine(every: 2s))')
    const { finite } = f.slot.forms[0]!.facts()
    expect(finite).toBe(false)
    expect(f.value(0)).toBe(0)
    expect(fair('90deg / (2 + sine(every: 2s))').slot.forms[0]!.facts().finite).toBe(true)
  })
})

describe('bounds do not lean on bits that do not come back', () => {
  it('of a held value whose pace is added up', () => {
    const f = fair('hold(sine(freq: 27.9Hz * (1 + 0.4 * sine(every: 1.5s)), amp: 33.5deg), 1/lap)')
    const { low, high } = f.slot.readers[0]!.facts().bounds
    for (let lap = 0; lap < 4000; lap += 7) {
      expect(f.value(8 * lap)).toBeGreaterThanOrEqual(low)
      expect(f.value(8 * lap)).toBeLessThanOrEqual(high)
    }
  })
  it('nor of one that leaps at moments that are only known about', () => {
    const { low, high } = fair(
      'hold(square(freq: 1Hz * (1 + 0.4 * sine(every: 2s)), amp: 9deg), 1Hz)',
    ).slot.readers[0]!.facts().bounds
    expect([low * 360, high * 360]).toEqual([expect.closeTo(-9, 9), expect.closeTo(9, 9)])
  })
})
