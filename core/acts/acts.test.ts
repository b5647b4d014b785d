/** Gestures as operations: takes, points, dials out of numbers, giving, what reads a name. */
import { drivenPart } from '../piece/drive-key.ts'
import { describe, expect, it } from 'vitest'
import { lanternPier } from '../../demo/lantern-pier.ts'
import { Program } from '../engine/program.ts'
import { sentenceOf } from '../insight/sentence.ts'
import type { SentencePart } from '../insight/sentence-part.ts'
import { apply, inverse } from '../piece/operation.ts'
import { readPiece } from '../piece/migrate.ts'
import { thinPoints } from '../signal/thinned.ts'
import { at, fair } from '../testing/fair.ts'
import { dialOf, numberAt, rangeRound, widened } from './number-to-dial.ts'
import { SHARED_UNCHANGED, shareFormula, sharedText, paced } from './share-formula.ts'
import { formulasNaming, readerNames, removeNamed } from './named-things.ts'
import { channelsOf } from '../piece/channels.ts'
import {
  addChannel,
  channelProblem,
  pointsInOrder,
  nameChannel,
  removeChannel,
  setChannel,
  setKeyPoints,
} from './points.ts'
import { documentFraction, framesOf } from './settings.ts'
import { keepTake, nameTake, setText, takeInHand } from './sources.ts'
import { lastingUntil, setMarks, setStretch } from './time-edits.ts'

const sound = (piece: unknown) => expect(readPiece(JSON.parse(JSON.stringify(piece))).problem).toBeNull()

describe('takes', () => {
  it('are kept under names of their own, named, and taken away', () => {
    const f = fair('time * 45deg/s')
    let piece = apply(f.piece, keepTake(f.piece, f.key))
    expect(takeInHand(piece.drives[f.key]!)).toBe(0)
    piece = apply(piece, setText(piece, f.key, '10deg', true))
    expect(takeInHand(piece.drives[f.key]!)).toBe(-1)
    piece = apply(piece, keepTake(piece, f.key))
    expect(piece.drives[f.key]!.takes.map(t => t.name)).toEqual(['take 1', 'take 2'])
    piece = apply(piece, nameTake(piece, f.key, 0, ' calm '))
    piece = apply(piece, nameTake(piece, f.key, 1, ''))
    expect(piece.drives[f.key]!.takes).toEqual([{ name: 'calm', text: 'time * 45deg/s' }])
    piece = apply(piece, keepTake(piece, f.key))
    expect(piece.drives[f.key]!.takes.map(t => t.name)).toEqual(['calm', 'take 2'])
    sound(piece)
  })
})

describe('points', () => {
  const demo = lanternPier()
  const id = Object.keys(demo.curves)[0]!
  it('stand in order, of two at one moment the later put', () =>
    expect(
      pointsInOrder([
        { time: 2, value: 1, shape: 'smooth' },
        { time: 1, value: 5, shape: 'stepped' },
        { time: 2, value: 3, shape: 'straight' },
      ]).map(p => [p.time, p.value]),
    ).toEqual([
      [1, 5],
      [2, 3],
    ]))
  it('channels are added, named, drawn and taken away, and undo brings them back', () => {
    const added = apply(demo, addChannel(demo, id))
    const fresh = Object.keys(added.curves[id]!.channels).find(c => !demo.curves[id]!.channels[c])!
    const named = apply(added, nameChannel(added, id, fresh, 'lift'))
    expect(Object.keys(named.curves[id]!.channels)).toContain('lift')
    expect(channelProblem(named.curves[id]!, 'lift', fresh)).toMatch(/already/)
    expect(channelProblem(named.curves[id]!, 'two words', 'lift')).toMatch(/one word/)
    expect(channelProblem(named.curves[id]!, 'constructor', 'lift')).not.toBeNull()
    const op = setChannel(named, id, 'lift', [{ time: 0, value: 1, shape: 'smooth' }])
    expect(apply(apply(named, op), inverse(named, op))).toEqual(named)
    const { first, ...back } = apply(named, removeChannel(named, id, 'lift')).curves[id]!
    expect(back).toEqual(demo.curves[id])
    expect(first).toBe(channelsOf(demo.curves[id]!)[0])
    sound(named)
  })
  it('what names no channel goes on with the one it had, however others are called', () => {
    const before = channelsOf(demo.curves[id]!)[0]
    const added = apply(demo, addChannel(demo, id))
    const other = Object.keys(added.curves[id]!.channels).find(c => !demo.curves[id]!.channels[c])!
    const named = apply(added, nameChannel(added, id, other, 'aaa'))
    expect(channelsOf(named.curves[id]!)[0]).toBe(before)
    expect(channelsOf(apply(named, nameChannel(named, id, before, 'zzz')).curves[id]!)[0]).toBe('zzz')
    expect(channelsOf(apply(named, removeChannel(named, id, before)).curves[id]!)).toContain('aaa')
  })
  it('a curve made longer keeps the share of each point and of its hit', () => {
    const piece = apply(demo, lastingUntil(demo, id, 4.4))
    expect(piece.curves[id]!.hit).toBeCloseTo(1.5, 6)
    expect(apply(demo, lastingUntil(demo, id, -1))).toEqual(demo)
  })
  it('keyframes are set one by one and taken away', () => {
    const f = fair('base')
    const part = drivenPart(f.key)
    const keyed = apply(f.piece, setKeyPoints(f.piece, part, 'rotation', [{ time: 1, value: 90, shape: 'smooth' }]))
    expect(new Program(keyed).slots.get(f.key)!.readers[0]!.at(at(3))).toBeCloseTo(0.25, 12)
    expect(apply(keyed, setKeyPoints(keyed, part, 'rotation', [])).bases[f.key]!.keys).toBeUndefined()
  })
  it('a line drawn by hand keeps its corners and few points more', () => {
    const line = Array.from({ length: 201 }, (_, k) => ({ time: k / 100, value: k <= 100 ? k / 10 : 20 - k / 10 }))
    expect(thinPoints(line)).toEqual([
      { time: 0, value: 0 },
      { time: 1, value: 10 },
      { time: 2, value: 0 },
    ])
    expect(thinPoints([{ time: 1, value: 2 }])).toHaveLength(1)
    expect(thinPoints([])).toEqual([])
    // A hand that goes back in time draws each moment once.
    expect(thinPoints([...line, ...line].reverse()).map(p => p.time)).toEqual([0, 1, 2])
  })
})

describe('a dial out of a number', () => {
  it.each([
    ['sine(every: 2s, amp: 24deg)', 1, 'sine(every: 2s, amp: amp)', 'amp', 24, 'deg'],
    ['sine(freq: 3hz, amp: 24deg)', 0, 'sine(freq: freq, amp: 24deg)', 'freq', 3, 'Hz'],
    ['time * 45deg/s', 0, 'time * 45deg/s * pace', 'pace', 100, '%'],
    ['carousel.rotation * 0.5', 0, 'carousel.rotation * rotationFactor', 'rotationFactor', 0.5, ''],
    ['carousel.rotation - 12deg', 0, 'carousel.rotation - rotationOffset', 'rotationOffset', 12, 'deg'],
    [
      'let sway = 9deg; sine(every: 2s) * sway',
      0,
      'let sway = swayValue; sine(every: 2s) * sway',
      'swayValue',
      9,
      'deg',
    ],
    ['30deg', 0, 'rotationValue', 'rotationValue', 30, 'deg'],
  ])('%s', (text, nth, after, name, value, unit) => {
    const f = fair('0deg', { with: { 'Flag.rotation': text } })
    const key = Object.keys(f.piece.drives).find(k => f.piece.drives[k]!.text === text)!
    const made = dialOf(f.piece, key, nth)!
    const piece = apply(f.piece, made.op)
    expect(piece.drives[key]!.text).toBe(after)
    const dial = Object.values(piece.dials).find(d => d.name === name)!
    expect([dial.value, dial.unit]).toEqual([value, unit])
    expect(dial.low).toBeLessThanOrEqual(dial.value)
    const value0 = (p: typeof piece) => new Program(p).slots.get(key)!.readers[0]!.at(at(1.3))
    expect(value0(piece)).toBeCloseTo(value0(f.piece), 12)
    sound(piece)
  })
  it.each([
    [24, 'deg', null, -50, 50],
    [-3, 'px', null, -10, 10],
    [0, 'deg', null, -180, 180],
    [2, 's', 'positive', 0.2, 5],
    [0.5, '', 'zero', 0, 1],
    [100, '%', null, 0, 200],
  ] as const)('of %d%s has room on both sides', (value, unit, least, low, high) => {
    expect(rangeRound(value, unit, least)).toEqual({ low, high })
  })
  it('goes further on the side that is asked for alone', () => {
    const dial = { ...Object.values(fair('0').piece.dials)[0]!, low: -10, high: 10, unit: 'px' as const }
    expect(widened(dial, 70)).toEqual({ low: -10, high: 200 })
    expect(widened(dial, -70)).toEqual({ low: -200, high: 10 })
    expect(widened(dial, 7)).toEqual({ low: -10, high: 10 })
  })
  it('is told by the place of the caret', () => {
    expect(numberAt('sine(every: 2s, amp: 24deg)', 22)).toBe(1)
    expect(numberAt('sine(every: 2s, amp: 24deg)', 0)).toBe(0)
    expect(numberAt('time', 2)).toBe(-1)
    expect(dialOf(fair('time * 45deg/s').piece, fair('time * 45deg/s').key, 4)).toBeNull()
  })
})

describe('giving', () => {
  const f = fair('sine(every: 2s, amp: 24deg)')
  const id = (name: string) => Object.keys(f.piece.parts).find(p => f.piece.parts[p]!.name === name)!
  it('the same, following, later, larger, faster by a step', () => {
    const to = `${id('Flag')}.rotation`
    expect(sharedText(f.piece, f.key, to, 2, SHARED_UNCHANGED)).toBe('sine(every: 2s, amp: 24deg)')
    expect(sharedText(f.piece, f.key, to, 2, { ...SHARED_UNCHANGED, follow: true, later: 0.1 })).toBe(
      'delay(Carousel.rotation, 0.2s)',
    )
    expect(sharedText(f.piece, f.key, to, 2, { ...SHARED_UNCHANGED, size: 0.5 })).toBe(
      '(sine(every: 2s, amp: 24deg)) * 0.25',
    )
    expect(sharedText(f.piece, f.key, to, 1, { ...SHARED_UNCHANGED, pace: 2 })).toBe('sine(every: 1s, amp: 24deg)')
  })
  it('what paces it is found, and what is told by the lap stays', () => {
    expect(paced('time * 45deg/s + noise(freq: 2Hz) * 3deg', 2)).toBe('time * 90deg/s + noise(freq: 4Hz) * 3deg')
    expect(paced('sine(freq: 1/lap, amp: 3deg)', 2)).toBe('sine(freq: 1/lap, amp: 3deg)')
  })
  it('by chance each has another share, and always the same', () => {
    const g = { ...SHARED_UNCHANGED, later: 1, chance: true }
    const texts = [1, 2, 3].map(n => sharedText(f.piece, f.key, f.key, n, g))
    expect(new Set(texts).size).toBe(3)
    expect(texts).toEqual([1, 2, 3].map(n => sharedText(f.piece, f.key, f.key, n, g)))
  })
  it('is one step that undo takes back', () => {
    const op = shareFormula(f.piece, f.key, [`${id('Flag')}.rotation`, `${id('Idler')}.rotation`], {
      ...SHARED_UNCHANGED,
      later: 0.5,
    })
    const after = apply(f.piece, op)
    expect(Object.keys(after.drives)).toHaveLength(Object.keys(f.piece.drives).length + 2)
    expect(apply(after, inverse(f.piece, op))).toEqual(f.piece)
    expect(new Program(after).slots.get(`${id('Idler')}.rotation`)!.problems).toEqual([])
  })
})

describe('who reads a name', () => {
  const demo = lanternPier()
  const cue = Object.keys(demo.cues)[0]!
  it('formulas, and clocks that follow it; a word that only looks like it does not', () => {
    expect(readerNames(demo, 'cues', cue)).toContain('Mallet rotation')
    expect(formulasNaming(demo, 'blo')).toEqual([])
    expect(formulasNaming(demo, 'sine')).toEqual([])
  })
  it('taken away, its readers keep their text and say so', () => {
    const after = apply(demo, removeNamed(demo, 'cues', cue))
    const key = formulasNaming(demo, demo.cues[cue]!.name)[0]!
    expect(after.drives[key]).toEqual(demo.drives[key])
    expect(new Program(after).slots.get(key)!.problems.length).toBeGreaterThan(0)
    sound(after)
  })
})

describe('sentences', () => {
  const demo = lanternPier()
  const changing = () => ({ at: at(12.4), keep: true })
  const of = (list: readonly SentencePart[], label: string) => list.find(w => w.is !== 'text' && w.label === label)!
  const said = (list: readonly SentencePart[]) =>
    list
      .map(w =>
        w.is === 'text'
          ? w.says
          : w.is === 'number'
            ? `${w.value}${w.unit}`
            : w.of.find(o => o.value === w.value)!.says,
      )
      .join(' ')
  it('of a cue: its marks, each of which is moved or taken out', () => {
    const id = Object.keys(demo.cues)[0]!
    const list = sentenceOf(demo, 'cues', id, changing)
    expect(said(list)).toBe('marks at 2s repeat every 4s')
    const mark = of(list, 'Mark 1')
    if (mark.is !== 'number') throw new Error('a number was expected')
    expect(apply(demo, mark.set(3)).cues[id]!.marks).toEqual([3])
    expect(apply(demo, mark.remove!).cues[id]!.marks).toEqual([])
    expect(said(sentenceOf(apply(demo, mark.remove!), 'cues', id, changing))).toContain('no marks yet')
  })
  it('every choice and number of every clock, cue and curve gives a document that is taken', () => {
    const id = 'k1'
    const clock = {
      name: 'slow tide',
      order: 1,
      on: null,
      way: { type: 'steady', rate: 1, ahead: 0 },
      hold: null,
    } as const
    const piece = apply(demo, { undoLabel: '', puts: [{ in: 'clocks', id, value: clock }] })
    for (const collection of ['clocks', 'cues', 'curves'] as const)
      for (const entry of Object.keys(piece[collection]))
        for (const w of sentenceOf(piece, collection, entry, changing)) {
          if (w.is === 'number') sound(apply(piece, w.set(1.25)))
          if (w.is === 'choice')
            for (const o of w.of) {
              const next = apply(piece, w.set(o.value))
              sound(next)
              for (const v of sentenceOf(next, collection, entry, changing))
                if (v.is === 'number') sound(apply(next, v.set(0.5)))
            }
        }
  })
  it('a clock set to another rate stays where it is at the moment', () => {
    const clock = {
      name: 'slow tide',
      order: 1,
      on: null,
      way: { type: 'steady', rate: 1, ahead: 0 },
      hold: null,
    } as const
    const piece = apply(demo, { undoLabel: '', puts: [{ in: 'clocks', id: 'k1', value: clock }] })
    const rate = of(sentenceOf(piece, 'clocks', 'k1', changing), 'Rate')
    if (rate.is !== 'number') throw new Error('a number was expected')
    expect(apply(piece, rate.set(0.5)).clocks.k1!.way).toEqual({ type: 'steady', rate: 0.5, ahead: 6.2 })
  })
})

describe('what stands once', () => {
  it('a lap in frames: 0 … N − 1, also where the last is not whole', () => {
    expect(framesOf({ n: 8, d: 1 }, { n: 30, d: 1 })).toBe(240)
    expect(framesOf({ n: 1, d: 3 }, { n: 30, d: 1 })).toBe(10)
    expect(framesOf({ n: 5, d: 2 }, { n: 25, d: 1 })).toBe(63)
  })
  it('a typed number as a fraction, or none', () => {
    expect(documentFraction(2.5)).toEqual({ n: 5, d: 2 })
    for (const wrong of [0, -1, NaN, Infinity]) expect(documentFraction(wrong)).toBeNull()
  })
  it('a stretch has its ends in order, marks stand once each', () => {
    const demo = lanternPier()
    expect(apply(demo, setStretch([5, 2])).stretch).toEqual({ from: 2, to: 5 })
    expect(apply(demo, setStretch(null)).stretch).toBeNull()
    const id = Object.keys(demo.cues)[0]!
    expect(apply(demo, setMarks(demo, id, [3, 1, 3])).cues[id]!.marks).toEqual([1, 3])
  })
})
