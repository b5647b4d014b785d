import { describe, expect, it } from 'vitest'
import { propertyNamed } from '../piece/properties.ts'
import { apply, inverse } from '../piece/operation.ts'
import { Builder } from './build.ts'
import { setShared, sharedProperties, sharedValue } from './shared.ts'

const x = propertyNamed('x')!

function three() {
  const b = new Builder('Three', 1)
  const ids = [
    b.part('Post', { type: 'rectangle' }, {}, { x: 10 }),
    b.part('Ball', { type: 'ellipse' }, {}, { x: 20 }),
    b.part('Trail', { type: 'group' }, {}, { x: 10 }),
  ]
  b.drive(ids[1]!, 'x', 'sine(every: 2s, amp: 9px)')
  b.drive(ids[2]!, 'x', 'base + sine(every: 2s, amp: 9px)')
  return { piece: b.piece, ids }
}

describe('several parts at once', () => {
  it('share what all of them have', () => {
    const { piece, ids } = three()
    const names = (of: readonly string[]) => sharedProperties(piece, of).map(p => p.name)
    expect(names(ids)).toEqual(expect.arrayContaining(['x', 'rotation', 'opacity']))
    expect(names(ids)).not.toContain('width')
    expect(names(ids.slice(0, 2))).toContain('width')
    expect(names(ids.slice(0, 2))).not.toContain('corners')
    expect(names([])).toEqual([])
    expect(names([...ids, 'gone'])).toEqual(names(ids))
  })
  it('show a value where it is the same, and say how many are driven', () => {
    const { piece, ids } = three()
    expect(sharedValue(piece, ids, x)).toEqual({ value: null, driven: 2 })
    expect(sharedValue(piece, [ids[0]!, ids[2]!], x)).toEqual({ value: 10, driven: 1 })
  })
  it('are set in one step that can be undone; those are named on which it does not show', () => {
    const { piece, ids } = three()
    const { op, left } = setShared(piece, ids, x, 77)
    const after = apply(piece, op)
    expect(ids.map(id => after.bases[`${id}.x`]!.value)).toEqual([77, 77, 77])
    expect(left).toEqual(['Ball'])
    expect(op.undoLabel).toBe('set x of 3 parts')
    expect(apply(after, inverse(piece, op))).toEqual(piece)
  })
})
