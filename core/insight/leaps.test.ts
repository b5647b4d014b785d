import { describe, expect, it } from 'vitest'
import { fair, type Place } from '../testing/fair.ts'
import { toNumber, ONE } from '../time/rational.ts'
import { closureOf } from './closure.ts'
import { jumpsOf, leapsOf, plainFraction } from './leaps.ts'
import { reportOf } from './report.ts'

const jumps = (text: string, place?: Place) => {
  const f = fair(text, place)
  expect(f.slot.problems.filter(p => p.level === 'error')).toEqual([])
  return jumpsOf(f.slot.forms[0]!, f.program, 1)
}
const times = (text: string, place?: Place) =>
  jumps(text, place).jumps.map(j => [toNumber(j.at), j.every && toNumber(j.every)])

describe('leaps are found wherever they are', () => {
  it.each([
    ['time * 10deg/s on again', [[0, 2]]],
    ['time * 10deg/s on stepped', [[0, 0.1]]],
    ['time * 10deg/s on toAndFro', []],
    [
      'time * 10deg/s on onBlow',
      [
        [5, null],
        [5.5, null],
      ],
    ],
    ['if time > 15s then 90deg else 0deg', [[15, null]]],
    ['if time >= -15s then 90deg else 0deg', [[-15, null]]],
    ['step(40000s, time) * 90deg', [[40000, null]]],
    ['ceil(time / 4s) * 30deg', [[0, 4]]],
    ['floor(10 - time / 1s) * 30deg', [[0, 1]]],
    ['floor(time / 1s) * 30deg on back', [[0, 1]]],
    ['envelope(hold: 1s, release: 1s) * 90deg', [[0, null]]],
    ['envelope(attack: 1s, hold: 1s) * 90deg', [[2, null]]],
    ['envelope(attack: 2s, hold: 9s, release: 1s, cue: beat) * 90deg', [[3, 2]]],
    ['flag[0].rotation * 0.5', [[1, 3]]],
    ['delay(flag[0].rotation, 250ms)', [[1.25, 3]]],
    [
      'accumulate(30deg/s, reset: blow)',
      [
        [2, null],
        [5, null],
        [5.5, null],
      ],
    ],
    ['tan(time * 10deg/s) * 1deg', [[9, 18]]],
    [
      '1deg / (lapProgress - 0.5)',
      [
        [0, 8],
        [4, 8],
      ],
    ],
    ['abs(sine(every: 2s)) * 40deg', []],
    ['average(step(3s, time) * 90deg, 1s)', []],
    ['sqrt(abs(sine(every: 2s))) * 40deg', []],
  ])('%s', (text, meant) => {
    const linked = { with: { 'Flag.rotation': 'if mod(time, 3s) < 1s then 0deg else 90deg' } }
    const at = times(text, text.includes('flag') ? linked : {})
    if (text.includes('flag')) expect(at).toContainEqual(meant[0])
    else expect(at).toEqual(meant)
  })
  it('of every copy, with the first that has it', () => {
    const f = fair(
      'if index == 7 then saw(every: 3s, amp: 9deg) else if index == 9 then step(2s, time) * 4deg else 0deg',
      {
        on: 'Mount',
      },
    )
    const { jumps: all } = leapsOf(f.slot.forms, f.program, 1)
    expect(all.map(j => [toNumber(j.at), j.copy])).toEqual([
      [0, 7],
      [2, 9],
    ])
  })
  it('a moment is told as the plain fraction it is', () => {
    expect(plainFraction(1 / 3 + 1e-12)).toEqual({ n: 1n, d: 3n })
    expect(plainFraction(-2.5)).toEqual({ n: -5n, d: 2n })
    expect(plainFraction(40000)).toEqual({ n: 40000n, d: 1n })
  })
})

describe('what is plain is proven', () => {
  const verdict = (text: string, place?: Place) => {
    const f = fair(text, place)
    return closureOf(f.slot.forms[0]!, f.program, f.program.lapStart, ONE, ONE).verdict
  }
  it.each([
    'if lapProgress < 0.3 then 90deg else 0deg',
    'if mod(time, 2s) < 0.5s then 90deg else 0deg',
    'mod(floor(time * 6Hz), 12) * 30deg',
    'floor(lapIndex ^ 2) * 1turn',
    'acos(sine(every: 2s) * 0.5)',
    'acos(sine(every: 2s))',
    'sine(every: 2s) ^ 2 * 30deg',
    'accumulate(sine(every: 4s, amp: 90deg/s))',
    'at(sine(every: 2s, amp: 9deg), time: time * 2)',
    'accumulate(noise(3/lap, 1turn/s)) * 0 + 4deg',
  ])('%s closes', text => expect(['yes', 'symmetry']).toContain(verdict(text)))
  it('from where it comes to rest, where it does', () => {
    expect(verdict('max(0, 1 - time / 4s) * 20deg + sine(every: 2s, amp: 9deg)')).toBe('later')
    expect(verdict('min(1, time / 4s) * 90deg')).toBe('later')
    expect(verdict('max(smoothstep(1s, 2s, time), 0) * 90deg')).toBe('later')
  })
  it('the worst copy is told, and which it is', () => {
    const f = fair('if index == 4 then time * 5deg/s else time * 45deg/s', { on: 'Mount' })
    const report = reportOf(f.program, f.slot)
    expect(report.copy).toBe(4)
    expect(report.closes).toMatch(/^40\.0° off at the loop point, copy 5$/)
  })
})

describe('bounds of what is read twice', () => {
  const range = (text: string, place?: Place) => {
    const { low, high } = fair(text, place).slot.readers[0]!.facts().bounds
    return [low * 360, high * 360]
  }
  it.each([
    ['sine(every: 2s, amp: 9deg) - sine(every: 2s, amp: 9deg)', 0, 0],
    ['square(every: 2s, amp: 9deg) + square(every: 2s, amp: 9deg, phase: 180deg)', 0, 0],
    ['(step(1s, time) - step(3s, time)) * 90deg', 0, 90],
    ['sine(every: 2s) * sine(every: 2s) * 90deg', 0, 90],
    ['let t = mod(time, 4s); (if t < 1s then t * 90deg/s else 90deg - (t - 1s) * 30deg/s)', 0, 90],
    ['average(sine(every: 2s, amp: 9deg), 2s)', 0, 0],
    ['sin(sine(every: 2s, amp: 30deg)) * 90deg', -45, 45],
    ['acos(sine(every: 2s))', 0, 180],
    ['asin(sine(every: 2s))', -90, 90],
  ])('%s', (text, low, high) => {
    const [a, b] = range(text)
    const slack = Math.max(0.5, (high - low) * 0.02)
    expect(a).toBeLessThanOrEqual(low + 1e-9)
    expect(b).toBeGreaterThanOrEqual(high - 1e-9)
    expect(a).toBeGreaterThan(low - slack)
    expect(b).toBeLessThan(high + slack)
  })
  it('a link less itself a while ago', () => {
    const [a, b] = range('flag[0].rotation - delay(flag[0].rotation, 2s)', {
      with: { 'Flag.rotation': 'sine(every: 2s, amp: 30deg)' },
    })
    expect(Math.max(-a!, b!)).toBeLessThan(0.5)
  })
})
