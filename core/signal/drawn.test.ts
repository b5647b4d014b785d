import { describe, expect, it } from 'vitest'
import { WAYS, beyond, drawnCurve, type DrawnPoint } from './drawn.ts'

const points = (...list: (readonly [number, number, string?])[]): DrawnPoint[] =>
  list.map(([time, value, shape = 'smooth']) => ({ time, value, shape }))
/** The slopes just before and just after a time. */
const sides = (at: (t: number) => number, t: number, h = 1e-5): [number, number] => [
  (at(t) - at(t - h)) / h,
  (at(t + h) - at(t)) / h,
]

describe('the ways between two points', () => {
  it('are the three by name and every easing, each through both its points and within what is said', () => {
    expect(WAYS.slice(0, 4)).toEqual(['smooth', 'straight', 'stepped', 'quadIn'])
    for (const way of WAYS) {
      const d = drawnCurve(points([1, 40, way], [3, -20], [4, 0]))
      expect([d.at(1), d.at(3)], way).toEqual([40, -20])
      for (let t = 1; t <= 3; t += 0.01) {
        expect(d.at(t), way).toBeGreaterThanOrEqual(d.low - 1e-9)
        expect(d.at(t), way).toBeLessThanOrEqual(d.high + 1e-9)
      }
    }
  })
  it('go beyond their points where their easing does, and bend where it does', () => {
    const back = drawnCurve(points([0, 0, 'backIn'], [2, 100]))
    expect(back.low).toBeCloseTo(-10, 0)
    expect(Math.min(...Array.from({ length: 200 }, (_, k) => back.at(k / 100)))).toBeCloseTo(back.low, 1)
    expect(drawnCurve(points([0, 0, 'bounceOut'], [2, 100])).bends.length).toBeGreaterThan(4)
    expect(drawnCurve(points([0, 0], [2, 100])).bends).toEqual([0, 2])
  })
  it('a name that is no way is refused by the document, and a stepped piece alone leaps', () => {
    expect(WAYS).not.toContain('linear')
    expect(drawnCurve(points([0, 0, 'stepped'], [1, 5], [2, 5])).leaps).toEqual([1])
    expect(drawnCurve(points([0, 0, 'elasticOut'], [1, 5])).leaps).toEqual([])
  })
})

describe('a smooth curve that comes round', () => {
  const round = drawnCurve(points([0, 0], [1, 10], [3, -4], [4, 0]))
  it('has no kink where its end joins its beginning', () => {
    const at = (t: number) => beyond(round, 'repeat', Math.floor(t / 4), t / 4 - Math.floor(t / 4))
    for (const t of [4, 8, -4]) {
      const [before, after] = sides(at, t)
      expect(after).toBeCloseTo(before, 2)
      expect(Math.abs(after)).toBeGreaterThan(1)
    }
    // Alone it runs straight out of its ends.
    expect(round.at(0.2)).not.toBeCloseTo(at(0.2), 2)
    expect([at(0), at(1), at(3)]).toEqual([0, 10, -4])
  })
  it('that carries on goes on as steep as it came, and mirrored it turns round level', () => {
    const stairs = drawnCurve(points([0, 0], [1, 2], [2, 3]))
    const carried = (t: number) => beyond(stairs, 'carry', Math.floor(t / 2), t / 2 - Math.floor(t / 2))
    const [before, after] = sides(carried, 2)
    expect(after).toBeCloseTo(before, 2)
    expect(carried(4)).toBeCloseTo(6, 9)
    const mirrored = (t: number) => beyond(stairs, 'mirror', Math.floor(t / 2), t / 2 - Math.floor(t / 2))
    for (const t of [2, 4]) for (const slope of sides(mirrored, t)) expect(slope).toBeCloseTo(0, 2)
  })
  it('whose ends differ leaps, and is left as it is', () => {
    const torn = drawnCurve(points([0, 0], [1, 10], [2, 7]))
    expect(torn.round('repeat')(0.5)).toBe(torn.at(0.5))
  })
  it('of a channel that is shorter than its curve stands still at the seam', () => {
    const short = drawnCurve(points([1, 0], [2, 10], [3, 0]), [0, 4])
    const at = (t: number) => beyond(short, 'repeat', Math.floor(t / 4), t / 4 - Math.floor(t / 4))
    for (const t of [1, 3]) {
      const [before, after] = sides(at, t)
      expect(after).toBeCloseTo(before, 2)
    }
  })
})
