import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Builder } from '../acts/build.ts'
import { apply } from '../piece/operation.ts'
import { setText } from '../acts/sources.ts'
import type { Piece } from '../piece/schema.ts'
import { momentOfFrame, momentOfSeconds, momentOfTicks, type Moment } from '../time/moment.ts'
import { rational } from '../time/rational.ts'
import { Program } from './program.ts'
import { setClockRate, setDial, setLap, settleFrom0 } from './retime.ts'
import { tuneText } from './tune.ts'

const RATE = rational(30)

function fair(text: string, property = 'rotation', copies = 1): { piece: Piece; key: string } {
  const b = new Builder('Test fair', 5)
  b.dial('fairPace')
  b.dial('wind', { value: 35, high: 100 })
  const part = b.part(
    'Carousel',
    { type: 'ellipse' },
    copies > 1 ? { copies: { layout: 'ring', count: copies, radius: 100, from: 0, sweep: 360, turn: true } } : {},
  )
  b.drive(part, property, text)
  return { piece: b.piece, key: `${part}.${property}` }
}

/** What becomes of a text when it is changed while it plays: the new text, and old and new values at the moment. */
function retuned(from: string, to: string, at: Moment, property = 'rotation', copies = 1) {
  const { piece, key } = fair(from, property, copies)
  const before = new Program(piece)
  expect(before.slots.get(key)!.problems).toEqual([])
  const wanted = new Program(apply(piece, setText(piece, key, to, true)), before)
  expect(wanted.slots.get(key)!.problems).toEqual([])
  const tuned = tuneText(before, wanted, key, at)
  const after = new Program(apply(piece, setText(piece, key, tuned.text, true)), before)
  expect(after.slots.get(key)!.problems).toEqual([])
  const values = (p: Program, m: Moment) => p.slots.get(key)!.readers.map(r => r.at(m))
  return { ...tuned, key, before, after, old: values(before, at), new: values(after, at), values }
}

const AT = momentOfSeconds(rational(12400, 1000), RATE)

describe('a number that sets pace, changed while it plays', () => {
  it('keeps the rotation of a steady turn and goes on at the new rate', () => {
    const r = retuned('time * 45deg/s', 'time * 90deg/s', AT)
    expect(Math.abs(r.old[0]! - r.new[0]!)).toBeLessThanOrEqual(1e-9)
    expect(r.text).toBe('time * 90deg/s - 558deg')
    const later = momentOfSeconds(rational(13400, 1000), RATE)
    expect(r.values(r.after, later)[0]! - r.new[0]!).toBeCloseTo(0.25, 12)
  })

  it('leaves one constant however often it is tuned', () => {
    const first = retuned('time * 45deg/s', 'time * 60deg/s', AT).text
    const r = retuned(first, first.replace('60deg', '75deg'), momentOfTicks(1024 * 400 + 13, RATE))
    expect(r.text.match(/deg(?!\/)/g)).toHaveLength(1)
    expect(Math.abs(r.old[0]! - r.new[0]!)).toBeLessThanOrEqual(1e-9)
  })

  it.each([
    ['sine(freq: 0.5Hz, amp: 24deg)', 'sine(freq: 0.7Hz, amp: 24deg)'],
    ['sine(every: 2s, amp: 24deg)', 'sine(every: 3s, amp: 24deg)'],
    ['sine(every: 2s, amp: 24deg, phase: 90deg)', 'sine(every: 2.5s, amp: 24deg, phase: 90deg)'],
    [
      'sine(every: 2s, amp: 24deg, phase: sine(every: 5s, amp: 20deg))',
      'sine(every: 2.5s, amp: 24deg, phase: sine(every: 5s, amp: 20deg))',
    ],
    ['noise(freq: 2Hz, amp: 6deg)', 'noise(freq: 3.1Hz, amp: 6deg)'],
    ['noise(freq: 2Hz, amp: 6deg, octaves: 3)', 'noise(freq: 0.3Hz, amp: 6deg, octaves: 3)'],
    ['random(low: -30, high: 30, rate: 10Hz)', 'random(low: -30, high: 30, rate: 7Hz)'],
    ['sine(freq: 3/lap, amp: 24deg)', 'sine(freq: 5/lap, amp: 24deg)'],
    ['sine(freq: 0.5Hz * fairPace, amp: 9deg)', 'sine(freq: 0.8Hz * fairPace, amp: 9deg)'],
    ['sine(freq: mix(0.5Hz, 2Hz, wind), amp: 9deg)', 'sine(freq: mix(0.5Hz, 3Hz, wind), amp: 9deg)'],
    ['12deg - time * 45deg/s', '12deg - time * 50deg/s'],
    ['10deg + time * 45deg/s + 5deg * wind', '10deg + time * 50deg/s + 5deg * wind'],
    ['-(time * 45deg/s)', '-(time * 50deg/s)'],
    ['(time - 3s) * 45deg/s * fairPace', '(time - 3s) * 50deg/s * fairPace'],
    ['(time * 45deg/s) * 2', '(time * 45deg/s) * 3'],
    ['5deg - (time * 45deg/s) - 3deg', '5deg - (time * 46deg/s) - 3deg'],
    ['if time < 3s then 0deg else time * 45deg/s', 'if time < 3s then 0deg else time * 47deg/s'],
    ['let pace = 45deg/s; time * pace', 'let pace = 47deg/s; time * pace'],
    ['frame * 1.5deg', 'frame * 1.7deg'],
    ['triangle(0.5Hz, 9deg)', 'triangle(0.7Hz, 9deg)'],
    ['saw(every: 3s, amp: 9deg)', 'saw(every: 4s, amp: 9deg)'],
    ['square(0.5Hz, 9deg, duty: 0.3)', 'square(0.8Hz, 9deg, duty: 0.3)'],
    ['accumulate(45deg/s)', 'accumulate(60deg/s)'],
    ['accumulate(45deg/s, from: 10deg)', 'accumulate(60deg/s, from: 10deg)'],
    ['delay(time * 45deg/s, 1s)', 'delay(time * 60deg/s, 1s)'],
    ['hold(noise(3Hz, 9deg), 2Hz)', 'hold(noise(5Hz, 9deg), 2Hz)'],
    [
      'sine(every: 2s, amp: 9deg) + noise(freq: 2Hz, amp: 6deg) + time * 3deg/s',
      'sine(every: 3s, amp: 9deg) + noise(freq: 1Hz, amp: 6deg) + time * 5deg/s',
    ],
  ])('%s → %s', (from, to) => {
    const moments = [0, 1, 371, -90, 30 * 86400].map(f => momentOfFrame(f, RATE))
    for (const at of [AT, ...moments]) {
      const r = retuned(from, to, at)
      expect(r.jumps).toBeNull()
      const amplitude = Math.max(1, ...r.old.map(Math.abs)) // turns; a day of 45deg/s is thousands of them
      expect(Math.abs(r.old[0]! - r.new[0]!), `${r.text} at ${at.seconds} s`).toBeLessThanOrEqual(1e-9 * amplitude)
    }
  })

  it('carries a factor that differs from copy to copy', () => {
    const r = retuned('time * 45deg/s * (1 + index * 0.1)', 'time * 60deg/s * (1 + index * 0.1)', AT, 'rotation', 5)
    expect(r.jumps).toBeNull()
    r.old.forEach((v, i) => expect(Math.abs(v - r.new[i]!)).toBeLessThanOrEqual(1e-9))
    const again = retuned(r.text, r.text.replace('60deg/s', '70deg/s'), momentOfFrame(500, RATE), 'rotation', 5)
    expect(again.text.match(/index/g)).toHaveLength(2)
    again.old.forEach((v, i) => expect(Math.abs(v - again.new[i]!)).toBeLessThanOrEqual(1e-9))
    const phase = retuned(
      'sine(freq: 1Hz * (1 + index * 0.1), amp: 3deg)',
      'sine(freq: 2Hz * (1 + index * 0.1), amp: 3deg)',
      AT,
      'rotation',
      5,
    )
    phase.old.forEach((v, i) => expect(Math.abs(v - phase.new[i]!)).toBeLessThanOrEqual(1e-9))
  })

  it('says when a value must jump', () => {
    expect(retuned('noise(freq: 8/lap, amp: 3deg)', 'noise(freq: 9/lap, amp: 3deg)', AT).jumps).toMatch(/whole number/)
    expect(
      retuned('time * 45deg/s * (1 + index * 0.1)', 'time * 45deg/s * (1 + index * 0.3)', AT, 'rotation', 5).jumps,
    ).toMatch(/copy/)
  })

  it('leaves amplitudes, offsets and phases as typed', () => {
    for (const [a, b] of [
      ['sine(every: 2s, amp: 24deg)', 'sine(every: 2s, amp: 30deg)'],
      ['sine(every: 2s, amp: 24deg, phase: 0.1turn)', 'sine(every: 2s, amp: 24deg, phase: 0.2turn)'],
      ['time * 45deg/s + 10deg', 'time * 45deg/s + 20deg'],
    ] as const)
      expect(retuned(a, b, AT).text).toBe(b)
  })

  it('never falls back over a step', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 400 }),
        fc.integer({ min: 1, max: 400 }),
        fc.integer({ min: 0, max: 100000 }),
        (a, b, frame) => {
          const at = momentOfFrame(frame, RATE)
          const r = retuned(`random(0deg, 90deg, rate: ${a / 10}Hz)`, `random(0deg, 90deg, rate: ${b / 10}Hz)`, at)
          expect(r.new[0]).toBe(r.old[0])
        },
      ),
      { numRuns: 60 },
    )
  })
})

describe('a dial, turned while it plays', () => {
  it('keeps every value that paces by it and changes no text', () => {
    const b = new Builder('Test fair', 5)
    const pace = b.dial('fairPace')
    b.dial('wind', { value: 35 })
    b.signal('tempo', 'fairPace * 0.5')
    const parts = [
      'time * 45deg/s * fairPace',
      'sine(every: 2s / fairPace, amp: 9deg)',
      'noise(freq: 1Hz * fairPace * wind, amp: 9deg)',
      'time * 10deg/s * tempo',
      '(time - 3s) * 10deg/s * fairPace',
      'sine(freq: mix(0.5Hz, 2Hz, fairPace), amp: 9deg)',
    ].map((text, i) => {
      const part = b.part(`Ride${i}`, { type: 'ellipse' })
      b.drive(part, 'rotation', text)
      return `${part}.rotation`
    })
    const link = b.part('Canopy', { type: 'star', points: 10 })
    b.drive(link, 'rotation', 'Ride0.rotation * -0.3')
    let program = new Program(b.piece)
    for (const [value, seconds] of [
      [65, 12.4],
      [140, 31557600],
      [0, 40],
      [80, 77.7],
    ] as const) {
      const at = momentOfSeconds(rational(Math.round(seconds * 1000), 1000), RATE)
      const before = [...parts, `${link}.rotation`].map(k => program.slots.get(k)!.readers[0]!.at(at))
      const op = setDial(program, pace, value, at)
      const next = new Program(apply(program.piece, op), program)
      expect(next.piece.drives).toBe(program.piece.drives)
      const after = [...parts, `${link}.rotation`].map(k => next.slots.get(k)!.readers[0]!.at(at))
      after.forEach((v, i) =>
        expect(Math.abs(v - before[i]!), `${i} at ${seconds} s`).toBeLessThanOrEqual(1e-9 * Math.max(1, seconds / 1e6)),
      )
      program = next
    }
    const second = (k: string, s: number) => program.slots.get(k)!.readers[0]!.at(momentOfSeconds(rational(s), RATE))
    expect(second(parts[0]!, 101) - second(parts[0]!, 100)).toBeCloseTo(0.125 * 0.8, 9)
    const settled = new Program(apply(program.piece, settleFrom0(program.piece, pace)), program)
    expect(settled.slots.get(parts[0]!)!.readers[0]!.at(momentOfFrame(0, RATE))).toBe(0)
    expect(Object.keys(settled.piece.slips)).toEqual([])
  })

  it('comes to rest at 0 % where it stands', () => {
    const { piece, key } = fair('sine(every: 2s / fairPace, amp: 9deg)')
    const program = new Program(piece)
    const op = setDial(program, Object.keys(piece.dials)[0]!, 0, AT)
    const still = new Program(apply(piece, op), program)
    const at = (s: number) => still.slots.get(key)!.readers[0]!.at(momentOfSeconds(rational(s), RATE))
    expect(at(13)).toBe(at(5000))
    expect(at(13)).toBeCloseTo(program.slots.get(key)!.readers[0]!.at(AT), 12)
  })
})

it('a rate that is added up goes on from where it is', () => {
  const r = retuned(
    'accumulate(30deg/s + sine(every: 4s, amp: 20deg/s))',
    'accumulate(50deg/s + sine(every: 4s, amp: 20deg/s))',
    AT,
  )
  expect(r.jumps).toBeNull()
  expect(Math.abs(r.old[0]! - r.new[0]!)).toBeLessThanOrEqual(1e-9)
  expect(r.text).toMatch(/, from: -[\d.]+deg\)$/)
})

it('a clock that is slowed goes on from where it is', () => {
  const b = new Builder('Test fair', 5)
  const slow = b.clock('slow', { way: { type: 'steady', rate: 0.5, ahead: 2 } })
  const part = b.part('Carousel', { type: 'ellipse' })
  b.drive(part, 'rotation', 'time * 45deg/s + sine(every: 3s, amp: 9deg) on slow')
  const before = new Program(b.piece)
  const after = new Program(apply(b.piece, setClockRate(b.piece, slow, 0.2, AT)), before)
  const key = `${part}.rotation`
  expect(after.slots.get(key)!.readers[0]!.at(AT)).toBeCloseTo(before.slots.get(key)!.readers[0]!.at(AT), 12)
})

it('another lap length keeps what is counted by the lap where it is', () => {
  const { piece, key } = fair('time * 1turn/lap + sine(freq: 3/lap, amp: 20deg) + lapProgress * 1deg')
  const before = new Program(piece)
  const after = new Program(apply(piece, setLap(piece, { n: 10, d: 1 }, AT)), before)
  expect(after.slots.get(key)!.readers[0]!.at(AT)).toBeCloseTo(before.slots.get(key)!.readers[0]!.at(AT), 12)
})
