import { expect, it } from 'vitest'
import { Builder } from '../acts/build.ts'
import { Program } from '../engine/program.ts'
import { momentOfTicks } from '../time/moment.ts'
import { knownOf, leapingOf } from './telling.ts'

/** So many lamps in a grid, all four drives different from copy to copy. */
function lamps(count: number): Program {
  const b = new Builder('Lamps', 1)
  const lamp = b.part('Lamp', { type: 'ellipse' }, { copies: { layout: 'grid', count, columns: 100, dx: 9, dy: 9 } })
  b.drive(lamp, 'x', 'sine(every: 2s, amp: 3px, phase: index * 7deg)')
  b.drive(lamp, 'rotation', 'time * 20deg/s + index * 1deg')
  b.drive(lamp, 'opacity', 'if mod(index, 2) == 0 then 60% + sine(every: 5s, amp: 40%, phase: index * 3deg) else 20%')
  b.drive(lamp, 'y', 'own.x * 0.5 + noise(1Hz, 2px)')
  return new Program(b.piece)
}

it('ten thousand copies run, each as the plain evaluator has it, and nothing is claimed of all of them', () => {
  const program = lamps(10_000)
  const slots = [...program.slots.values()]
  expect(slots.map(s => [s.running, s.problems, s.plan !== null, s.pieces])).toEqual(
    slots.map(() => ['text', [], true, 0]),
  )
  const m = momentOfTicks(123_457, program.measures.frameRate)
  const values = program.moment(m, new Float64Array(program.size))
  for (const slot of slots)
    for (const i of [0, 1, 511, 512, 5000, 9999]) expect(values[slot.offset + i]).toBe(slot.readers[i]!.at(m))
  const [x] = slots
  expect(knownOf(program, x!.key)!.report).toMatchObject({
    closes: '10,000 copies, not looked at one by one',
    closure: { verdict: 'unproven' },
    range: '',
  })
  expect(leapingOf(program, x!.key)!.says).toEqual([])
  expect(knownOf(lamps(300), x!.key)!.report.closes).not.toMatch(/not looked at/)
})
