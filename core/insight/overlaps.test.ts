/** What touches, held against every pair at every frame. */
import { expect, it } from 'vitest'
import { random } from '../../tests/random.ts'
import { Builder } from '../acts/build.ts'
import { Program } from '../engine/program.ts'
import type { Shape } from '../piece/schema.ts'
import { Scene } from '../rig/scene.ts'
import { toNumber } from '../time/rational.ts'
import { framesOfLap, outlineInLap } from './lap-frames.ts'
import { MOST_OVERLAPS, overlap, overlappingCopies } from './overlaps.ts'

/** Every pair of copies at every frame. */
function everyPair(program: Program, part: string): string[] {
  const scene = new Scene(program)
  const body = scene.bodies.get(part)!
  const found = new Map<string, string>()
  for (const { at } of framesOfLap(program, scene)) {
    const all = Array.from({ length: body.count }, (_, i) => outlineInLap(body, i))
    for (let a = 0; a < body.count; a++)
      for (let b = a + 1; b < body.count; b++)
        if (!found.has(`${a} ${b}`) && overlap(all[a]!, all[b]!, false))
          found.set(`${a} ${b}`, `${a} ${b} ${toNumber(at)}`)
  }
  return [...found.values()]
}

const SHAPES: readonly Shape[] = [
  { type: 'rectangle' },
  { type: 'ellipse' },
  { type: 'star', points: 5 },
  { type: 'line' },
  { type: 'text', words: 'AV', shows: 'words', decimals: 0, prefix: '', suffix: '', align: 'middle' },
]

it('is what every pair at every frame would tell, whatever turns, grows and hangs in what', () => {
  const r = random(77)
  let [touched, apart] = [0, 0]
  for (let k = 0; k < 60; k++) {
    const b = new Builder('Touch', 1)
    b.piece = { ...b.piece, lap: { length: { n: 1, d: 1 }, start: 0 } }
    const group = b.part('Group', { type: 'group' }, { pivot: { x: r(40), y: 0 } }, { scale: 50 + r(150) })
    b.drive(group, 'rotation', 'time * 90deg/s')
    const layout = (['row', 'ring', 'grid'] as const)[r(3)]!
    const copies =
      layout === 'ring'
        ? ({ layout, count: 2 + r(12), radius: 60 + r(120), from: 0, sweep: 360, turn: true } as const)
        : layout === 'row'
          ? ({ layout, count: 2 + r(12), dx: 20 + r(60), dy: r(30) } as const)
          : ({ layout, count: 2 + r(20), columns: 4, dx: 20 + r(50), dy: 20 + r(50) } as const)
    const parent = r(2) ? { parent: group } : {}
    const part = b.part(
      'It',
      SHAPES[r(SHAPES.length)]!,
      { ...parent, copies },
      { width: 10 + r(60), height: 10 + r(60) },
    )
    b.drive(part, 'x', `sine(every: 1s, amp: ${r(40)}px, phase: index * 77deg)`)
    if (r(2)) b.drive(part, 'rotation', 'time * 120deg/s + index * 31deg')
    if (r(2)) b.drive(part, 'scale', '100% + sine(every: 0.5s, amp: 60%, phase: index * 50deg)')
    const program = new Program(b.piece)
    const pairs = overlappingCopies(program, part).map(t => `${t.a} ${t.b} ${toNumber(t.at)}`)
    expect(pairs, JSON.stringify(copies)).toEqual(everyPair(program, part))
    if (pairs.length > 0) touched++
    else apart++
  }
  expect(Math.min(touched, apart)).toBeGreaterThan(5)
})

it('of ten thousand copies ends: those that touch are found, and of very many a thousand pairs are told', () => {
  const lamps = (dx: number) => {
    const b = new Builder('Lamps', 1)
    b.piece = { ...b.piece, lap: { length: { n: 1, d: 1 }, start: 0 } }
    const copies = { layout: 'grid', count: 10_000, columns: 100, dx, dy: 9 } as const
    const lamp = b.part('Lamp', { type: 'ellipse' }, { copies }, { width: 6, height: 6 })
    b.drive(lamp, 'x', 'if index == 9999 then sine(every: 1s, low: -5px, high: 0px) else 0px')
    return overlappingCopies(new Program(b.piece), lamp)
  }
  expect(lamps(9).map(t => [t.a, t.b])).toEqual([[9998, 9999]])
  expect(lamps(3)).toHaveLength(MOST_OVERLAPS)
})
