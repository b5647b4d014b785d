import { describe, expect, it } from 'vitest'
import { search } from './search.ts'

describe('searching the manual', () => {
  it('finds what is named so first, then what is said', () => {
    expect(search('noise')[0]!.anchor).toBe('fn-noise')
    expect(search('acc')[0]!.anchor).toBe('fn-accumulate')
    expect(search('px')[0]).toMatchObject({ anchor: 'units', title: 'px' })
    expect(search('backOut')[0]).toMatchObject({ anchor: 'easings', title: 'backOut' })
    expect(search('run backwards').map(p => p.title)).toContain('Tuning without a jump')
    expect(search('comment line').map(p => p.anchor)).toContain('rule-comments')
  })
  it('wants every word, and finds nothing for nothing', () => {
    expect(search('noise octaves')[0]!.anchor).toBe('fn-noise')
    expect(search('noise zebra')).toEqual([])
    expect(search('   ')).toEqual([])
  })
})
