import { describe, expect, it } from 'vitest'
import { fair } from '../testing/fair.ts'
import { FUNCTIONS } from '../functions/index.ts'
import { offersAt } from './offers.ts'
import { propertyNamed } from '../piece/properties.ts'

const { program } = fair('0', { on: 'Mount', signals: { gust: 'noise(1Hz)' } })
const target = { part: 'p2', property: propertyNamed('y')! }
const offers = (before: string) => offersAt(before, program.meanings.names, target)
const texts = (before: string) => offers(before)?.offers.map(o => o.text) ?? null

describe('what can be written here', () => {
  it('functions, words and things of the piece', () => {
    expect(texts('')).toEqual(
      expect.arrayContaining([
        'sine(',
        'time',
        'base',
        'index',
        'own.',
        'parent.',
        'Carousel.',
        '`Ticket arch`.',
        'fairPace',
        'gust',
      ]),
    )
    expect(offers('2 * fai')!.from).toBe(4)
  })
  it('the properties of a part behind its dot', () => {
    expect(texts('carousel.')).toContain('rotation')
    expect(texts('`Ticket arch`.ro')).toContain('innerRadius')
    expect(texts('own.')).toContain('y')
    expect(texts('mount[2].')).toContain('y')
    expect(offers('carousel.rot')!.from).toBe(9)
  })
  it('units behind a number, and nothing while it is only digits', () => {
    expect(texts('45d')).toContain('deg')
    expect(texts('45')).toBeNull()
    expect(texts('2.5')).toBeNull()
  })
  it('the arguments and words of the function whose brackets are open', () => {
    expect(texts('sine(every: 2s, ')).toContain('amp: ')
    expect(texts('ramp(length: 3s, ease: cu')).toContain('cubicOut')
    expect(texts('max(2px, abs(3px), ')).not.toContain('amp: ')
  })
  it('nothing in a note', () => expect(texts('time // ti')).toBeNull())
  it('no copies for a part that has none, no base for a signal', () => {
    const plain = offersAt('', program.meanings.names, { part: null, property: null })!.offers.map(o => o.text)
    expect(plain).not.toContain('index')
    expect(plain).not.toContain('base')
    expect(plain).not.toContain('own.')
  })
})

describe('the function table', () => {
  it.each(FUNCTIONS.map(f => [f.name, f] as const))('%s is documented and its example runs', (_name, entry) => {
    expect(entry.description).toMatch(/\.$/)
    for (const p of entry.parameters) expect(p.description.length, p.name).toBeGreaterThan(5)
    const f = fair(entry.example.text, {
      on: (['Mount', 'Flag', 'Idler'] as const).find(p => p === entry.example.part) ?? 'Carousel',
      property: entry.example.property,
    })
    expect(f.slot.problems).toEqual([])
    expect(Number.isFinite(f.value(1.234))).toBe(true)
  })
})
