import fc from 'fast-check'
// Written by others from the same pages.
import * as others from 'osc-min'
import { describe, expect, it } from 'vitest'
import { bundleBytes, isAddress, messageBytes, messagesIn, packets } from './osc.ts'

interface Parsed {
  oscType: string
  address: string
  args: { value: unknown }[]
  elements: Parsed[]
  timetag: unknown
}
const other = others as unknown as {
  fromBuffer(b: Buffer): Parsed
  toBuffer(m: object): { buffer: ArrayBuffer; byteOffset: number; byteLength: number }
}
const address = fc
  .array(fc.string({ unit: fc.constantFrom(...'abcXYZ019._-'), minLength: 1, maxLength: 9 }), {
    minLength: 1,
    maxLength: 4,
  })
  .map(p => `/${p.join('/')}`)
const message = fc.record({
  address,
  values: fc.array(
    fc.oneof(
      fc.float({ noNaN: true, noDefaultInfinity: true }),
      fc.string({ unit: fc.constantFrom(...'abc xyz'), maxLength: 9 }),
    ),
    { maxLength: 6 },
  ),
})

describe('OSC', () => {
  it('is read by a parser of others as it was meant', () => {
    fc.assert(
      fc.property(fc.array(message, { maxLength: 8 }), all => {
        const read = other.fromBuffer(Buffer.from(bundleBytes(all)))
        expect(read.oscType).toBe('bundle')
        expect(read.timetag).toEqual([0, 1])
        expect(read.elements.map(m => [m.address, m.args.map(a => a.value)])).toEqual(
          all.map(m => [m.address, m.values]),
        )
      }),
    )
  })
  it('is read here as others write it, and as it was written here', () => {
    fc.assert(
      fc.property(message, m => {
        const theirs = other.toBuffer({
          address: m.address,
          args: m.values.map(value => ({ type: typeof value === 'string' ? 'string' : 'float', value })),
        })
        const bytes = new Uint8Array(theirs.buffer, theirs.byteOffset, theirs.byteLength)
        expect(messagesIn(bytes)).toEqual([m])
        expect(messagesIn(messageBytes(m))).toEqual([m])
        expect([...messageBytes(m)]).toEqual([...bytes])
      }),
    )
    const whole = other.toBuffer({
      address: '/dial/pace',
      args: [{ type: 'integer', value: 65 }, { type: 'double', value: 0.1 }, { type: 'true' }],
    })
    expect(messagesIn(new Uint8Array(whole.buffer, whole.byteOffset, whole.byteLength))).toEqual([
      { address: '/dial/pace', values: [65, 0.1, 1] },
    ])
  })
  it('tells moments as seconds since 1900', () => {
    const view = new DataView(bundleBytes([], Date.UTC(2000, 0, 1) + 500).buffer)
    expect(view.getUint32(8)).toBe(3_155_673_600)
    expect(view.getUint32(12)).toBe(2 ** 31)
  })
  it('that is none is nothing, whatever comes', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 120 }), bytes => void messagesIn(bytes)),
      { numRuns: 5000 },
    )
    const good = bundleBytes([{ address: '/lamp/1', values: [0.5] }])
    for (let k = 1; k < good.length; k++) messagesIn(good.slice(0, k))
    let deep: Uint8Array = messageBytes({ address: '/a', values: [] })
    for (let k = 0; k < 40; k++) {
      const size = new Uint8Array(4)
      new DataView(size.buffer).setUint32(0, deep.length)
      deep = new Uint8Array([...bundleBytes([]), ...size, ...deep])
    }
    expect(messagesIn(deep)).toBeNull()
  })
  it('fits into packets of UDP, none left out', () => {
    const all = Array.from({ length: 9000 }, (_, k) => ({ address: `/lamp/${k}`, values: [k] }))
    const sent = packets(all)
    expect(sent.every(p => p.length <= 65_507)).toBe(true)
    expect(sent.flatMap(p => messagesIn(p)!)).toEqual(all)
  })
  it('knows an address from a pattern', () => {
    for (const good of ['/a', '/lamp/1', '/x.y/z_2']) expect(isAddress(good)).toBe(true)
    for (const bad of ['', 'lamp', '/', '/a//b', '/a b', '/a*', '/{a,b}', '/[1]', '/lamp/#'])
      expect(isAddress(bad)).toBe(false)
  })
})
