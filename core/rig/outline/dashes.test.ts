import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { dashed } from './dashes.ts'
import type { Outline } from './outline.ts'

const line = (...points: number[]): Outline => ({ points: new Float64Array(points), closed: false })
const square: Outline = { points: new Float64Array([0, 0, 10, 0, 10, 10, 0, 10]), closed: true }
const points = (all: Outline[]) => all.map(o => [...o.points].map(v => Number(v.toFixed(9))))

function lengthOf({ points: p }: Outline): number {
  let sum = 0
  for (let k = 2; k < p.length; k += 2) sum += Math.hypot(p[k]! - p[k - 2]!, p[k + 1]! - p[k - 1]!)
  return sum
}

describe('dashes', () => {
  it('lie along a line, the last cut off where it ends', () => {
    expect(points(dashed(line(0, 0, 25, 0), { dash: 10, gap: 5, offset: 0 }))).toEqual([
      [0, 0, 10, 0],
      [15, 0, 25, 0],
    ])
    expect(points(dashed(line(0, 0, 20, 0), { dash: 10, gap: 5, offset: 0 }))[1]).toEqual([15, 0, 20, 0])
  })
  it('begin so far into them, to either side', () => {
    expect(points(dashed(line(0, 0, 20, 0), { dash: 10, gap: 5, offset: 4 }))).toEqual([
      [0, 0, 6, 0],
      [11, 0, 20, 0],
    ])
    const back = dashed(line(0, 0, 20, 0), { dash: 10, gap: 5, offset: -3 })
    expect(points(back)).toEqual([
      [3, 0, 13, 0],
      [18, 0, 20, 0],
    ])
    expect(points(dashed(line(0, 0, 20, 0), { dash: 10, gap: 5, offset: 4 + 15 * 7 }))).toEqual(
      points(dashed(line(0, 0, 20, 0), { dash: 10, gap: 5, offset: 4 })),
    )
  })
  it('bend with it, and go all the way round what is closed', () => {
    expect(points(dashed(square, { dash: 15, gap: 5, offset: 0 }))).toEqual([
      [0, 0, 10, 0, 10, 5],
      [10, 10, 0, 10, 0, 5],
    ])
  })
  it('without a dash or a gap it is the line itself', () => {
    for (const d of [
      { dash: 0, gap: 5, offset: 0 },
      { dash: 5, gap: 0, offset: 0 },
      { dash: 5, gap: 5, offset: NaN },
    ])
      expect(dashed(square, d)).toEqual([square])
  })
  it('cover as much of any line as they should, and are never too many', () => {
    const n = fc.double({ min: -100, max: 100, noNaN: true })
    const long = fc.double({ min: 1, max: 30, noNaN: true })
    fc.assert(
      fc.property(fc.array(fc.tuple(n, n), { minLength: 2, maxLength: 12 }), long, long, n, (p, dash, gap, offset) => {
        const o = line(...p.flat())
        const all = dashed(o, { dash, gap, offset })
        const total = lengthOf(o)
        const covered = all.reduce((sum, d) => sum + lengthOf(d), 0)
        // Counted on its own: how much of [0, total] falls on a dash.
        const upTo = (s: number) =>
          Math.floor(s / (dash + gap)) * dash + Math.min(dash, s - Math.floor(s / (dash + gap)) * (dash + gap))
        expect(covered).toBeCloseTo(upTo(total + offset) - upTo(offset), 5)
      }),
    )
    expect(dashed(line(0, 0, 1e6, 0), { dash: 0.1, gap: 0.1, offset: 0 }).length).toBeLessThanOrEqual(1501)
  })
})
