import { describe, expect, it } from 'vitest'
import { setHandle } from '../formula/edit.ts'
import { parse } from '../formula/parse.ts'
import { Builder } from '../acts/build.ts'
import { setPart } from '../acts/parts.ts'
import { setStretch } from '../acts/time-edits.ts'
import { Program } from '../engine/program.ts'
import { fair, type Fair } from '../testing/fair.ts'
import { handlesOf, sourcesOf, type WaveHandle } from './wave-handles.ts'

const named = (f: Fair, name: string, from = 0, nth = 0): WaveHandle =>
  handlesOf(f.program, f.key, 0, nth, from, 4).find(h => h.name === name)!
/** The text after a handle was pulled. */
const pulled = (text: string, h: WaveHandle, later: number, higher: number) =>
  setHandle(parse(text).formula!, h.nth, h.pulled(later, higher), 6)
const near = (text: string) => text.replaceAll(/\d+\.\d+/g, n => String(Number(Number(n).toFixed(4))))

describe('handles on a wave', () => {
  const text = 'sine(every: 2s, amp: 24deg, phase: 90deg)'
  it('stand where they belong: the crest, the middle, from crest to crest', () => {
    const f = fair(text)
    // A quarter turn ahead: it crests at 0, 2, 4 s and rises through the middle at 1.5 s.
    expect(named(f, 'amp', 0.1)).toMatchObject({ way: 'up', seconds: expect.closeTo(2, 9), text: '24deg' })
    expect(named(f, 'amp', 0.1).value).toBeCloseTo(24 / 360, 9)
    expect(named(f, 'every', 0.1)).toMatchObject({
      way: 'apart',
      from: expect.closeTo(0, 9),
      seconds: expect.closeTo(2, 9),
    })
    expect(named(f, 'phase', 0.1)).toMatchObject({ way: 'along', seconds: expect.closeTo(1.5, 9) })
  })
  it('make of the number what the curve then shows', () => {
    const f = fair(text)
    expect(near(pulled(text, named(f, 'amp'), 0, 6 / 360))).toBe('sine(every: 2s, amp: 30deg, phase: 90deg)')
    expect(near(pulled(text, named(f, 'every'), 1, 0))).toBe('sine(every: 3s, amp: 24deg, phase: 90deg)')
    // Half a second later is a quarter turn back.
    expect(near(pulled(text, named(f, 'phase'), 0.5, 0))).toBe('sine(every: 2s, amp: 24deg, phase: 0deg)')
    expect(near(pulled('sine(freq: 2Hz, amp: 9deg)', named(fair('sine(freq: 2Hz, amp: 9deg)'), 'freq'), 0.5, 0))).toBe(
      'sine(freq: 1Hz, amp: 9deg)',
    )
  })
  it('follow through what is made of the source, and through signs', () => {
    const scaled = '30deg - 2 * sine(every: 2s, low: -3deg, high: 5deg)'
    const f = fair(scaled)
    const low = named(f, 'low')
    expect(low.value).toBeCloseTo(36 / 360, 9)
    // Pulled 4deg up, where the wave is lowest and counts −2 times: −3 becomes −5.
    expect(near(pulled(scaled, low, 0, 4 / 360))).toBe('30deg - 2 * sine(every: 2s, low: -5deg, high: 5deg)')
    const back = 'sine(every: 2s, amp: 9deg, phase: -90deg)'
    expect(near(pulled(back, named(fair(back), 'phase'), 0.5, 0))).toBe('sine(every: 2s, amp: 9deg, phase: -180deg)')
  })
  it('of noise, ramps and limits', () => {
    const noise = fair('noise(2Hz, 10deg)')
    const cell = named(noise, 'freq', 0.1)
    expect(cell.seconds - cell.from).toBeCloseTo(0.5, 9)
    const ramp = 'ramp(start: 1s, length: 2s, from: 0deg, to: 90deg)'
    const r = fair(ramp)
    expect(named(r, 'length').seconds).toBe(3)
    expect(pulled(ramp, named(r, 'start'), 0.5, 0)).toBe('ramp(start: 1.500000s, length: 2s, from: 0deg, to: 90deg)')
    expect(near(pulled(ramp, named(r, 'to'), 0, 10 / 360))).toBe('ramp(start: 1s, length: 2s, from: 0deg, to: 100deg)')
    const clamp = fair('clamp(sine(every: 2s, amp: 20deg), -5deg, 8deg)')
    expect(named(clamp, 'high').value).toBeCloseTo(8 / 360, 9)
  })
  it('of an envelope are its corners, from where it sets off', () => {
    const plain = 'envelope(attack: 1s, hold: 2s, release: 3s) * 90deg'
    const f = fair(plain)
    expect(['attack', 'hold', 'release'].map(n => named(f, n).seconds)).toEqual([1, 3, 6])
    expect(named(f, 'hold').value).toBeCloseTo(0.25, 9)
    expect(near(pulled(plain, named(f, 'hold'), 0.5, 0))).toBe('envelope(attack: 1s, hold: 2.5s, release: 3s) * 90deg')
    expect(near(pulled(plain, named(f, 'attack'), -5, 0))).toMatch(/attack: 0(\.0+)?s/)
    const cued = fair('envelope(attack: 1s, hold: 1s, release: 1s, cue: blow) * 90deg')
    // The next mark from 5 s on is that at 5 s.
    expect(named(cued, 'attack', 5).seconds).toBeCloseTo(6, 9)
    const fitted = 'envelope(attack: 1s, release: 2s, over: lap) * 90deg'
    const lap = fair(fitted)
    const falls = named(lap, 'release', 0.5)
    expect(falls.seconds % 8).toBeCloseTo(6, 9)
    // Pulled later it falls for less time.
    expect(near(pulled(fitted, falls, 0.5, 0))).toBe('envelope(attack: 1s, release: 1.5s, over: lap) * 90deg')
  })
  it('of an envelope fitted to a span or the marked stretch they stand at its ends', () => {
    const over = (what: string, piece: (b: Builder, id: string) => void) => {
      const b = new Builder('Spans', 1)
      const id = b.part('Arrow', { type: 'rectangle' })
      piece(b, id)
      b.drive(id, 'opacity', `envelope(attack: 1s, release: 2s, over: ${what}) * 100%`)
      const program = new Program(b.piece)
      expect(program.slots.get(`${id}.opacity`)!.problems).toEqual([])
      return handlesOf(program, `${id}.opacity`, 0, 0, 0, 4).map(h => [h.name, h.seconds, h.value])
    }
    const wanted = [
      ['attack', 4, 1],
      ['release', 9, 1],
    ]
    expect(over('span', (b, id) => void b.do(setPart(b.piece, id, { span: { from: 3, to: 11 } })))).toEqual(wanted)
    expect(over('stretch', b => void b.do(setStretch([11, 3])))).toEqual(wanted)
    // Where there is none it stands nowhere.
    expect(over('stretch', () => {})).toEqual([])
  })
  it('are none where the number is a dial, a link, or a product; sources are told apart', () => {
    const f = fair('sine(every: 2s * fairPace, amp: carousel.rotation)', { on: 'Flag' })
    expect(handlesOf(f.program, f.key, 0, 0, 0, 4)).toEqual([])
    const two = fair('sine(every: 2s, amp: 3deg) + noise(1Hz, 2deg)')
    expect(sourcesOf(two.program, two.key).map(s => s.text)).toEqual(['sine(every: 2s, amp: 3deg)', 'noise(1Hz, 2deg)'])
    expect(handlesOf(two.program, two.key, 0, 1, 0, 4).map(h => h.name)).toEqual(['freq', 'amp'])
    expect(handlesOf(two.program, two.key, 0, 7, 0, 4)).toEqual([])
  })
})
