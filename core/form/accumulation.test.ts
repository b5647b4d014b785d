import { describe, expect, it } from 'vitest'
import { apply } from '../piece/operation.ts'
import { at, fair } from '../testing/fair.ts'
import { rational } from '../time/rational.ts'
import { Program } from '../engine/program.ts'
import { setDial, settleFrom0 } from '../engine/retime.ts'
import { rewrite } from '../engine/rewrite.ts'

describe('a pace that changes with time', () => {
  /** Turns of ∫ 1 + 0.2 sin(π t) dt, by hand. */
  const turns = (t: number) => t + (0.2 / Math.PI) * (1 - Math.cos(Math.PI * t))
  const wobbling = 'sine(freq: 1Hz * (1 + 0.2 * sine(every: 2s)), amp: 1turn)'

  it('is added up: after an hour it has not run away', () => {
    const f = fair(wobbling)
    for (const t of [0.3, 7.25, 3600.3, 86400.3, -12.7])
      expect(f.value(t)).toBeCloseTo(Math.sin(2 * Math.PI * turns(t)), t > 1e4 ? 6 : 9)
    // Had time been multiplied by it, it would run at up to 600 turns a second there; so it keeps to 1.2 at most.
    for (let t = 3600; t < 3604; t += 0.01)
      expect(Math.abs(f.value(t + 0.01) - f.value(t))).toBeLessThan(2 * Math.PI * 1.2 * 0.01)
    expect(f.slot.forms[0]!.facts().repeats).toMatchObject({ every: rational(2), gain: rational(0) })
  })
  it.each([
    'sine(every: 2s * (1.5 + noise(1Hz)), amp: 9deg)',
    'noise(freq: 2Hz + 1Hz * sine(every: 2s), amp: 9deg)',
    'random(0deg, 30deg, rate: 3Hz + 2Hz * noise(0.5Hz))',
    'triangle(freq: 1Hz * own.scale, amp: 9deg) on slow',
    'saw(freq: 1Hz + 0.5Hz * sine(every: 1s), amp: 9deg, phase: sine(every: 3s) * 40deg) on toAndFro',
  ])('in %s, at any moment in any order', text => {
    const f = fair(text, { with: { 'Carousel.scale': '100% + sine(every: 2s) * 20%' } })
    expect(f.slot.problems).toEqual([])
    const moments = [3600.4, 2, -5, 100.25, 2.01, 3600.4]
    const again = fair(text, { with: { 'Carousel.scale': '100% + sine(every: 2s) * 20%' } })
    const seen = moments.map(t => f.value(t))
    expect(seen.every(Number.isFinite)).toBe(true)
    expect([...moments].sort((a, b) => a - b).map(t => again.value(t))).toEqual(
      [...moments].sort((a, b) => a - b).map(t => seen[moments.indexOf(t)]),
    )
  })
  it('two paces that hardly ever come back together are added up to a day', () => {
    const f = fair('accumulate(1turn/s * sine(every: 4s) * sine(every: 2.7182818s))')
    const [a, b] = [(2 * Math.PI) / 4, (2 * Math.PI) / 2.7182818]
    const exactly = (t: number) => Math.sin((a - b) * t) / (2 * (a - b)) - Math.sin((a + b) * t) / (2 * (a + b))
    for (const t of [0.5, 77.3, 4000.25, -12.5]) expect(Math.abs(f.value(t) - exactly(t))).toBeLessThan(1e-8)
  })
  it('what can only be added up step by step ends some days away, and that is known', () => {
    const f = fair('accumulate(1turn/s * sine(every: 4s) * sine(every: 2.7182818s))')
    expect(f.slot.forms[0]!.facts().reach).toBeLessThan(31557600)
    // Beyond, it stays as it is: `integral.test.ts`.
    for (const text of ['accumulate(1turn/s * sine(every: 4s) * sine(every: 3s))', 'accumulate(noise(1Hz, 9deg/s))'])
      expect(fair(text).slot.forms[0]!.facts().reach).toBe(Infinity)
  })
  it('a rate that has no value leaves the set value, and stops nothing else', () => {
    const f = fair('accumulate(30deg / 0s + sine(every: 4s, amp: 20deg/s))')
    expect(f.value(3)).toBe(0)
    expect(f.slot.forms[0]!.facts()).toMatchObject({ finite: false, repeats: { every: null } })
    const next = rewrite(f.program, f.key, 'accumulate(30deg / 0s + sine(every: 3s, amp: 20deg/s))', at(3), true)
    expect(next.program.slots.get(f.key)!.running).toBe('text')
    expect(fair('sine(freq: 1Hz / (time / 1s - time / 1s), amp: 9deg)').value(2)).toBe(0)
  })
  it('its numbers are tuned without a jump', () => {
    const f = fair(wobbling)
    const { program, jumps } = rewrite(f.program, f.key, wobbling.replace('1Hz', '1.7Hz'), at(12.4), true)
    expect(jumps).toBeNull()
    expect(program.piece.drives[f.key]!.text).toMatch(/, phase: /)
    expect(Math.abs(program.slots.get(f.key)!.readers[0]!.at(at(12.4)) - f.value(12.4))).toBeLessThanOrEqual(1e-9)
  })
  it.each([
    'accumulate(45deg/s * fairPace)',
    'accumulate(fairPace * (45deg/s + sine(every: 4s, amp: 20deg/s)))',
    'accumulate(30deg/s + fairPace * noise(0.5Hz, 20deg/s) - wind * 3deg/s)',
    'accumulate(45deg/s * (1 + fairPace * sine(every: 2s)))',
    'accumulate(45deg/s * fairPace) on slow',
    'accumulate(45deg/s * fairPace) on toAndFro',
    'sine(freq: 1Hz * fairPace * (1 + 0.2 * sine(every: 2s)), amp: 20deg)',
    'sine(every: 2s / fairPace, amp: 20deg) on toAndFro',
    'sine(every: 2s / fairPace, amp: 20deg) on onBlow',
    'noise(freq: 1Hz * fairPace, amp: 20deg) on stepped',
    'time * 30deg/s * fairPace on toAndFro',
    'frame * 1deg * fairPace on again',
  ])('%s: a dial in it is turned without a jump', text => {
    const { key, ...made } = fair(text)
    let { program } = made
    for (const [value, t] of [
      [65, 12.4],
      [140, 3600.25],
      [0, 40],
      [80, 77.7],
    ] as const) {
      const before = program.slots.get(key)!.readers[0]!.at(at(t))
      program = new Program(apply(program.piece, setDial(program, 'd1', value, at(t))), program)
      expect(Math.abs(program.slots.get(key)!.readers[0]!.at(at(t)) - before)).toBeLessThanOrEqual(1e-9)
    }
    expect(Object.keys(program.piece.slips).length).toBeGreaterThan(0)
    const settled = new Program(apply(program.piece, settleFrom0(program.piece, 'd1')), program)
    expect(settled.piece.slips).toEqual({})
  })
})
