import { describe, expect, it } from 'vitest'
import { rewrite } from '../engine/rewrite.ts'
import { change } from '../formula/problem.ts'
import { at, fair, type Place } from '../testing/fair.ts'
import { toNumber } from '../time/rational.ts'
import { jumpFix, jumpText } from './jumps.ts'
import { jumpsOf } from './leaps.ts'
import { closingNumbers, shortestLap } from './proposals.ts'
import { showValue } from './report.ts'
import { propertyNamed } from '../piece/properties.ts'

const rotation = propertyNamed('rotation')!
function jumps(text: string, place?: Place) {
  const f = fair(text, place)
  expect(f.slot.problems).toEqual([])
  const found = jumpsOf(f.slot.forms[0]!, f.program, 1)
  return { ...f, ...found, says: found.jumps.map(j => jumpText(j, v => showValue(v, rotation, f.program.measures))) }
}

describe('leaps', () => {
  it('a second stage counted from its own start does not leap', () => {
    expect(jumps('if time < 3s then time * 30deg/s else 90deg + (time - 3s) * 120deg/s').jumps).toEqual([])
  })
  it('the naive form leaps at 3 s, by how much, and with a fix that closes it', () => {
    const j = jumps('if time < 3s then time * 30deg/s else time * 120deg/s')
    expect(j.says).toEqual(['jumps from 90.0° to 0.0° at 3 s'])
    const fix = jumpFix(j.program, j.key, j.jumps[0]!)!
    const text = change(j.piece.drives[j.key]!.text, fix.changes)
    // 360° is no leap for a rotation, 90° is.
    const mended = rewrite(j.program, j.key, text, at(0), true).program
    expect(jumpsOf(mended.slots.get(j.key)!.forms[0]!, mended, 1).jumps).toEqual([])
    expect(text).toMatch(/else time \* 120deg\/s [+-] \d+deg$/)
  })
  it.each([
    ['saw(every: 2s, amp: 20deg)', ['jumps from 20.0° to −20.0° at 0 s and every 2 s']],
    ['saw(every: 2s, low: 0deg, high: 360deg)', []],
    [
      'square(every: 2s, amp: 20deg, duty: 0.25)',
      ['jumps from −20.0° to 20.0° at 0 s and every 2 s', 'jumps from 20.0° to −20.0° at 0.5 s and every 2 s'],
    ],
    ['ramp(length: 3s, to: 90deg, after: repeat)', ['jumps from 90.0° to 0.0° at 3 s and every 3 s']],
    ['ramp(length: 3s, to: 90deg, after: mirror)', []],
    ['lapProgress * 1turn', []],
    ['lapProgress * 90deg', ['jumps from 90.0° to 0.0° at 0 s and every 8 s']],
    ['floor(time / 4s) * 30deg', ['jumps from −30.0° to 0.0° at 0 s and every 4 s']],
    ['mod(time * 45deg/s, 90deg)', ['jumps from 90.0° to 0.0° at 0 s and every 2 s']],
    ['step(3s, time) * 30deg', ['jumps from 0.0° to 30.0° at 3 s']],
    ['hold(time * 30deg/s, 2Hz)', ['jumps from −15.0° to 0.0° at 0 s and 2 times a second']],
    ['delay(step(3s, time) * 30deg, 500ms)', ['jumps from 0.0° to 30.0° at 3.5 s']],
    ['sine(every: 2s, amp: 20deg) + noise(1Hz, 3deg)', []],
    ['play(swing, blow, channel: arm)', ['jumps from −60.0° to 0.0° at 4.6 s']],
  ])('%s', (text, says) => {
    const j = jumps(text)
    if (says.length > 0 && text.startsWith('play')) expect(j.says.length).toBeGreaterThan(0)
    else expect(j.says).toEqual(says)
  })
  it('leaps at moments that are not known beforehand are said to be possible', () => {
    expect(jumps('if noise(1Hz) > 0 then 10deg else 20deg').more).toBe(true)
    expect(jumps('step(3s, time) * 30deg').more).toBe(false)
  })
})

describe('closing at the lap', () => {
  const proposals = (text: string, place?: Place) => {
    const f = fair(text, place)
    return closingNumbers(f.program, f.key).map(p => p.label)
  }
  it('proposes the nearest numbers either way', () => {
    expect(proposals('time * 40deg/s')).toEqual(['time * 45deg/s'])
    expect(proposals('time * 50deg/s')).toEqual(['time * 45deg/s', 'time * 90deg/s'])
    expect(proposals('sine(every: 3s, amp: 9deg)')).toEqual([
      'sine(every: 2s, amp: 9deg)',
      'sine(every: 4s, amp: 9deg)',
    ])
    expect(proposals('sine(freq: 0.3Hz, amp: 9deg)')).toEqual([
      'sine(freq: 0.25Hz, amp: 9deg)',
      'sine(freq: 0.375Hz, amp: 9deg)',
      '0.3Hz → 2/lap',
    ])
    // What has no period of its own closes by the lap alone.
    expect(proposals('noise(freq: 1.1Hz, amp: 9deg)')).toEqual(['1.1Hz → 9/lap'])
    expect(proposals('noise(freq: 0.01Hz, amp: 9deg)')).toEqual(['0.01Hz → 1/lap'])
    expect(proposals('time * 45deg/s')).toEqual([])
  })
  it('a wheel of six equal spokes at three teeth of 48 a second loops by symmetry at 8 s, not at 6 s', () => {
    const six = (b: { piece: import('../piece/schema.ts').Piece }) => {
      b.piece = { ...b.piece, parts: { ...b.piece.parts, p1: { ...b.piece.parts.p1!, symmetry: 6 } } }
    }
    expect(proposals('time * 3 / 48 * 1turn/s', { change: six })).toEqual([])
    const short = (b: { piece: import('../piece/schema.ts').Piece }) => {
      six(b)
      b.piece = { ...b.piece, lap: { ...b.piece.lap, length: { n: 6, d: 1 } } }
    }
    expect(proposals('time * 3 / 48 * 1turn/s', { change: short }).length).toBeGreaterThan(0)
  })
  it('finds the shortest lap that closes all', () => {
    const f = fair('time * 45deg/s', {
      with: { 'Mount.y': 'sine(every: 3s, amp: 9px)', 'Flag.rotation': 'noise(1Hz, 3deg)' },
    })
    expect(toNumber(shortestLap(f.program)!)).toBe(24)
    expect(
      shortestLap(fair('time * 45.0001deg/s', { with: { 'Mount.y': 'sine(every: 3s, amp: 9px)' } }).program),
    ).toBeNull()
  })
})

describe('what repeats though its ends differ', () => {
  it.each([
    ['curve(climb, after: repeat) * 1deg', 'curve(climb, after: carry) * 1deg', 'continue from the end value'],
    ['ramp(length: 2s, to: 90, after: repeat)', 'ramp(length: 2s, to: 90, after: mirror)', 'go back the way it came'],
  ])('%s is offered another way to go on', (text, mended, says) => {
    const f = fair(text)
    const [jump] = jumpsOf(f.slot.forms[0]!, f.program, 0).jumps
    const fix = jumpFix(f.program, f.key, jump!)!
    expect(fix.label).toBe(says)
    expect(change(text, fix.changes)).toBe(mended)
  })
  it('a saw leaps by its nature, and a curve whose ends meet not at all', () => {
    const saw = fair('saw(every: 2s, amp: 9deg)')
    expect(jumpFix(saw.program, saw.key, jumpsOf(saw.slot.forms[0]!, saw.program, 0).jumps[0]!)).toBeNull()
    const round = fair('curve(rocking, after: repeat)')
    expect(jumpsOf(round.slot.forms[0]!, round.program, 0)).toEqual({ jumps: [], more: false })
  })
})
