import { describe, expect, it } from 'vitest'
import { propertyLabel } from './property-labels.ts'
import { PROPERTIES, propertiesOf } from './properties.ts'

describe('labels of properties', () => {
  it('tell the properties of any shape apart, alone and under their headings', () => {
    for (const shape of ['rectangle', 'ring', 'gear', 'text', 'trace', 'emitter', 'waves', 'path', 'group'] as const) {
      const all = propertiesOf(shape)
      const whole = all.map(p => propertyLabel(p.name, true))
      expect(new Set(whole).size, `${shape}: ${whole.join(', ')}`).toBe(all.length)
      const headed = all.map(p => `${p.group} ${propertyLabel(p.name)}`)
      expect(new Set(headed).size, shape).toBe(all.length)
    }
  })
  it('are words, not names of formulas', () => {
    for (const p of PROPERTIES) expect(propertyLabel(p.name, true)).toMatch(/^[a-z ]+$/)
    expect(propertyLabel('thickness')).toBe('extrusion')
    expect(propertyLabel('fillHue')).toBe('hue')
    expect(propertyLabel('fillHue', true)).toBe('fill hue')
    expect(propertyLabel('gradient', true)).toBe('gradient amount')
  })
})
