import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { numbersThatDiffer, setHandle, strideOf } from './edit.ts'
import { nearest } from '../units/names.ts'
import { quotedName } from './words.ts'
import { parse } from './parse.ts'
import { change } from './problem.ts'
import { handles } from './tree.ts'

const set = (text: string, nth: number, value: number, decimals = 0) =>
  setHandle(parse(text).formula!, nth, value, decimals)

describe('changing one number', () => {
  it.each([
    ['time * 45deg/s', 0, 60, 'time * 60deg/s'],
    ['sine(every: 2s, amp: 24px)', 1, 30, 'sine(every: 2s, amp: 30px)'],
    ['a + 3px', 0, -4, 'a - 4px'],
    ['a - 3px', 0, -4, 'a + 4px'],
    ['a - 3px', 0, 5, 'a - 5px'],
    ['-3px', 0, -4, '4px'],
    ['f(3px)', 0, -4, 'f(-4px)'],
    ['f(x: -3px)', 0, 4, 'f(x: -4px)'],
    ['a * 3', 0, -2, 'a * -2'],
    ['3/lap', 0, 5, '5/lap'],
    ['a + 3px // 3px', 0, 7, 'a + 7px // 3px'],
  ])('%s [%d] to %d', (text, nth, value, result) => expect(set(text, nth, value)).toBe(result))

  it('keeps every other letter, and the number reads back', () => {
    const text = 'base  +  noise( 2Hz ,6deg )*smoothstep(1s, 4s , time) - 0.250turn'
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 4 }), fc.integer({ min: 0, max: 99999 }), (nth, n) => {
        const { formula } = parse(text)
        const target = handles(formula!)[nth]!
        const next = set(text, nth, n / 100, 2)
        expect(next.slice(0, target.from)).toBe(text.slice(0, target.from))
        expect(next.slice(next.length - (text.length - target.unitFrom))).toBe(text.slice(target.unitFrom))
        const back = handles(parse(next).formula!)[nth]!
        expect(Number(back.value.n) / Number(back.value.d)).toBe(n / 100)
      }),
    )
  })

  it('a step of a drag is the last written place, or a part of a large number', () => {
    const stride = (text: string) => strideOf(text, handles(parse(text).formula!)[0]!)
    expect(['45deg', '0.5Hz', '1.25s', '1500px', '7'].map(stride)).toEqual([1, 0.1, 0.01, 10, 1])
  })
})

describe('two texts', () => {
  const pairs = (a: string, b: string) => numbersThatDiffer(parse(a).formula!, parse(b).formula!)?.length ?? null
  it('that differ in numbers alone', () => {
    expect(pairs('time * 45deg/s', 'TIME * 60deg/s')).toBe(1)
    expect(pairs('sine(2Hz, 3deg)', 'sine(1Hz, 4deg)')).toBe(2)
    expect(pairs('time * 45deg/s', 'time * 45deg/s // note')).toBe(0)
    expect(pairs('time * 45deg/s', 'time * 1turn/s')).toBe(1)
  })
  it('that differ in more', () => {
    expect(pairs('time * 45deg/s', 'frame * 45deg')).toBeNull()
    expect(pairs('sine(freq: 2Hz)', 'sine(every: 2s)')).toBeNull()
    expect(pairs('a + 1', 'a - 1')).toBeNull()
    expect(pairs('carousel.x', 'carousel.y')).toBeNull()
  })
})

describe('names', () => {
  it('nearest first, three at most, none when nothing is near', () => {
    expect(nearest('rotaton', ['rotation', 'rotationX', 'radius', 'opacity'])[0]).toBe('rotation')
    expect(nearest('zzz', ['rotation', 'x'])).toEqual([])
    expect(nearest('a', ['a1', 'a2', 'a3', 'a4'])).toHaveLength(3)
  })
  it('stand in backquotes when they are more than one word', () => {
    expect([quotedName('carousel'), quotedName('Ticket arch'), quotedName('3rd')]).toEqual([
      'carousel',
      '`Ticket arch`',
      '`3rd`',
    ])
  })
  it('changes are made from the back, whatever their order', () => {
    expect(
      change('abcdef', [
        { from: 0, to: 1, insert: 'XX' },
        { from: 4, to: 6, insert: '' },
        { from: 2, to: 2, insert: '-' },
      ]),
    ).toBe('XXb-cd')
  })
})
