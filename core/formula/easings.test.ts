import { describe, expect, it } from 'vitest'
import { EASING_NAMES } from '../signal/easing.ts'
import { fair } from '../testing/fair.ts'
import { easingAt, easingsIn, withEasing } from './easings.ts'

describe('the easings of a formula', () => {
  it.each([
    ['ramp(length: 3s, to: 90deg, ease: cubicOut)', ['cubicOut']],
    ['ramp(length: 3s, to: 90deg, ease: BACKout(2))', ['backOut']],
    ['ramp(length: 3s, to: 90deg)', ['linear']],
    ['envelope(attack: 1s, release: 1s, easeIn: sineIn, easeOut: expoOut) * 9deg', ['sineIn', 'expoOut']],
    ['ramp(length: 3s, to: 90deg, ease: rocking)', []],
    ['sine(every: 2s, amp: 9deg)', []],
    ['ramp(length: 3s, to: 9', []],
  ])('%s', (text, names) => {
    expect(easingsIn(text).map(e => e.name)).toEqual(names)
  })
  it('gives way to another where it stands, its strength kept, or is written where there is none', () => {
    const change = (text: string, nth: number, name: string) => withEasing(text, easingsIn(text)[nth]!, name)
    expect(change('ramp(length: 3s, to: 90deg, ease: backOut(2)) + 1deg', 0, 'elasticIn')).toBe(
      'ramp(length: 3s, to: 90deg, ease: elasticIn(2)) + 1deg',
    )
    expect(change('ramp(length: 3s, to: 90deg)', 0, 'bounceOut')).toBe('ramp(length: 3s, to: 90deg, ease: bounceOut)')
    expect(change('ramp(length: 3s, to: 90deg, ease: backOut(2)) + 1deg', 0, 'cubicIn')).toBe(
      'ramp(length: 3s, to: 90deg, ease: cubicIn) + 1deg',
    )
    for (const name of EASING_NAMES)
      expect(fair(change('ramp(length: 3s, to: 90deg, ease: sineIn)', 0, name)).slot.problems, name).toEqual([])
  })
  it('is found at its letters only', () => {
    const text = 'ramp(length: 3s, ease: cubicOut)'
    const at = text.indexOf('cubic')
    expect([at - 1, at, at + 8, at + 9].map(p => easingAt(text, p)?.name ?? null)).toEqual([
      null,
      'cubicOut',
      'cubicOut',
      null,
    ])
  })
})
