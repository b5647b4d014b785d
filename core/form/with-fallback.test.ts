import { describe, expect, it } from 'vitest'
import { Builder } from '../acts/build.ts'
import { Program } from '../engine/program.ts'
import { at, RATE } from '../testing/fair.ts'
import { integralOf } from './integral.ts'

/** A rate without a closed form on one part, and another part that reads it. */
function reading(): Program {
  const b = new Builder('Reading', 1)
  const one = b.part('One', { type: 'ellipse' })
  b.drive(one, 'x', 'accumulate(max(0, noise(2Hz)) * 20px/s)')
  b.drive(b.part('Two', { type: 'ellipse' }), 'x', 'one.x * 2 + 1px')
  return new Program(b.piece)
}
const two = (p: Program) => [...p.slots.values()].at(-1)!.readers[0]!

describe('a driven value that is read', () => {
  it('keeps nothing that rests on what is still being worked out', () => {
    const program = reading()
    const reader = two(program)
    // Read backwards until values are kept by moment.
    for (let k = 40; k > 0; k--) reader.at(at(k / 10))
    const far = at(900)
    expect(reader.at(far)).toBe(1)
    while (!program.queue.advance(1));
    const other = reading()
    const meant = other.queue.settle(() => two(other).at(at(900)))
    expect(meant).toBeGreaterThan(100)
    expect(reader.at(far)).toBe(meant)
    expect(reader.at(at(900))).toBe(meant)
  })
  it('is not kept where it is read a while ago, also while time stands still', () => {
    const b = new Builder('Reading', 1)
    const one = b.part('One', { type: 'ellipse' })
    b.drive(one, 'x', 'accumulate(noise(8Hz) ^ 2 * 20px/s)')
    b.drive(b.part('Two', { type: 'ellipse' }), 'x', 'delay(one.x, 1s)')
    const program = new Program(b.piece)
    const now = at(500)
    const out = new Float64Array(program.size)
    program.moment(now, out)
    while (!program.queue.advance(1));
    program.moment(now, out)
    const meant = program.queue.settle(() => [...program.slots.values()][0]!.readers[0]!.at(at(499)))
    expect(meant).toBeGreaterThan(100)
    expect(out[1]).toBe(meant)
  })
  it('ends within a limit where bounds are asked for while it is pending', () => {
    const b = new Builder('Frozen', 1)
    b.drive(b.part('A', { type: 'ellipse' }), 'x', 'accumulate(sine(every: 4s) ^ 3 * 40px / 1s)')
    b.drive(b.part('B', { type: 'ellipse' }), 'x', 'a.x + 1px')
    const program = new Program(b.piece)
    const bounds = program.queue.withinBudget(() => {
      const [reader] = program.slots.values().next().value!.readers
      for (let k = 1; k < 4000; k++) reader!.at(at(k / 7))
      return two(program).facts().bounds
    })
    expect(Number.isFinite(bounds.low) && Number.isFinite(bounds.high)).toBe(true)
    expect(program.moment(at(1), new Float64Array(2))[1]).toBeCloseTo(
      program.moment(at(1), new Float64Array(2))[0]! + 1,
    )
  })
  it('is the same to the bit, forwards, backwards and again', () => {
    const seconds = Array.from({ length: 300 }, (_, k) => ((k * 7919) % 600) / 30)
    const values = (order: readonly number[]) => {
      const program = reading()
      const reader = two(program)
      const seen = new Map(order.map(s => [s, program.queue.settle(() => reader.at(at(s)))]))
      return seconds.map(s => seen.get(s))
    }
    expect(values([...seconds].reverse())).toEqual(values(seconds))
    expect(values([...seconds, ...seconds].sort((a, b) => b - a))).toEqual(values(seconds))
  })
})

describe('a steep rate', () => {
  it('is added up with some tens of readings, wherever its bends lie', () => {
    const b = new Builder('Steep', 1)
    b.drive(b.part('One', { type: 'ellipse' }), 'x', 'noise(3Hz, 90px)')
    const program = new Program(b.piece)
    const f = [...program.slots.values()][0]!.readers[0]!
    let readings = 0
    const counted = { ...f, integral: null, at: (m: Parameters<typeof f.at>[0]) => (readings++, f.at(m)) }
    const sum = integralOf(counted, RATE, program.queue)
    program.queue.settle(() => sum(at(-5)))
    // Close by a bend the value is small and the rate steep.
    const bends = f.facts().bends.between(-4, 0)
    for (const t of bends.flatMap(b => [0.0005, 0.002, 0.0024, 0.01].map(d => b - d))) {
      readings = 0
      sum(at(t))
      expect(readings).toBeLessThan(400)
    }
  })
})
