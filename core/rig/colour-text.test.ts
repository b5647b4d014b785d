import { describe, expect, it } from 'vitest'
import { rgbOf } from './colour.ts'
import { hexOf, oklchOf } from './colour-text.ts'

describe('colours as text', () => {
  it('are read as the web writes them', () => {
    for (const text of ['#1b7286', '1b7286', 'rgb(27 114 134)', ' #1B7286 '])
      expect(hexOf(oklchOf(text)!)).toBe('#1b7286')
    expect(hexOf(oklchOf('teal')!)).toBe('#008080')
    expect(oklchOf('oklch(70% 0.12 80)')).toEqual({ lightness: 70, chroma: 0.12, hue: 80 })
  })
  it('a grey has no hue of its own, white and black neither', () => {
    expect(oklchOf('#777')!.chroma).toBeLessThan(1e-3)
    expect(oklchOf('black')).toEqual({ lightness: 0, chroma: 0, hue: 0 })
    expect(oklchOf('white')!.lightness).toBeCloseTo(100, 2)
  })
  it('what is no colour is none', () => {
    for (const text of ['', 'tealish', '#12', 'url(x)', '12px', '#1b72863']) expect(oklchOf(text)).toBeNull()
  })
  it('shown on the stage it is what was typed, to a step of a screen', () => {
    for (const hex of ['#c98f2c', '#16323a', '#f0805f', '#ffffff', '#000000', '#00ff00']) {
      const { lightness, chroma, hue } = oklchOf(hex)!
      const { r, g, b } = rgbOf(lightness / 100, chroma, hue / 360)
      const drawn = [r, g, b].map(x => Math.round(x * 255))
      const asked = [1, 3, 5].map(k => Number.parseInt(hex.slice(k, k + 2), 16))
      drawn.forEach((x, k) => expect(Math.abs(x - asked[k]!)).toBeLessThanOrEqual(1))
    }
  })
})
