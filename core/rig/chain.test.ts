import { describe, expect, it } from 'vitest'
import { Builder } from '../acts/build.ts'
import { Program } from '../engine/program.ts'
import { applyX, applyY } from '../piece/transform.ts'
import { at } from '../testing/fair.ts'
import { Scene } from './scene.ts'
import { partTransform } from './motion/part-transform.ts'

/** A streamer of seven links, each 40 px long and pinned at its left end, in a group that is moved. */
function streamer(drives: Record<string, string>, nested = false) {
  const b = new Builder('Streamer', 1)
  const pole = b.part(
    'Pole',
    { type: 'group' },
    nested ? { copies: { layout: 'row', count: 2, dx: 300, dy: 0 } } : {},
    {
      y: 30,
    },
  )
  const link = b.part(
    'Link',
    { type: 'rectangle' },
    { parent: pole, pivot: { x: -20, y: 0 }, copies: { layout: 'chain', count: 7, dx: 40, dy: 0 } },
    { width: 40, height: 8 },
  )
  const tip = b.part('Bead', { type: 'ellipse' }, { parent: link }, { x: 20, width: 4, height: 4 })
  for (const [property, text] of Object.entries(drives)) b.drive(link, property, text)
  const program = new Program(b.piece)
  for (const slot of program.slots.values()) expect(slot.problems).toEqual([])
  const scene = new Scene(program)
  const show = (s: number) => scene.update(program.moment(at(s), new Float64Array(program.size)), at(s))
  const spot = (id: string, k: number, x = 0, y = 0): [number, number] => {
    const m = scene.bodies.get(id)!.worlds[k]!
    return [applyX(m, x, y), applyY(m, x, y)]
  }
  return { program, scene, show, spot, link, tip }
}
const near = (a: readonly number[], b: readonly number[]) => a.forEach((v, i) => expect(v).toBeCloseTo(b[i]!, 9))

describe('a chain of copies', () => {
  it('hangs each on the tip of the one before', () => {
    const { show, spot, link, tip } = streamer({})
    show(0)
    for (let k = 0; k < 7; k++) near(spot(link, k), [40 * k, 30])
    near(spot(tip, 6), [260, 30])
  })
  it('is moved as a whole: its place is that of the first', () => {
    const { show, spot, link } = streamer({ x: 'time * 10px/s', y: '5px' })
    show(2)
    for (let k = 0; k < 7; k++) near(spot(link, k), [20 + 40 * k, 35])
  })
  it('is bent as a whole by one turn: after k links it is turned k + 1 times as far', () => {
    const { show, spot, link } = streamer({ rotation: '10deg' })
    show(0)
    // The end of each link by hand: a sum of unit steps at 10°, 20°, 30° …
    let [x, y] = [-20, 30]
    for (let k = 0; k < 7; k++) {
      const a = ((k + 1) * 10 * Math.PI) / 180
      near(spot(link, k, -20, 0), [x, y])
      ;[x, y] = [x + 40 * Math.cos(a), y + 40 * Math.sin(a)]
      near(spot(link, k, 20, 0), [x, y])
    }
  })
  it('each follows the one before by a share, and grows with it', () => {
    const { show, spot, link } = streamer({ scale: '80%' })
    show(0)
    const lengths = Array.from({ length: 7 }, (_, k) => spot(link, k, 20, 0)[0] - spot(link, k, -20, 0)[0])
    lengths.forEach((l, k) => expect(l).toBeCloseTo(40 * 0.8 ** (k + 1), 9))
  })
  it('stands the same for whoever looks at one link alone, also in copies of what carries it', () => {
    const { program, show, scene, link, tip } = streamer(
      { rotation: 'sine(every: 3s, amp: 20deg, phase: index * 30deg)' },
      true,
    )
    show(1.7)
    for (const id of [link, tip])
      for (const k of [0, 3, 6, 7, 13])
        expect([...partTransform(program, id, k).at(at(1.7))]).toEqual([...scene.bodies.get(id)!.worlds[k]!])
  })
})

describe('a chain is stretched by nothing but its tips', () => {
  it('a set value of one copy turns that link and all after it, none before', () => {
    const b = new Builder('Bent', 1)
    const link = b.part(
      'Link',
      { type: 'rectangle' },
      { pivot: { x: -20, y: 0 }, copies: { layout: 'chain', count: 5, dx: 40, dy: 0 } },
      { width: 40, height: 8 },
    )
    b.copies(link, 'rotation', 5, i => (i === 2 ? 90 : 0))
    const program = new Program(b.piece)
    const scene = new Scene(program).update(program.moment(at(0), new Float64Array(program.size)), at(0))
    const spot = (k: number, x: number) => {
      const m = scene.bodies.get(link)!.worlds[k]!
      return [applyX(m, x, 0), applyY(m, x, 0)] as const
    }
    near(spot(1, 20), [60, 0])
    near(spot(2, 20), [60, 40])
    near(spot(4, 20), [60, 120])
  })
  it('one link, and a tip where it began, make no fault', () => {
    for (const copies of [
      { layout: 'chain', count: 1, dx: 40, dy: 0 },
      { layout: 'chain', count: 200, dx: 0, dy: 0 },
    ] as const) {
      const b = new Builder('Odd', 1)
      const link = b.part('Link', { type: 'rectangle' }, { copies })
      b.drive(link, 'rotation', 'index * 7deg + time * 90deg/s')
      const program = new Program(b.piece)
      const scene = new Scene(program).update(program.moment(at(3), new Float64Array(program.size)), at(3))
      for (const m of scene.bodies.get(link)!.worlds) expect(m.every(Number.isFinite)).toBe(true)
    }
  })
})
