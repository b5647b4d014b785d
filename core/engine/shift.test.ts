import { describe, expect, it } from 'vitest'
import { Builder } from '../acts/build.ts'
import { removeDrive } from '../acts/drives.ts'
import { setTie } from '../acts/ties.ts'
import { setText } from '../acts/sources.ts'
import { cutLink } from '../insight/changing-links.ts'
import { pinsOf } from '../insight/pins.ts'
import { apply } from '../piece/operation.ts'
import type { Piece } from '../piece/schema.ts'
import { momentOfSeconds } from '../time/moment.ts'
import { rational } from '../time/rational.ts'
import { Program } from './program.ts'
import { setDial } from './retime.ts'
import { rewrite } from './rewrite.ts'
import { keepingSet, shiftOf } from './shift.ts'

const AT = momentOfSeconds(rational(64, 10), rational(30))

function piece(text: string, copies = 1): { piece: Piece; drum: string; card: string } {
  const b = new Builder('What leaps', 4)
  b.dial('reach', { unit: 'px', value: 100, low: 0, high: 1000 })
  const layout = { layout: 'row', count: copies, dx: 50, dy: 0 } as const
  const drum = b.part('Drum', { type: 'ellipse' }, copies > 1 ? { copies: layout } : {})
  b.drive(drum, 'rotation', text)
  const card = b.part('Card', { type: 'rectangle' }, {})
  return { piece: b.piece, drum, card }
}
const degrees = (p: Program, key: string, copy = 0) => p.slots.get(key)!.readers[copy]!.at(AT) * 360

describe('a line typed anew while it runs', () => {
  it.each([
    ['time * 45deg/s - 270deg', 'time * 90deg/s'],
    ['time * 45deg/s - 270deg', '90deg/s * time'],
    ['-(time * 45deg/s) + 270deg', '-(time * 90deg/s)'],
    ['12deg - time * 45deg/s', '12deg - time * 60deg/s'],
    ['sine(every: 4s, phase: 0.2turn) * 40deg', 'sine(every: 3s) * 40deg'],
    ['let pace = 45deg/s; time * pace + 30deg', 'let pace = 50deg/s; time * pace'],
    ['noise(freq: 0.5Hz, phase: 3turn) * 40deg', 'noise(freq: 0.8Hz) * 40deg'],
    ['accumulate(30deg/s, from: 90deg)', 'accumulate(60deg/s)'],
    ['ramp(length: 4s, to: 90deg, after: repeat, start: 1s)', 'ramp(length: 5s, to: 90deg, after: repeat)'],
  ])('%s → %s goes on from where it is', (old, next) => {
    const { piece: p, drum } = piece(old)
    const before = new Program(p)
    const key = `${drum}.rotation`
    expect(before.slots.get(key)!.problems).toEqual([])
    const made = rewrite(before, key, next, AT, true)
    const whole = degrees(made.program, key) - degrees(before, key)
    if (next.startsWith('90deg')) return expect(made.shift).not.toBeNull()
    expect(Math.abs(whole)).toBeLessThan(1e-6)
    expect(made.shift).toBeNull()
    expect(made.text).not.toBe(next)
  })
  it('leaves a constant that alone was taken away as it is meant, and says how far it jumps', () => {
    const { piece: p, drum } = piece('time * 45deg/s - 270deg')
    const made = rewrite(new Program(p), `${drum}.rotation`, 'time * 45deg/s', AT, true)
    expect(made.text).toBe('time * 45deg/s')
    expect((made.shift!.to - made.shift!.from) * 360).toBeCloseTo(270, 9)
  })
  it('of another kind is told by how far it jumps, not mended', () => {
    const { piece: p, drum } = piece('time * 45deg/s - 270deg')
    const made = rewrite(new Program(p), `${drum}.rotation`, 'sine(every: 4s) * 9deg + 7deg', AT, true)
    expect(made.text).toBe('sine(every: 4s) * 9deg + 7deg')
    expect(made.shift).not.toBeNull()
  })
  it('is as it was typed while tuning is not smooth', () => {
    const { piece: p, drum } = piece('time * 45deg/s - 270deg')
    expect(rewrite(new Program(p), `${drum}.rotation`, 'time * 90deg/s', AT, false).text).toBe('time * 90deg/s')
  })
})

describe('what leaps', () => {
  it('by a dial that is the end of a ramp in its middle', () => {
    const { piece: p, card } = piece('0')
    const at = momentOfSeconds(rational(5), rational(30))
    const b = new Builder('A ramp', 1)
    b.dial('reach', { unit: 'px', value: 100, low: 0, high: 1000 })
    const ball = b.part('Ball', { type: 'ellipse' }, {})
    b.drive(ball, 'x', 'ramp(length: 10s, to: reach)')
    const before = new Program(b.piece)
    const [id] = Object.keys(b.piece.dials)
    const after = new Program(apply(b.piece, setDial(before, id!, 396, at)), before)
    expect(shiftOf(before, after, at)).toEqual({ key: `${ball}.x`, copy: 0, from: 50, to: 198 })
    expect(shiftOf(before, before, at)).toBeNull()
    // A property that nothing drives, set anew.
    const rest = new Program(p)
    const set = new Program(
      apply(p, { undoLabel: '', puts: [{ in: 'bases', id: `${card}.x`, value: { value: 9 } }] }),
      rest,
    )
    expect(shiftOf(rest, set, at)).toEqual({ key: `${card}.x`, copy: 0, from: 0, to: 9 })
  })
  it('is told of the copy that leaps furthest, and whole turns are none', () => {
    const { piece: p, drum } = piece('index * 30deg', 5)
    const key = `${drum}.rotation`
    const before = new Program(p)
    const after = (text: string) => new Program(apply(p, setText(p, key, text, true)), before)
    expect(shiftOf(before, after('index * 40deg'), AT)).toMatchObject({ key, copy: 4 })
    expect(shiftOf(before, after('index * 30deg + 720deg'), AT)).toBeNull()
  })
})

describe('taken away, a formula or a link', () => {
  it('leaves the property where it is, by what is set', () => {
    const { piece: p, drum } = piece('30deg')
    const before = new Program(p)
    const kept = keepingSet(before, removeDrive(p, `${drum}.rotation`), AT)
    expect(kept.program.piece.bases[`${drum}.rotation`]!.value).toBe(30)
    expect([kept.held, kept.shift]).toEqual([[`${drum}.rotation`], null])
    expect(apply(p, kept.op)).toEqual(kept.program.piece)
  })
  it('says how far copies jump that one set value cannot hold, and what has keyframes', () => {
    const { piece: p, drum } = piece('index * 30deg', 3)
    const kept = keepingSet(new Program(p), removeDrive(p, `${drum}.rotation`), AT)
    expect(kept.held).toEqual([])
    expect(kept.shift).toMatchObject({ copy: 2, to: 0 })
    const one = piece('30deg')
    const keys = { points: [{ time: 0, value: 5, shape: 'smooth' as const }], after: 'hold' as const }
    const keyed = { ...one.piece, bases: { [`${one.drum}.rotation`]: { value: 0, keys } } } as Piece
    expect(keepingSet(new Program(keyed), removeDrive(keyed, `${one.drum}.rotation`), AT).shift).not.toBeNull()
  })
  it('keeps both faces of what is tied, and one that followed alone', () => {
    const { piece: p, drum, card } = piece('30deg')
    const both = { ...p, ties: { t1: { a: `${drum}.rotation`, b: `${card}.rotation`, ratio: 2, offset: 5 } } }
    const kept = keepingSet(new Program(both), removeDrive(both, `${drum}.rotation`), AT)
    expect(kept.shift).toBeNull()
    expect([drum, card].map(k => kept.program.piece.bases[`${k}.rotation`]!.value)).toEqual([30, 65])
    const program = new Program(both)
    const alone = keepingSet(
      program,
      cutLink(
        program,
        pinsOf(program).find(q => q.tie !== null)!,
      ),
      AT,
    )
    expect(alone.program.piece.bases[`${card}.rotation`]!.value).toBe(65)
    expect(alone.shift).toBeNull()
  })
})

describe('a tie with another ratio', () => {
  it('moves what is set at once', () => {
    const { piece: p, drum, card } = piece('0')
    let q = apply(p, removeDrive(p, `${drum}.rotation`))
    q = { ...q, ties: { t1: { a: `${drum}.x`, b: `${card}.x`, ratio: 0.5, offset: 0 } } }
    q = { ...q, bases: { [`${drum}.x`]: { value: 100 }, [`${card}.x`]: { value: 50 } } }
    const before = new Program(q)
    const after = new Program(apply(q, setTie(q, 't1', { ...q.ties.t1!, ratio: 0.25 })), before)
    expect(after.piece.bases[`${card}.x`]!.value).toBe(25)
    expect(shiftOf(before, after, AT)).toEqual({ key: `${card}.x`, copy: 0, from: 50, to: 25 })
  })
})
