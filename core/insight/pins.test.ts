import { drivenPart } from '../piece/drive-key.ts'
import { describe, expect, it } from 'vitest'
import { apply } from '../piece/operation.ts'
import { Program } from '../engine/program.ts'
import { at, fair, type Fair } from '../testing/fair.ts'
import { bothWays, linkChain, cutLink, link, pinSays, pinText, reverseLink, type Linked } from './changing-links.ts'
import { pinsOf, textWithoutPin, type Pin } from './pins.ts'

/** The fair's flag follows the carousel by a formula. */
const linked = (text: string): Fair => fair('time * 45deg/s', { with: { 'Flag.rotation': text } })
const flag = (f: Fair): string => Object.keys(f.piece.drives).find(k => f.piece.drives[k]!.text !== 'time * 45deg/s')!
const pinOf = (f: Fair, driver = f.key): Pin =>
  pinsOf(f.program).find(p => p.driven === flag(f) && p.driver === driver)!
const op = (made: Linked) => {
  if ('says' in made) throw new Error(made.says)
  return made.op
}
const textAfter = (f: Fair, made: Linked, key: string) => apply(f.piece, op(made)).drives[key]?.text

describe('a pin', () => {
  it.each([
    ['carousel.rotation', 1, 0, 0],
    ['carousel.rotation * 0', 0, 0, 0],
    ['carousel.rotation * -0.3', -0.3, 0, 0],
    ['-carousel.rotation / 4', -0.25, 0, 0],
    ['2 * carousel.rotation * 50%', 1, 0, 0],
    ['20deg - carousel.rotation', -1, 0, 20],
    ['carousel.rotation * 2 + 10deg - 1turn', 2, 0, -350],
    ['delay(carousel.rotation, 0.5s) * 0.8', 0.8, 0.5, 0],
    ['delay(carousel.rotation, 15f)', 1, 0.5, 0],
  ])('%s is so much, so much later, so much more', (text, ratio, lag, offset) => {
    const pin = pinOf(linked(text))
    expect(pin.ratio).toBeCloseTo(ratio, 12)
    expect(pin.lag).toBeCloseTo(lag, 12)
    expect(pin.offset).toBeCloseTo(offset, 9)
  })

  it.each([
    ['sin(carousel.rotation) * 10deg', null],
    ['carousel.rotation * carousel.rotation / 1turn', null],
    ['let a = carousel.rotation; a * 2', null],
    ['carousel.rotation / 0', null],
  ])('%s has no ratio', (text, ratio) => expect(pinOf(linked(text)).ratio).toBe(ratio))

  it('beside other terms keeps them when its ratio changes', () => {
    const f = linked('noise(freq: 1Hz, amp: 5deg) - carousel.rotation * 0.5')
    const pin = pinOf(f)
    expect(pin).toMatchObject({ ratio: -0.5, offset: null })
    expect(pinText(f.program, pin, { ratio: 2 })).toBe('noise(freq: 1Hz, amp: 5deg) - carousel.rotation * -2')
    expect(pinText(f.program, pin, { lag: 0.25 })).toBe(
      'noise(freq: 1Hz, amp: 5deg) - delay(carousel.rotation, 0.25s) * 0.5',
    )
  })

  it('says its ratio, whether it comes later, and whether it works both ways', () => {
    expect(pinSays(pinOf(linked('carousel.rotation * -0.3')))).toBe('× −0.3')
    expect(pinSays(pinOf(linked('delay(carousel.rotation, 1s)')))).toBe('× 1, later')
    expect(pinSays({ ...pinOf(linked('carousel.rotation')), tie: 't1' })).toBe('× 1 ⇄')
  })
})

describe('cutting', () => {
  it.each([
    ['noise(freq: 1Hz, amp: 5deg) - carousel.rotation * 0.5', 'noise(freq: 1Hz, amp: 5deg)'],
    ['carousel.rotation + sine(every: 2s, amp: 4deg)', 'sine(every: 2s, amp: 4deg)'],
    ['carousel.rotation - sine(every: 2s, amp: 4deg)', '-sine(every: 2s, amp: 4deg)'],
    ['time * 1deg/s + (carousel.rotation + 2deg)', 'time * 1deg/s + 2deg'],
  ])('%s leaves %s', (text, left) => {
    const f = linked(text)
    expect(textWithoutPin(f.program, pinOf(f))).toBe(left)
    expect(apply(f.piece, cutLink(f.program, pinOf(f))).drives[flag(f)]!.text).toBe(left)
  })
  it('takes a formula that is nothing else away', () => {
    const f = linked('carousel.rotation * 2 + 10deg')
    expect(apply(f.piece, cutLink(f.program, pinOf(f))).drives[flag(f)]).toBeUndefined()
  })
})

describe('linking', () => {
  it('stands on top of a formula that is there, in its unit where kinds differ', () => {
    const f = linked('sine(every: 2s, amp: 4deg)')
    expect(textAfter(f, link(f.program, f.key, flag(f)), flag(f))).toBe(
      'sine(every: 2s, amp: 4deg) + Carousel.rotation',
    )
    const part = drivenPart(f.key)
    expect(textAfter(f, link(f.program, flag(f), `${part}.x`), `${part}.x`)).toBe('Flag[0].rotation / 1deg * 1px')
  })
  it('a formula that binds loosest is set in brackets', () => {
    const f = linked('if time < 1s then 2deg else 3deg')
    expect(textAfter(f, link(f.program, f.key, flag(f)), flag(f))).toBe(
      '(if time < 1s then 2deg else 3deg) + Carousel.rotation',
    )
  })
  it('a circle is said with its path, whatever its length', () => {
    const f = linked('carousel.rotation * 2')
    const made = link(f.program, flag(f), f.key)
    expect(made).toEqual({
      says: 'That would make a circle: Flag rotation follows Carousel rotation. Remove one of these links first.',
    })
    expect(link(f.program, f.key, f.key)).toEqual({ says: 'A property can’t drive itself.' })
  })
  it('of copies the first is followed by what stands outside', () => {
    const f = fair('0deg', { with: { 'Mount.y': 'index * 1px' } })
    const mount = Object.keys(f.piece.drives).find(k => f.piece.drives[k]!.text === 'index * 1px')!
    const part = drivenPart(f.key)
    expect(textAfter(f, link(f.program, mount, `${part}.y`), `${part}.y`)).toBe('Mount[0].y')
  })
})

describe('round and both ways', () => {
  const free = () => fair('idler.rotationX * 4 + 20deg')
  it('turned round, the other follows in the inverse ratio', () => {
    const f = free()
    const pin = pinsOf(f.program).find(p => p.driven === f.key)!
    const after = apply(f.piece, op(reverseLink(f.program, pin)))
    expect(after.drives[f.key]).toBeUndefined()
    expect(after.drives[pin.driver]!.text).toBe('Carousel.rotation * 0.25 - 5deg')
  })
  it('is refused where the driver moves by itself, or comes later', () => {
    const f = linked('carousel.rotation')
    expect(reverseLink(f.program, pinOf(f))).toHaveProperty('says')
    const late = linked('delay(carousel.rotation, 1s)')
    expect(bothWays(late.program, pinOf(late))).toHaveProperty('says')
  })
  it('both ways and one way again say the same all along', () => {
    const f = linked('carousel.rotation * -0.5 + 20deg')
    const value = (piece: typeof f.piece, t: number) => {
      const program = new Program(piece)
      return program.queue.settle(() => program.slots.get(flag(f))!.readers[0]!.at(at(t)))
    }
    const before = value(f.piece, 3)
    const tied = apply(f.piece, op(bothWays(f.program, pinOf(f))))
    expect(Object.values(tied.ties)).toHaveLength(1)
    expect(value(tied, 3)).toBeCloseTo(before, 12)
    const program = new Program(tied)
    const pin = pinsOf(program).find(p => p.tie !== null)!
    const again = apply(tied, op(bothWays(program, pin)))
    expect(again.ties).toEqual({})
    expect(value(again, 3)).toBeCloseTo(before, 12)
  })
})

describe('a chain', () => {
  it('falls by its share and comes later by its lag, part by part', () => {
    const f = linked('0deg')
    const ids = ['Carousel', 'Flag', 'Idler'].map(n =>
      Object.keys(f.piece.parts).find(p => f.piece.parts[p]!.name === n)!,
    )
    const piece = apply(f.piece, linkChain(f.program, 'rotation', ids, 0.5, 0.25))
    const program = new Program(piece)
    const value = (id: string, t: number) =>
      program.queue.settle(() => program.slots.get(`${id}.rotation`)!.readers[0]!.at(at(t)))
    expect(value(ids[2]!, 4)).toBeCloseTo(value(ids[0]!, 3.5) / 4, 9)
    expect(Object.values(piece.dials).map(d => [d.name, d.unit, d.value])).toContainEqual(['share', '%', 50])
  })
})
