import { drivenPart, propertyKey } from './drive-key.ts'
import { isDeepStrictEqual } from 'node:util'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { lanternPier } from '../../demo/lantern-pier.ts'
import { addDial, addDrive, addSignal, removeDrive, setPromises, switchDrive } from '../acts/drives.ts'
import { changeNamed, removeNamed } from '../acts/named-things.ts'
import { setText } from '../acts/sources.ts'
import { duplicatePart } from '../acts/duplicate.ts'
import { addGear } from '../acts/gear-acts.ts'
import { readPiece } from './migrate.ts'
import {
  apply,
  applyInstead,
  compose,
  entriesChanged,
  inverse,
  operation,
  putDrive,
  sameEntries,
  type Operation,
} from './operation.ts'
import {
  addPart,
  freeName,
  nameProblem,
  removePart,
  rename,
  setBase,
  setCopies,
  setKeys,
  setPart,
} from '../acts/parts.ts'
import { emptyPiece, type Piece } from './schema.ts'
import { documentText } from './document-text.ts'
import { STARTERS, likelyFirst } from '../acts/starters.ts'
import { addTie, tieProblem } from '../acts/ties.ts'
import { addClock, addCue } from '../acts/time-edits.ts'
import { Program } from '../engine/program.ts'
import { fair } from '../testing/fair.ts'
import { PROPERTIES, propertiesOf } from './properties.ts'

const pick = <T>(list: readonly T[], n: number): T => list[n % list.length]!

/** Some operation that fits the piece, chosen by two numbers. */
function some(piece: Piece, kind: number, n: number): Operation {
  const parts = Object.keys(piece.parts)
  const drives = Object.keys(piece.drives)
  const dials = Object.keys(piece.dials)
  const made: (() => Operation)[] = [
    () => addPart(piece, { type: 'star', points: 5 }, { parent: pick([null, ...parts], n) }).op,
    () => setBase(piece, pick(parts, n), 'rotation', n % 3 === 0 ? null : n),
    () => addDrive(piece, pick(parts, n), 'x', 'base + time * 9px/s'),
    () => addDial(piece, { name: freeName(piece, 'pace') }).op,
    () => addSignal(piece, freeName(piece, 'gust'), 'noise(1Hz)').op,
    () => setPart(piece, pick(parts, n), { symmetry: 1 + (n % 9) }),
    () =>
      drives.length
        ? setText(piece, pick(drives, n), `time * ${n}deg/s`, n % 2 === 0)
        : addDial(piece, { name: freeName(piece, 'd') }).op,
    () => (drives.length ? removeDrive(piece, pick(drives, n)) : { undoLabel: '', puts: [{ set: 'seed', value: n }] }),
    () => (drives.length ? switchDrive(piece, pick(drives, n), n % 2 === 0) : { undoLabel: '', puts: [] }),
    () =>
      dials.length ? changeNamed(piece, 'dials', pick(dials, n), { value: n % 100 }) : { undoLabel: '', puts: [] },
    () => (dials.length ? removeNamed(piece, 'dials', pick(dials, n)) : { undoLabel: '', puts: [] }),
    () => rename(piece, 'parts', pick(parts, n), freeName(piece, `Thing ${n}`)),
    () => removePart(piece, pick(parts, n)),
    () => duplicatePart(piece, pick(parts, n)).op,
    () => addClock(piece, { name: freeName(piece, 'slow'), hold: n % 2 ? 12 : null }).op,
    () => addCue(piece, { name: freeName(piece, 'hit'), marks: [n] }).op,
    () => setKeys(piece, pick(parts, n), 'x', { after: 'hold', points: [{ time: 0, value: n, shape: 'smooth' }] }),
    () => setCopies(piece, pick(parts, n), 'y', { 0: n }),
    () =>
      drives.length
        ? setPromises(piece, pick(drives, n), [{ of: 'speed', side: 'above', than: n }])
        : { undoLabel: '', puts: [] },
    () => {
      const gears = parts.filter(id => piece.parts[id]!.shape.type === 'gear')
      return gears.length
        ? addGear(piece, pick(gears, n), { teeth: 8 + (n % 40), spokes: 0 }).op
        : { undoLabel: '', puts: [] }
    },
    () => {
      const [a, b] = [`${pick(parts, n)}.rotation`, `${pick(parts, n + 1)}.rotation`]
      return tieProblem(piece, a, b, 2) ? { undoLabel: '', puts: [] } : addTie(piece, { a, b, ratio: 2, offset: n })
    },
    () => ({
      undoLabel: 'title',
      puts: [
        { set: 'title', value: `Fair ${n}` },
        { set: 'stretch', value: { from: 0, to: n } },
      ],
    }),
  ]
  return parts.length === 0 ? made[0]!() : pick(made, kind)()
}

describe('operations', () => {
  const moves = fc.array(fc.tuple(fc.nat(200), fc.nat(1000)), { minLength: 1, maxLength: 12 })
  it('are taken back by their inverse, and compose', () => {
    fc.assert(
      fc.property(moves, list => {
        let piece = lanternPier()
        for (const [kind, n] of list) {
          const op = some(piece, kind, n)
          const next = apply(piece, op)
          expect(apply(next, inverse(piece, op))).toEqual(piece)
          const then = some(next, n, kind)
          expect(apply(piece, compose(op, then))).toEqual(apply(next, then))
          const ids = (c: object) => Object.keys(c).sort()
          // By one operation that changes neither, the entries are the same; where that isn't known, it isn't claimed.
          for (const c of ['parts', 'drives', 'bases', 'signals'] as const)
            expect(sameEntries(piece[c], next[c])).toBe(isDeepStrictEqual(ids(piece[c]), ids(next[c])))
          // What an operation does not name is shared.
          const named = new Set(op.puts.map(p => ('set' in p ? p.set : p.in)))
          for (const c of ['parts', 'drives', 'bases', 'dials'] as const)
            if (!named.has(c)) expect(next[c]).toBe(piece[c])
          piece = next
        }
      }),
      { numRuns: 60 },
    )
  })

  it('in the place of a trial give what they give on the piece before it, which stays as it was', () => {
    const piece = lanternPier()
    const before = structuredClone(piece)
    const [a, b] = Object.values(piece.drives)
    const trial = apply(piece, operation('try', putDrive({ ...a!, text: '1deg' })))
    const op = operation('tune', putDrive({ ...a!, text: '2deg', good: '2deg' }))
    const next = applyInstead(trial, op)
    expect(next).toEqual(apply(piece, op))
    expect(documentText(next)).toBe(documentText(apply(piece, op)))
    expect(piece).toEqual(before)
    expect(entriesChanged(piece.drives, next.drives)).toEqual([propertyKey(a!.part, a!.property)])
    // What the trial has not named is not its own: it would be changed in the piece before it.
    expect(() => applyInstead(trial, operation('other', putDrive({ ...b!, text: '3deg' })))).toThrow()
    expect(() => applyInstead(trial, operation('title', { set: 'title', value: 'Other' }))).toThrow()
    expect(piece).toEqual(before)
  })

  it('leave a document that can be read, and are plain data', () => {
    fc.assert(
      fc.property(moves, list => {
        let piece = lanternPier()
        for (const [kind, n] of list)
          piece = apply(piece, JSON.parse(JSON.stringify(some(piece, kind, n))) as Operation)
        const { piece: back, problem } = readPiece(JSON.parse(JSON.stringify(piece)))
        expect(problem).toBeNull()
        expect(back).toEqual(piece)
      }),
      { numRuns: 40 },
    )
  })

  it('a renamed part keeps its name in every formula', () => {
    const piece = lanternPier()
    const id = Object.keys(piece.parts).find(p => piece.parts[p]!.name === 'Carousel')!
    const next = apply(piece, rename(piece, 'parts', id, 'Big wheel'))
    expect(Object.values(next.drives).map(d => d.text)).toContain('`Big wheel`.rotation * -0.3')
    for (const slot of new Program(next).slots.values()) expect(slot.problems).toEqual([])
    const dial = Object.keys(piece.dials).find(d => piece.dials[d]!.name === 'fairPace')!
    expect(Object.values(apply(piece, rename(piece, 'dials', dial, 'tempo')).drives).map(d => d.text)).toContain(
      'time * 45deg/s * tempo',
    )
  })

  it('a removed part takes along what it carries and what drives it', () => {
    const piece = lanternPier()
    const id = Object.keys(piece.parts).find(p => piece.parts[p]!.name === 'Carousel')!
    const next = apply(piece, removePart(piece, id))
    expect(Object.values(next.parts).some(p => p.name === 'Mount' || p.name === 'Saddle')).toBe(false)
    expect(Object.values(next.drives).every(d => next.parts[d.part])).toBe(true)
    expect(Object.keys(next.bases).every(k => next.parts[drivenPart(k)])).toBe(true)
  })

  it('names are free: any that no other thing has, words of the language too', () => {
    const piece = lanternPier()
    for (const [name, says] of [
      ['', /at least one letter/],
      ['carousel', /already something named/],
      ['a`b', /a backquote/],
      ['x'.repeat(61), /60 characters/],
    ] as const)
      expect(nameProblem(piece, name), name).toMatch(says)
    for (const name of ['Swing tower', 'sine', 'TIME', 'deg', 'cubicOut', 'if', 'Frame', 'own'])
      expect(nameProblem(piece, name)).toBeNull()
    expect(freeName(piece, 'Carousel')).toBe('Carousel2')
  })
})

describe('documents from outside', () => {
  const good = JSON.parse(JSON.stringify(lanternPier())) as Record<string, unknown>
  it('are read when they are whole', () => expect(readPiece(good).piece).toEqual(lanternPier()))

  it.each([
    [null, /isn’t an Open Tide piece/],
    ['text', /isn’t an Open Tide piece/],
    [{}, /no version/],
    [{ version: 99 }, /newer Open Tide/],
    [{ version: 0 }, /can’t read/],
    [{ ...good, title: ' ' }, /At title: A piece needs a title/],
    [{ ...good, frameRate: { n: 0, d: 1 } }, /At frameRate.n/],
    [{ ...good, parts: { p1: { ...(good.parts as Record<string, object>).p1, parent: 'p1' } } }, /parent is missing/],
    [
      {
        ...good,
        dials: { a: (good.dials as Record<string, object>).d1, b: (good.dials as Record<string, object>).d1 },
      },
      /same name/,
    ],
    [{ ...good, slips: { x: 'far' } }, /At slips.x/],
    [{ ...good, bases: { rotation: { value: 1 } } }, /isn’t part.property/],
    [
      { ...good, drives: { 'p1.x': { ...(Object.values(good.drives as object)[0] as object) } } },
      /isn’t part.property/,
    ],
    [{ ...good, ties: { t1: { a: 'p1', b: 'p2.x', ratio: 1, offset: 0 } } }, /isn’t part.property/],
  ])('%#', (document, says) => {
    const { piece, problem } = readPiece(document)
    expect(piece).toBeNull()
    expect(problem).toMatch(says)
  })

  it('copies within copies have a limit', () => {
    const ring = { layout: 'ring', count: 400, radius: 10, from: 0, sweep: 360, turn: true } as const
    let piece = emptyPiece('Nest', 1)
    piece = apply(piece, addPart(piece, { type: 'group' }, { copies: ring }).op)
    piece = apply(piece, addPart(piece, { type: 'ellipse' }, { copies: ring, parent: 'p1' }).op)
    expect(readPiece(piece).problem).toMatch(/more than 100000/)
  })

  it('cut short, mutated or wild, they never break the reader', () => {
    const text = JSON.stringify(good)
    fc.assert(
      fc.property(fc.nat(text.length), fc.string({ maxLength: 6 }), fc.nat(12), (from, insert, drop) => {
        let value: unknown
        try {
          value = JSON.parse(text.slice(0, from) + insert + text.slice(from + drop))
        } catch {
          return
        }
        const { piece, problem } = readPiece(value)
        // Most cuts leave no JSON at all; of what is left, a program is made of every tenth.
        if (!piece) expect(problem!.length).toBeGreaterThan(8)
        else if (from % 10 === 0) new Program(piece)
      }),
      { numRuns: 1500 },
    )
    fc.assert(
      fc.property(fc.anything(), value => void readPiece(value)),
      { numRuns: 500 },
    )
  })
})

describe('starters', () => {
  it('give a formula that runs, for every property of every shape', () => {
    for (const type of ['rectangle', 'ellipse', 'star', 'ring', 'line', 'group'] as const) {
      const shape = type === 'star' ? { type, points: 5 } : { type }
      const bare = apply(emptyPiece('New', 3), addPart(emptyPiece('New', 3), shape as Parameters<typeof addPart>[1]).op)
      for (const property of propertiesOf(type)) {
        for (const starter of STARTERS) {
          const piece = apply(bare, addDrive(bare, 'p1', property.name, starter.text(property)))
          const slot = new Program(piece).slots.get(`p1.${property.name}`)!
          expect(slot.problems, starter.text(property)).toEqual([])
        }
      }
    }
  })
  it('the likely properties come first', () =>
    expect(
      likelyFirst(PROPERTIES)
        .slice(0, 5)
        .map(p => p.name),
    ).toEqual(['rotation', 'x', 'y', 'scale', 'opacity']))
  it('copies hold values of their own', () => {
    let piece = lanternPier()
    piece = apply(piece, setCopies(piece, 'p2', 'x', { 3: 40 }))
    const forms = new Program(piece).handForms(
      'p2',
      PROPERTIES.find(p => p.name === 'x')!,
    )
    expect([forms[2]!.exact!.base, forms[3]!.exact!.base].map(r => Number(r.n))).toEqual([0, 40])
  })
})

describe('a part duplicated', () => {
  it('takes what it carries along, and its formulas mean the same about the copy', () => {
    const { piece } = fair('time * 45deg/s', {
      with: { 'Mount.rotation': 'carousel.rotation * -1 + noise(1Hz, 9deg)', 'Mount.x': 'own.rotation / 1deg * 1px' },
    })
    const { id, op } = duplicatePart(piece, 'p1')
    const next = apply(piece, op)
    expect(apply(next, inverse(piece, op))).toEqual(piece)
    expect(readPiece(JSON.parse(JSON.stringify(next))).problem).toBeNull()
    expect(next.parts[id]!.name).toBe('Carousel2')
    const mount = Object.keys(next.parts).find(p => next.parts[p]!.parent === id)!
    expect(next.drives[`${mount}.rotation`]!.text).toBe('Carousel2.rotation * -1 + noise(1Hz, 9deg)')
    expect(next.drives[`${mount}.rotation`]!.seed).not.toBe(piece.drives['p2.rotation']!.seed)
    const program = new Program(next)
    for (const slot of program.slots.values()) expect(slot.problems).toEqual([])
    expect([next.bases[`${id}.x`]!.value, next.bases[`${id}.y`]!.value]).toEqual([24, -24])
    const trail = addPart(piece, { type: 'trace', of: 'p1', x: 0, y: 0, every: 30 }, { parent: 'p1' })
    const traced = apply(piece, trail.op)
    const again = apply(traced, duplicatePart(traced, 'p1').op)
    const shapes = Object.entries(again.parts).flatMap(([k, p]) => (p.shape.type === 'trace' ? [[k, p.shape.of]] : []))
    expect(shapes).toContainEqual([trail.id, 'p1'])
    expect(shapes.map(([, of]) => again.parts[of!]!.name).sort()).toEqual(['Carousel', 'Carousel2'])
  })
})
