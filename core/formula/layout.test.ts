import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anAngle } from '../testing/made-up-formulas.ts'
import { laidOut, onOneLine } from './layout.ts'
import { parse } from './parse.ts'
import { printFormula } from './print.ts'

describe('a formula laid out', () => {
  it('has its terms on lines of their own', () =>
    expect(laidOut('base + sine(every: 2s, amp: 4deg) - noise(1Hz, 3deg)')).toBe(
      'base\n  + sine(every: 2s, amp: 4deg)\n  - noise(1Hz, 3deg)',
    ))
  it('has its lets above, then and else below their if', () =>
    expect(laidOut('let a = 2deg; if time < 3s then a else if time < 4s then 2 * a else 0deg')).toBe(
      'let a = 2deg;\nif time < 3s\n  then a\n  else if time < 4s\n  then 2 * a\n  else 0deg',
    ))
  it('stays what it is, and comes back to one line', () => {
    expect(laidOut('2deg')).toBe('2deg')
    expect(laidOut('sine(')).toBe('sine(')
    expect(onOneLine(laidOut('a.x + b.x - (c.x + 2px)'))).toBe('a.x + b.x - (c.x + 2px)')
  })
  it('is the same formula, whatever it is', () =>
    fc.assert(
      fc.property(anAngle, text => {
        const [one, laid] = [parse(text).formula!, parse(laidOut(text)).formula]
        expect(laid && printFormula(laid)).toBe(printFormula(one))
      }),
      { numRuns: 300 },
    ))
})
