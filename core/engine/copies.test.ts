import { describe, expect, it } from 'vitest'
import { addDrive } from '../acts/drives.ts'
import { apply } from '../piece/operation.ts'
import { addPart, setKeys, setPart } from '../acts/parts.ts'
import { Scene } from '../rig/scene.ts'
import { at, fair, type Place } from '../testing/fair.ts'
import { momentOfFrame } from '../time/moment.ts'
import { Builder } from '../acts/build.ts'
import { Program } from './program.ts'

const grid: Place['change'] = b =>
  void b.do(setPart(b.piece, 'p3', { copies: { layout: 'grid', count: 8, columns: 3, dx: 10, dy: 20 } }))

describe('copies in a grid', () => {
  it('know their row, and stand from the top in rows', () => {
    const f = fair('row * 1turn + rows * 10turn', { on: 'Flag', change: grid })
    expect(f.slot.readers.map(r => r.at(at(0)))).toEqual([30, 30, 30, 31, 31, 31, 32, 32])
    const { worlds } = new Scene(f.program)
      .update(f.program.moment(at(0), new Float64Array(f.program.size)), at(0))
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

describe('copies along a path', () => {
  const corner = [
    { x: 0, y: 0 },
    { x: 30, y: 0 },
    { x: 30, y: 40 },
  ]
  const path = (more: object): Place['change'] => {
    const copies = {
      layout: 'path',
      count: 8,
      points: corner,
      closed: false,
      smooth: false,
      turn: true,
      ...more,
    } as const
    return b => void b.do(setPart(b.piece, 'p3', { copies }))
  }
  const worlds = (f: ReturnType<typeof fair>) =>
    new Scene(f.program).update(f.program.moment(at(0), new Float64Array(f.program.size)), at(0)).bodies.get('p3')!
      .worlds

  it('stand evenly by its length, and along it', () => {
    const f = fair('along * 1turn', { on: 'Flag', change: path({}) })
    expect(f.slot.readers.map(r => r.at(at(0)))).toEqual([0, 1, 2, 3, 4, 5, 6, 7].map(i => i / 7))
    const still = fair('0', { on: 'Flag', change: path({}) })
    // 70 px in sevenths: three steps to the right, then four up.
    const places = worlds(still).map(w => [w[3]!, w[7]!].map(Math.round))
    expect(places).toEqual([
      [0, 0],
      [10, 0],
      [20, 0],
      [30, 0],
      [30, 10],
      [30, 20],
      [30, 30],
      [30, 40],
    ])
    expect(worlds(still)[1]![0]).toBeCloseTo(1, 12)
    expect(worlds(still)[6]![4]).toBeCloseTo(1, 12)
  })
  it('go all the way round a closed one', () => {
    const f = fair('along * 1turn', { on: 'Flag', change: path({ closed: true, count: 4 }) })
    expect(f.slot.readers.map(r => r.at(at(0)))).toEqual([0, 0.25, 0.5, 0.75])
    // 120 px round: a quarter is 30.
    expect(worlds(f).map(w => [w[3]!, w[7]!].map(Math.round))).toEqual([
      [0, 0],
      [30, 0],
      [30, 30],
      [18, 24],
    ])
  })
  it('pass smoothly through the points', () => {
    const arc = [0, 1, 2, 3, 4].map(k => ({
      x: 100 * Math.cos((k * Math.PI) / 4),
      y: 100 * Math.sin((k * Math.PI) / 4),
    }))
    const f = fair('0', { on: 'Flag', change: path({ points: arc, smooth: true, count: 41 }) })
    for (const w of worlds(f)) expect(Math.hypot(w[3]!, w[7]!)).toBeGreaterThan(95)
    expect(Math.hypot(worlds(f)[20]![3]!, worlds(f)[20]![7]!)).toBeCloseTo(100, 6)
  })
})

describe('layers', () => {
  const layered: Place['change'] = b =>
    void b
      .do(setPart(b.piece, 'p3', { copies: { layout: 'row', count: 3, dx: 40, dy: 0 } }))
      .do(
        addPart(
          b.piece,
          { type: 'ellipse' },
          { name: 'Face', parent: 'p3', copies: { layout: 'layers', count: 4, dz: 6 } },
        ).op,
      )
  it('are counted apart from the copies they stand in, from front to back', () => {
    const f = fair('0', { change: layered })
    const face = Object.keys(f.piece.parts).find(id => f.piece.parts[id]!.name === 'Face')!
    const text = 'index * 100deg + layer * 10deg + layers * 1deg + depth * 0.1deg'
    const program = new Program(apply(f.piece, addDrive(f.piece, face, 'rotation', text)))
    const slot = program.slots.get(`${face}.rotation`)!
    expect(slot.problems).toEqual([])
    expect(slot.readers.map(r => Number((r.at(at(0)) * 360).toFixed(4)))).toEqual(
      [0, 1, 2].flatMap(i => [0, 1, 2, 3].map(l => Number((i * 100 + l * 10 + 4 + l / 30).toFixed(4)))),
    )
    const scene = new Scene(program).update(program.moment(at(0), new Float64Array(program.size)), at(0))
    expect(
      scene.bodies
        .get(face)!
        .worlds.slice(0, 4)
        .map(w => w[11]),
    ).toEqual([0, -6, -12, -18].map(z => z + 0))
    // What lies further back is painted first.
    expect(
      scene.paint
        .filter(p => p.body.id === face)
        .slice(0, 4)
        .map(p => p.instance),
    ).toEqual([3, 2, 1, 0])
  })
  it('are only there where copies are layers', () => {
    expect(fair('layer * 1deg', { on: 'Mount' }).slot.problems[0]!.message).toBe(
      'This part has no layers, so there’s no layer here.',
    )
  })
})

describe('chains', () => {
  const many: Place['change'] = b =>
    void b.do(setPart(b.piece, 'p3', { copies: { layout: 'row', count: 64, dx: 9, dy: 0 } }))
  it.each([
    ['if index == 0 then 10px else flag[index - 1].x * 50%', [10, 5, 2.5, 1.25, 0.625]],
    ['if index == count - 1 then 10px else flag[index + 1].x * 50%', [0.625, 1.25, 2.5, 5, 10]],
    ['if index < 2 then index * 1px else flag[index - 1].x + flag[index - 2].x', [0, 1, 1, 2, 3]],
  ])('a guarded reading of another copy is no circle: %s', (text, values) => {
    const f = fair(text, { on: 'Flag', property: 'x' })
    expect(f.slot.problems).toEqual([])
    expect(values.map((_, i) => f.value(1, i))).toEqual(values)
  })
  it('copies that read both ways are a circle', () => {
    const f = fair('if index == 0 then 10px else flag[index - 1].x + (if index == 4 then 0px else flag[index + 1].x)', {
      on: 'Flag',
      property: 'x',
    })
    expect(f.slot.problems.map(p => p.code)).toEqual(['cycle'])
  })
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
      change: b => void b.do({ undoLabel: '', puts: [{ in: 'bases', id: 'p3.x', value: { value: 40 } }] }),
    })
    expect(f.slot.readers.map(r => r.at(at(0)))).toEqual([45, 50, 55, 60, 65])
  })
  it('need copies, and never run in a circle', () => {
    expect(fair('before.rotation * 2').slot.problems[0]!.message).toMatch(
      /Carousel has no copies, so there’s no copy before it/,
    )
    expect(fair('flag[index + 1].rotation * 2', { on: 'Flag' }).slot.running).toBe('base')
    const f = fair('before.y / 1px * 1deg', { on: 'Flag', with: { 'Flag.y': 'flag[index + 0].rotation / 1deg * 1px' } })
    expect([...f.program.slots.values()].flatMap(s => s.problems.map(p => p.code))).toEqual(['cycle'])
  })
})

describe('keyframes', () => {
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
    const scene = new Scene(plain.program).update(
      plain.program.moment(at(2), new Float64Array(plain.program.size)),
      at(2),
    )
    expect(scene.bodies.get('p1')!.get('rotation', 0) * 360).toBeCloseTo(45, 9)
    const none = new Program(apply(plain.piece, setKeys(plain.piece, 'p1', 'rotation', null)))
    expect(none.slots.has('p1.rotation')).toBe(false)
  })
})

describe('what reads a property that is set', () => {
  const copies = { layout: 'row', count: 6, dx: 9, dy: 0 } as const
  it.each([
    ['of one part', 'post.x + 1px', {}],
    ['on copies, in columns', 'post.x + index * 1px', { copies }],
    ['of a copy before', 'if index == 0 then post.x else before.y + post.x', { copies }],
  ] as const)('%s follows when that gets a formula, and when it loses it', (_, text, more) => {
    const b = new Builder('Posts', 7)
    const post = b.part('Post', { type: 'ellipse' }, {}, { x: 5 })
    const lamp = b.part('Lamp', { type: 'ellipse' }, more)
    b.drive(lamp, 'y', text)
    const still = b.piece
    const moved = apply(still, addDrive(still, post, 'x', 'sine(every: 3s, amp: 40px)'))
    let now = new Program(still)
    for (const piece of [moved, still, moved]) {
      now = new Program(piece, now)
      const anew = new Program(piece)
      const at = momentOfFrame(100, now.measures.frameRate)
      const [a, c] = [now, anew].map(p => [...p.copiesAt(`${lamp}.y`, at)])
      expect(a).toEqual(c)
    }
  })
})
