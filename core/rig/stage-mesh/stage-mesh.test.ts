import { describe, expect, it } from 'vitest'
import { Program } from '../../engine/program.ts'
import { Builder } from '../../acts/build.ts'
import type { Part, Shape } from '../../piece/schema.ts'
import { at } from '../../testing/fair.ts'
import { hit } from '../hit.ts'
import { StageMesh } from './stage-mesh.ts'
import { tableLines } from './row-ranges.ts'
import { PER_ROW, ROWS_ACROSS } from './instance-table.ts'
import { Scene } from '../scene.ts'
import { covered, simulateVertexShader } from './simulated-shader.ts'

function sceneOf(make: (b: Builder) => void, seconds = 0) {
  const b = new Builder('Stage', 1)
  make(b)
  const program = new Program(b.piece)
  return new Scene(program).update(program.moment(at(seconds), new Float64Array(program.size)), at(seconds))
}

describe('the mesh', () => {
  const plateOf = (shape: Shape, hand: Record<string, number> = {}, given: Partial<Part> = {}) =>
    new StageMesh().build(
      sceneOf(b => void b.part('It', shape, given, hand)),
      1,
    )
  const shown = (shape: Shape, hand: Record<string, number> = {}, given: Partial<Part> = {}) =>
    covered(simulateVertexShader(plateOf(shape, hand, given), 1))
  it.each([
    [{ type: 'rectangle' }, { width: 100, height: 50 }, 5000],
    [{ type: 'rectangle' }, { width: 100, height: 50, corners: 10 }, 5000 - (4 - Math.PI) * 100],
    [{ type: 'ellipse' }, { width: 100, height: 100 }, Math.PI * 2500],
    [{ type: 'ellipse' }, { width: 120, height: 30 }, Math.PI * 900],
    [{ type: 'ring' }, { radius: 50, innerRadius: 30 }, Math.PI * 1600],
    [{ type: 'line' }, { width: 100, strokeWidth: 6 }, 600],
    [{ type: 'star', points: 6 }, { radius: 50, innerRadius: 25 }, 12 * 0.5 * 1250 * 0.5],
    [{ type: 'rectangle' }, { width: 100, height: 50, fillAlpha: 0, strokeWidth: 4 }, 1200],
    [{ type: 'rectangle' }, { width: 100, height: 50, fillAlpha: 0, strokeWidth: 4, lineEnd: 50 }, 600],
    [{ type: 'ellipse' }, { width: 200, height: 50, fillAlpha: 0, strokeWidth: 4, lineStart: 25, lineEnd: 75 }, 857],
    [{ type: 'rectangle' }, { width: 100, height: 50, opacity: 40 }, 2000],
    [{ type: 'rectangle' }, { width: 100, height: 50, scale: 300, rotation: 30 }, 45_000],
  ] as [Shape, Record<string, number>, number][])('covers what the shape covers: %o %o', (shape, hand, wanted) => {
    expect(shown(shape, hand) / wanted).toBeGreaterThan(0.97)
    expect(shown(shape, hand) / wanted).toBeLessThan(1.03)
  })
  it('a line thinner than a pixel is a pixel wide and fainter', () => {
    expect(shown({ type: 'line' }, { width: 200, strokeWidth: 0.25 })).toBeCloseTo(50, 0)
  })
  it('is mirrored without turning inside out, and grows as needed', () => {
    expect(shown({ type: 'ellipse' }, { width: 100, height: 100, scaleX: -100 })).toBeGreaterThan(7600)
    const many = plateOf({ type: 'ellipse' }, {}, { copies: { layout: 'row', count: 300, dx: 3, dy: 0 } })
    expect(many.count).toBeGreaterThan(10000)
    expect(many.rows.count).toBe(300)
    expect(shown({ type: 'ellipse' }, { opacity: 0 })).toBe(0)
  })

  /** A part that is driven, with its mesh at several moments. */
  function running(shape: Shape, drives: Record<string, string>, hand: Record<string, number> = {}) {
    const b = new Builder('Stage', 1)
    const id = b.part('It', shape, {}, hand)
    for (const [property, text] of Object.entries(drives)) b.drive(id, property, text)
    const program = new Program(b.piece)
    const scene = new Scene(program)
    const mesh = new StageMesh()
    return (seconds: number) =>
      mesh.build(scene.update(program.moment(at(seconds), new Float64Array(program.size)), at(seconds)), 1)
  }
  const anew = ({ changed }: StageMesh) => changed.all || changed.corners.length > 0

  it('what moves, turns, grows and changes its colour is laid once', () => {
    const to = running(
      { type: 'ellipse' },
      { x: 'time * 10px/s', rotation: 'time * 30deg/s', fillHue: 'time * 9deg/s', opacity: 'sine(1Hz, 50%) + 50%' },
      { width: 30, height: 80 },
    )
    expect(anew(to(0))).toBe(true)
    expect([1, 2, 3, 4].map(s => anew(to(s)))).toEqual([false, false, false, false])
  })
  it('the width of a wheel is a row, its corners are not', () => {
    const wide = running({ type: 'rectangle' }, { width: '20px + time * 1px/s' }, { height: 10 })
    expect(covered(simulateVertexShader(wide(0), 1))).toBeCloseTo(200, 0)
    const after = wide(30)
    expect(anew(after)).toBe(false)
    expect(covered(simulateVertexShader(after, 1))).toBeCloseTo(500, 0)
    const soft = running({ type: 'rectangle' }, { corners: '14px + time * 1px/s' }, { width: 100, height: 100 })
    soft(0)
    const round = soft(1)
    expect([anew(round), round.changed.all]).toEqual([true, false])
    expect(covered(simulateVertexShader(round, 1)) / (10_000 - (4 - Math.PI) * 225)).toBeCloseTo(1, 2)
  })
  it('more letters than fitted make room for themselves, and nothing is left of fewer', () => {
    const to = running(
      { type: 'text', words: '', shows: 'number', decimals: 0, prefix: '', suffix: '', align: 'middle' } as Shape,
      {
        value: 'time * 1/s',
      },
    )
    const one = covered(simulateVertexShader(to(1), 1))
    const many = covered(simulateVertexShader(to(11_111), 1))
    expect(many / one).toBeCloseTo(5, 0)
    expect(covered(simulateVertexShader(to(1), 1))).toBeCloseTo(one, 6)
  })
  it('a helper is not seen, nor what it carries, and cannot be hit', () => {
    const scene = sceneOf(b => {
      const cart = b.part('Cart', { type: 'rectangle' }, { hidden: true }, { width: 50, height: 50 })
      b.part('Rider', { type: 'ellipse' }, { parent: cart }, { width: 20, height: 20 })
    })
    expect(covered(simulateVertexShader(new StageMesh().build(scene, 1), 1))).toBe(0)
    expect(hit(scene, 0, 0, 1)).toBeNull()
  })
  it('a line that appears later is laid when it does', () => {
    const to = running(
      { type: 'rectangle' },
      { strokeWidth: 'max(0px, time * 2px/s - 2px)' },
      { width: 100, height: 50, fillAlpha: 0 },
    )
    expect(covered(simulateVertexShader(to(0), 1))).toBe(0)
    expect(covered(simulateVertexShader(to(3), 1)) / 1200).toBeCloseTo(1, 1)
    expect(covered(simulateVertexShader(to(0), 1))).toBe(0)
  })
  it('the same after many moments as from nothing', () => {
    const shape: Shape = { type: 'star', points: 7 }
    const drives = {
      innerRadius: 'sine(1Hz, 20px) + 30px',
      lineEnd: 'time * 10%/s',
      strokeWidth: '3px',
      rotation: 'noise(1Hz)*1turn',
    }
    const played = running(shape, drives, { radius: 60 })
    for (const s of [0, 0.3, 4, 2]) played(s)
    expect(covered(simulateVertexShader(played(1.7), 1))).toBe(
      covered(simulateVertexShader(running(shape, drives, { radius: 60 })(1.7), 1)),
    )
  })
  it.each([
    ['an ellipse that grows and shrinks', 'ellipse', { width: 'sine(1Hz, 200px) + 200px', height: '30px' }, {}],
    ['corners that come and go', 'rectangle', { corners: 'sine(1Hz, 20px)', width: '60px + sine(0.3Hz, 50px)' }, {}],
    [
      'a wheel whose line comes and goes',
      'polygon',
      { radius: '20px + sine(1Hz, 19px)', strokeWidth: 'sine(2Hz, 4px)' },
      {},
    ],
    [
      'a fill that comes and goes',
      'ellipse',
      { width: '40px + sine(1Hz, 9px)', fillAlpha: 'sine(1Hz, 50%)' },
      { strokeWidth: 2 },
    ],
    ['a line in part', 'ellipse', { width: '40px + sine(1Hz, 9px)', lineEnd: 'time * 20%/s' }, { strokeWidth: 2 }],
    ['dashes', 'rectangle', { width: '40px + sine(1Hz, 9px)' }, { strokeWidth: 2, dash: 6, dashGap: 3 }],
    [
      'a graded fill',
      'rectangle',
      { width: '40px + sine(1Hz, 9px)', gradientTurn: 'time * 40deg/s' },
      { gradient: 80 },
    ],
    ['what goes and comes back', 'ellipse', { width: '40px + sine(1Hz, 9px)', opacity: 'square(1Hz, 50%) + 50%' }, {}],
  ] as const)('%s: frame after frame as from nothing, to the bit', (_, type, drives, hand) => {
    const copies = { layout: 'row', count: 4, dx: 90, dy: 0 } as const
    const b = new Builder('Stage', 1)
    const cart = b.part('Cart', { type: 'group' })
    b.drive(cart, 'rotation', 'time * 3deg/s')
    for (const parent of [null, cart]) {
      const id = b.part('It', type === 'polygon' ? { type, sides: 5 } : { type }, { copies, parent }, hand)
      b.drive(id, 'y', 'sine(1Hz, 9px, phase: index * 30deg)')
      b.drive(id, 'rotation', 'time * 9deg/s + index * 20deg')
      for (const [name, text] of Object.entries(drives)) b.drive(id, name, text)
    }
    const program = new Program(b.piece)
    const kept = [new Scene(program), new StageMesh()] as const
    const corners = ([scene, mesh]: readonly [Scene, StageMesh], s: number) => {
      scene.update(program.moment(at(s), new Float64Array(program.size)), at(s))
      const { positions, colours, ways, triangles } = simulateVertexShader(mesh.build(scene, 1), 1)
      return triangles.flatMap(k => [
        ...positions.slice(2 * k, 2 * k + 2),
        ...colours.slice(4 * k, 4 * k + 4),
        ways[k]!,
      ])
    }
    for (let k = 0; k < 25; k++) {
      const [played, fresh] = [corners(kept, k * 0.077), corners([new Scene(program), new StageMesh()], k * 0.077)]
      const seen = (all: number[]) =>
        Array.from({ length: all.length / 7 }, (_, c) => all.slice(7 * c, 7 * c + 7)).filter(c => c[5]! > 0)
      // What was laid once and shows nothing now stays.
      expect(String(seen(played)) === String(seen(fresh))).toBe(true)
    }
  })
})

describe('what lies under a point', () => {
  const scene = sceneOf(b => {
    b.part('Below', { type: 'rectangle' }, { order: 1 }, { width: 200, height: 200 })
    b.part('Hoop', { type: 'ring' }, { order: 2 }, { radius: 50, innerRadius: 40 })
    b.part('Rope', { type: 'line' }, { order: 3 }, { width: 300, y: 90, strokeWidth: 2 })
    b.part('Gone', { type: 'ellipse' }, { order: 4 }, { opacity: 0, width: 500, height: 500 })
  })
  it.each([
    [0, 0, 'p1'],
    [45, 0, 'p2'],
    [45, 20, 'p2'],
    [140, 92, 'p3'],
    [140, 60, null],
  ])('%d, %d', (x, y, id) => expect(hit(scene, x, y, 3)?.id ?? null).toBe(id))
})

describe('bends of a line', () => {
  const box = { width: 100, height: 60, fillAlpha: 0, strokeWidth: 20 }
  const shown = (shape: Shape, hand: Record<string, number>, join?: Part['join']) =>
    simulateVertexShader(
      new StageMesh().build(
        sceneOf(b => void b.part('It', shape, join ? { join } : {}, hand)),
        1,
      ),
      1,
    )
  it.each([
    // Round corners lack what a square has over its quarter circle, those cut off half of the square.
    [undefined, 0],
    ['round', 4 * (1 - Math.PI / 4) * 100],
    ['bevel', 4 * 50],
  ] as const)('%s: covers what it should, and nothing twice', (join, lacks) => {
    const area = 120 * 80 - 80 * 40 - lacks
    for (const mirror of [100, -100])
      for (const lineEnd of [100, 99.99]) {
        const got = covered(shown({ type: 'rectangle' }, { ...box, scaleX: mirror, lineEnd }, join))
        // Where it begins and ends nothing is joined: a corner is missing without, and within its square lies twice.
        const open = lineEnd < 100 ? 100 - lacks / 4 - 100 : 0
        expect(Math.abs(got - area + open)).toBeLessThan(area * 0.012)
      }
  })
  it('the furthest corner of a round bend lies half the line from it, whichever way it is drawn', () => {
    const corner = (x: number, y: number) => ({ x, y, smooth: false })
    const angle = [corner(-60, 0), corner(0, 0), corner(0, -60)]
    for (const ring of [angle, [...angle].reverse()]) {
      const shape: Shape = { type: 'path', closed: false, poses: [[ring]] }
      const far = (join?: Part['join']) => {
        const { positions, colours, triangles } = shown(shape, { strokeWidth: 20, strokeAlpha: 100 }, join)
        return Math.max(
          ...triangles
            .filter(c => colours[4 * c + 3]! > 0)
            .map(c => (positions[2 * c]! + positions[2 * c + 1]!) / Math.SQRT2),
        )
      }
      expect(far()).toBeCloseTo(Math.SQRT2 * 9.5, 0)
      expect(far('round')).toBeGreaterThan(9.4)
      expect(far('round')).toBeLessThan(9.501)
      expect(far('bevel')).toBeCloseTo(9.5 / Math.SQRT2, 1)
    }
  })
  it('a smooth outline has no bends', () => {
    const corners = (join?: Part['join']) =>
      new StageMesh().build(
        sceneOf(b => void b.part('It', { type: 'ellipse' }, join ? { join } : {}, box)),
        1,
      ).corners
    expect(corners('round')).toBe(corners())
  })
})

describe('what is sent', () => {
  const b = new Builder('Sent', 1)
  const points = (by: number) => [
    [0, 1, 2, 3, 4].map(k => ({ x: 40 * k, y: (k % 2 ? by : 0) + 30 * (k < 3 ? 1 : -1), smooth: true })),
  ]
  const blob = b.part('Blob', { type: 'path', closed: true, poses: [points(10), points(25)] }, {}, { strokeWidth: 3 })
  b.drive(blob, 'pose', 'sine(every: 4s, low: 0, high: 1)')
  const line = b.part('Line', { type: 'ellipse' }, {}, { width: 200, height: 90, strokeWidth: 4, fillAlpha: 0 })
  b.drive(line, 'lineEnd', 'max(0%, sine(every: 3s, amp: 100%))')
  const program = new Program(b.piece)
  it('of forms that change, kept as the card keeps it, is what a card that gets everything would have', () => {
    const [scene, mesh] = [new Scene(program), new StageMesh()]
    let corners = new Float32Array(0)
    let indices = new Uint32Array(0)
    let rows = new Float32Array(0)
    let [sent, of] = [0, 0]
    for (let k = 0; k < 90; k++) {
      const now = at(k / 15)
      mesh.build(scene.update(program.moment(now, new Float64Array(program.size)), now), 1)
      const { pen, changed } = mesh
      if (changed.all) [corners, indices] = [pen.points.slice(0, 6 * mesh.corners), pen.indices.slice(0, mesh.count)]
      const line = ROWS_ACROSS * PER_ROW
      if (changed.all) rows = mesh.rows.data.slice()
      for (const [from, to] of tableLines(changed.rows, ROWS_ACROSS))
        rows.set(mesh.rows.data.subarray(from * line, to * line), from * line)
      expect(rows).toEqual(mesh.rows.data)
      for (const [from, to] of changed.corners) corners.set(pen.points.subarray(6 * from, 6 * to), 6 * from)
      for (const [from, to] of changed.indices) indices.set(pen.indices.subarray(from, to), from)
      expect(changed.corners.every(([from, to]) => to > from)).toBe(true)
      expect(indices).toEqual(pen.indices.slice(0, mesh.count))
      const stale = [...new Set(indices)].filter(n =>
        [0, 1, 2, 3, 4, 5].some(c => !Object.is(corners[6 * n + c], pen.points[6 * n + c])),
      )
      expect(stale).toEqual([])
      sent += changed.indices.length
      of += changed.corners.length
    }
    // The triangles of the blob stay while its corners go.
    expect(sent).toBeLessThan(of)
  })

  it('of rows is what moves: what rests is not sent again until something is set, shown alone, or drawn at another size', () => {
    const b = new Builder('Still', 1)
    const grid = { layout: 'grid', count: 1000, columns: 40, dx: 12, dy: 12 } as const
    b.part('Lamp', { type: 'ellipse' }, { copies: grid })
    const moves = b.part('Moves', { type: 'ellipse' })
    b.drive(moves, 'x', 'time * 9px/s')
    const before = new Program(b.piece)
    const [scene, mesh] = [new Scene(before), new StageMesh()]
    const lines = (program: Program, s: number, pixel = 1) => {
      const now = at(s)
      mesh.build(scene.update(program.moment(now, new Float64Array(program.size)), now), pixel)
      return tableLines(mesh.changed.rows, ROWS_ACROSS).reduce((n, [from, to]) => n + to - from, 0)
    }
    const all = Math.ceil(1001 / ROWS_ACROSS)
    expect([0, 0.1, 0.2].map(s => lines(before, s))).toEqual([all, 1, 1])
    expect([lines(before, 0.3, 2), lines(before, 0.4, 2)]).toEqual([all, 1])
    scene.only = new Set([moves])
    expect([lines(before, 0.5, 2), lines(before, 0.6, 2)]).toEqual([all, 1])
    b.do({ undoLabel: '', puts: [{ in: 'bases', id: 'p1.fillHue', value: { value: 200 } }] })
    const after = new Program(b.piece, before)
    expect(scene.adopt(after)).toBe(true)
    expect([lines(after, 0.7, 2), lines(after, 0.8, 2)]).toEqual([all, 1])
  })
})
