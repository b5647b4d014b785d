import { describe, expect, it } from 'vitest'
import { Builder } from '../acts/build.ts'
import { setText } from '../acts/sources.ts'
import { Program } from '../engine/program.ts'
import { change } from '../formula/problem.ts'
import { apply } from '../piece/operation.ts'
import { at } from '../testing/fair.ts'
import { closingsOf, gearClosings } from './closings.ts'
import { closes } from './proposals.ts'

/** A lamp with one drive on its x; the lap is 5 s. Says what is proposed, and what the first makes of it. */
function lamp(text: string, make: (b: Builder, id: string) => void = () => {}) {
  const b = new Builder('Lamp', 3)
  b.do({ undoLabel: '', puts: [{ set: 'lap', value: { length: { n: 5, d: 1 }, start: 0 } }] })
  const id = b.part('Lamp', { type: 'ellipse' })
  make(b, id)
  b.drive(id, 'x', text)
  const key = `${id}.x`
  const program = new Program(b.piece)
  expect(program.slots.get(key)!.problems).toEqual([])
  const found = closingsOf(program, key)
  const [first] = found
  const op =
    first && ('op' in first ? first.op : setText(b.piece, key, change(b.piece.drives[key]!.text, first.changes), true))
  const after = op && new Program(apply(b.piece, op), program)
  const value = (s: number) => after!.slots.get(key)!.forms[0]!.at(at(s))
  return { says: found.map(f => f.label), after, value, key }
}
/** After the first proposal it is the same a lap later. */
function comesBack({ after, key, value }: ReturnType<typeof lamp>): void {
  expect(closes(after!, key)).toBe(true)
  for (const s of [20.3, 23.77, 31.01]) expect(value(s + 5)).toBeCloseTo(value(s), 9)
}
const hop = (b: Builder) =>
  void b.curve('hop', {
    up: [
      [0, 0],
      [1, 40],
      [2, 0],
    ],
  })

describe('what closes a drive besides its own numbers', () => {
  it('a cue comes again as often as fits, the nearer first', () => {
    const it = lamp('play(hop, blow) * 1px', b => (hop(b), b.cue('blow', [1], 4)))
    expect(it.says).toEqual(['blow every 4 s → 5 s', 'blow every 4 s → 2.5 s'])
    comesBack(it)
  })
  it('what comes once is at rest after it', () => {
    const it = lamp('play(hop, blow) * 1px', b => (hop(b), b.cue('blow', [1], null)))
    expect(it.says).toEqual([])
  })
  it('a clock to and fro, one that restarts, one held in steps, one on another', () => {
    const ways: [Parameters<Builder['clock']>[1], string][] = [
      [{ way: { type: 'toAndFro', length: 2 } }, 'own 2 s → 2.5 s each way'],
      [{ way: { type: 'restart', every: 3 } }, 'own every 3 s → 2.5 s'],
    ]
    for (const [way, says] of ways) {
      const it = lamp('time * 3px/s on own', b => void b.clock('own', way))
      expect(it.says[0]).toBe(says)
      comesBack(it)
    }
    const nested = lamp('time * 3px/s on inner', b => {
      const outer = b.clock('outer', { way: { type: 'restart', every: 4 } })
      b.clock('inner', { on: outer, way: { type: 'steady', rate: 1, ahead: 0 } })
    })
    expect(nested.says[0]).toBe('outer every 4 s → 5 s')
    comesBack(nested)
  })
  it('a clock of half the pace and noise that has no period: both at once', () => {
    const it = lamp(
      'noise(freq: 0.8Hz, amp: 9px) on slow',
      b => void b.clock('slow', { way: { type: 'steady', rate: 0.5, ahead: 0 } }),
    )
    expect(it.says[0]).toBe('slow at 0.5 → 1 times the pace, and 0.8Hz → 4/lap')
    comesBack(it)
  })
  it('keyframes are stretched', () => {
    const keys = (after: 'repeat' | 'mirror' | 'hold') => (b: Builder, id: string) =>
      void b.do({
        undoLabel: '',
        puts: [
          {
            in: 'bases',
            id: `${id}.x`,
            value: {
              value: 0,
              keys: {
                points: [
                  { time: 1, value: 0, shape: 'straight' },
                  { time: 2, value: 30, shape: 'straight' },
                  { time: 5, value: 0, shape: 'straight' },
                ],
                after,
              },
            },
          },
        ],
      })
    expect(lamp('base', keys('repeat')).says[0]).toBe('keyframes of Lamp x over 4 s → 5 s')
    comesBack(lamp('base', keys('repeat')))
    expect(lamp('base', keys('mirror')).says[0]).toBe('keyframes of Lamp x over 4 s → 2.5 s')
    comesBack(lamp('base', keys('mirror')))
    // Held at the end it stays for ever: that closes, from there on.
    expect(lamp('base', keys('hold')).says).toEqual([])
  })
  it('a signal that is read', () => {
    const it = lamp('gust * 2px', b => void b.signal('gust', '3 + sine(every: 3s, amp: 1) + noise(0.3Hz, 1)'))
    expect(it.says).toEqual(['gust = 3 + sine(freq: 2/lap, amp: 1) + noise(2/lap, 1)'])
    comesBack(it)
  })
  it('several numbers of its own together, where none alone will do', () => {
    const it = lamp('sine(every: 3s, amp: 9px) + sine(freq: 0.7Hz, amp: 4px) + noise(1.1Hz, 3px)')
    expect(it.says).toEqual(['sine(freq: 2/lap, amp: 9px) + sine(freq: 4/lap, amp: 4px) + noise(6/lap, 3px)'])
    comesBack(it)
  })
  it('nothing where all closes, or where nothing would', () => {
    expect(lamp('sine(freq: 2/lap, amp: 9px)').says).toEqual([])
    expect(lamp('time * 3px/s').says).toEqual([])
  })
})

describe('a gear that does not close', () => {
  it('is proposed every count of spokes and teeth up to 60 with which it does, the nearest first', () => {
    const b = new Builder('Gear', 3)
    b.do({ undoLabel: '', puts: [{ set: 'lap', value: { length: { n: 6, d: 1 }, start: 0 } }] })
    const id = b.part('Wheel', { type: 'gear', teeth: 48, spokes: 5, module: 6 })
    b.drive(id, 'rotation', 'time * 22.5deg/s')
    const key = `${id}.rotation`
    const program = new Program(b.piece)
    const found = gearClosings(program, key)
    const says = found.map(f => f.label)
    expect(says.filter(s => s.endsWith('spokes'))).toEqual([8, 16, 24, 32, 40, 48, 56].map(n => `${n} spokes`))
    // With five spokes no number of teeth lines up after three eighths of a turn.
    expect(says.filter(s => s.endsWith('teeth'))).toEqual([])
    expect(closingsOf(program, key).map(f => f.label)).toEqual(expect.arrayContaining(says))
    for (const f of found) {
      if (!('op' in f)) throw new Error(f.label)
      expect(closes(new Program(apply(b.piece, f.op), program), key), f.label).toBe(true)
    }
    const bare = {
      ...b.piece.parts[id]!,
      symmetry: 47,
      shape: { type: 'gear' as const, teeth: 47, spokes: 0, module: 6 },
    }
    const solid = new Program({ ...b.piece, parts: { ...b.piece.parts, [id]: bare } })
    expect(
      gearClosings(solid, key)
        .map(f => f.label)
        .slice(-7),
    ).toEqual(['48 teeth', '40 teeth', '56 teeth', '32 teeth', '24 teeth', '16 teeth', '8 teeth'])
  })
})
