import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Program } from '../engine/program.ts'
import { closureOf } from '../insight/closure.ts'
import { symmetriesOf } from '../insight/report.ts'
import { Builder } from '../acts/build.ts'
import { addGear } from '../acts/gear-acts.ts'
import { reshapeGear } from '../acts/gear-train.ts'
import { apply, inverse } from './operation.ts'
import { at } from '../testing/fair.ts'
import { spacing } from './gearing.ts'
import { outlineOf } from '../rig/outline/outline.ts'
import { partTransform } from '../rig/motion/part-transform.ts'

const gear = (teeth: number, spokes = 0) => ({ type: 'gear', teeth, spokes, module: 4 }) as const

/** A train: a pinion that turns, and gears each turned by the one before, in the directions given (turns). */
function train(teeth: readonly number[], directions: readonly number[], pace = '30deg/s', spokes = 0) {
  const b = new Builder('Drive room', 3)
  let [x, y] = [0, 0]
  const ids = teeth.map((t, i) => {
    if (i > 0) {
      const far = spacing(gear(teeth[i - 1]!), gear(t))
      x += far * Math.cos(2 * Math.PI * directions[i - 1]!)
      y += far * Math.sin(2 * Math.PI * directions[i - 1]!)
    }
    return b.part(`Gear ${i}`, gear(t, i === teeth.length - 1 ? spokes : 0), {}, { x, y })
  })
  ids.forEach((id, i) => b.drive(id, 'rotation', i === 0 ? `time * ${pace}` : `engage(\`Gear ${i - 1}\`)`))
  const program = new Program(b.piece)
  const turn = (i: number, t: number) => program.slots.get(`${ids[i]}.rotation`)!.readers[0]!.at(at(t))
  return { b, program, ids, turn }
}

const away = (x: number) => Math.abs(x - Math.round(x))

describe('gears', () => {
  it('interlock wherever they stand: tooth meets gap, at any time', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 8, max: 90 }), { minLength: 2, maxLength: 5 }),
        fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 5, maxLength: 5 }),
        fc.integer({ min: -1000, max: 100000 }),
        (teeth, directions, t) => {
          const { turn, program } = train(teeth, directions)
          for (const slot of program.slots.values()) expect(slot.problems).toEqual([])
          for (let i = 1; i < teeth.length; i++) {
            const d = directions[i - 1]!
            const a = (d - turn(i - 1, t)) * teeth[i - 1]!
            const c = (d + 0.5 - turn(i, t)) * teeth[i]!
            expect(away(a + c - 0.5)).toBeLessThan(1e-5)
          }
        },
      ),
      { numRuns: 200 },
    )
  })

  it('stand in engagement in groups turned by hand, apart or together, and in one that turns', () => {
    const turns = fc.double({ min: -1, max: 1, noNaN: true }).map(t => Math.round(t * 360))
    fc.assert(
      fc.property(turns, turns, fc.integer({ min: 8, max: 60 }), fc.boolean(), (left, right, teeth, together) => {
        const b = new Builder('Drive room', 3)
        const around = b.part('Around', { type: 'group' }, {}, { rotation: left })
        const own = b.part('Own', { type: 'group' }, { parent: together ? around : null }, { rotation: right, x: 30 })
        const pinion = b.part('Pinion', gear(12), { parent: around }, { x: 20, y: -15 })
        const wheel = b.part('Wheel', gear(teeth), { parent: own }, { x: 90, y: 40 })
        b.drive(pinion, 'rotation', 'time * 30deg/s')
        b.drive(wheel, 'rotation', 'engage(pinion)')
        if (together) b.drive(around, 'rotation', 'time * 7deg/s')
        const program = new Program(b.piece)
        const t = at(2.3)
        const world = (id: string) => partTransform(program, id, 0).at(t).slice()
        const [p, w] = [world(pinion), world(wheel)]
        const turn = (m: Float64Array) => Math.atan2(m[4]!, m[0]!) / (2 * Math.PI)
        const d = Math.atan2(w[7]! - p[7]!, w[3]! - p[3]!) / (2 * Math.PI)
        expect(away((d - turn(p)) * 12 + (d + 0.5 - turn(w)) * teeth - 0.5)).toBeLessThan(1e-5)
      }),
      { numRuns: 100 },
    )
  })

  it('a new one snaps into engagement: beside the other, on its module, turned by it', () => {
    const { b, ids } = train([24], [])
    let piece = b.piece
    const added: string[] = []
    for (const teeth of [12, 30, 18]) {
      const { id, op } = addGear(piece, added.at(-1) ?? ids[0]!, { teeth, spokes: 0 })
      expect(apply(apply(piece, op), inverse(piece, op))).toEqual(piece)
      piece = apply(piece, op)
      added.push(id)
    }
    const program = new Program(piece)
    for (const slot of program.slots.values()) expect(slot.problems).toEqual([])
    const place = (id: string) => [piece.bases[`${id}.x`]?.value ?? 0, piece.bases[`${id}.y`]?.value ?? 0] as const
    const all = [ids[0]!, ...added]
    const teeth = [24, 12, 30, 18]
    for (let i = 1; i < all.length; i++) {
      for (let k = 0; k < i; k++) {
        const [[x, y], [u, w]] = [place(all[k]!), place(all[i]!)]
        const far = Math.hypot(u - x, w - y)
        const touch = ((teeth[i]! + teeth[k]!) * 4) / 2
        // Its pitch circle touches that of the one it runs with, and keeps clear of all others.
        if (k === i - 1) expect(far).toBeCloseTo(touch, 4)
        else expect(far).toBeGreaterThan(touch + 4)
      }
      const [[x, y], [u, w]] = [place(all[i - 1]!), place(all[i]!)]
      const d = Math.atan2(w - y, u - x) / (2 * Math.PI)
      const turn = (id: string) => program.slots.get(`${id}.rotation`)!.readers[0]!.at(at(2.7))
      expect(away((d - turn(all[i - 1]!)) * teeth[i - 1]! + (d + 0.5 - turn(all[i]!)) * teeth[i]! - 0.5)).toBeLessThan(
        1e-4,
      )
    }
  })

  it('with other teeth stay in engagement: the train moves along, on the line between each two', () => {
    const { b, ids } = train([20, 30, 12], [0, 0.25])
    const loose = b.part('Loose', gear(9), {}, { x: 500, y: 0 })
    b.drive(loose, 'rotation', 'engage(`Gear 1`)')
    const { op, says } = reshapeGear(b.piece, ids[1]!, gear(40), 40)
    expect(says).toBeNull()
    const piece = apply(b.piece, op)
    expect(apply(piece, inverse(b.piece, op))).toEqual(b.piece)
    const place = (id: string) => [piece.bases[`${id}.x`]?.value ?? 0, piece.bases[`${id}.y`]?.value ?? 0]
    // (20 + 40) · 4 ÷ 2 to the right, then (40 + 12) · 4 ÷ 2 up; what stood apart before stays.
    expect([...ids, loose].map(place)).toEqual([
      [0, 0],
      [120, 0],
      [120, 104],
      [500, 0],
    ])
    // The first of a train stays, whichever gear changes; another module is given to all of it.
    const coarse = apply(piece, reshapeGear(piece, ids[2]!, { ...gear(12), module: 8 }, 12).op)
    expect(ids.map(id => (coarse.parts[id]!.shape as { module: number }).module)).toEqual([8, 8, 8])
    expect(coarse.bases[`${ids[2]}.y`]!.value).toBe(208)
  })
  it('that cannot be moved along are named', () => {
    const { b, ids } = train([20, 30], [0])
    b.drive(ids[1]!, 'y', 'sine(every: 2s, amp: 5px)')
    const { op, says } = reshapeGear(b.piece, ids[0]!, gear(40), 40)
    expect(says).toMatch(/^Gear 1 couldn’t follow/)
    expect(apply(b.piece, op).bases[`${ids[1]}.x`]).toEqual(b.piece.bases[`${ids[1]}.x`])
  })

  it('keep exact ratios for ever, in opposite sense', () => {
    const { turn } = train([12, 30, 48], [0, 0.1], '45deg/s')
    for (const t of [8, 86400, 31557600]) {
      expect(turn(1, t) - turn(1, 0)).toBeCloseTo((-12 / 30) * (turn(0, t) - turn(0, 0)), 6)
      expect(turn(2, t) - turn(2, 0)).toBeCloseTo((12 / 48) * (turn(0, t) - turn(0, 0)), 6)
    }
  })

  it('48 teeth and 6 spokes at three teeth a second close by symmetry at 8 s, not at 6 s', () => {
    const { program, ids, b } = train([12, 48], [0], '90deg/s', 6)
    const key = `${ids[1]}.rotation`
    const { natural, symmetry } = symmetriesOf(program, key)
    const closure = (lap: bigint) =>
      closureOf(
        program.slots.get(key)!.forms[0]!,
        { measures: { ...program.measures, lapLength: { n: lap, d: 1n } }, queue: program.queue },
        program.lapStart,
        natural,
        symmetry,
      ).verdict
    expect([closure(8n), closure(6n), closure(16n)]).toEqual(['symmetry', 'no', 'yes'])
    expect(b.piece.parts[ids[1]!]!.symmetry).toBe(6)
  })

  it('are read by their teeth, and only gears engage', () => {
    const { b } = train([12, 48], [0])
    b.part('Plate', { type: 'ellipse' })
    b.drive('p3', 'rotation', 'engage(`Gear 0`)')
    b.drive('p1', 'x', '`Gear 1`.teeth * 1px')
    b.drive('p2', 'rotation', 'engage(plate)')
    const program = new Program(b.piece)
    expect(program.slots.get('p3.rotation')!.problems[0]!.message).toMatch(/Only a gear’s rotation/)
    expect(program.slots.get('p2.rotation')!.problems[0]!.message).toMatch(/Unknown gear “plate”/)
    expect(program.slots.get('p1.x')!.readers[0]!.at(at(0))).toBe(48)
    const ring = train([12, 48], [0])
    ring.b.drive('p1', 'rotation', 'engage(`Gear 1`)')
    expect(new Program(ring.b.piece).slots.get('p1.rotation')!.problems[0]!.code).toBe('cycle')
  })

  it('have their teeth round the pitch circle, the first to the right', () => {
    const { points, hole, more } = outlineOf(gear(24, 5), {
      width: 0,
      height: 0,
      corners: 0,
      radius: 0,
      innerRadius: 0,
    })!
    const radii = Array.from({ length: points.length / 2 }, (_, k) => Math.hypot(points[2 * k]!, points[2 * k + 1]!))
    expect(radii).toHaveLength(96)
    expect(Math.max(...radii)).toBeCloseTo(48 + 3.6, 9)
    expect(Math.min(...radii)).toBeCloseTo(48 - 4.4, 9)
    // The tip of the first tooth lies evenly about the angle 0.
    expect(points[3]! + points[5]!).toBeCloseTo(0, 9)
    expect(hole!.length).toBe(points.length)
    expect(more).toHaveLength(6)
  })
})
