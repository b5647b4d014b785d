import { describe, expect, it } from 'vitest'
import { Builder } from '../acts/build.ts'
import { Program } from '../engine/program.ts'
import { stillSvg } from '../formats/svg.ts'
import { at } from '../testing/fair.ts'
import { fromNumber } from '../time/rational.ts'
import { particlesAtOnce } from './laying.ts'
import { StageMesh } from './stage-mesh/stage-mesh.ts'
import { PER_ROW } from './stage-mesh/instance-table.ts'
import { Scene } from './scene.ts'
import { covered, simulateVertexShader } from './stage-mesh/simulated-shader.ts'

/** A fan that blows dots to the right: one every second, gone after `life` seconds, 10 px a second. */
function fan(hand: Record<string, number> = {}, drives: Record<string, string> = {}, frame: 'part' | 'stage' = 'part') {
  const b = new Builder('Fan', 1)
  const id = b.part(
    'Petals',
    { type: 'emitter', seed: 1, flight: 'fixed', reverses: false },
    { gradientFrame: frame },
    { births: 1, life: 4.5, spread: 0, variety: 0, speed: 10, particle: 8, ...hand },
  )
  for (const [property, text] of Object.entries(drives)) b.drive(id, property, text)
  const program = new Program(b.piece)
  const [scene, mesh] = [new Scene(program), new StageMesh()]
  const show = (seconds: number) =>
    mesh.build(scene.update(program.moment(at(seconds), new Float64Array(program.size)), at(seconds)), 1)
  return { show, shown: (seconds: number) => program.queue.settle(() => show(seconds)), piece: b.piece, scene }
}
/** Rows that show something. */
const filled = ({ rows }: StageMesh) =>
  Array.from({ length: rows.count }, (_, k) => rows.data[k * PER_ROW + 3]!).filter(a => a > 0).length

describe('particles', () => {
  it('are rows of one dot that is laid once, whatever they do', () => {
    const { show } = fan()
    expect(filled(show(10))).toBe(5)
    const anew = [11, 11.3, 12.9, 600].map(s => {
      const { changed } = show(s)
      return changed.all || changed.corners.length > 0
    })
    expect(anew).toEqual([false, false, false, false])
    // Births at whole seconds, 10 px/s: the oldest of the five first.
    const { data } = show(12.25).rows
    for (let k = 0; k < 5; k++) expect(data[k * PER_ROW + 2]).toBeCloseTo(42.5 - 10 * k, 4)
    expect(data[0]).toBeCloseTo(4)
    // Before second 0, about it, and where the oldest is the very first of all that are counted.
    expect([-9, -4.4, -0.2, 0, 0.3, 3.7, 4.2, 4.6].map(s => filled(show(s)))).toEqual([5, 4, 4, 5, 5, 4, 5, 4])
  })
  it('are counted before they are there, those that are driven too, and beyond what a piece shows', () => {
    const atOnce = (hand: Record<string, number>, drives: Record<string, string> = {}) => {
      const { scene } = fan(hand, drives)
      return particlesAtOnce(scene.program, Object.keys(scene.program.piece.parts)[0]!)
    }
    expect(atOnce({})).toEqual({ alive: 5, shown: 5, copies: 1 })
    expect(atOnce({}, { births: '1Hz + sine(every: 2s, amp: 9Hz)' })).toEqual({ alive: 45, shown: 45, copies: 1 })
    expect(atOnce({ births: 9000, life: 60 })).toEqual({ alive: 540_000, shown: 100_000, copies: 1 })
    expect(atOnce({ births: 0 }, { life: 'time' })).toEqual({ alive: 0, shown: 0, copies: 1 })
    expect(atOnce({}, { life: 'time' })).toEqual({ alive: Infinity, shown: 100_000, copies: 1 })
    // Of copies the most that any has, and not more of them than there is room for.
    const of = (count: number, text: string) => {
      const b = new Builder('Fans', 1)
      const copies = { layout: 'row', count, dx: 9, dy: 0 } as const
      const id = b.part(
        'Petals',
        { type: 'emitter', seed: 1, flight: 'fixed', reverses: false },
        { copies },
        { life: 2 },
      )
      b.drive(id, 'births', text)
      return particlesAtOnce(new Program(b.piece), id)
    }
    expect(of(3, '1Hz')).toEqual({ alive: 2, shown: 2, copies: 3 })
    expect(of(3, '1Hz + index * 10Hz')).toEqual({ alive: 42, shown: 42, copies: 3 })
    expect(of(2000, '1Hz + index * 0.01Hz')).toEqual({ alive: 42, shown: 42, copies: 1666 })
    const { show } = fan({ births: 9000, life: 60 })
    expect(filled(show(1000))).toBe(100_000)
  })
  it('cover what so many dots cover, no more', () => {
    expect(covered(simulateVertexShader(fan().show(12.25), 1)) / (4 * Math.PI * 16 + Math.PI * 16)).toBeCloseTo(1, 1)
  })
  it('more of them make room, fewer leave nothing behind', () => {
    const { shown } = fan({}, { births: '1Hz + clamp((time - 20s) / 1s, 0, 1) * 39Hz' })
    const few = covered(simulateVertexShader(shown(10), 1))
    expect(filled(shown(30))).toBeGreaterThan(150)
    expect(covered(simulateVertexShader(shown(10), 1))).toBeCloseTo(few, 6)
  })
  it('carry their gradient along, or move over one that stays on the stage', () => {
    const graded = { gradient: 100, gradientTurn: 0 }
    const ways = (frame: 'part' | 'stage') => {
      const { ways, positions } = simulateVertexShader(fan(graded, {}, frame).show(12.25), 1)
      const all: number[][] = []
      for (let n = 0; n < ways.length; n++) if (!Number.isNaN(ways[n]!)) all.push([positions[2 * n]!, ways[n]!])
      return all
    }
    // Each dot is 8 px wide: from one colour to the other across it.
    for (const [x, way] of ways('part')) {
      const own = x! - (2.5 + 10 * Math.round((x! - 2.5) / 10))
      expect(way).toBeCloseTo(0.5 + own / 8, 1)
    }
    const onStage = ways('stage')
    const [[x0, w0], [x1, w1]] = [onStage[0]!, onStage.at(-1)!] as [[number, number], [number, number]]
    for (const [x, way] of onStage) expect(way).toBeCloseTo(w0 + ((w1 - w0) * (x! - x0)) / (x1 - x0), 4)
  })
  it('are drawn in a still as on the stage', () => {
    const { piece } = fan({ gradient: 100 })
    const svg = stillSvg(piece, fromNumber(12.25))
    expect(svg.match(/<path /g)).toHaveLength(5)
    expect(new Set(svg.match(/id="g-[^"]+"/g)).size).toBe(5)
  })
})

describe('what only moves', () => {
  const made = () => {
    const b = new Builder('Sway', 1)
    const post = b.part('Post', { type: 'rectangle' }, {}, { width: 10, height: 40 })
    const lamp = b.part('Lamp', { type: 'ellipse' }, { parent: post }, { x: 5, strokeWidth: 2 })
    b.drive(post, 'x', 'time * 10px/s')
    b.drive(lamp, 'rotation', 'time * 30deg/s')
    return { b, post, lamp }
  }
  it('stands where a mesh filled from nothing has it, also after it was hidden for a while', () => {
    const { b, lamp } = made()
    const program = new Program(b.piece)
    const [scene, mesh] = [new Scene(program), new StageMesh()]
    const show = (seconds: number, only: ReadonlySet<string> | null = null) => {
      scene.only = only
      return mesh.build(scene.update(program.moment(at(seconds), new Float64Array(program.size)), at(seconds)), 1)
    }
    const fresh = (seconds: number) => {
      const other = new Scene(program).update(program.moment(at(seconds), new Float64Array(program.size)), at(seconds))
      return [...new StageMesh().build(other, 1).rows.data]
    }
    show(0)
    expect([...show(3).rows.data]).toEqual(fresh(3))
    show(4, new Set([lamp]))
    show(5, new Set())
    expect([...show(6).rows.data]).toEqual(fresh(6))
  })
  it('a line under a part that grows takes part in it', () => {
    const { b, post } = made()
    b.drive(post, 'scale', '100% + time * 100%/s')
    const program = new Program(b.piece)
    const [scene, mesh] = [new Scene(program), new StageMesh()]
    const half = (s: number) => {
      mesh.build(scene.update(program.moment(at(s), new Float64Array(program.size)), at(s)), 1)
      return mesh.rows.data[PER_ROW + 11]
    }
    expect([half(0), half(1), half(2)]).toEqual([1, 2, 3])
  })
})

describe('particles that look like a part', () => {
  const made = (given: (b: Builder) => string | undefined) => {
    const b = new Builder('Fan', 1)
    const of = given(b)
    const shape = {
      type: 'emitter',
      seed: 1,
      flight: 'fixed',
      reverses: false,
      ...(of !== undefined && { of }),
    } as const
    b.part('Petals', shape, {}, { births: 1, life: 4.5, spread: 0, speed: 40, particle: 20 })
    const program = new Program(b.piece)
    const scene = new Scene(program).update(program.moment(at(10), new Float64Array(program.size)), at(10))
    scene.only = new Set([...scene.bodies.keys()].filter(id => scene.bodies.get(id)!.part.name === 'Petals'))
    const mesh = new StageMesh()
    return { area: covered(simulateVertexShader(mesh.build(scene, 1), 1)), piece: b.piece, mesh, scene }
  }
  it('have its outline, the longer side as long as a particle is large', () => {
    const dots = made(() => undefined).area
    // A round of nineteen corners.
    expect(dots / 5).toBeCloseTo((19 / 2) * Math.sin((2 * Math.PI) / 19) * 100, 0)
    const squares = made(b => b.part('Card', { type: 'rectangle' }, {}, { width: 90, height: 90 })).area
    expect(squares / 5).toBeCloseTo(400, 0)
    const bars = made(b => b.part('Bar', { type: 'rectangle' }, {}, { width: 40, height: 10 })).area
    expect(bars / 5).toBeCloseTo(100, 0)
    expect(
      stillSvg(made(b => b.part('Card', { type: 'rectangle' })).piece, fromNumber(10)).match(/<path/g),
    ).toHaveLength(6)
  })
  it('are dots where that part is gone, or has no outline', () => {
    const dots = made(() => undefined).area
    expect(made(() => 'p99').area).toBe(dots)
    expect(made(b => b.part('Group', { type: 'group' })).area).toBe(dots)
  })
  it('change with it', () => {
    const b = new Builder('Fan', 1)
    const card = b.part('Card', { type: 'rectangle' }, {}, { width: 40 })
    b.drive(card, 'height', '10px + time * 3px/s')
    const shape = { type: 'emitter', seed: 1, flight: 'fixed', reverses: false, of: card } as const
    const petals = b.part('Petals', shape, {}, { births: 1, life: 4.5, spread: 0, speed: 40, particle: 20 })
    const program = new Program(b.piece)
    const [scene, mesh] = [new Scene(program), new StageMesh()]
    scene.only = new Set([petals])
    const area = (s: number) =>
      covered(
        simulateVertexShader(
          mesh.build(scene.update(program.moment(at(s), new Float64Array(program.size)), at(s)), 1),
          1,
        ),
      ) / 5
    expect(area(5)).toBeCloseTo(20 * 12.5, 0)
    expect(area(10)).toBeCloseTo(400, 0)
  })
})
