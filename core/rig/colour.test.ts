import { convertOklabToRgb } from 'culori/fn'
import { expect, it } from 'vitest'
import { random } from '../../tests/random.ts'
import { rgbOf } from './colour.ts'

it('colours are what a library of colours makes of them, held within what a screen can show', () => {
  const r = random(11)
  const share = (most: number) => (r(1_000_001) / 1_000_000) * most
  for (let k = 0; k < 20_000; k++) {
    const [l, c, h] = [share(1.2) - 0.1, share(0.5), share(3) - 1]
    const turn = 2 * Math.PI * h
    const is = rgbOf(l, c, h)
    const other = convertOklabToRgb({ l, a: c * Math.cos(turn), b: c * Math.sin(turn) })
    for (const of of ['r', 'g', 'b'] as const) {
      const meant = Math.min(1, Math.max(0, other[of]))
      expect(Math.abs(is[of] - meant), `${of} of ${l} ${c} ${h}`).toBeLessThan(1e-12)
    }
  }
  expect(rgbOf(NaN, 0, 0)).toEqual({ r: 0, g: 0, b: 0 })
  expect(rgbOf(1, 0, 0).g).toBeCloseTo(1, 6)
})
