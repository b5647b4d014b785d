import { describe, expect, it } from 'vitest'
import { Builder } from '../acts/build.ts'
import { Program } from '../engine/program.ts'
import { momentOfSeconds, momentOfTicks } from '../time/moment.ts'
import { ZERO } from '../time/rational.ts'
import { promiseState } from './promises.ts'
import { driveFacts, driveJumps } from './drive-facts.ts'

/** So many lamps in a grid, all four drives different from copy to copy. */
function lamps(count: number): Program {
  const b = new Builder('Lamps', 1)
  const lamp = b.part('Lamp', { type: 'ellipse' }, { copies: { layout: 'grid', count, columns: 100, dx: 9, dy: 9 } })
  b.drive(lamp, 'x', 'sine(every: 2s, amp: 3px, phase: index * 7deg)')
  b.drive(lamp, 'rotation', 'time * 20deg/s + index * 1deg')
  b.drive(lamp, 'opacity', 'if mod(index, 2) == 0 then 60% + sine(every: 4s, amp: 40%, phase: index * 3deg) else 20%')
  b.drive(lamp, 'y', 'own.x * 0.5 + noise(1Hz, 2px)')
  return new Program(b.piece)
}

it('ten thousand copies run, each as the plain evaluator has it', () => {
  const program = lamps(10_000)
  const slots = [...program.slots.values()]
  expect(slots.map(s => [s.running, s.problems, s.plan !== null, s.pieces])).toEqual(
    slots.map(() => ['text', [], true, 0]),
  )
  const m = momentOfTicks(123_457, program.measures.frameRate)
  const values = program.moment(m, new Float64Array(program.size))
  for (const slot of slots)
    for (const i of [0, 1, 511, 512, 5000, 9999]) expect(values[slot.offset + i]).toBe(slot.readers[i]!.at(m))
})

describe('what is said of ten thousand copies', () => {
  const program = lamps(10_000)
  const report = (key: string) => driveFacts(program, `p1.${key}`)!.report

  it('is proven of all together, as it is of few one by one', () => {
    const few = lamps(8)
    for (const key of ['x', 'opacity']) {
      const { cost: _cost, period: _period, range: _range, ...alone } = driveFacts(few, `p1.${key}`)!.report
      expect(report(key)).toMatchObject(alone)
      expect(driveJumps(program, `p1.${key}`)!.says).toEqual(driveJumps(few, `p1.${key}`)!.says)
    }
    expect(report('x')).toMatchObject({ period: 'every 2 s', range: '−3 … 3 px', closes: 'loops', copy: null })
    expect(report('rotation')).toMatchObject({ period: 'every 18 s', closure: { verdict: 'no' }, copy: null })
  })

  it('where nothing is proven, the widest gap that any has, and of which copy', () => {
    const { closure, copy, closes, range } = report('y')
    expect(closure.verdict).toBe('no')
    const gaps = gapsOf(program, 'p1.y')
    const widest = Math.max(...gaps.map(Math.abs))
    expect('gap' in closure && Math.abs(closure.gap)).toBeCloseTo(widest, 8)
    expect(Math.abs(gaps[copy!]!)).toBeCloseTo(widest, 8)
    expect(closes).toMatch(new RegExp(`^.* px off at the loop point, copy ${copy! + 1}$`))
    expect(range).toBe('−3.5 … 3.5 px')
  })

  it('is no more than what is so of each: a pace of its own, a step at a time of its own', () => {
    const b = new Builder('Lamps', 1)
    const lamp = b.part('Lamp', { type: 'ellipse' }, { copies: { layout: 'row', count: 5000, dx: 1, dy: 0 } })
    b.drive(lamp, 'x', 'sine(freq: 1Hz + index * 1Hz, amp: 3px)')
    b.drive(lamp, 'y', 'step(index * 1ms, time) * 5px')
    b.drive(lamp, 'rotation', 'sine(every: 4s, amp: 9deg) * (index - 10)')
    const own = new Program(b.piece)
    const said = (key: string) => driveFacts(own, `p1.${key}`)!.report
    // Each of them comes back within the lap, which is seen and not proven of all together.
    expect(said('x')).toMatchObject({ period: '', range: '−3 … 3 px', closure: { verdict: 'unproven', gap: 0 } })
    expect(driveJumps(own, 'p1.y')).toMatchObject({ may: true })
    expect(driveJumps(own, 'p1.y')!.says).toEqual(['may jump: 5,000 copies, not checked one by one'])
    expect(said('rotation')).toMatchObject({ period: 'every 4 s', closes: 'loops' })
    expect(driveJumps(own, 'p1.rotation')!.says).toEqual([])
  })

  it('holds promises by the bounds of all, and breaks them by any one', () => {
    const kept = (than: number) =>
      promiseState(program, program.slots.get('p1.x')!, { of: 'value', side: 'below', than })
    expect(kept(3).verdict).toBe('kept')
    expect(kept(2.9)).toMatchObject({ verdict: 'broken' })
    // One copy alone, and that for a moment in the second lap.
    const late = new Builder('Lamps', 1)
    const lit = late.part('Lamp', { type: 'ellipse' }, { copies: { layout: 'row', count: 5000, dx: 1, dy: 0 } })
    late.drive(
      lit,
      'y',
      '4px + (if index == 4000 then smoothstep(12s, 13s, time) - smoothstep(13s, 14s, time) else 0) * 40px',
    )
    const seen = new Program(late.piece)
    expect(promiseState(seen, seen.slots.get('p1.y')!, { of: 'value', side: 'below', than: 30 }).verdict).toBe('broken')
    const last = new Builder('Lamps', 1)
    const lamp = last.part('Lamp', { type: 'ellipse' }, { copies: { layout: 'row', count: 5000, dx: 1, dy: 0 } })
    last.drive(lamp, 'x', 'if index == 4999 then 40px else 4px')
    const one = new Program(last.piece)
    expect(promiseState(one, one.slots.get('p1.x')!, { of: 'value', side: 'below', than: 30 })).toMatchObject({
      verdict: 'broken',
      value: 40,
    })
  })
})

/** How far each copy is off after a lap, in base measure. */
function gapsOf(program: Program, key: string): number[] {
  const { frameRate, lapLength } = program.measures
  const [from, to] = [ZERO, lapLength].map(s => program.copiesAt(key, momentOfSeconds(s, frameRate)))
  return [...to!].map((v, i) => v - from![i]!)
}
