/** A sample of the trials from the design page in every run; `npm run exactness` makes them all. */
import { describe, expect, it } from 'vitest'
import { tryClaims } from './claims.ts'
import { num, valueOf } from './evaluate.ts'
import { tryFixes } from './fixes.ts'
import { decimal, floorOf, ofDouble, over, plus, q, toDouble } from './fraction.ts'
import { KINDS } from './made.ts'
import { tryKind } from './values.ts'

describe('the evaluator of the trials', () => {
  it('reckons in fractions', () => {
    expect(toDouble(plus(q(1, 3), q(1, 6)))).toBe(0.5)
    expect(over(q(1), q(-3))).toEqual(q(-1, 3))
    expect([floorOf(q(-7, 2)), floorOf(q(7, 2))]).toEqual([-4n, 3n])
    expect([decimal('1.25e-1'), decimal('.5'), ofDouble(0.375)]).toEqual([q(1, 8), q(1, 2), q(3, 8)])
  })
  it.each([
    ['time * 45deg/s', 2, 90],
    ['-2 ^ 2 * 1deg', 0, -4],
    ['2 ^ 3 ^ 2 * 1deg', 0, 512],
    ['sine(every: 2s, amp: 20deg)', 0.5, 20],
    ['let a = 2deg; a * 3', 0, 6],
    ['mod(floor(time / 1s), 3) * 1deg', 8, 2],
    ['if time < 3s then 1deg else 2deg', 3, 2],
    ['accumulate(abs(sine(every: 2s)) * 90deg/s)', 2, (180 * 2) / Math.PI],
    ['3/lap * 1s * 8deg', 0, 3],
  ])('%s at %d s is %d degrees', (text, t, degrees) =>
    expect(num(valueOf(text, ofDouble(t))) * 360).toBeCloseTo(degrees, 9),
  )
})

describe('values', () => {
  it.each(KINDS.map(k => [k.name, k] as const))('%s', (_, kind) => {
    const { wrong, refused, values, examples } = tryKind(kind, kind.far ? 6 : 3, 4242)
    expect(examples, examples.join('\n')).toEqual([])
    expect([wrong, refused]).toEqual([0, 0])
    expect(values).toBeGreaterThan(80)
  })
})

describe('claims', () => {
  it.each(KINDS.filter(k => k.far).map(k => k.name))('%s', name => {
    const [tally] = tryClaims(5, 77, name)
    expect(tally!.wrong, tally!.examples.join('\n')).toBe(0)
    expect(tally!.claims).toBeGreaterThan(5)
  })
})

describe('the first fix runs and means what was meant', () => {
  it.each(tryFixes().map(t => [t.wrong[1], t] as const))('%s', (_, trial) => expect(trial.fault).toBeNull())
})
