import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { lanternPier } from '../../demo/lantern-pier.ts'
import { Program } from '../engine/program.ts'
import { stillSvg } from '../formats/svg.ts'
import { Builder } from '../acts/build.ts'
import type { Copies, Shape } from '../piece/schema.ts'
import { RATE, at } from '../testing/fair.ts'
import { rational } from '../time/rational.ts'
import { hex, rgbOf } from './colour.ts'
import { copyMatrices } from '../piece/copies.ts'
import { cutOutline, outlineOf } from './outline/outline.ts'
import { PROPERTIES, has, propertiesOf, propertyNamed } from '../piece/properties.ts'
import { Scene } from './scene.ts'
import {
  applyX,
  applyY,
  matrix,
  multiply,
  placeMatrix,
  posed,
  restPose,
  scaleOf,
  unapply,
  type Matrix,
  type Pose,
} from '../piece/transform.ts'

const point = (m: Matrix, x: number, y: number) =>
  [applyX(m, x, y), applyY(m, x, y)].map(v => Math.round(v * 1e9) / 1e9 + 0)
const pose = (p: Partial<Pose>) => posed({ ...restPose(), ...p }, matrix())

describe('where parts stand', () => {
  it('positive turns are anticlockwise, y points up', () => {
    expect(point(pose({ rotation: 0.25 }), 1, 0)).toEqual([0, 1])
    expect(point(pose({ x: 3, y: 4 }), 1, 0)).toEqual([4, 4])
    expect(point(pose({ scaleX: 2, scaleY: 3, rotation: 0.25 }), 1, 1)).toEqual([-3, 2])
    expect(point(pose({ rotationX: 0.5 }), 1, 1)).toEqual([1, -1])
    expect(point(pose({ rotationY: 0.5 }), 1, 1)).toEqual([-1, 1])
  })
  it('turning and scaling leave the pivot where it is', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -5, max: 5, noNaN: true }),
        fc.double({ min: 0.1, max: 5, noNaN: true }),
        fc.integer({ min: -99, max: 99 }),
        (rotation, scale, p) => {
          const m = pose({
            rotation,
            scaleX: scale,
            scaleY: 1 / scale,
            rotationX: rotation / 3,
            pivotX: p,
            pivotY: 2 * p,
            x: 7,
          })
          expect(applyX(m, p, 2 * p)).toBeCloseTo(p + 7, 8)
          expect(applyY(m, p, 2 * p)).toBeCloseTo(2 * p, 8)
        },
      ),
    )
  })
  it('one after the other is one by multiplying, and back again', () => {
    const [a, b] = [pose({ rotation: 0.1, x: 30 }), pose({ scaleX: 2, y: 5, rotation: 0.3 })]
    const both = multiply(a, b, matrix())
    const [x, y] = [applyX(b, 3, 4), applyY(b, 3, 4)]
    expect([applyX(both, 3, 4), applyY(both, 3, 4)]).toEqual([
      expect.closeTo(applyX(a, x, y), 9),
      expect.closeTo(applyY(a, x, y), 9),
    ])
    const back = unapply(both, applyX(both, 3, 4), applyY(both, 3, 4))!
    expect(back).toEqual([expect.closeTo(3, 9), expect.closeTo(4, 9)])
    expect(unapply(pose({ scaleX: 0 }), 1, 1)).toBeNull()
    expect(scaleOf(pose({ scaleX: 2, scaleY: 8 }))).toBeCloseTo(4, 12)
  })
})

describe('copies', () => {
  const ring: Copies = { layout: 'ring', count: 4, radius: 10, from: 90, sweep: 360, turn: true }
  it('stand round a ring, each with its top outwards', () => {
    expect(copyMatrices(ring).map(m => point(m, 0, 0))).toEqual([
      [0, 10],
      [-10, 0],
      [0, -10],
      [10, 0],
    ])
    expect(copyMatrices(ring).map(m => point(m, 0, 1))).toEqual([
      [0, 11],
      [-11, 0],
      [0, -11],
      [11, 0],
    ])
    expect(copyMatrices({ ...ring, turn: false }).map(m => point(m, 0, 1))).toEqual([
      [0, 11],
      [-10, 1],
      [0, -9],
      [10, 1],
    ])
  })
  it('of a part of a ring the last stands at its end', () => {
    expect(copyMatrices({ ...ring, count: 3, from: 0, sweep: 180 }).map(m => point(m, 0, 0))).toEqual([
      [10, 0],
      [0, 10],
      [-10, 0],
    ])
  })
  it('stand in a row about the middle', () => {
    expect(copyMatrices({ layout: 'row', count: 3, dx: 10, dy: 2 }).map(m => point(m, 0, 0))).toEqual([
      [-10, -2],
      [0, 0],
      [10, 2],
    ])
    expect(copyMatrices(null)).toHaveLength(1)
    expect(point(placeMatrix(1, 2, 0.25), 1, 0)).toEqual([1, 3])
  })
})

const sizes = { width: 40, height: 20, corners: 0, radius: 10, innerRadius: 4 }
const area = (p: Float64Array) => {
  let sum = 0
  for (let k = 0; k < p.length; k += 2) sum += p[k]! * p[(k + 3) % p.length]! - p[(k + 2) % p.length]! * p[k + 1]!
  return sum / 2
}

describe('outlines', () => {
  it.each([
    [{ type: 'rectangle' }, 800],
    [{ type: 'ellipse' }, Math.PI * 200],
    [{ type: 'polygon', sides: 4 }, 200],
    [{ type: 'star', points: 5 }, 10 * 0.5 * 40 * Math.sin(Math.PI / 5)],
    [{ type: 'ring' }, Math.PI * 100],
  ] as [Shape, number][])('%o has its area, anticlockwise', (shape, wanted) => {
    const { points } = outlineOf(shape, sizes)!
    expect(area(points) / wanted).toBeGreaterThan(0.97)
    expect(area(points) / wanted).toBeLessThan(1.001)
  })
  it('round corners take away what lies outside them', () => {
    const round = outlineOf({ type: 'rectangle' }, { ...sizes, corners: 5 })!
    expect(area(round.points) / (800 - (100 - Math.PI * 25))).toBeCloseTo(1, 2)
    expect(outlineOf({ type: 'rectangle' }, { ...sizes, corners: 500 })!.points.length).toBeGreaterThan(20)
    expect(outlineOf({ type: 'group' }, sizes)).toBeNull()
  })
  it('are cut by shares of their length', () => {
    const line = outlineOf({ type: 'line' }, sizes)!
    expect([...cutOutline(line, 0.25, 0.5).points]).toEqual([-10, 0, 0, 0])
    expect([...cutOutline(line, 0.5, 0.25).points]).toEqual([-10, 0, 0, 0])
    const box = outlineOf({ type: 'rectangle' }, sizes)!
    expect(cutOutline(box, 0, 1)).toBe(box)
    // From the lower right corner up its 20 px, then 10 px to the left: a quarter of 120 px.
    expect([...cutOutline(box, 0, 0.25).points]).toEqual([20, -10, 20, 10, 10, 10])
    expect(cutOutline(box, 0.5, 0.5).points).toHaveLength(0)
  })
})

function sceneOf(make: (b: Builder) => void, seconds = 0) {
  const b = new Builder('Stage', 1)
  make(b)
  const program = new Program(b.piece)
  return new Scene(program).update(program.moment(at(seconds), new Float64Array(program.size)), at(seconds))
}

describe('the scene', () => {
  it('children ride on their parent, copies on their place, opacity multiplies down', () => {
    const scene = sceneOf(b => {
      const ride = b.part('Ride', { type: 'group' }, {}, { x: 100, opacity: 50 })
      b.drive(ride, 'rotation', 'time * 90deg/s')
      const seat = b.part(
        'Seat',
        { type: 'ellipse' },
        { parent: ride, copies: { layout: 'ring', count: 4, radius: 50, from: 0, sweep: 360, turn: true } },
        { opacity: 50 },
      )
      b.part('Cushion', { type: 'rectangle' }, { parent: seat }, { y: 10 })
    }, 1)
    const cushion = scene.bodies.get('p3')!
    expect(cushion.count).toBe(4)
    // A quarter turn: the first seat stands above the middle, its cushion 10 px further out.
    expect(point(cushion.worlds[0]!, 0, 0)).toEqual([100, 60])
    expect(point(cushion.worlds[1]!, 0, 0)).toEqual([40, 0])
    expect(cushion.opacity[2]).toBe(0.25)
  })

  it('is painted from back to front, each copy with what rides on it', () => {
    const scene = sceneOf(b => {
      b.part('Front', { type: 'ellipse' }, { order: 5 })
      const back = b.part('Back', { type: 'ellipse' }, { order: 1, copies: { layout: 'row', count: 2, dx: 9, dy: 0 } })
      b.part('On it', { type: 'ellipse' }, { parent: back })
      b.part('Only carries', { type: 'group' }, { order: 9 })
    })
    expect(scene.paint.map(p => `${p.body.part.name} ${p.instance}`)).toEqual([
      'Back 0',
      'On it 0',
      'Back 1',
      'On it 1',
      'Front 0',
    ])
  })

  it('holds values to what can be drawn', () => {
    const scene = sceneOf(b => {
      const p = b.part('Lamp', { type: 'ellipse' })
      b.drive(p, 'fillLightness', '250%')
      b.drive(p, 'width', '-20')
    })
    const lamp = scene.bodies.get('p1')!
    expect([lamp.get('fillLightness', 0), lamp.get('width', 0), lamp.get('height', 0)]).toEqual([1, 0, 120])
  })
})

describe('a span', () => {
  it('a part and what it carries are there from its first moment until its last', () => {
    const b = new Builder('Spans', 1)
    const arrow = b.part('Arrow', { type: 'line' }, { span: { from: 1.5, to: 4 } })
    const tip = b.part('Tip', { type: 'ellipse' }, { parent: arrow })
    const seen = (s: number) => {
      const scene = sceneOf(made => void (made.piece = b.piece), s)
      return [arrow, tip].map(id => scene.bodies.get(id)!.opacity[0])
    }
    expect([0, 1.5, 3.99, 4].map(seen)).toEqual([
      [0, 0],
      [1, 1],
      [1, 1],
      [0, 0],
    ])
  })
})

describe('colours and properties', () => {
  it('are as CSS Color 4 has them', () => {
    expect(hex(rgbOf(1, 0, 0))).toBe('#ffffff')
    expect(hex(rgbOf(0, 0, 0.3))).toBe('#000000')
    // oklch(62.796% 0.25768 29.234deg) is the red of sRGB.
    expect(hex(rgbOf(0.62796, 0.25768, 29.234 / 360))).toBe('#ff0000')
    expect(hex(rgbOf(2, 0.4, 0.5))).toMatch(/^#[0-9a-f]{6}$/)
  })
  it('every property has words, a unit of its kind, and a start within its range', () => {
    for (const p of PROPERTIES) {
      expect(p.description.endsWith('.'), p.name).toBe(true)
      const initial = typeof p.initial === 'number' ? p.initial : p.initial('ring')
      if (p.range) expect(initial >= p.range[0] && initial <= p.range[1], p.name).toBe(true)
      expect(propertyNamed(p.name.toUpperCase())).toBe(p)
    }
    expect(propertiesOf('group').some(p => p.group === 'fill')).toBe(false)
    expect(has('line', propertyNamed('strokeWidth')!)).toBe(true)
  })
})

it('a still picture shows every visible body and nothing else', () => {
  const svg = stillSvg(lanternPier(), rational(5, 4))
  expect(svg.startsWith('<svg xmlns="http://www.w3.org/2000/svg" viewBox="-640 -360 1280 720"')).toBe(true)
  expect(svg).not.toMatch(/NaN|Infinity|<script|href/)
  expect(svg.match(/<path/g)!.length).toBeGreaterThan(200)
  expect(RATE.n).toBe(30n)
})
