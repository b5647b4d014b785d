import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Builder } from '../../acts/build.ts'
import { Program } from '../../engine/program.ts'
import { constantNumber } from '../../form/compiled-expression.ts'
import { integralOf } from '../../form/integral.ts'
import { at } from '../../testing/fair.ts'
import { momentNear, type Moment } from '../../time/moment.ts'
import { rational } from '../../time/rational.ts'
import { Births, Settled, type Birth } from './births.ts'
import { propertyExpression } from './part-transform.ts'

const RATE = rational(30)
/** As fine as a birth is found, s. */
const PART = 1 / 0x1000000000

/** Births of an emitter by a formula, and how often what they add up to was asked for. */
function births(text: string) {
  const b = new Builder('Fan', 1)
  const id = b.part('Petals', { type: 'emitter', seed: 1, flight: 'fixed', reverses: false })
  b.drive(id, 'births', text)
  const program = new Program(b.piece)
  expect(program.slots.get(`${id}.births`)!.problems).toEqual([])
  const form = propertyExpression(program, id, 'births', 0)
  const whole = integralOf(form, RATE, program.queue)
  const asked = { times: 0 }
  const born = (m: Moment) => (asked.times++, program.queue.settle(() => whole(m)))
  return { births: new Births(form, born, RATE), born, asked }
}

describe('the second of a birth', () => {
  const rate = fc.integer({ min: 1, max: 900 }).map(n => n / 3)
  const text = fc.oneof(
    fc.tuple(rate, rate).map(([a, b]) => `${a}Hz + ${b}Hz * (1 + sine(every: 3s))`),
    fc.tuple(rate, rate).map(([a, b]) => `if mod(time, 2s) < 0.7s then ${a}Hz else ${b}Hz`),
    rate.map(a => `${a}Hz * clamp((time - 1s) / 2s, 0, 1)`),
    rate.map(a => `${a}Hz * square(every: 0.4s, low: 0, high: 1)`),
    rate.map(a => `${a}Hz * ramp(length: 3s, after: repeat, ease: expoOut)`),
  )
  it('is the first part of it at which they have added up to so many', () => {
    fc.assert(
      fc.property(text, fc.double({ min: 0, max: 1, noNaN: true }), (text, share) => {
        const { births: found, born, asked } = births(text)
        const last = Math.floor(born(at(9)))
        const k = Math.ceil(share * last)
        if (k < 1) return
        asked.times = 0
        const second = found.secondOf(k, 0, 9)
        expect(asked.times, text).toBeLessThan(48)
        expect(born(momentNear(second, RATE)), text).toBeGreaterThanOrEqual(k)
        // Sums of a rate that is never below 0 may fall by their last bits.
        expect(born(momentNear(second - PART, RATE)), text).toBeLessThan(k + 1e-9)
        // The same whatever was asked for.
        expect(found.secondOf(k, 0, 40)).toBe(second)
        expect(births(text).births.secondOf(k, second - 0.01, second + 0.01)).toBe(second)
      }),
      { numRuns: Number(process.env.RUNS ?? 60), seed: 8 },
    )
  })
  it('takes a few sums where they grow smoothly', () => {
    const { births: found, asked } = births('300Hz + sine(every: 3s, amp: 200Hz)')
    found.secondOf(1, 0, 9)
    asked.times = 0
    for (let k = 600; k < 700; k++) found.secondOf(k, 0, 9)
    expect(asked.times / 100).toBeLessThan(20)
  })
  it('is exact where births are always as many', () => {
    const steady = new Births(constantNumber(3, RATE), () => NaN, RATE)
    expect([steady.secondOf(1, 0, 9), steady.secondOf(-7, -9, 9)]).toEqual([1 / 3, -7 / 3])
    expect(steady.momentOf(7, 7 / 3).exactSeconds).toEqual(rational(7, 3))
  })
})

describe('what is settled at birth', () => {
  const birth = (n: number): Birth => ({
    seconds: n,
    x: n + 0.1,
    y: 0,
    z: 0,
    towardsX: 1,
    towardsY: 0,
    towardsZ: 0,
    speed: 2,
    gone: 0,
  })
  it('stays where there are more, before 0 too, and makes way for what comes after it', () => {
    const settled = new Settled()
    settled.hold(3)
    for (const k of [-2, -1, 0]) settled.put(k, settled.place(k), birth(k), true)
    settled.hold(500)
    for (const k of [-2, -1, 0]) {
      expect(settled.has(k, settled.place(k))).toBe(true)
      expect(settled.columns.x[settled.place(k)]).toBe(k + 0.1)
    }
    expect(settled.after(settled.place(-1))).toBe(settled.place(0))
    // Its place is that of one which came long before.
    settled.put(512, settled.place(512), birth(512), true)
    expect([settled.has(512, settled.place(512)), settled.has(0, settled.place(0))]).toEqual([true, false])
  })
  it('is settled again where it did not last', () => {
    const settled = new Settled()
    settled.hold(1)
    settled.put(5, settled.place(5), birth(5), false)
    expect(settled.has(5, settled.place(5))).toBe(false)
    expect(settled.columns.seconds[settled.place(5)]).toBe(5)
  })
})
