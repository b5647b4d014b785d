import { describe, expect, it } from 'vitest'
import { propertyNamed } from '../piece/properties.ts'
import { fair, type Place } from '../testing/fair.ts'
import type { Promised } from '../piece/schema.ts'
import { setPromises } from '../acts/drives.ts'
import { readPiece } from '../piece/migrate.ts'
import { apply } from '../piece/operation.ts'
import { momentOfSeconds } from '../time/moment.ts'
import { rational } from '../time/rational.ts'
import { promiseState, promiseStateText, promiseText } from './promises.ts'

const [above, below] = [
  (than: number, of: Promised['of'] = 'value'): Promised => ({ of, side: 'above', than }),
  (than: number, of: Promised['of'] = 'value'): Promised => ({ of, side: 'below', than }),
]
const said = (text: string, p: Promised, place: Place = { property: 'x' }) => {
  const f = fair(text, place)
  expect(f.slot.problems.filter(q => q.level === 'error')).toEqual([])
  const property = propertyNamed(place.property ?? 'rotation')!
  return `${promiseText(p, property)}: ${promiseStateText(promiseState(f.program, f.slot, p), p, property)}`
}

describe('a promise', () => {
  it.each([
    ['sine(every: 2s, amp: 24px)', above(-24), 'stays above -24px: holds for all time: never below −24px'],
    ['sine(every: 2s, amp: 24px)', above(-20), 'stays above -20px: broken at 1.33 s: −20.78px'],
    ['40px + noise(0.5Hz, 20px)', below(60), 'stays below 60px: holds for all time: never above 60px'],
    ['time * 45px/s', below(100), 'stays below 100px: broken at 2.23 s: 100.5px'],
    // Of its speed.
    ['time * 45px/s', above(40, 'speed'), 'stays above 40px/s: holds for all time: never below 45px/s'],
    [
      'time * 45px/s + sine(every: 2s, amp: 10px)',
      above(13, 'speed'),
      'stays above 13px/s: holds for all time: never below 13.58px/s',
    ],
    [
      'accumulate(40px/s + sine(every: 2s, amp: 30px/s))',
      above(15, 'speed'),
      'stays above 15px/s: broken at 1.33 s: 14.01px/s',
    ],
    [
      '40px * sine(every: 2s) * sine(every: 3s)',
      below(300, 'speed'),
      'stays below 300px/s: holds for all time: never above 209.4px/s',
    ],
  ] as const)('%s', (text, p, says) => {
    expect(said(text, p)).toBe(says)
  })

  it('that gusty noise stays above 15px/s is proved by its bound', () => {
    const gusts = 'accumulate(40px/s + noise(freq: 0.5Hz, amp: 25px/s, octaves: 4))'
    expect(said(gusts, above(15, 'speed'))).toMatch(/^stays above 15px\/s: holds for all time: never below 1[5-9]/)
    // And with more of it, it is not.
    expect(said(gusts.replace('25px/s', '60px/s'), above(15, 'speed'))).toMatch(/broken at/)
  })
  it('is not taken for kept where only no moment was found', () => {
    expect(said('tan(time * 1turn / 3.21s) * 1px + noise(1Hz, 1px)', above(-1e9))).toMatch(
      /not proven: nothing below .* was seen, but it has no bound/,
    )
  })
  it('holds for every copy', () => {
    const apart = 'sine(every: 2s, amp: if index == 7 then 30px else 20px)'
    expect(said(apart, below(25), { on: 'Mount', property: 'y' })).toMatch(/broken at 0.3\d s: 2[5-9]/)
  })
  it('is kept in the piece, and undone', () => {
    const f = fair('time * 45deg/s')
    const next = apply(f.piece, setPromises(f.piece, f.key, [above(15, 'speed')]))
    expect(readPiece(JSON.parse(JSON.stringify(next))).piece!.drives[f.key]!.promises).toEqual([above(15, 'speed')])
  })
})

describe('the speed of', () => {
  const slope = (text: string) => fair(text, { property: 'x' }).slot.readers[0]!.facts().slope
  it.each([
    'sine(every: 2s, amp: 24px)',
    'triangle(every: 2s, low: 3px, high: 90px, phase: sine(every: 3s) * 40deg)',
    'noise(freq: 2Hz, amp: 24px, octaves: 3)',
    'noise(freq: 2Hz + 1Hz * sine(every: 2s), amp: 24px)',
    'sine(every: 2s, amp: 9px + sine(every: 5s, amp: 4px), offset: time * 3px/s)',
    'accumulate(40px/s + noise(0.5Hz, 25px/s)) - 2 * delay(sine(every: 3s, amp: 9px), 0.3s)',
    'clamp(sine(every: 2s, amp: 24px), -10px, 10px) + abs(sine(every: 2.5s, amp: 4px))',
    'max(time * 3px/s, sine(every: 1s, amp: 20px)) / 4',
    'sine(every: 2s) * sine(every: 3s, amp: 20px)',
    'accumulate(40px/s + sine(every: 2s, amp: 30px/s)) on slow',
  ])('%s never leaves its bounds, and comes near them', text => {
    const { low, high } = slope(text)
    const f = fair(text, { property: 'x' })
    const h = rational(1, 65536)
    let [least, most] = [Infinity, -Infinity]
    for (let k = 0; k < 6000; k++) {
      const t = rational(k * 97, 3000)
      const v =
        (f.slot.readers[0]!.at(momentOfSeconds({ n: t.n * h.d + h.n * t.d, d: t.d * h.d }, rational(30))) -
          f.slot.readers[0]!.at(momentOfSeconds(t, rational(30)))) *
        65536
      least = Math.min(least, v)
      most = Math.max(most, v)
    }
    expect(least).toBeGreaterThanOrEqual(low - 1e-5)
    expect(most).toBeLessThanOrEqual(high + 1e-5)
    expect(high - low).toBeLessThan(3.5 * (most - least))
  })
})
