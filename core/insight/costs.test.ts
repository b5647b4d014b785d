import { describe, expect, it } from 'vitest'
import { Builder } from '../acts/build.ts'
import { Program } from '../engine/program.ts'
import { costsOf } from './costs.ts'

/** A clock that goes on by so much whenever it is looked at. */
const ticking = (ms: number) => {
  let now = 0
  return () => (now += ms)
}

function row(count: number, text: string): { program: Program; key: string } {
  const b = new Builder('Row', 1)
  const id = b.part('Lamp', { type: 'ellipse' }, { copies: { layout: 'row', count, dx: 3, dy: 0 } })
  b.drive(id, 'x', text)
  b.drive(b.part('Post', { type: 'ellipse' }), 'y', 'sine(every: 2s, amp: 9px)')
  return { program: new Program(b.piece), key: `${id}.x` }
}

describe('what a frame costs', () => {
  it('is told of every driven value, and of all together', () => {
    const { program, key } = row(5, 'sine(every: 2s, amp: 9px, phase: index * 20deg)')
    const costs = costsOf(program, ticking(1))
    expect([...costs.each.keys()].sort()).toEqual([...program.slots.keys()].sort())
    // The clock goes on by 1 ms while each is run.
    expect(costs.each.get(key)).toBe(1)
    expect(costs.all).toBe(2)
  })
  it('ends in time, however heavy a piece is', () => {
    const { program } = row(5, 'sine(every: 2s, amp: 9px, phase: index * 20deg)')
    let looked = 0
    const costs = costsOf(program, () => (looked++, looked * 300))
    expect(looked).toBeLessThan(20)
    expect(costs.all).toBeGreaterThan(0)
  })
  it('shares what a chain takes among its links', () => {
    const { program, key } = row(40, 'if index == 0 then sine(every: 3s, amp: 4px) else delay(before.x, 90ms) * 0.9')
    const costs = costsOf(program, ticking(1))
    expect(program.inChains).toBe(40)
    expect(costs.each.get(key)).toBe(1)
  })
  it.each([
    [1, 'noise(2Hz, 9px, octaves: 4)', /shorter formula/],
    [60, 'sine(every: 2s, amp: 9px, phase: index * 20deg)', /has 60 copies\. Fewer/],
    [
      60,
      'accumulate(sine(every: 2s, amp: 9px/s)) + noise(9Hz, 1px) + average(noise(2Hz, 9px), 1s + index * 10ms)',
      /60 copies are calculated one by one/,
    ],
    [40, 'if index == 0 then sine(every: 3s, amp: 4px) else delay(before.x, 90ms) * 0.9', /at 40 moments per frame/],
  ])('says what would make it lighter: %s × %s', (count, text, says) => {
    const { program, key } = row(count, text)
    expect(costsOf(program, ticking(1)).lighter.get(key)).toMatch(says)
    expect(costsOf(program, ticking(0.1)).lighter.size).toBe(0)
  })
})
