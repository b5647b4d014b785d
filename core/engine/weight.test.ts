import { describe, expect, it } from 'vitest'
import { Builder } from '../acts/build.ts'
import { apply } from '../piece/operation.ts'
import { setText } from '../acts/sources.ts'
import { momentOfFrame } from '../time/moment.ts'
import { dependencyOrder } from './dependency-order.ts'
import { Program } from './program.ts'
import { tooMuch, weightsOf } from './weight.ts'

/** Copies in a row with one drive. */
function row(count: number, text: string): Program {
  const b = new Builder('Row', 1)
  const copies = { layout: 'row', count, dx: 9, dy: 0 } as const
  b.drive(b.part('Lamp', { type: 'ellipse' }, { copies }), 'x', text)
  return new Program(b.piece)
}
const FIRST = 'if index == 0 then sine(every: 2s, amp: 9px) else'
const slotOf = (p: Program) => [...p.slots.values()][0]!

describe('the order of what reads one another', () => {
  const of = (reads: Record<string, string[]>) => dependencyOrder(new Map(Object.entries(reads)))
  it('has each after all that it reads, and tells the longest chain', () => {
    const { order, links, circle } = of({ a: ['b', 'c'], b: ['c'], c: [], d: ['a', 'c'] })
    expect(order).toEqual(['c', 'b', 'a', 'd'])
    expect(Object.fromEntries(links)).toEqual({ c: 1, b: 2, a: 3, d: 4 })
    expect(circle).toBeNull()
  })
  it('tells a circle, also of one', () => {
    expect(of({ a: ['b'], b: ['c'], c: ['b'] }).circle).toEqual(['b', 'c'])
    expect(of({ a: ['a'] }).circle).toEqual(['a'])
  })
  it('goes as deep as it has to', () => {
    const chain = Object.fromEntries(Array.from({ length: 50_000 }, (_, i) => [`k${i}`, i > 0 ? [`k${i - 1}`] : []]))
    expect(of(Object.fromEntries(Object.entries(chain).reverse())).links.get('k49999')).toBe(50_000)
  })
})

describe('what a moment weighs', () => {
  it('is told by the moments at which each is asked for', () => {
    const b = new Builder('Three', 1)
    const [one, two, three] = ['One', 'Two', 'Three'].map(n => b.part(n, { type: 'ellipse' }))
    b.drive(one!, 'x', 'sine(every: 2s, amp: 9px)')
    b.drive(two!, 'x', 'delay(one.x, 1s) + delay(one.x, 2s)')
    b.drive(three!, 'x', 'delay(two.x, 1s) + delay(two.x, 2s) + two.x')
    const moments = weightsOf(new Program(b.piece).slots.values()).map(w => w.moments)
    // Of one: now, and 1, 2, 3 and 4 s before; of two: now, 1 and 2 s before.
    expect(moments).toEqual([5, 3, 1])
  })
  it('two delays a link meet at the same moments: 64 copies run, each reading kept', () => {
    const p = row(64, `${FIRST} delay(before.x, 50ms) * 0.5 + delay(before.x, 90ms) * 0.5`)
    expect(slotOf(p).running).toBe('text')
    // The value of copy 2 by hand: the sine a while ago, each way once.
    const t = 40 / 30
    const sine = (s: number) => 9 * Math.sin(2 * Math.PI * (s / 2))
    const third = 0.25 * sine(t - 0.1) + 0.5 * sine(t - 0.14) + 0.25 * sine(t - 0.18)
    const values = p.moment(momentOfFrame(40, p.measures.frameRate), new Float64Array(p.size))
    expect(values[2]).toBeCloseTo(third, 9)
    // Asked again in another order it is the same to the bit.
    const again = row(64, `${FIRST} delay(before.x, 50ms) * 0.5 + delay(before.x, 90ms) * 0.5`)
    for (const f of [99, 3, -40, 41, 40]) again.moment(momentOfFrame(f, p.measures.frameRate), new Float64Array(p.size))
    expect(again.moment(momentOfFrame(40, p.measures.frameRate), new Float64Array(p.size))).toEqual(values)
  })
  it('a chain of 480 links runs, since a timetable works out each moment once', () => {
    const p = row(480, `${FIRST} delay(before.x, 90ms) * 0.99`)
    expect([slotOf(p).running, p.resting.size]).toEqual(['text', 0])
    const m = momentOfFrame(40, p.measures.frameRate)
    const values = p.moment(m, new Float64Array(p.size))
    expect(p.inChains).toBe(480)
    expect([values[0], values[7], values[479]]).toEqual([0, 7, 479].map(i => slotOf(p).readers[i]!.at(m)))
  })
  it('too much is not begun: it rests at its set value, says so, and runs again when it is less', () => {
    const p = row(64, `${FIRST} delay(before.x, index * 7ms) + delay(before.x, index * 13ms)`)
    const slot = slotOf(p)
    expect(slot.running).toBe('base')
    expect(slot.problems[0]!.code).toBe('heavy')
    expect(slot.problems[0]!.message).toMatch(/more than a year a frame.*rests at its set value/)
    const less = new Program(apply(p.piece, setText(p.piece, slot.key, `${FIRST} before.x`, true)), p)
    expect(slotOf(less)).toMatchObject({ running: 'text', problems: [] })
  })
  it('of what is too much the heaviest rest, however many there are', () => {
    const weights = Array.from({ length: 20_000 }, (_, i) => ({ slot: null!, work: (i * 7919) % 20_000, moments: 1 }))
    const resting = tooMuch(weights, 100_000).map(w => w.work)
    // 0 + 1 + … + 446 is 99,681; with 447 it would be more than fits.
    expect(resting).toHaveLength(20_000 - 447)
    expect(Math.min(...resting)).toBe(447)
    expect(tooMuch(weights, Infinity)).toEqual([])
  })
  it('others go on beside what rests', () => {
    const b = new Builder('Beside', 1)
    const copies = { layout: 'row', count: 40, dx: 9, dy: 0 } as const
    b.drive(
      b.part('Heavy', { type: 'ellipse' }, { copies }),
      'x',
      `${FIRST} delay(before.x, index * 7ms) + delay(before.x, index * 13ms)`,
    )
    b.drive(b.part('Light', { type: 'ellipse' }), 'x', 'time * 3px/s')
    const running = [...new Program(b.piece).slots.values()].map(s => s.running)
    expect(running).toEqual(['base', 'text'])
  })
  it('formulas of too many copies are not made ready', () => {
    const link = Array.from({ length: 60 }, (_, i) => `before.x * ${i + 1}`).join(', ')
    const long = `if index == 0 then 1px else 0.001 * max(${link})`
    expect(slotOf(row(100, long)).running).toBe('text')
    expect(slotOf(row(495, long)).problems[0]!.message).toMatch(/With its 495 copies this formula has/)
  })
  it('and not in a program that takes over either', () => {
    const link = Array.from({ length: 60 }, (_, i) => `b * ${i + 1}`).join(', ')
    const long = `let b = if index == 0 then 1px else before.x; 0.001 * max(${link})`
    const b = new Builder('Two rows', 1)
    const row = (name: string, text: string) => {
      const id = b.part(name, { type: 'ellipse' }, { copies: { layout: 'row', count: 300, dx: 9, dy: 0 } })
      b.drive(id, 'x', text)
      return `${id}.x`
    }
    row('First', long)
    const second = row('Second', 'let b = if index == 0 then 1px else before.x; b * 2')
    const begun = new Program(b.piece)
    const once = new Program(
      apply(b.piece, setText(b.piece, second, 'let b = if index == 0 then 1px else before.x; b * 3', true)),
      begun,
    )
    const over = new Program(apply(once.piece, setText(once.piece, second, long, true)), once)
    const says = (p: Program) => [...p.slots.values()].map(s => [s.key, s.running, s.problems.map(q => q.code)])
    expect(says(over)).toEqual(says(new Program(over.piece)))
    expect(says(over).map(([, running]) => running)).toContain('base')
    const back = new Program(apply(over.piece, setText(over.piece, second, '2px', true)), over)
    expect(back.slots.get(second)!.running).toBe('text')
  })
  it('in columns any number of copies run', () => {
    const long = Array.from({ length: 30 }, (_, i) => `sine(every: ${i + 1}s, amp: 1px, phase: index * 1deg)`)
    for (const count of [2000, 100_000])
      expect(slotOf(row(count, long.join(' + ')))).toMatchObject({ running: 'text', problems: [], pieces: 0 })
  })
  it('chains are as long as can be read', () => {
    expect(slotOf(row(400, `${FIRST} delay(before.x, 10ms)`)).running).toBe('text')
    expect(slotOf(row(600, `${FIRST} before.x`)).problems[0]!.message).toMatch(/chain of 600 formulas/)
  })
  it('a heavy signal that nothing read rests what begins to read it, also in a program that takes over', () => {
    const b = new Builder('Signal', 1)
    b.signal('slow', 'average(average(average(noise(2Hz, 9px), 9s), 9s), 9s)')
    const dot = b.part('Dot', { type: 'ellipse' })
    b.drive(dot, 'x', 'sine(every: 2s, amp: 9px)')
    const begun = new Program(b.piece)
    expect(begun.resting.size).toBe(0)
    const piece = apply(b.piece, setText(b.piece, `${dot}.x`, 'slow + 1px', true))
    const [anew, over] = [new Program(piece), new Program(piece, begun)]
    expect([...over.resting.keys()]).toEqual([...anew.resting.keys()])
    expect(over.resting.size).toBeGreaterThan(0)
  })
})
