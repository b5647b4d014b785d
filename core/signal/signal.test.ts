import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { EASING_NAMES, FAMILIES, easingNamed, takesStrength } from './easing.ts'
import { hashSigned, hashUnit, seedOf } from './hash.ts'
import { fade, latticeNoise, noiseReach, octaveNoise, octavesOf, octavesReady } from './noise.ts'
import { cosineOfTurns, sineOfPart, sineOfTurns } from './sine.ts'

describe('the sine of turns', () => {
  it('is exact at twelfths and quarters', () => {
    expect([0, 1 / 12, 0.25, 5 / 12, 0.5, 7 / 12, 0.75, 11 / 12].map(sineOfPart)).toEqual(
      [0, 0.5, 1, 0.5, 0, -0.5, -1, -0.5].map(v => expect.closeTo(v, 15)),
    )
    expect([sineOfPart(0), sineOfPart(0.25), sineOfPart(0.5), sineOfPart(0.75)]).toEqual([0, 1, 0, -1])
    expect(cosineOfTurns(1)).toBe(1)
  })
  it('is right to 1e-15 everywhere and never beyond 1', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 0.9999999999, noNaN: true }), x => {
        const y = sineOfPart(x)
        expect(Math.abs(y - Math.sin(2 * Math.PI * x))).toBeLessThan(1.5e-15)
        expect(Math.abs(y)).toBeLessThanOrEqual(1)
      }),
      { numRuns: 5000 },
    )
  })
  it('turns with its turns, backwards too', () => {
    expect(sineOfTurns(-0.25)).toBe(-1)
    expect(sineOfTurns(1000000.25)).toBe(1)
  })
})

describe('hashes', () => {
  it('lie in their range and differ with every bit of the cell', () => {
    fc.assert(
      fc.property(fc.maxSafeInteger(), fc.integer(), (cell, seed) => {
        const u = hashUnit(cell, seed)
        expect(u).toBeGreaterThanOrEqual(0)
        expect(u).toBeLessThan(1)
        expect(hashUnit(cell, seed)).toBe(u)
      }),
    )
    // Cells a 32-bit word apart are not the same: noise has no period.
    expect(hashUnit(5, 1)).not.toBe(hashUnit(5 + 2 ** 32, 1))
    expect(seedOf('a', 1)).not.toBe(seedOf('a', 2))
    expect(seedOf('ab')).not.toBe(seedOf('a', 'b'))
  })
  it('are spread evenly', () => {
    const n = 20000
    const bins = new Array<number>(20).fill(0)
    let sum = 0
    let product = 0
    for (let k = 0; k < n; k++) {
      const a = hashSigned(k, 7)
      bins[Math.floor((a + 1) * 10)]!++
      sum += a
      product += a * hashSigned(k + 1, 7)
    }
    expect(Math.abs(sum / n)).toBeLessThan(0.02)
    expect(Math.abs(product / n)).toBeLessThan(0.02)
    for (const count of bins) expect(Math.abs(count - n / 20)).toBeLessThan(200)
  })
})

describe('noise', () => {
  it('is 0 at whole cells, smooth between, and within its bounds', () => {
    for (let cell = -20; cell < 20; cell++) expect(latticeNoise(cell, 0, 3, 0)).toBeCloseTo(0, 15)
    expect([fade(0), fade(0.5), fade(1)]).toEqual([0, 0.5, 1])
    const octaves = octavesOf(11, 4, 0.6)
    expect(octaves.reduce((s, o) => s + o.share, 0)).toBeCloseTo(1, 12)
    let before = octaveNoise(octaves, 0, 0, 0)
    for (let k = 1; k < 20000; k++) {
      const v = octaveNoise(octaves, Math.floor(k / 500), (k % 500) / 500, 0)
      expect(Math.abs(v)).toBeLessThanOrEqual(1)
      expect(Math.abs(v - before)).toBeLessThan(0.08)
      before = v
    }
  })
  it('comes round when it wraps', () => {
    const octaves = octavesOf(5, 3, 0.5)
    for (let k = 0; k < 40; k++) expect(octaveNoise(octaves, k, 0.3, 8)).toBe(octaveNoise(octaves, k + 8, 0.3, 8))
  })
  it('made ready is the same list for the same numbers, and another for any other', () => {
    const one = octavesReady(7, 3, 0.5, 16)
    expect(octavesReady(7, 3, 0.5, 16)).toBe(one)
    for (const other of [
      octavesReady(8, 3, 0.5, 16),
      octavesReady(7, 4, 0.5, 16),
      octavesReady(7, 3, 0.6, 16),
      octavesReady(7, 3, 0.5, 17),
    ])
      expect(other).not.toBe(one)
    // Where it does not come round it is as it is made.
    expect(octavesReady(7, 3, 0.5, 0)).toEqual(octavesOf(7, 3, 0.5))
    expect(noiseReach(one, 16)).toBe(noiseReach(one, 16))
  })
  it('that comes round after few cells reaches half way at least, and no further than is said', () => {
    for (let seed = 0; seed < 60; seed++)
      for (const wrap of [1, 2, 5, 16]) {
        const octaves = octavesReady(seed, 1 + (seed % 3), 0.5, wrap)
        const { low, high } = noiseReach(octaves, wrap)
        let [least, most] = [Infinity, -Infinity]
        for (let cell = 0; cell < wrap; cell++)
          for (let k = 0; k < 100; k++) {
            const v = octaveNoise(octaves, cell, k / 100, wrap)
            least = Math.min(least, v)
            most = Math.max(most, v)
          }
        expect([seed, wrap, least >= low, most <= high]).toEqual([seed, wrap, true, true])
        // One cell with one slope has no shape that could be raised.
        if (wrap > 1) expect(Math.max(-least, most)).toBeGreaterThan(0.45)
      }
  })
  it('differs between seeds and does not cross 0 everywhere at once', () => {
    const values = [1, 2, 3, 4, 5].map(s => octaveNoise(octavesOf(s, 1, 0.5), 9, 0, 0))
    expect(new Set(values).size).toBe(5)
    expect(values.some(v => Math.abs(v) > 0.05)).toBe(true)
  })
})

describe('easings', () => {
  it.each(EASING_NAMES)('%s goes from 0 to 1 within what it promises', name => {
    for (const strength of takesStrength(name) ? [undefined, 0.5, 2.5] : [undefined]) {
      const { ease, low, high } = easingNamed(name, strength)!
      expect(ease(0)).toBeCloseTo(0, 2)
      expect(ease(1)).toBeCloseTo(1, 2)
      for (let k = 0; k <= 1000; k++) {
        const y = ease(k / 1000)
        expect(y).toBeGreaterThanOrEqual(low - 1e-9)
        expect(y).toBeLessThanOrEqual(high + 1e-9)
      }
    }
  })
  it('Out is In turned about, InOut is both halves', () => {
    for (const { name } of FAMILIES) {
      const [i, o, b] = ['In', 'Out', 'InOut'].map(end => easingNamed(name + end)!.ease) as [
        (x: number) => number,
        (x: number) => number,
        (x: number) => number,
      ]
      for (const x of [0.1, 0.37, 0.5, 0.81]) {
        expect(o(x)).toBeCloseTo(1 - i(1 - x), 12)
        expect(b(x)).toBeCloseTo(x < 0.5 ? i(2 * x) / 2 : 1 - i(2 - 2 * x) / 2, 12)
      }
    }
  })
  it('are found whatever their capitals', () => {
    expect(easingNamed('CUBICINOUT')!.ease(0.25)).toBe(0.0625)
    expect(easingNamed('wobble')).toBeUndefined()
  })
})
