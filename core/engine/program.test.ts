import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { lanternPier } from '../../demo/lantern-pier.ts'
import { Builder } from '../acts/build.ts'
import { addDrive } from '../acts/drives.ts'
import { changeNamed, removeNamed } from '../acts/named-things.ts'
import { setText } from '../acts/sources.ts'
import { apply } from '../piece/operation.ts'
import { removePart, setBase } from '../acts/parts.ts'
import { at, fair, RATE } from '../testing/fair.ts'
import { momentOfFrame, momentOfTicks } from '../time/moment.ts'
import { ONE, over, rational, times } from '../time/rational.ts'
import { Program } from './program.ts'
import { rewrite } from './rewrite.ts'

const turns = (deg: number) => deg / 360

describe('what formulas come to', () => {
  // Worked by hand, at 12.4 s: one and a half laps and 0.4 s.
  it.each([
    ['time * 45deg/s', turns(558)],
    ['frame * 1.5deg', turns(558)],
    ['time * 45deg/s * fairPace', turns(558)],
    ['-time * 45deg/s + 12deg', turns(-546)],
    ['lapProgress * 1turn', 0.55],
    ['lapIndex * 1turn', 1],
    ['time / lapLength * 1turn', 1.55],
    ['time * 1turn/lap', 1.55],
    ['frameTime / 1s * 30turn', 1],
    ['fps / 1Hz * 1turn', 30],
    ['spanEnd / 8s * 1turn + spanStart / 1s * 1turn', 1],
    ['pi * 1rad', 0.5],
    ['sine(every: 2s, amp: 1turn, phase: 30deg)', Math.sin(2 * Math.PI * (12.4 / 2 + 1 / 12))],
    ['sine(freq: 0.5Hz, low: 10deg, high: 30deg)', turns(20 + 10 * Math.sin(2 * Math.PI * 6.2))],
    ['sine(freq: 3/lap, amp: 1turn)', Math.sin(2 * Math.PI * 4.65)],
    ['sine(freq: 30bpm, amp: 1turn)', Math.sin(2 * Math.PI * 6.2)],
    ['ramp(start: 10s, length: 4s, to: 1turn)', 0.6],
    ['ramp(start: 10s, end: 14s, to: 1turn, ease: quadIn)', 0.36],
    ['ramp(length: 4s, to: 1turn, after: repeat)', 0.1],
    ['ramp(length: 4s, to: 1turn, after: mirror)', 0.9],
    ['ramp(start: 13s, length: 4s, from: 0.2turn, to: 1turn)', 0.2],
    ['smoothstep(10s, 14s, time) * 1turn', 0.6 * 0.6 * (3 - 1.2)],
    ['clamp(time * 45deg/s, 0, 90)', 0.25],
    ['mix(0deg, 90deg, 0.4)', turns(36)],
    ['round(time * 45deg/s, to: 100)', turns(600)],
    ['round(12.5) * 1deg', turns(13)],
    ['round(-12.5) * 1deg', turns(-12)],
    ['min(3deg, 2deg, 4deg) + max(3deg, 7deg)', turns(9)],
    ['abs(-time * 45deg/s)', turns(558)],
    ['if time < 12.4s then 1turn else 2turn', 2],
    ['if time <= 12.4s and frame == 372 then 1turn else 2turn', 1],
    ['if not (time > 3s) or wind != 35% then 1turn else 2turn', 2],
    ['(1 + 0.5) ^ 2 * 1turn', 2.25],
    ['time ^ 2 / 1s * 1turn/s', 153.76],
    ['4 ^ 0.5 * 1turn', 2],
    ['2 ^ -2 * 1turn', 0.25],
    ['let a = 2; let b = a * 3; (a + b) * 1turn', 8],
    ['dusk * 1turn + wind * 1turn', 1.15],
  ])('%s', (text, value) => {
    const f = fair(text)
    expect(f.slot.problems).toEqual([])
    expect(f.value(12.4)).toBeCloseTo(value, 12)
  })

  it('a mount is at its crest a quarter of a period after it starts, the others a twelfth of a wave later each', () => {
    const f = fair('sine(every: 2s, amp: 24px, phase: index / count * 1turn)', { on: 'Mount', property: 'y' })
    expect(f.value(0.5)).toBe(24)
    for (let i = 0; i < 12; i++) expect(f.value(0.3, i)).toBeCloseTo(24 * Math.sin(2 * Math.PI * (0.15 + i / 12)), 12)
  })

  it('is defined before time 0: laps and repeats by the floor, ramps at rest', () => {
    expect(fair('lapProgress * 1turn').value(-2)).toBe(0.75)
    expect(fair('lapIndex * 1turn').value(-2)).toBe(-1)
    expect(fair('ramp(length: 4s, to: 1turn, after: repeat)').value(-1)).toBe(0)
    expect(fair('ramp(length: 4s, from: 0.3turn, to: 1turn)').value(-1)).toBe(0.3)
    expect(fair('sine(every: 2s, amp: 1turn)').value(-0.5)).toBe(-1)
  })

  it('what is not finite takes the set value', () => {
    const set = (b: { piece: import('../piece/schema.ts').Piece; do: (o: ReturnType<typeof setBase>) => unknown }) =>
      b.do(setBase(b.piece, 'p1', 'rotation', 90))
    expect(fair('1deg / (time / 1s - 12.4)', { change: set }).value(12.4)).toBe(0.25)
    expect(fair('base + 1deg / 0', { change: set }).value(1)).toBe(0.25)
    expect(fair('base + 10', { change: set }).value(1)).toBeCloseTo(100 / 360, 12)
  })
})

describe('chance', () => {
  it('differs from property to property and from copy to copy, and is shared with a seed', () => {
    const f = fair('random(0deg, 90deg)', {
      on: 'Mount',
      with: {
        'Mount.y': 'random(0px, 90px)',
        'Flag.rotation': 'random(0deg, 90deg, seed: 4)',
        'Carousel.rotation': 'random(0deg, 90deg, seed: 4)',
      },
    })
    const all = f.slot.readers.map(r => r.at(at(1)))
    expect(new Set(all).size).toBe(12)
    const [y, flag, carousel] = ['p2.y', 'p3.rotation', 'p1.rotation'].map(k =>
      f.program.slots.get(k)!.readers.map(r => r.at(at(1))),
    )
    expect(y![0]! / 90).not.toBeCloseTo(all[0]! * 4, 6)
    expect(new Set([...flag!, ...carousel!]).size).toBe(1)
  })

  it('two calls in one text differ; a signal is one for all', () => {
    expect(fair('noise(1Hz, 9deg) - noise(1Hz, 9deg)').value(0.7)).not.toBe(0)
    const f = fair('gust * 1deg', { on: 'Mount', signals: { gust: 'noise(1Hz)' } })
    expect(new Set(f.slot.readers.map(r => r.at(at(0.7)))).size).toBe(1)
  })

  it('steps so many times a second, and holds between', () => {
    const f = fair('random(0deg, 90deg, rate: 10Hz)')
    expect(f.value(0.31)).toBe(f.value(0.39))
    expect(f.value(0.31)).not.toBe(f.value(0.41))
  })

  it('by the lap it comes round exactly', () => {
    for (const text of [
      'noise(freq: 8/lap, amp: 9deg)',
      'random(0deg, 9deg, rate: 24/lap)',
      'sine(freq: 5/lap, amp: 9deg)',
    ]) {
      const f = fair(text)
      for (const t of [0, 0.37, 3.21, 7.9]) expect(f.value(t + 8)).toBe(f.value(t))
    }
  })

  it('keeps its values when the piece is made anew', () => {
    const piece = lanternPier()
    const [a, b] = [new Program(piece), new Program(JSON.parse(JSON.stringify(piece)))]
    const m = at(77.7)
    expect([...a.moment(m, new Float64Array(a.size))].sort()).toEqual([...b.moment(m, new Float64Array(b.size))].sort())
  })
})

describe('any moment, in any order', () => {
  const program = new Program(lanternPier())
  const keys = [...program.slots.keys()]

  it('a moment, a stretch and single values are the same bits', () => {
    const frames = [0, 1, 2, 3, 371, 372, 100000, -50]
    const snapshots = frames.map(f => program.moment(momentOfFrame(f, RATE), new Float64Array(program.size)))
    const step = over(ONE, RATE)
    for (const key of keys) {
      const slot = program.slots.get(key)!
      if (slot.offset < 0) continue
      for (let i = 0; i < slot.readers.length; i++) {
        const rows = [
          program.stretch(key, i, { from: rational(0), step, count: 4 }),
          program.stretch(key, i, { from: times(rational(371), step), step, count: 2 }),
          program.stretch(key, i, {
            from: times(rational(100_000), step),
            step: times(rational(-100_050), step),
            count: 2,
          }),
        ]
        expect(rows.flatMap(r => [...r])).toEqual(snapshots.map(s => s[slot.offset + i]))
      }
    }
  })

  it('forwards and backwards and one year on', () => {
    const order = [31557600 * 30, 5, 31557600 * 30 - 1, -7, 5]
    const once = order.map(f => program.moment(momentOfFrame(f, RATE), new Float64Array(program.size)))
    const again = [...order]
      .reverse()
      .map(f => new Program(lanternPier()).moment(momentOfFrame(f, RATE), new Float64Array(program.size)))
    expect(again.reverse()).toEqual(once)
  })

  it('ticks of a playing clock are moments like any other', () => {
    expect(program.moment(momentOfTicks(1024 * 12, RATE), new Float64Array(program.size))).toEqual(
      program.moment(momentOfFrame(12, RATE), new Float64Array(program.size)),
    )
  })
})

describe('after a change only what it reaches is made anew', () => {
  it('one number, one dial, one set value', () => {
    const piece = lanternPier()
    const before = new Program(piece)
    const kept = (next: Program) =>
      [...next.slots.keys()].filter(k => next.slots.get(k)!.forms === before.slots.get(k)!.forms)
    const carousel = Object.keys(piece.drives).find(k => piece.drives[k]!.text.startsWith('time * 45'))!
    const tuned = new Program(apply(piece, setText(piece, carousel, 'time * 50deg/s', true)), before)
    // The carousel, the canopy and the crown wheel that read it, and the gears that the wheel turns.
    expect(kept(tuned)).toHaveLength(before.slots.size - 5)
    const wind = Object.keys(piece.dials).find(d => piece.dials[d]!.name === 'wind')!
    const blown = new Program(apply(piece, changeNamed(piece, 'dials', wind, { value: 60 })), before)
    expect(kept(blown)).toHaveLength(before.slots.size - 5)
    expect(
      kept(new Program(apply(piece, { undoLabel: '', puts: [{ set: 'title', value: 'x' }] }), before)),
    ).toHaveLength(before.slots.size)
  })

  it('and gives what a program from nothing gives', () => {
    const texts = [
      'time * 33deg/s',
      'sine(1Hz, 3deg)',
      'time * 40',
      'canopy.rotation',
      'nonsense(',
      'fairPace * 3deg',
      'carousel.rotation * 2',
    ]
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 13 }), fc.constantFrom(...texts)), { minLength: 1, maxLength: 6 }),
        edits => {
          let program = new Program(lanternPier())
          for (const [n, text] of edits) {
            const key = Object.keys(program.piece.drives)[n % Object.keys(program.piece.drives).length]!
            program = rewrite(program, key, text, at(3), true).program
          }
          const anew = new Program(program.piece)
          const m = at(9.1)
          for (const [key, slot] of anew.slots) {
            const same = program.slots.get(key)!
            expect([same.running, same.problems.map(p => p.message)]).toEqual([
              slot.running,
              slot.problems.map(p => p.message),
            ])
            expect(same.readers.map(r => r.at(m))).toEqual(slot.readers.map(r => r.at(m)))
          }
        },
      ),
      { numRuns: 25 },
    )
  })

  it('whatever is set by hand: what reads it, and no more, is made anew', () => {
    // Reads by name, by copy, of the copy before, of where something stands, of teeth that meet; keyframes.
    const b = new Builder('Hands', 4)
    const cart = b.part('Cart', { type: 'group' })
    const gear = { type: 'gear', teeth: 12, spokes: 0, module: 8 } as const
    const pinion = b.part('Pinion', gear, { parent: cart })
    const wheel = b.part('Wheel', { ...gear, teeth: 24 }, { parent: cart }, { x: 144 })
    const lamps = b.part('Lamp', { type: 'ellipse' }, { copies: { layout: 'row', count: 4, dx: 40, dy: 0 } })
    const follower = b.part('Follower', { type: 'ellipse' })
    b.drive(pinion, 'rotation', 'time * 30deg/s')
    b.drive(wheel, 'rotation', 'engage(pinion)')
    b.drive(lamps, 'rotation', 'if index == 0 then base else delay(before.rotation, 100ms) * 80%')
    b.drive(lamps, 'y', 'base + lamp[1].width + own.height * index')
    b.drive(follower, 'x', 'wheel.stageX(10px, 4px) + lamp[3].stageY')
    b.drive(follower, 'y', 'delay(cart.y, 1s) + average(lamp[2].x, 1s)')
    b.drive(follower, 'opacity', 'base * 50%')
    const parts = Object.keys(b.piece.parts)
    const names = ['x', 'y', 'rotation', 'width', 'height', 'opacity', 'scale', 'rotationY']
    const edit = fc.record({
      part: fc.constantFrom(...parts),
      name: fc.constantFrom(...names),
      value: fc.integer({ min: -90, max: 90 }),
      copy: fc.option(fc.integer({ min: 0, max: 3 })),
      keyed: fc.boolean(),
    })
    const start = new Program(b.piece)
    for (const slot of start.slots.values()) expect(slot.problems.map(p => p.message)).toEqual([])
    fc.assert(
      fc.property(fc.array(edit, { minLength: 1, maxLength: 8 }), edits => {
        let program = start
        for (const { part, name, value, copy, keyed } of edits) {
          const points = [0, 2].map(time => ({ time, value: value + time, shape: 'straight' as const }))
          const base = {
            value,
            ...(copy !== null && part === lamps && { copies: { [copy]: value / 2 } }),
            ...(keyed && { keys: { points, after: 'hold' as const } }),
          }
          const op = { undoLabel: '', puts: [{ in: 'bases' as const, id: `${part}.${name}`, value: base }] }
          program = new Program(apply(program.piece, op), program)
        }
        const anew = new Program(program.piece)
        expect([...program.slots.keys()]).toEqual([...anew.slots.keys()])
        for (const s of [0, 1.37, 9.1]) {
          const [one, two] = [program, anew].map(p => p.moment(at(s), new Float64Array(p.size)))
          expect([...one!]).toEqual([...two!])
        }
      }),
      { numRuns: 150 },
    )
    // What is read by nothing, what lamps and the follower over them read, where teeth meet, what carries both gears.
    const kept = (id: string, value: number) => {
      const op = { undoLabel: '', puts: [{ in: 'bases' as const, id, value: { value } }] }
      const next = new Program(apply(b.piece, op), start)
      return [...next.slots].filter(([k, s]) => s === start.slots.get(k)).length
    }
    const all = start.slots.size
    expect([kept(`${follower}.width`, 9), kept(`${lamps}.height`, 9)]).toEqual([all, all - 2])
    expect([kept(`${wheel}.x`, 9), kept(`${cart}.x`, 9)]).toEqual([all - 2, all - 1])
  })
})

describe('a formula with an error', () => {
  it('leaves the last good one running, and a mended one runs again', () => {
    const f = fair('time * 45deg/s')
    const wrong = rewrite(f.program, f.key, 'time * 40', at(3), true)
    expect(wrong.program.slots.get(f.key)!.running).toBe('good')
    expect(wrong.program.piece.drives[f.key]).toMatchObject({ text: 'time * 40', good: 'time * 45deg/s' })
    expect(wrong.program.slots.get(f.key)!.readers[0]!.at(at(8))).toBe(1)
    const mended = rewrite(wrong.program, f.key, 'time * 40deg/s', at(3), true)
    expect(mended.program.slots.get(f.key)!.running).toBe('text')
  })

  it('holds the set value when what it reads is gone, and says so', () => {
    const f = fair('`Ticket arch`.rotation + 3deg * wind', { with: { 'Ticket arch.rotation': 'time * 9deg/s' } })
    const gone = new Program(apply(f.piece, removePart(f.piece, 'p4')), f.program)
    expect(gone.slots.get(f.key)!.running).toBe('base')
    expect(gone.slots.get(f.key)!.problems[0]!.message).toMatch(/Unknown part “Ticket arch”/)
    const noDial = new Program(apply(f.piece, removeNamed(f.piece, 'dials', 'd2')), f.program)
    expect(noDial.slots.get(f.key)!.problems[0]!.message).toMatch(/Unknown name “wind”/)
  })

  it('a link that closes a circle is refused at the formula that closed it; the others go on', () => {
    const f = fair('time * 45deg/s', { with: { 'Flag.rotation': 'carousel.rotation * 2' } })
    const closed = rewrite(f.program, f.key, 'flag[0].rotation', at(3), true).program
    expect(closed.slots.get(f.key)!.running).toBe('good')
    expect(closed.slots.get('p3.rotation')!.problems).toEqual([])
    expect(closed.slots.get('p3.rotation')!.readers[0]!.at(at(8))).toBe(2)
  })

  it('a drive that is off rests at its set value', () => {
    const f = fair('time * 45deg/s')
    const off = new Program(
      apply(f.piece, {
        undoLabel: '',
        puts: [{ in: 'drives', id: f.key, value: { ...f.piece.drives[f.key]!, off: true } }],
      }),
    )
    expect(off.slots.get(f.key)!.readers[0]!.at(at(8))).toBe(0)
  })
})

it('drives added to the same place take its seed along', () => {
  const f = fair('noise(1Hz, 3deg)')
  const again = apply(f.piece, addDrive(f.piece, 'p1', 'rotation', 'noise(1Hz, 3deg) * 2'))
  expect(again.drives[f.key]!.seed).toBe(f.piece.drives[f.key]!.seed)
})
