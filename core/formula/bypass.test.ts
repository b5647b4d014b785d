import { describe, expect, it } from 'vitest'
import { bypassAt, bypassTerms } from './bypass.ts'
import { onOneLine } from './layout.ts'
import { parse } from './parse.ts'

const SUM = 'base + sine(1Hz, 4px) - noise(2Hz, 3px) * 2'

describe('a bypassed term', () => {
  it.each([
    [SUM, 0, '// base +\nsine(1Hz, 4px) - noise(2Hz, 3px) * 2'],
    [SUM, 8, 'base\n// + sine(1Hz, 4px)\n- noise(2Hz, 3px) * 2'],
    [SUM, 30, 'base + sine(1Hz, 4px)\n// - noise(2Hz, 3px) * 2'],
    ['a - b', 0, '// a\n- b'],
    ['2 * sine(1Hz) * dusk', 4, '2\n// * sine(1Hz)\n* dusk'],
    ['2 * sine(1Hz)', 0, '// 2 *\nsine(1Hz)'],
    ['(a + b) * c', 1, '// (a + b) *\nc'],
    ['a + (b - c) + d', 6, 'a\n// + (b - c)\n+ d'],
    ['let k = 2; k + 3 on slow', 15, 'let k = 2; k\n// + 3\non slow'],
    ['a + b // note\n+ c', 4, 'a\n// + b\n// note\n+ c'],
  ])('%s at %d', (text, place, wanted) => {
    expect(bypassAt(text, place)).toBe(wanted)
    // It runs without it, says that it is off, and the next press brings it back.
    const off = bypassTerms(wanted).find(t => t.off)!
    expect(off).toBeDefined()
    const back = bypassAt(wanted, off.from)!
    expect(parse(back).problems).toEqual([])
    expect(bypassTerms(back).some(t => t.off)).toBe(false)
    expect(back.replace(/\s+/g, '')).toBe(text.replace(/\s+/g, ''))
  })
  it('one that is alone, or divides, cannot be left out; a note is no term', () => {
    for (const text of ['sine(1Hz)', 'if a > 2 then 1 else 2']) expect(bypassAt(text, 0)).toBeNull()
    expect(bypassTerms('a / b').map(t => t.pressed)).toEqual([null])
    expect(bypassTerms('a + b // slow, as asked').filter(t => t.off)).toEqual([])
    expect(bypassTerms('`odd // name` + b').map(t => t.off)).toEqual([false, false])
    expect(bypassTerms('a +')).toEqual([])
  })
  it('two of three, in any order, and all come back', () => {
    let text = 'a + b - c'
    text = bypassAt(text, 0)!
    text = bypassAt(text, text.indexOf('b'))!
    expect(bypassTerms(text).map(t => t.off)).toEqual([true, true, false])
    expect(bypassTerms(text)[2]!.pressed).toBeNull()
    text = bypassAt(text, text.indexOf('b'))!
    text = bypassAt(text, text.indexOf('a'))!
    expect(text).toBe('a + b - c')
  })
  it('on one line a note keeps its end', () => {
    expect(onOneLine('a\n// + b\n+ c')).toBe('a // + b\n+ c')
    expect(onOneLine('a\n  + c')).toBe('a + c')
  })
})
