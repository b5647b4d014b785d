/** When what is kept between two ends comes back, worked out by hand. */
import { describe, expect, it } from 'vitest'
import { fair } from '../testing/fair.ts'
import { toNumber } from '../time/rational.ts'

/** Seconds after which a formula is where it was. */
function period(text: string): number | null {
  const { every, gain } = fair(text).slot.forms[0]!.facts().repeats
  expect(toNumber(gain)).toBe(0)
  return every && toNumber(every)
}

describe('kept between two ends', () => {
  it.each([
    // The range is 20deg; 10deg a second crosses it in 2 s.
    ['wrap(time * 10deg/s, -10deg, 10deg)', 2],
    ['mirror(time * 10deg/s, -10deg, 10deg)', 4],
    ['mirror(time * -10deg/s, -10deg, 10deg)', 4],
    // On a clock of whole steps of a tenth of a second the growth is no straight line any more.
    ['wrap((time * 10deg/s on stepped), -10deg, 10deg)', 2],
    ['mirror((time * 10deg/s on stepped), -10deg, 10deg)', 4],
    // 10deg a round of 3 s: two rounds a range, four to and fro; with 15deg four rounds are three ranges, eight six.
    ['wrap(ramp(length: 3s, to: 10deg, after: repeat) + time * (10deg / 3s), -10deg, 10deg)', 6],
    ['mirror(round(time / 3s) * 10deg + sine(every: 3s, amp: 1deg), -10deg, 10deg)', 12],
    ['mirror(round(time / 3s) * 15deg + sine(every: 3s, amp: 1deg), -10deg, 10deg)', 24],
    ['mirror(12deg, -10deg, 10deg)', 0],
  ])('%s comes back after %d s', (text, seconds) => {
    expect(period(text)).toBe(seconds)
  })
})
