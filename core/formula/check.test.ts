import { isSignal } from '../piece/drive-key.ts'
import { describe, expect, it } from 'vitest'
import { codes, fair, type Place } from '../testing/fair.ts'
import { change } from './problem.ts'

const first = (text: string, place?: Place) => fair(text, place).slot.problems[0]!
/** The texts that the fixes of the first problem make. */
const fixed = (text: string, place?: Place) => first(text, place).fixes.map(f => change(text, f.changes))
const runs = (text: string, place?: Place) => fair(text, place).slot.running === 'text'

describe('kinds', () => {
  it.each([
    ['time * 40', 'This is a time, but rotation needs an angle.', 'time * 40deg/s'],
    ['time', 'This is a time, but rotation needs an angle.', 'time * 1deg/s'],
    ['12deg + 3px', 'These can’t be added: an angle and a length.', undefined],
    [
      'base + noise(2Hz, 6) * wind',
      'These can’t be added: an angle and a plain number.',
      'base + noise(2Hz, 6deg) * wind',
    ],
    [
      'noise(2Hz, amp: 6) * dusk',
      'This is a plain number, but rotation needs an angle.',
      'noise(2Hz, amp: 6deg) * dusk',
    ],
    ['sine(every: 2s)', 'This is a plain number, but rotation needs an angle.', 'sine(every: 2s, amp: 20deg)'],
    ['sine(every: 2, amp: 3)', 'every needs a time, but this is a plain number.', 'sine(every: 2s, amp: 3)'],
    ['sine(2s, 3)', 'freq needs a frequency (every: takes a time), but this is a time.', undefined],
    [
      'if time < 3 then 1deg else 2deg',
      'These can’t be compared: a time and a plain number.',
      'if time < 3s then 1deg else 2deg',
    ],
    ['if 3deg then 1 else 2', 'This must be a comparison, such as time < 3s; this is an angle.', undefined],
    ['time < 3s', 'This is a yes or no. Choose a value for each with if … then … else ….', undefined],
    [
      '(time < 3s) * 2deg',
      'You can’t calculate with a yes or no. Use if … then … else … to choose a value.',
      undefined,
    ],
    [
      'clamp(time * 45deg/s, 0px, 90deg)',
      'In clamp x is an angle and low a length; they must have the same kind of unit.',
      undefined,
    ],
    [
      'smoothstep(1, 4, time) * 9deg',
      'In smoothstep low is a plain number and x a time; they must have the same kind of unit.',
      'smoothstep(1s, 4s, time) * 9deg',
    ],
    ['2deg ^ 3px', 'An exponent must be a plain number; this is a length.', undefined],
  ])('%s', (text, says, fix) => {
    expect(first(text).message).toBe(says)
    if (fix) {
      expect(fixed(text)).toContain(fix)
      expect(runs(fix)).toBe(true)
    }
  })

  it.each([
    ['sin(Carousel.y) * 3deg', 'sin(Carousel.y / 1px * 1deg) * 3deg'],
    ['sqrt(Carousel.y) * 1deg', 'sqrt(Carousel.y / 1px) * 1deg'],
    ['mod(Carousel.y, 3) * 1deg', undefined],
    ['befor.rotation + 2deg', 'before.rotation + 2deg'],
    ['sine(3 / lap) * 2deg', 'sine(3/lap) * 2deg'],
  ])('%s is offered %s first', (text, fix) => {
    const place: Place = { on: 'Mount', change: b => ['Lip', 'Lapse'].forEach(name => b.dial(name)) }
    expect(fixed(text, place)[0]).toBe(fix)
  })
  it('a unit of time with a blank before it is told as one, whatever is named like it', () => {
    expect(first('sine(3 / lap) * 2deg').message).toBe('lap is a unit of time. Write it right after its number: 3/lap.')
    expect(first('3 / lip * time').message).not.toContain('unit')
  })

  it('every fix that is offered for a kind mends the formula it is offered for', () => {
    for (const text of [
      'time * 40',
      'index * 30',
      'sine(every: 2)',
      'noise(2, 6)',
      '12deg + time',
      'smoothstep(1, 4, time)',
      'lapProgress * 90',
      'max(3, time)',
    ]) {
      for (const f of fixed(text, { on: 'Mount' }))
        expect(fair(f, { on: 'Mount' }).slot.problems.length, `${text} → ${f}`).toBeLessThan(
          fair(text, { on: 'Mount' }).slot.problems.length + 1,
        )
    }
    expect(fixed('index * 30', { on: 'Mount' })[0]).toBe('index * 30deg')
  })

  it('a bare number alone in a value place takes the unit of the property, elsewhere it is plain', () => {
    expect(fair('clamp(time * 45deg/s, -90, 90)').value(100)).toBe(0.25)
    expect(fair('base + noise(1Hz, 6)').slot.problems).toEqual([])
    expect(fair('45').value(0)).toBe(0.125)
    expect(fair('2 * 3deg').value(0)).toBeCloseTo(6 / 360, 15)
    expect(fair('if time < 3s then 10 else -20').value(5)).toBeCloseTo(-20 / 360, 15)
    expect(codes('2 * 3')).toEqual(['kind'])
    expect(codes('let a = 3; a')).toEqual(['kind'])
    expect(fair('7', { property: 'x' }).value(0)).toBe(7)
  })

  it('a share is never coerced: 1 is 100 %', () => {
    expect(fair('1', { property: 'scale' }).value(0)).toBe(1)
    expect(fair('50%', { property: 'scale' }).value(0)).toBe(0.5)
  })

  it('0 fits any kind', () => {
    for (const text of ['0', '0 + 3deg', 'max(0, sine(1Hz, 3deg))', 'if time < 0 then 0 else 3deg'])
      expect(codes(text), text).toEqual([])
  })

  it('kinds multiply and divide as in physics', () => {
    expect(codes('time / 8s * 1turn')).toEqual([])
    expect(codes('(time * 3px/s) / 24px * 9deg')).toEqual([])
    expect(codes('time ^ 2 * 3deg/s / 1s')).toEqual([])
    expect(codes('fps * time * 1deg')).toEqual([])
  })
})

describe('names', () => {
  it('are the same in capitals, in full-width letters, in backquotes', () => {
    expect(runs('CAROUSEL.Rotation', { on: 'Flag' })).toBe(true)
    expect(runs('ｔｉｍｅ * 45deg/s')).toBe(true)
    expect(runs('`carousel`.ROTATION + `Ticket arch`.rotation', { on: 'Flag' })).toBe(true)
  })

  it.each([
    ['carosel.rotation', 'Unknown part “carosel”. Did you mean Carousel?', 'Carousel.rotation'],
    ['carousel.rotatoin', 'Carousel has no property “rotatoin”. Did you mean rotation', 'carousel.rotation'],
    ['fairPase * 3deg', 'Unknown name “fairPase”. Did you mean fairPace?', 'fairPace * 3deg'],
    ['sien(1Hz, 3)', 'Unknown function “sien”. Did you mean sine', 'sine(1Hz, 3)'],
    ['tiem * 45deg/s', 'Unknown name “tiem”. Did you mean time', 'time * 45deg/s'],
    ['45dge', 'dge isn’t a unit. Did you mean deg?', '45deg'],
    [
      'ramp(length: 3s, to: 9deg, ease: cubicIm)',
      'Unknown easing or curve “cubicIm”. Did you mean cubicIn',
      'ramp(length: 3s, to: 9deg, ease: cubicIn)',
    ],
    ['carousel', 'Carousel is a part. Add a property, as in Carousel.rotation.', 'carousel.rotation'],
    ['ticket', 'Unknown name “ticket”. Did you mean Ticket arch?', '`Ticket arch`.rotation'],
  ])('%s', (text, says, fix) => {
    const p = first(text, { on: 'Flag' })
    expect(p.message).toContain(says)
    expect(fixed(text, { on: 'Flag' })[0]).toBe(fix)
  })

  it.each([
    ['sine', /function: write its arguments/],
    ['own', /write a property/],
    ['parent.rotation', /has no parent/],
    ['time on slo', /Unknown clock “slo”\. Did you mean slow/],
    ['let time = 3s; time * 1deg/s', /already means something else/],
    ['(1 + 2).x', /name of a part/],
    ['mount[2]', /write a property/],
    ['unknown + unheard', /Unknown name “unknown”/],
  ])('%s', (text, says) => expect(first(text).message).toMatch(says))

  it('a signal reads no base and no copy', () => {
    const f = fair('tempo * 1deg', { signals: { tempo: 'base + index' } })
    const signal = [...f.program.slots.values()].find(s => isSignal(s.key))!
    expect(signal.problems.map(p => p.message)).toEqual([
      expect.stringMatching(/no base/),
      expect.stringMatching(/belong to a copy/),
    ])
  })
})

describe('copies', () => {
  it('an index, count and along of this copy', () => {
    const f = fair('index * 1deg + count * 10deg + along * 1turn', { on: 'Mount' })
    expect([0, 3, 11].map(i => f.value(0, i))).toEqual(
      [0, 3, 11].map(i => expect.closeTo(i / 360 + 120 / 360 + i / 12, 12)),
    )
    const row = fair('along * 1turn', { on: 'Flag' })
    expect([0, 1, 2, 3, 4].map(i => row.value(0, i))).toEqual([0, 0.25, 0.5, 0.75, 1])
  })

  it('a copied part read from outside needs its index; from within it is the same copy', () => {
    expect(first('mount.y * 1turn').message).toBe('mount has 12 copies. Say which one, from [0] to [11].')
    expect(fixed('mount.y / 24px * 1turn')[0]).toBe('mount[0].y / 24px * 1turn')
    const f = fair('own.y / 24px * 1turn', { on: 'Mount', with: { 'Mount.y': 'index * 24px' } })
    expect([0, 5].map(i => f.value(0, i))).toEqual([0, 5])
    expect(fair('mount[3].y / 24px * 1turn', { with: { 'Mount.y': 'index * 24px' } }).value(0)).toBe(3)
  })

  it('an index out of range is an error unless an if guards it', () => {
    expect(first('mount[12].y / 1px * 1deg').message).toMatch(/no copy 12 of mount/)
    expect(codes('mount[index - 1].x + 3px', { on: 'Mount', property: 'y' })).toEqual(['index'])
    const f = fair('if index > 0 then mount[index - 1].x + 3px else 1px', { on: 'Mount', property: 'y' })
    expect([0, 1, 11].map(i => f.value(0, i))).toEqual([1, 3, 3])
    expect(first('mount[time / 1s].rotation').message).toMatch(/doesn’t change with time/)
  })

  it('a part without copies has no index', () => {
    expect(codes('index * 30deg')).toEqual(['index'])
    expect(fixed('carousel[2].x', { on: 'Flag', property: 'x' })[0]).toBe('carousel.x')
  })
})

describe('arguments', () => {
  it.each([
    ['sine()', 'argument-missing', 'sine needs freq (or every): how many times per second.'],
    ['sine(1Hz, 3deg, 0deg, 0turn, 2s)', 'argument-twice', 'freq and every mean the same. Keep one of them.'],
    ['sine(freq: 1Hz, freq: 2Hz)', 'argument-twice', 'freq is given twice. Keep one of them.'],
    ['sine(1Hz, low: 3deg)', 'argument-missing', 'sine needs high: the highest value.'],
    ['sine(1Hz, amp: 3deg, low: 1deg, high: 2deg)', 'argument-twice', 'amp and low mean the same. Keep one of them.'],
    [
      'sine(1Hz, evry: 2s)',
      'argument-unknown',
      'sine has no argument evry; it takes freq, amp, offset, phase, every, low, high.',
    ],
    ['abs(1deg, 2deg)', 'argument-unknown', 'abs takes x, so there is one argument too many.'],
    ['ramp(length: 0s, to: 3deg)', 'domain', 'length must be more than 0.'],
    ['sine(every: 0s, amp: 3deg)', 'domain', 'every must be more than 0.'],
    ['ramp(length: 3s, to: 3deg, ease: quadIn(2))', 'argument-unknown', 'quadIn takes no strength.'],
    ['hold(own.y / 1px * 3deg, rate: 1Hz * (2 + sine(every: 2s)))', 'varying', 'rate must not change with time.'],
    ['noise(1Hz, 3deg, octaves: time / 1s)', 'varying', 'octaves must not change with time.'],
  ])('%s', (text, code, says) => {
    const p = first(text)
    expect(p.code).toBe(code)
    if (says) expect(p.message).toBe(says)
  })

  it('come by name in any order, or in the declared order', () => {
    const [a, b] = [
      fair('sine(0.5Hz, 24deg, 3deg, 90deg)'),
      fair('sine(phase: 90deg, offset: 3deg, freq: 0.5Hz, amp: 24deg)'),
    ]
    for (const t of [0, 0.3, 7.7]) expect(a.value(t)).toBe(b.value(t))
  })
})

describe('circles of links', () => {
  it('are named in full; a good formula that stood before goes on', () => {
    const f = fair('mount[0].rotation', { with: { 'Mount.rotation': 'parent.rotation * 2' } })
    const mount = [...f.program.slots.values()].find(s => s !== f.slot)!
    const says = [f.slot, mount].flatMap(s => s.problems.map(p => p.message))
    expect(says.every(s => s.includes('reads') && s.includes('circle'))).toBe(true)
    expect([f.slot.running, mount.running]).toEqual(['base', 'base'])
    expect(codes('own.rotation')).toEqual(['cycle'])
  })
})
