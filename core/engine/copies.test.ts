import { describe, expect, it } from 'vitest'
import { apply } from '../piece/operation.ts'
import { setKeys, setPart } from '../piece/parts.ts'
import { Scene } from '../rig/scene.ts'
import { at, fair, type Place } from '../testing.ts'
import { Program } from './program.ts'

const grid: Place['change'] = b =>
  void b.do(setPart(b.piece, 'p3', { copies: { layout: 'grid', count: 8, columns: 3, dx: 10, dy: 20 } }))

describe('copies in a grid', () => {
  it('know their row, and stand from the top in rows', () => {
    const f = fair('row * 1turn + rows * 10turn', { on: 'Flag', change: grid })
    expect(f.slot.readers.map(r => r.at(at(0)))).toEqual([30, 30, 30, 31, 31, 31, 32, 32])
    const { worlds } = new Scene(f.program)
      .update(f.program.moment(at(0), new Float64Array(f.program.size)))
      .bodies.get('p3')!
    expect([0, 2, 7].map(i => [worlds[i]![3], worlds[i]![7]])).toEqual([
      [-10, 20],
      [10, 20],
      [0, -20],
    ])
  })
  it('further out and further in: outer copies are read as parent.index', () => {
    const nested: Place['change'] = b => void b.do(setPart(b.piece, 'p3', { parent: 'p2' }))
    const f = fair('parent.index * 100turn + index * 1turn', { on: 'Flag', change: nested })
    expect(f.slot.readers).toHaveLength(60)
    expect([0, 4, 5, 59].map(i => f.value(0, i))).toEqual([0, 4, 100, 1104])
    expect(fair('parent.index * 1turn', { on: 'Mount' }).slot.problems[0]!.code).toBe('index')
  })
})

describe('chains', () => {
  const many: Place['change'] = b =>
    void b.do(setPart(b.piece, 'p3', { copies: { layout: 'row', count: 64, dx: 9, dy: 0 } }))
  it('64 pennants, each following the one before at 80 %, 90 ms later', () => {
    const f = fair('if index == 0 then sine(every: 2s, amp: 30deg) else delay(before.rotation, 90ms) * 80%', {
      on: 'Flag',
      change: many,
    })
    expect(f.slot.problems).toEqual([])
    let share = 30 / 360
    for (let i = 0; i < 64; i++, share *= 0.8) {
      const wanted = share * Math.sin(2 * Math.PI * ((7.3 - 0.09 * i) / 2))
      expect(f.value(7.3, i)).toBeCloseTo(wanted, 10)
    }
    expect(f.slot.forms[63]!.facts().bounds.high).toBeLessThan((30 / 360) * 0.8 ** 63 * 1.001)
  })
  it('the first one reads what is held by hand', () => {
    const f = fair('before.x + 5px', {
      on: 'Flag',
      property: 'x',
      change: b => void b.do({ says: '', puts: [{ in: 'bases', id: 'p3.x', value: { value: 40 } }] }),
    })
    expect(f.slot.readers.map(r => r.at(at(0)))).toEqual([45, 50, 55, 60, 65])
  })
  it('need copies, and never run in a circle', () => {
    expect(fair('before.rotation * 2').slot.problems[0]!.says).toMatch(
      /Carousel has no copies, so none comes before it/,
    )
    expect(fair('flag[index + 1].rotation * 2', { on: 'Flag' }).slot.running).toBe('base')
    const f = fair('before.y / 1px * 1deg', { on: 'Flag', with: { 'Flag.y': 'flag[index + 0].rotation / 1deg * 1px' } })
    expect(f.slot.problems[0]!.code).toBe('cycle')
  })
})

describe('hand keys', () => {
  const keyed =
    (after: 'hold' | 'repeat' | 'mirror' | 'carry'): Place['change'] =>
    b =>
      void b.do(
        setKeys(b.piece, 'p1', 'rotation', {
          after,
          points: [
            { time: 1, value: 0, shape: 'straight' },
            { time: 3, value: 90, shape: 'straight' },
            { time: 5, value: 36, shape: 'straight' },
          ],
        }),
      )
  it('go on as they are told to', () => {
    const v = (after: 'hold' | 'repeat' | 'mirror' | 'carry', t: number) =>
      fair('base', { change: keyed(after) }).value(t) * 360
    expect([0, 2, 3, 9].map(t => v('hold', t))).toEqual([0, 45, 90, 36].map(x => expect.closeTo(x, 9)))
    expect(v('repeat', 6)).toBeCloseTo(45, 9)
    expect(v('mirror', 6)).toBeCloseTo(63, 9)
    expect(v('carry', 6)).toBeCloseTo(81, 9)
  })
  it('with a function on top, on a clock, and alone', () => {
    expect(fair('base + 10', { change: keyed('hold') }).value(2) * 360).toBeCloseTo(55, 9)
    expect(fair('base on slow', { change: keyed('hold') }).value(4) * 360).toBeCloseTo(45, 9)
    const plain = fair('0', { on: 'Flag', change: keyed('hold') })
    const scene = new Scene(plain.program).update(plain.program.moment(at(2), new Float64Array(plain.program.size)))
    expect(scene.bodies.get('p1')!.get('rotation', 0) * 360).toBeCloseTo(45, 9)
    const none = new Program(apply(plain.piece, setKeys(plain.piece, 'p1', 'rotation', null)))
    expect(none.slots.has('p1.rotation')).toBe(false)
  })
})
