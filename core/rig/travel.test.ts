import { describe, expect, it } from 'vitest'
import { Builder } from '../acts/build.ts'
import { Program } from '../engine/program.ts'
import type { Part } from '../piece/schema.ts'
import { at } from '../testing/fair.ts'
import { Scene } from './scene.ts'
import { sweptBy, travelOf } from './travel.ts'

/** A bead on an arm that turns once in 4 s; the lap is 8 s at 30 frames a second. */
function wheel(given: Partial<Part> = {}, lap = 8) {
  const b = new Builder('Wheel', 1)
  b.do({ undoLabel: '', puts: [{ set: 'lap', value: { length: { n: lap, d: 1 }, start: 0 } }] })
  const arm = b.part('Arm', { type: 'group' }, {}, { x: 20 })
  b.drive(arm, 'rotation', 'time * 90deg/s')
  const bead = b.part('Bead', { type: 'rectangle' }, { parent: arm, ...given }, { x: 100, width: 60, height: 80 })
  const program = new Program(b.piece)
  return { program, bead, arm }
}

describe('the way of a part', () => {
  it('has a dot a frame through a lap, and its first at the moment asked for', () => {
    const { program, bead } = wheel()
    const points = travelOf(program, bead, 0, at(1))!
    expect(points).toHaveLength(2 * 241)
    for (const k of [0, 1, 60, 119, 240]) {
      const turns = (1 + k / 30) / 4
      expect(points[2 * k]).toBeCloseTo(20 + 100 * Math.cos(2 * Math.PI * turns), 6)
      expect(points[2 * k + 1]).toBeCloseTo(100 * Math.sin(2 * Math.PI * turns), 6)
    }
  })
  it('is that of its pin, of each copy its own', () => {
    const pinned = wheel({ pivot: { x: 30, y: 0 } })
    expect([...travelOf(pinned.program, pinned.bead, 0, at(0))!.slice(0, 2)]).toEqual([150, 0])
    const copied = wheel({ copies: { layout: 'row', count: 2, dx: 60, dy: 0 } })
    const starts = [0, 1].map(copy => travelOf(copied.program, copied.bead, copy, at(0))![0])
    expect(starts).toEqual([90, 150])
  })
  it('of a long lap has fewer dots than frames, and reaches its end', () => {
    const { program, bead } = wheel({}, 100)
    const points = travelOf(program, bead, 0, at(0))!
    expect(points.length / 2).toBe(601)
    // 100 s are 25 whole turns.
    expect([points.at(-2), points.at(-1)]).toEqual([expect.closeTo(120, 6), expect.closeTo(0, 6)])
  })
})

describe('a way that would have to be added up from far', () => {
  it('is none, asks for nothing, and is there once the sums are', () => {
    const b = new Builder('Far', 1)
    const bead = b.part('Bead', { type: 'ellipse' })
    b.drive(bead, 'x', 'accumulate(noise(freq: 1Hz, amp: 20px/s) * sine(every: 3s, amp: 1))')
    const program = new Program(b.piece)
    expect(travelOf(program, bead, 0, at(500_000))).toBeNull()
    expect(program.queue.isPending).toBe(false)
    // Near by it is added up at once.
    expect(travelOf(program, bead, 0, at(0))?.every(Number.isFinite)).toBe(true)
  })
})

describe('the circle that a part sweeps', () => {
  const swept = (given: Partial<Part>) => {
    const { program, bead } = wheel(given)
    const scene = new Scene(program).update(program.moment(at(0), new Float64Array(program.size)), at(0))
    return sweptBy(scene.bodies.get(bead)!, 0)!
  }
  it('reaches to its furthest corner from where it turns', () => {
    expect(swept({})).toEqual({ x: 120, y: 0, radius: expect.closeTo(50, 9) })
    expect(swept({ pivot: { x: -30, y: -40 } })).toEqual({ x: 90, y: -40, radius: expect.closeTo(100, 9) })
  })
  it('a group sweeps none', () => {
    const { program, arm } = wheel()
    const scene = new Scene(program).update(program.moment(at(0), new Float64Array(program.size)), at(0))
    expect(sweptBy(scene.bodies.get(arm)!, 0)).toBeNull()
  })
})
