import { describe, expect, it } from 'vitest'
import { Program } from '../engine/program.ts'
import { readPiece } from '../piece/migrate.ts'
import { apply, inverse } from '../piece/operation.ts'
import type { Piece } from '../piece/schema.ts'
import { Scene } from '../rig/scene.ts'
import { at } from '../testing/fair.ts'
import { Builder } from './build.ts'
import { group, ungroup } from './grouping.ts'

/** Where every part but groups stands at some moments. */
const seen = (piece: Piece) => {
  const program = new Program(piece)
  const scene = new Scene(program)
  return [0, 1.3, 7].map(s => {
    scene.update(program.moment(at(s), new Float64Array(program.size)), at(s))
    return [...scene.bodies.values()]
      .filter(b => b.part.shape.type !== 'group')
      .map(b => [b.part.name, b.worlds.map(m => [...m].map(v => Number(v.toFixed(6))))])
      .sort()
  })
}
function fair() {
  const b = new Builder('Groups', 1)
  const pier = b.part('Pier', { type: 'group' }, {}, { x: 30, rotation: 20 })
  const lamp = b.part('Lamp', { type: 'ellipse' }, { parent: pier }, { x: 40, y: 5 })
  const post = b.part('Post', { type: 'rectangle' }, { parent: pier }, { x: -60 })
  b.drive(lamp, 'y', 'sine(every: 3s, amp: 20px)')
  const away = b.part('Away', { type: 'star', points: 5 }, {}, { x: 300 })
  return { b, pier, lamp, post, away }
}

describe('a group made by hand', () => {
  it('changes nothing that is seen, and turns about the middle of what it holds', () => {
    const { b, pier, lamp, post } = fair()
    const made = group(b.piece, [lamp, post], { x: -10, y: 2 })
    if (!('op' in made)) throw new Error(made.says)
    const after = apply(b.piece, made.op)
    expect(readPiece(after).problem).toBeNull()
    expect(seen(after)).toEqual(seen(b.piece))
    expect(after.parts[made.id]).toMatchObject({ parent: pier, pivot: { x: -10, y: 2 } })
    expect(apply(after, inverse(b.piece, made.op))).toEqual(b.piece)
    // Given up again all is as it was, but for the order among siblings.
    const back = ungroup(after, made.id)
    if (!('op' in back)) throw new Error(back.says)
    expect(seen(apply(after, back.op))).toEqual(seen(b.piece))
    expect(apply(after, back.op).parts[made.id]).toBeUndefined()
  })
  it('holds parts of one parent alone', () => {
    const { b, lamp, away } = fair()
    expect(group(b.piece, [lamp, away], { x: 0, y: 0 })).toMatchObject({
      says: expect.stringContaining('same parent'),
    })
  })
})

describe('a group given up', () => {
  it('hands its place on to what it carries', () => {
    const b = new Builder('Groups', 1)
    const cart = b.part('Cart', { type: 'group' }, {}, { x: 12, y: -7 })
    const wheel = b.part('Wheel', { type: 'ellipse' }, { parent: cart }, { x: 5 })
    b.drive(wheel, 'x', 'base + sine(every: 2s, amp: 9px)')
    const made = ungroup(b.piece, cart)
    if (!('op' in made)) throw new Error(made.says)
    const after = apply(b.piece, made.op)
    expect(seen(after)).toEqual(seen(b.piece))
    expect(made.ids).toEqual([wheel])
    expect(apply(after, inverse(b.piece, made.op))).toEqual(b.piece)
  })
  it.each([
    [
      'rotation is set',
      (b: Builder, id: string): unknown =>
        b.do({ undoLabel: '', puts: [{ in: 'bases', id: `${id}.rotation`, value: { value: 9 } }] }),
    ],
    ['x moves it', (b: Builder, id: string): unknown => b.drive(id, 'x', 'time * 1px/s')],
    [
      'it is copied',
      (b: Builder, id: string): unknown =>
        b.do({
          undoLabel: '',
          puts: [
            { in: 'parts', id, value: { ...b.piece.parts[id]!, copies: { layout: 'row', count: 2, dx: 9, dy: 0 } } },
          ],
        }),
    ],
    [
      'has a span',
      (b: Builder, id: string): unknown =>
        b.do({
          undoLabel: '',
          puts: [{ in: 'parts', id, value: { ...b.piece.parts[id]!, span: { from: 0, to: 1 } } }],
        }),
    ],
    [
      'positioned by its own formula',
      (b: Builder, id: string): unknown => b.drive('p2', 'x', `time * 1px/s + 0px`) && id,
    ],
  ] as const)('or it is said why not: %s', (why, make) => {
    const b = new Builder('Groups', 1)
    const cart = b.part('Cart', { type: 'group' }, {}, { x: 12 })
    b.part('Wheel', { type: 'ellipse' }, { parent: cart })
    make(b, cart)
    expect(ungroup(b.piece, cart)).toMatchObject({ says: expect.stringContaining(why) })
  })
})
