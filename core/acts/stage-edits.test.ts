import { describe, expect, it } from 'vitest'
import { Program } from '../engine/program.ts'
import { apply, type Operation } from '../piece/operation.ts'
import type { Piece } from '../piece/schema.ts'
import { applyX, applyY } from '../piece/transform.ts'
import { Scene } from '../rig/scene.ts'
import { boxOf } from '../rig/snapping.ts'
import { at } from '../testing/fair.ts'
import { aligned, SIDES } from './aligning.ts'
import { Builder } from './build.ts'
import { engageWith } from './gear-acts.ts'
import { setValueOf, moveBy, outermost, pinTo, sizeTo, turnBy, overruledProperties, type Grip } from './stage-edits.ts'

const sceneOf = (piece: Piece, seconds = 0) => {
  const program = new Program(piece)
  return new Scene(program).update(program.moment(at(seconds), new Float64Array(program.size)), at(seconds))
}
function grip(piece: Piece, id: string, copy = 0, seconds = 0): Grip {
  const scene = sceneOf(piece, seconds)
  const body = scene.bodies.get(id)!
  return { id, seat: scene.parentFrameOf(body, copy), world: body.worlds[copy]!.slice() }
}
/** Where a point of a part is on the stage. */
const point = (piece: Piece, id: string, x = 0, y = 0, copy = 0, seconds = 0): number[] => {
  const m = sceneOf(piece, seconds).bodies.get(id)!.worlds[copy]!
  return [applyX(m, x, y), applyY(m, x, y)]
}
const near = (a: readonly number[], b: readonly number[], digits = 2) =>
  a.forEach((v, i) => expect(v).toBeCloseTo(b[i]!, digits))

/** A card in a group that is turned, scaled and mirrored, and copies of it in a ring. */
function fair() {
  const b = new Builder('By hand', 1)
  const group = b.part('Group', { type: 'group' }, {}, { x: 40, y: -10, rotation: 30, scale: 200, scaleX: -100 })
  const card = b.part('Card', { type: 'rectangle' }, { parent: group }, { x: 10, width: 60, height: 40, rotation: 20 })
  const lamp = b.part(
    'Lamp',
    { type: 'ellipse' },
    { copies: { layout: 'ring', count: 6, radius: 100, from: 0, sweep: 360, turn: true } },
    { width: 20, height: 20 },
  )
  return { b, group, card, lamp }
}

describe('on the stage', () => {
  it('a part goes where the hand goes, in a turned and mirrored group too, and each copy by itself in its place', () => {
    const { b, card, lamp } = fair()
    for (const [id, copy] of [
      [card, 0],
      [lamp, 0],
      [lamp, 4],
    ] as const) {
      const before = point(b.piece, id, 0, 0, copy)
      const after = apply(b.piece, moveBy(b.piece, [grip(b.piece, id, copy)], 12, -7, 0))
      near(point(after, id, 0, 0, copy), [before[0]! + 12, before[1]! - 7], 1)
    }
  })
  it('it turns as it is seen to, also mirrored, and in steps', () => {
    const { b, card } = fair()
    const angle = (p: Piece) => {
      const [o, x] = [point(p, card), point(p, card, 1, 0)]
      return (Math.atan2(x[1]! - o[1]!, x[0]! - o[0]!) * 180) / Math.PI
    }
    const after = apply(b.piece, turnBy(b.piece, grip(b.piece, card), 25, 0))
    expect((angle(after) - angle(b.piece) + 360) % 360).toBeCloseTo(25, 1)
    const stepped = apply(b.piece, turnBy(b.piece, grip(b.piece, card), -26, 0, 15))
    expect(setValueOf(stepped, card, 'rotation') % 15).toBe(0)
  })
  it('pulled by a corner the corner over against it stays, both ways its middle does', () => {
    const { b, card } = fair()
    const far = point(b.piece, card, -30, -20)
    const after = apply(b.piece, sizeTo(b.piece, grip(b.piece, card), [1, 1], [30, 20], [50, 33], 0, false))
    expect([setValueOf(after, card, 'width'), setValueOf(after, card, 'height')]).toEqual([80, 53])
    near(point(after, card, -40, -26.5), far, 1)
    near(point(after, card, 40, 26.5), point(b.piece, card, 50, 33), 1)
    const both = apply(b.piece, sizeTo(b.piece, grip(b.piece, card), [1, 0], [30, 20], [50, 0], 0, true))
    expect([setValueOf(both, card, 'width'), setValueOf(both, card, 'height')]).toEqual([100, 40])
    near(point(both, card), point(b.piece, card), 6)
  })
  it('a star grows with its inner radius, text by its letters, never below nothing', () => {
    const b = new Builder('Sizes', 1)
    const star = b.part('Star', { type: 'star', points: 5 }, {}, { radius: 60, innerRadius: 24 })
    const grown = apply(b.piece, sizeTo(b.piece, grip(b.piece, star), [1, 1], [60, 60], [90, 90], 0, false))
    expect([setValueOf(grown, star, 'radius'), setValueOf(grown, star, 'innerRadius')]).toEqual([90, 36])
    const shrunk = apply(b.piece, sizeTo(b.piece, grip(b.piece, star), [1, 1], [60, 60], [-90, -90], 0, false))
    expect(setValueOf(shrunk, star, 'radius')).toBeCloseTo(0.6, 6)
    const card = b.part('Card', { type: 'rectangle' }, {}, { width: 60, height: 40 })
    const none = apply(b.piece, sizeTo(b.piece, grip(b.piece, card), [1, 0], [30, 20], [-80, 0], 0, false))
    expect(setValueOf(none, card, 'width')).toBe(0)
  })
  it('its pin set elsewhere, it stays where it is, and turns about that from then on', () => {
    const { b, card } = fair()
    const corners = (p: Piece) => [...point(p, card, -30, -20), ...point(p, card, 30, 20)]
    const after = apply(b.piece, pinTo(b.piece, grip(b.piece, card), 30, -20, 0))
    expect(after.parts[card]!.pivot).toEqual({ x: 30, y: -20 })
    near(corners(after), corners(b.piece), 2)
    const turned = apply(after, turnBy(after, grip(after, card), 70, 0))
    near(point(turned, card, 30, -20), point(b.piece, card, 30, -20), 2)
  })
  it('what has keyframes gets one at the moment, and ties hold', () => {
    const { b, lamp } = fair()
    const keys = {
      points: [0, 2].map(time => ({ time, value: time * 10, shape: 'straight' as const })),
      after: 'hold' as const,
    }
    b.do({ undoLabel: '', puts: [{ in: 'bases', id: `${lamp}.x`, value: { value: 0, keys } }] })
    const after = apply(b.piece, moveBy(b.piece, [grip(b.piece, lamp, 0, 1)], 0, 5, 1))
    expect(after.bases[`${lamp}.x`]!.keys!.points.map(p => p.time)).toEqual([0, 1, 2])
    const other = b.part('Other', { type: 'ellipse' })
    const third = b.part('Third', { type: 'ellipse' })
    b.do({
      undoLabel: '',
      puts: [{ in: 'ties', id: 't', value: { a: `${other}.x`, b: `${third}.x`, ratio: 2, offset: 1 } }],
    })
    const tied = apply(b.piece, moveBy(b.piece, [grip(b.piece, other)], 10, 0, 0))
    expect(setValueOf(tied, third, 'x')).toBe(21)
  })
  it('what a formula drives without reading the set value is named', () => {
    const { b, card } = fair()
    b.drive(card, 'x', 'sine(1Hz, 9px)')
    b.drive(card, 'y', 'base + sine(1Hz, 9px)')
    expect(overruledProperties(b.piece, moveBy(b.piece, [grip(b.piece, card)], 10, 20, 0))).toEqual([`${card}.x`])
  })
  it('what is carried by another that is chosen is moved once', () => {
    const { b, group, card, lamp } = fair()
    expect(outermost(b.piece, [card, group, lamp, 'gone'])).toEqual([group, lamp])
  })
})

describe('lined up', () => {
  it.each(SIDES)('%s: all the same, or even gaps, and nothing else moves', side => {
    const b = new Builder('Lined', 1)
    const ids = [20, 60, 34, 50].map((w, i) =>
      b.part(`Card ${i}`, { type: 'rectangle' }, {}, { x: [0, 90, -170, 260][i]!, y: i * 31, width: w, height: w / 2 }),
    )
    const boxes = (p: Piece) => {
      const scene = sceneOf(p)
      return ids.map(id => boxOf(scene, scene.bodies.get(id)!, 0)!)
    }
    const held = ids.map((id, i) => ({ grip: grip(b.piece, id), ...boxes(b.piece)[i]! }))
    const op: Operation = aligned(b.piece, held, side, 0)
    const all = boxes(apply(b.piece, op))
    const of = {
      left: all.map(x => x.left),
      right: all.map(x => x.right),
      top: all.map(x => x.high),
      foot: all.map(x => x.low),
      middle: all.map(x => (x.left + x.right) / 2),
      centre: all.map(x => (x.low + x.high) / 2),
    }
    if (side === 'across' || side === 'upward') {
      const ends = all.map(x => (side === 'across' ? [x.left, x.right] : [x.low, x.high])).sort((a, c) => a[0]! - c[0]!)
      const gaps = ends.slice(1).map((e, i) => e[0]! - ends[i]![1]!)
      for (const g of gaps) expect(g).toBeCloseTo(gaps[0]!, 1)
    } else for (const v of of[side]) expect(v).toBeCloseTo(of[side][0]!, 1)
    // Lined up once more, nothing changes.
    const again = aligned(
      apply(b.piece, op),
      ids.map((id, i) => ({ grip: grip(apply(b.piece, op), id), ...all[i]! })),
      side,
      0,
    )
    expect(again.puts).toEqual([])
  })
})

describe('a gear put beside another', () => {
  const train = (module: number, text?: string) => {
    const b = new Builder('Train', 1)
    const wheel = b.part('Wheel', { type: 'gear', teeth: 24, spokes: 5, module: 6 })
    b.drive(wheel, 'rotation', 'time * 30deg/s')
    const pinion = b.part('Pinion', { type: 'gear', teeth: 12, spokes: 0, module }, {}, { x: 108 })
    if (text) b.drive(pinion, 'rotation', text)
    return { b, wheel, pinion, made: engageWith(b.piece, pinion, wheel) }
  }
  it('runs with it, in ratio and sense', () => {
    const { b, pinion, made } = train(6)
    const program = new Program(apply(b.piece, made.op!))
    const [a, z] = [0, 6].map(s => program.slots.get(`${pinion}.rotation`)!.forms[0]!.at(at(s)))
    expect(z! - a!).toBeCloseTo(-1, 12)
  })
  it('is told why not: teeth of another size, a formula of its own, or that it does already', () => {
    expect(train(5).made).toMatchObject({ op: null, says: expect.stringContaining('5 px') })
    expect(train(6, 'time * 9deg/s').made).toMatchObject({
      op: null,
      says: expect.stringContaining('by its own formula'),
    })
    const { b, wheel, pinion, made } = train(6)
    const engaged = apply(b.piece, made.op!)
    expect(engageWith(engaged, pinion, wheel)).toMatchObject({ op: null })
    expect(engageWith(engaged, wheel, pinion)).toMatchObject({ op: null, says: expect.stringContaining('runs with') })
  })
})
