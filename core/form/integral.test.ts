/** Rates added up, against closed forms worked out by hand. */
import { describe, expect, it } from 'vitest'
import { Program } from '../engine/program.ts'
import { at, fair, type Place } from '../testing/fair.ts'

const YEAR = 31_557_600
const degrees = (text: string, t: number, place?: Place) => {
  const f = fair(text, place)
  expect(f.slot.problems.filter(p => p.level === 'error')).toEqual([])
  return f.value(t) * 360
}

describe('a rate that leaps or bends is cut there', () => {
  it.each([
    ['accumulate(abs(sine(every: 2s)) * 90deg/s)', 2, (180 * 2) / Math.PI],
    ['accumulate(max(0, sine(every: 2s)) * 90deg/s)', 2, (90 * 2) / Math.PI],
    ['accumulate((if sine(every: 2s) > 0.5 then 90deg/s else 0deg/s))', 2, 60],
    ['accumulate(mod(floor(time / 1s), 2) * 10deg/s)', 5, 20],
    ['accumulate(clamp(time / 2s, 0, 1) * 10deg/s)', 5, 40],
    ['accumulate(square(freq: 7.77Hz, low: 0, high: 1) * saw(every: 2s, low: 0, high: 1) * 9deg/s)', 0, 0],
    ['accumulate(min(1, abs(triangle(every: 2s) * 2)) * 8deg/s)', 2, 12],
    ['accumulate(curve(climb, after: mirror) * 10deg/s)', 4, 20],
    ['sine(freq: 1Hz * (if time < 1s then 1 else 0), amp: 9deg, phase: 0.25turn)', 7.3, 9],
    ['sine(freq: 1Hz * abs(sine(every: 2s)), amp: 9deg)', 2, 9 * Math.sin(8)],
  ])('%s at %d s', (text, t, meant) => expect(degrees(text, t)).toBeCloseTo(meant, 9))
})

describe('a year on', () => {
  it.each([
    ['accumulate(step(3s, time) * 10deg/s)', 10 * (YEAR - 3)],
    ['accumulate(smoothstep(1s, 3s, time) * 10deg/s)', 10 * (YEAR - 2)],
    ['accumulate((if time < 4s then 30deg/s else 10deg/s))', 120 + 10 * (YEAR - 4)],
    ['accumulate(ramp(length: 4s) * 10deg/s)', 10 * (YEAR - 2)],
    ['accumulate(abs(sine(every: 2s)) * 90deg/s)', (90 * 2 * YEAR) / Math.PI],
    ['accumulate(mod(floor(time / 1s), 2) * 10deg/s)', 5 * YEAR],
    ['accumulate(floor(time / 1s) * 1deg/s)', (YEAR * (YEAR - 1)) / 2],
  ])('%s', (text, meant) => {
    const seen = degrees(text, YEAR)
    expect(Math.abs(seen - meant) / meant).toBeLessThan(1e-12)
  })
  it('before second 0 what has not begun is 0', () => {
    expect(degrees('accumulate(smoothstep(1s, 3s, time) * 10deg/s)', -YEAR)).toBe(0)
  })
  it('an average of what stands still stands still', () => {
    const f = fair('average(at(0.3deg, time: 25.1s), 0.2s)')
    const { low, high } = f.slot.readers[0]!.facts().bounds
    for (const t of [4736.875618489584, 86_400.3, YEAR + 0.1]) {
      expect(f.value(t)).toBeGreaterThanOrEqual(low)
      expect(f.value(t)).toBeLessThanOrEqual(high)
      expect(f.value(t) * 360).toBeCloseTo(0.3, 12)
    }
  })
  it('an average is that of its window', () => {
    expect(degrees('average(sine(every: 2s, amp: 9deg), 2s)', YEAR + 0.3)).toBeCloseTo(0, 9)
    expect(degrees('average(time * 10deg/s, 2s)', 5)).toBeCloseTo(40, 9)
    expect(degrees('average(step(3s, time) * 90deg, 2s)', 4)).toBeCloseTo(45, 9)
    expect(degrees('average(abs(sine(every: 1s)) * 45deg, 2s)', 7.3)).toBeCloseTo(90 / Math.PI, 9)
  })
})

describe('a rate that is never below 0', () => {
  it.each(['abs(sine(every: 1.7s)) * 20deg/s', 'max(0, noise(3Hz)) * 20deg/s', '(1 + sine(freq: 6Hz)) * 20deg/s'])(
    '%s never runs back',
    rate => {
      const f = fair(`accumulate(${rate})`)
      let before = -Infinity
      for (let k = 0; k < 900; k++) {
        const v = f.value(k / 30)
        expect(v).toBeGreaterThanOrEqual(before)
        before = v
      }
    },
  )
})

describe('what takes long is worked out bit by bit', () => {
  const text = 'accumulate(max(0, noise(2Hz)) * 20deg/s)'
  it('rests meanwhile, says that it is wanted, and is then what it is at once for who waits', () => {
    const f = fair(text)
    const { queue } = f.program
    const read = () => f.slot.readers[0]!.at(at(900))
    expect(read()).toBe(0)
    expect(queue.isPending).toBe(true)
    let steps = 0
    while (!queue.advance(1)) steps++
    expect(steps).toBeGreaterThan(3)
    const seen = f.slot.readers[0]!.at(at(900))
    expect(seen).toBe(fair(text).value(900))
    expect(seen * 360).toBeGreaterThan(100)
    expect(queue.isPending).toBe(false)
  })
  it('says how far it reaches; what rests or comes back reaches for all time', () => {
    expect(fair(text).slot.forms[0]!.facts().reach).toBeGreaterThan(5 * 86_400)
    for (const rate of ['step(3s, time)', 'abs(sine(every: 2s))', 'noise(1Hz)', 'floor(time / 2s)'])
      expect(fair(`accumulate(${rate} * 1deg/s)`).slot.forms[0]!.facts().reach).toBe(Infinity)
  })
  it('chance that is added up step by step says its end too', () => {
    const f = fair('accumulate(random(0deg, 9deg, 3Hz) / 1s)')
    expect(f.slot.forms[0]!.facts().reach).toBeCloseTo(8e6 / 3, 0)
    const day = f.value(86_400)
    expect((day * 360) / 86_400).toBeCloseTo(4.5, 1)
  })
  it('beyond its end it stays at what it came to', () => {
    const f = fair('accumulate(random(0deg, 9deg, 60Hz) / 1s)')
    const end = f.slot.forms[0]!.facts().reach
    expect(end).toBeLessThan(2 * 86_400)
    const [there, later, before] = [end, end + 1e6, -end - 1e6].map(t => f.value(t))
    expect(there! * 360).toBeGreaterThan(4 * end)
    expect(later).toBe(there)
    expect(before! * 360).toBeLessThan(-4 * end)
  })
  it('far from 0 an average takes no more than its window', () => {
    const f = fair('average(max(0, noise(2Hz)) * 20deg, 0.5s)')
    expect(f.slot.readers[0]!.at(at(YEAR))).toBeGreaterThanOrEqual(0)
    expect(f.program.queue.isPending).toBe(false)
  })
  it('sums within sums wait for one another', () => {
    const inner = 'average(noise(10.7Hz, 9deg, octaves: 2), 10.1s)'
    const [a, b] = [fair(`average(${inner}, 0.1s)`), fair(`accumulate(max(0, ${inner}) * 1Hz)`)]
    expect(Math.abs(a.value(3000) * 360)).toBeLessThan(9)
    expect(b.value(30)).toBeGreaterThanOrEqual(b.value(29))
  })
  it('one who waits leaves what others want alone', () => {
    const f = fair(text, { with: { 'Flag.x': 'accumulate(abs(noise(3Hz)) * 1px/s)' } })
    f.slot.readers[0]!.at(at(900))
    const flag = [...f.program.slots.values()].find(s => s.key.endsWith('.x'))!
    f.program.queue.settle(() => flag.readers[0]!.at(at(60)))
    expect(f.program.queue.isPending).toBe(true)
  })
  it('belongs to its program: what another one wants, clears or has no time for is its own', () => {
    const [one, other] = [fair(text), fair(text)]
    one.slot.readers[0]!.at(at(900))
    expect(other.program.queue.isPending).toBe(false)
    other.slot.readers[0]!.at(at(900))
    other.program.queue.clear()
    expect(one.program.queue.isPending).toBe(true)
    // Within the budget of one, the other has one of its own.
    const far = one.program.queue.withinBudget(() => {
      one.program.queue.consume(1e6)
      return other.program.queue.settle(() => other.slot.readers[0]!.at(at(900)))
    })
    expect(far).toBe(one.value(900))
  })
  it('is handed on to the program that takes over, with what was added up so far', () => {
    const f = fair(text)
    f.slot.readers[0]!.at(at(900))
    const next = new Program(f.piece, f.program)
    expect(next.queue.isPending).toBe(true)
    while (!next.queue.advance(1));
    expect(next.slots.get(f.key)!.readers[0]!.at(at(900))).toBe(fair(text).value(900))
  })
})
