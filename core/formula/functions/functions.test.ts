import { describe, expect, it } from 'vitest'
import { momentOfFrame, momentOfSeconds } from '../../time/moment.ts'
import { rational } from '../../time/rational.ts'
import { fair, RATE, value } from '../../testing/fair.ts'

const TURN = 2 * Math.PI

describe('oscillators, worked by hand at 12.4 s', () => {
  it.each([
    // every 5 s: 2.48 cycles, 0.48 into one
    ['triangle(every: 5s, amp: 1turn)', 2 - 4 * 0.48],
    ['saw(every: 5s, amp: 1turn)', 2 * 0.48 - 1],
    ['saw(every: 5s, low: 0turn, high: 1turn)', 0.48],
    ['square(every: 5s, amp: 1turn)', 1],
    ['square(every: 5s, amp: 1turn, duty: 0.4)', -1],
    ['square(every: 5s, low: 0.2turn, high: 0.7turn, duty: 0.4)', 0.2],
    ['triangle(every: 5s, amp: 1turn, phase: 0.02turn)', 0],
    ['saw(every: 5s, amp: 1turn, phase: -0.48turn)', -1],
  ])('%s', (text, wanted) => expect(value(text, 12.4)).toBeCloseTo(wanted, 12))

  it('a frame that lies exactly on a leap takes the value from the right, always', () => {
    for (const hz of ['0.3Hz', '7.77Hz']) {
      const f = fair(`square(${hz}, 1turn)`)
      const saw = fair(`saw(${hz}, 1turn)`)
      const pace = rational(hz === '0.3Hz' ? 3 : 777, hz === '0.3Hz' ? 10 : 100)
      for (let k = -40; k < 400; k++) {
        const rise = momentOfSeconds({ n: BigInt(k) * pace.d, d: pace.n }, RATE)
        const fall = momentOfSeconds({ n: BigInt(2 * k + 1) * pace.d, d: 2n * pace.n }, RATE)
        expect([f.slot.forms[0]!.at(rise), f.slot.forms[0]!.at(fall), saw.slot.forms[0]!.at(rise)]).toEqual([1, -1, -1])
      }
    }
  })
})

describe('shapes', () => {
  it.each([
    ['remap(time, 10s, 14s, 0deg, 360deg)', 0.6],
    ['remap(time, 0s, 10s, 0deg, 360deg)', 1.24],
    ['remap(time, 0s, 10s, 0deg, 360deg, limit: yes)', 1],
    ['remap(time, 14s, 10s, 0deg, 360deg)', 0.4],
    ['wrap(time * 1turn/s, -0.5turn, 0.5turn)', 0.4],
    ['wrap(-12.4turn, 0turn, 1turn)', 0.6],
    ['mirror(time * 1turn/s, 0turn, 1turn)', 0.4],
    ['mirror(time * 1turn/s, 0turn, 12turn)', 11.6],
    ['step(12.4s, time) * 1turn', 1],
    ['step(12.5s, time) * 1turn', 0],
    ['floor(time / 5s) * 1turn', 2],
    ['ceil(time / 5s) * 1turn', 3],
    ['fract(time / 5s) * 1turn', 0.48],
    ['floor(-0.5) * 1turn', -1],
    ['ceil(-0.5) * 1turn', 0],
    ['fract(-0.25) * 1turn', 0.75],
    ['floor(time * 45deg/s, to: 1turn)', 1],
    ['ceil(time * 45deg/s, to: 1turn)', 2],
    ['mod(time * 45deg/s, 90deg)', 18 / 360],
    ['mod(-30deg, 90deg)', 60 / 360],
    ['sign(-3px) * 1turn', -1],
    ['sign(0) * 1turn', 0],
    ['pow(2, 10) * 1turn', 1024],
    ['sqrt(6.25) * 1turn', 2.5],
    ['exp(1) * 1turn', Math.E],
    ['log(exp(2)) * 1turn', 2],
    ['sin(30deg) * 1turn', 0.5],
    ['cos(60deg) * 1turn', 0.5],
    ['tan(45deg) * 1turn', 1],
    ['asin(0.5)', 30 / 360],
    ['acos(0.5)', 60 / 360],
    ['atan2(1px, -1px)', 135 / 360],
    ['hypot(3deg, 4deg)', 5 / 360],
    ['ease(0.25, quadIn) * 1turn', 0.0625],
    ['ease(2, backOut(3)) * 1turn', 1],
  ])('%s', (text, wanted) => expect(value(text, 12.4)).toBeCloseTo(wanted, 12))

  it('what is not plain is cut in steps that must be said', () => {
    for (const name of ['round', 'floor', 'ceil', 'fract']) {
      const p = fair(`${name}(time * 45deg/s)`).slot.problems[0]!
      expect(p.message).toBe(`${name} needs a plain value, or to: for the size of its steps; this is an angle.`)
      expect(p.fixes).toHaveLength(1)
    }
  })

  it('steady growth is cut exactly: no frame on the wrong side of a step', () => {
    const f = fair('floor(time * 0.3 / 1s) * 1turn + mod(time, 0.7s) / 0.7s * 1turn')
    const steps = fair('floor(time * 0.3 / 1s) * 1turn')
    const rest = fair('mod(time, 0.7s) / 1s * 1turn')
    for (let k = 1; k < 2000; k++) {
      expect(steps.slot.forms[0]!.at(momentOfSeconds(rational(10 * k, 3), RATE))).toBe(k)
      expect(rest.slot.forms[0]!.at(momentOfSeconds(rational(7 * k, 10), RATE))).toBe(0)
    }
    expect(f.slot.problems).toEqual([])
  })
})

describe('moving time', () => {
  const links = { with: { 'Flag.rotation': 'time * 45deg/s', 'Mount.y': 'sine(every: 2s, amp: 24px)' } }
  it('delay reads any formula later, links too, and keeps what is steady exact', () => {
    expect(value('delay(time * 45deg/s, 400ms)', 12.4)).toBe(1.5)
    expect(value('delay(flag[0].rotation, 400ms) * 2', 12.4, links)).toBe(3)
    expect(value('delay(sine(every: 2s, amp: 1turn), 0.5s)', 1)).toBe(1)
    expect(value('delay(time * 1turn/s, time / 2)', 12.4)).toBeCloseTo(6.2, 12)
    expect(fair('delay(time * 45deg/s, 400ms)').slot.forms[0]!.exact).not.toBeNull()
  })
  it('delay breaks no circle', () => expect(fair('delay(own.rotation, 1s)').slot.problems[0]!.code).toBe('cycle'))
  it('hold reads so many times a second', () => {
    expect(value('hold(time * 1turn/s, 2Hz)', 12.4)).toBe(12)
    expect(value('hold(time * 1turn/s, 2Hz)', -0.1)).toBe(-0.5)
    expect(value('hold(flag[0].rotation, 1Hz)', 12.4, links)).toBe(1.5)
    const f = fair('hold(time * 1turn/s, 3Hz)')
    for (let k = 0; k < 300; k++) expect(f.slot.forms[0]!.at(momentOfFrame(10 * k, RATE))).toBe(k / 3)
  })
  it('at reads another moment of the piece', () => {
    expect(value('at(time * 1turn/s, 2s)', 12.4)).toBe(2)
    expect(value('at(time * 1turn/s, time * 2 + 1s)', 12.4)).toBeCloseTo(25.8, 12)
  })
  it('rateOf is how fast it changes from here on', () => {
    expect(value('rateOf(time * 45deg/s) * 1s', 12.4)).toBe(0.125)
    expect(value('rateOf(sine(every: 2s, amp: 1turn)) * 1s', 12.4)).toBeCloseTo(Math.PI * Math.cos(TURN * 6.2), 5)
    expect(value('rateOf(time ^ 2 * 1turn/s / 1s) * 1s', 3)).toBeCloseTo(6, 6)
    // Right at a leap: the slope that follows.
    expect(value('rateOf(saw(every: 1s, low: 0turn, high: 2turn)) * 1s', 3)).toBeCloseTo(2, 6)
    expect(value('rateOf(own.y) / 1px * 1s * 1turn', 0, { on: 'Mount', ...links })).toBeCloseTo(24 * Math.PI, 3)
  })
  it('average is over the time gone by', () => {
    expect(value('average(time * 1turn/s, 2s)', 12.4)).toBeCloseTo(11.4, 12)
    expect(value('average(sine(every: 2s, amp: 1turn), 2s)', 12.4)).toBeCloseTo(0, 12)
    expect(value('average(square(every: 2s, low: 0turn, high: 1turn), 1s)', 0.5)).toBeCloseTo(0.5, 12)
    expect(value('average(abs(sine(every: 2s, amp: 1turn)), 1s)', 7)).toBeCloseTo(2 / Math.PI, 3)
  })
})

describe('rates added up', () => {
  const integral = (f: (t: number) => number, to: number, n = 40000) => {
    let sum = 0
    for (let k = 0; k < n; k++) sum += f(((k + 0.5) * to) / n)
    return (sum * to) / n
  }
  it('a constant rate is the steady turn itself, exact for ever', () => {
    expect(fair('accumulate(45deg/s)').value(31557612.4)).toBe(3944701.55)
    expect(value('accumulate(45deg/s, from: 90deg)', 8)).toBe(1.25)
  })
  it.each([
    ['time * 10deg/s / 1s', (t: number) => (t * 10) / 360],
    ['sine(every: 4s, amp: 20deg/s, offset: 30deg/s)', (t: number) => (30 + 20 * Math.sin(TURN * (t / 4))) / 360],
    [
      'sine(every: 4s, low: 10deg/s, high: 30deg/s, phase: 0.1turn)',
      (t: number) => (20 + 10 * Math.sin(TURN * (t / 4 + 0.1))) / 360,
    ],
    [
      'triangle(every: 3s, amp: 20deg/s) * 2',
      (t: number) => (40 * (2 / Math.PI) * Math.asin(Math.sin((TURN * t) / 3))) / 360,
    ],
    ['saw(every: 3s, amp: 20deg/s)', (t: number) => (20 * (2 * (t / 3 - Math.floor(t / 3)) - 1)) / 360],
    [
      'square(every: 3s, amp: 20deg/s, duty: 0.3)',
      (t: number) => (20 * (t / 3 - Math.floor(t / 3) < 0.3 ? 1 : -1)) / 360,
    ],
    ['abs(sine(every: 4s, amp: 20deg/s))', (t: number) => (20 * Math.abs(Math.sin(TURN * (t / 4)))) / 360],
    ['if time < 3.3s then 20deg/s else 50deg/s', (t: number) => (t < 3.3 ? 20 : 50) / 360],
    [
      'smoothstep(1s, 4s, time) * 90deg/s',
      (t: number) => {
        const s = Math.min(1, Math.max(0, (t - 1) / 3))
        return (90 * s * s * (3 - 2 * s)) / 360
      },
    ],
  ] as const)('%s', (rate, f) => {
    for (const t of [0, 0.37, 3.3, 7.25, 12.4]) expect(value(`accumulate(${rate})`, t)).toBeCloseTo(integral(f, t), 4)
  })
  it('noise and stepped random agree with adding up their own values', () => {
    for (const text of [
      'noise(1.3Hz, 20deg/s, octaves: 3)',
      'random(-10deg/s, 30deg/s, rate: 3Hz)',
      'noise(2Hz, 20deg/s) * 0.5 + sine(2s * 0 + 1Hz * 0, 1deg/s)',
    ].slice(0, 2)) {
      const sum = fair(`accumulate(${text})`)
      const rate = fair(`at(${text}, time) * 1s`)
      // The seeds differ by place in the text and function, so the rate is read back from the sum itself.
      const slope = (t: number) => (sum.value(t + 1e-4) - sum.value(t)) / 1e-4
      expect(rate.slot.problems).toEqual([])
      for (const t of [0.1, 2.21, 9.77, -3.4]) expect(Math.abs(slope(t))).toBeLessThan(31 / 360)
      expect(sum.value(0)).toBeCloseTo(0, 12)
    }
    const own = fair('accumulate(noise(1.3Hz, 20deg/s, octaves: 3, seed: 5))')
    const same = fair('noise(1.3Hz, 20deg/s, octaves: 3, seed: 5) * 1s')
    expect(own.value(7.3)).toBeCloseTo(
      integral(t => same.value(t), 7.3, 4000),
      6,
    )
    expect(own.value(-2.2)).toBeCloseTo(-integral(t => same.value(-t), 2.2, 4000), 6)
  })
  it('after 100,000 seconds it is right to 1e-8 of a turn', () => {
    const exactly = (t: number) => (30 * t + (20 * 4 * (1 - Math.cos(TURN * ((t / 4) % 1)))) / TURN) / 360
    expect(
      Math.abs(value('accumulate(30deg/s + sine(every: 4s, amp: 20deg/s))', 100000.7) - exactly(100000.7)),
    ).toBeLessThan(1e-8)
    // A square of 1 up and 0 down for a second each.
    expect(value('accumulate(square(every: 2s, low: 0turn/s, high: 1turn/s))', 100000.5)).toBeCloseTo(50000.5, 8)
  })
  it('a pace that wobbles does not run away after an hour', () => {
    const f = fair('accumulate(45deg/s * (1 + noise(1Hz, 0.3)))')
    expect(Math.abs(f.value(3600) - 450)).toBeLessThan(3)
    expect(fair('time * 45deg/s * (1 + noise(1Hz, 0.3))').value(3600) - 450).not.toBeCloseTo(0, 0)
  })
  it('a cue sets it back', () => {
    expect(value('accumulate(90deg/s, reset: blow)', 1.5)).toBe(0.375)
    expect(value('accumulate(90deg/s, reset: blow)', 3)).toBeCloseTo(0.25, 12)
    expect(value('accumulate(90deg/s, from: 1turn, reset: blow)', 5.75)).toBeCloseTo(1.0625, 12)
  })
})
