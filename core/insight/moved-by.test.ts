import { describe, expect, it } from 'vitest'
import { Builder } from '../acts/build.ts'
import { setKeyPoints } from '../acts/points.ts'
import { apply } from '../piece/operation.ts'
import { followedBy, movesBy } from './moved-by.ts'

const b = new Builder('What moves', 2)
const drum = b.part('Drum', { type: 'ellipse' }, {})
b.drive(drum, 'rotation', 'time * 45deg/s')
const card = b.part('Card', { type: 'rectangle' }, {})
const far = b.part('Far', { type: 'rectangle' }, {})
const rider = b.part('Rider', { type: 'rectangle' }, { parent: drum })
const post = b.part('Post', { type: 'rectangle' }, {})
const trail = b.part('Trail', { type: 'trace', of: rider, x: 0, y: 0, every: 30 }, {})
const ties = {
  t1: { a: `${drum}.rotation`, b: `${card}.rotation`, ratio: 1, offset: 0 },
  t2: { a: `${card}.rotation`, b: `${far}.rotation`, ratio: 1, offset: 0 },
}
const piece = { ...b.piece, ties }

describe('what has no formula', () => {
  it('follows what it is tied to, also by way of others', () => {
    expect(movesBy(piece, card)).toBe('Its rotation follows Drum rotation.')
    expect(movesBy(piece, far)).toBe('Its rotation follows Drum rotation.')
    expect(followedBy(piece, `${far}.rotation`)).toBe(`${drum}.rotation`)
    expect([followedBy(piece, `${drum}.rotation`), followedBy(piece, `${post}.x`)]).toEqual([null, null])
  })
  it('is moved by its parent, by keyframes, by itself, or not at all', () => {
    expect(movesBy(piece, rider)).toBe('It moves with Drum.')
    expect(movesBy(piece, trail)).toBe('It traces Rider.')
    expect(movesBy(piece, post)).toBe('Nothing moves here yet.')
    const keyed = apply(piece, setKeyPoints(piece, post, 'x', [{ time: 0, value: 3, shape: 'smooth' }]))
    expect(movesBy(keyed, post)).toBe('Keyframes move its x.')
  })
})
