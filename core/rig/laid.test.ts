import { describe, expect, it } from 'vitest'
import { Builder } from '../acts/build.ts'
import type { Shape } from '../piece/schema.ts'
import { Program } from '../engine/program.ts'
import { at, RATE } from '../testing/fair.ts'
import { momentOfSeconds } from '../time/moment.ts'
import { rational } from '../time/rational.ts'
import { emitterOf } from './motion/emitter.ts'
import { StageMesh } from './stage-mesh/stage-mesh.ts'
import { covered, simulateVertexShader } from './stage-mesh/simulated-shader.ts'
import { Scene } from './scene.ts'
import type { Laying } from './outline/points-laid.ts'
import { traceOf } from './motion/trace.ts'
import { partTransform } from './motion/part-transform.ts'

const pairs = ({ points }: Laying) =>
  Array.from({ length: points.length / 2 }, (_, k) => [...points.slice(2 * k, 2 * k + 2)])

describe('where a part stands at any moment', () => {
  it('is where the scene has it, with all it hangs on', () => {
    const b = new Builder('Tower', 1)
    const mast = b.part('Mast', { type: 'group' }, {}, { x: 40 })
    b.drive(mast, 'rotation', 'time * 30deg/s')
    const ring = { layout: 'ring', count: 5, radius: 90, from: 0, sweep: 360, turn: true } as const
    const seat = b.part(
      'Seat',
      { type: 'ellipse' },
      { parent: mast, copies: ring, pivot: { x: 3, y: 4 } },
      { scale: 150 },
    )
    b.drive(seat, 'y', 'sine(every: 3s, amp: 20px, phase: index * 40deg)')
    const program = new Program(b.piece)
    for (const s of [0, 7.3, 86400.1]) {
      const scene = new Scene(program).update(program.moment(at(s), new Float64Array(program.size)), at(s))
      for (let i = 0; i < 5; i++)
        expect([...partTransform(program, seat, i).at(at(s))]).toEqual([...scene.bodies.get(seat)!.worlds[i]!])
    }
  })
})

describe('a trace', () => {
  const made = (every = 10) => {
    const b = new Builder('Light', 1)
    const light = b.part('Light', { type: 'ellipse' })
    b.drive(light, 'x', 'time * 40px/s')
    b.drive(light, 'y', 'sine(every: 4s, amp: 30px)')
    const id = b.part('Trail', { type: 'trace', of: light, x: 0, y: 0, every }, {}, { trail: 1 })
    const program = new Program(b.piece)
    return { b, id, program, trace: traceOf(program, b.piece.parts[id]!) }
  }
  it('lies where the point has been, from the end of the trail until now', () => {
    const path = pairs(made().trace(at(5.25), 1))
    expect(path[0]).toEqual([170, expect.closeTo(30 * Math.sin(2 * Math.PI * (4.25 / 4)), 9)])
    expect(path.at(-1)).toEqual([210, expect.closeTo(30 * Math.sin(2 * Math.PI * (5.25 / 4)), 9)])
    expect(path).toHaveLength(12)
    for (const [x, y] of path) expect(y).toBeCloseTo(30 * Math.sin(2 * Math.PI * (x! / 40 / 4)), 9)
  })
  it('points that are laid never shift', () => {
    const { trace } = made()
    const inner = (s: number) =>
      new Set(
        pairs(trace(at(s), 1))
          .slice(1, -1)
          .map(p => p.join()),
      )
    const [one, two] = [inner(5.25), inner(5.55)]
    expect([...one].filter(p => two.has(p)).length).toBeGreaterThanOrEqual(7)
  })
  it('is drawn as a line, and follows nothing when its part is gone', () => {
    const { b, program } = made()
    const drawn = (p: Program) =>
      covered(
        simulateVertexShader(
          new StageMesh().build(new Scene(p).update(p.moment(at(3), new Float64Array(p.size)), at(3)), 1),
          1,
        ),
      )
    const alone = {
      ...b.piece,
      parts: Object.fromEntries(Object.entries(b.piece.parts).filter(([, q]) => q.name === 'Trail')),
      drives: {},
    }
    expect(drawn(new Program(alone))).toBe(0)
    expect(drawn(program)).toBeGreaterThan(60)
  })
})

describe('a trace that is laid by bend and distance', () => {
  type Bend = { angle: number; distance: number }
  const traced = (drives: Record<string, string>, bend: Bend | undefined, every = 120, trail = 4) => {
    const b = new Builder('Light', 1)
    const light = b.part('Light', { type: 'ellipse' })
    for (const [name, text] of Object.entries(drives)) b.drive(light, name, text)
    const id = b.part('Trail', { type: 'trace', of: light, x: 0, y: 0, every, ...(bend && { bend }) }, {}, { trail })
    const program = new Program(b.piece)
    const trace = traceOf(program, b.piece.parts[id]!)
    return (s: number) => trace(at(s), trail)
  }
  const round = { x: '100px * cos(time * 90deg/s)', y: '100px * sin(time * 90deg/s)' }
  it('lies on the way, as close as it bends', () => {
    const path = pairs(traced(round, { angle: 6, distance: 1000 })(8))
    for (const [x, y] of path) expect(Math.hypot(x!, y!)).toBeCloseTo(100, 6)
    // A whole round in four seconds: sixty bends of 6° and no more than twice as many, since stretches are halved.
    expect(path.length).toBeGreaterThan(60)
    expect(path.length).toBeLessThan(122)
    const coarse = pairs(traced(round, { angle: 30, distance: 1000 })(8))
    expect(coarse.length).toBeLessThan(path.length * 0.6)
    expect(pairs(traced(round, undefined)(8)).length).toBeGreaterThan(480)
  })
  it('straight on only by distance', () => {
    const straight = { x: 'time * 100px/s' }
    // Stretches of 16 steps: 30 in four seconds, and its two ends.
    expect(pairs(traced(straight, { angle: 1, distance: 1e6 })(8))).toHaveLength(31)
    const close = pairs(traced(straight, { angle: 1, distance: 4 })(8))
    for (let k = 1; k < close.length; k++) expect(close[k]![0]! - close[k - 1]![0]!).toBeLessThan(4 + 1e-9)
  })
  it('a bend and its counterbend are not passed by, nor is a corner', () => {
    // Two sharp turns within one stretch of 16 steps.
    const swerve = { x: 'time * 100px/s', y: 'sine(freq: 7.5Hz, amp: 10px)' }
    expect(pairs(traced(swerve, { angle: 20, distance: 1e6 })(8)).length).toBeGreaterThan(200)
    const corner = pairs(
      traced({ x: 'min(time, 6s) * 100px/s', y: 'max(0s, time - 6s) * 100px/s' }, { angle: 5, distance: 1e6 })(8),
    )
    expect(corner.some(([x, y]) => Math.hypot(x! - 600, y!) < 1.7)).toBe(true)
  })
  it('what is laid never shifts, whichever moments are asked for, and in which order', () => {
    const of = () =>
      traced({ ...round, x: '100px * cos(time * 90deg/s) + noise(2Hz, 30px)' }, { angle: 7, distance: 30 })
    const [one, two] = [of(), of()]
    const inner = (path: Laying) => pairs(path).slice(1, -1).map(String)
    const late = new Set([6, 9.31, 7.77].flatMap(s => inner(one(s))))
    for (const s of [7.77, 6, 8.1]) {
      const common = inner(two(s)).filter(p => late.has(p))
      // All that lie in the time that both reach over.
      expect(common.length).toBeGreaterThan(0)
      expect(inner(two(s)).every(p => late.has(p))).toBe(true)
    }
    expect([...two(7.77).points]).toEqual([...one(7.77).points])
  })
  it('tells how far back each point lies, from the end of the trail to now', () => {
    for (const bend of [undefined, { angle: 6, distance: 50 }]) {
      const { ages } = traced(round, bend)(8.003)
      expect([ages[0], ages.at(-1)]).toEqual([1, 0])
      for (let k = 1; k < ages.length; k++) expect(ages[k]!).toBeLessThan(ages[k - 1]!)
    }
  })
  it('what stands still, or stands on one point and leaps, is a trace as well', () => {
    for (const x of ['5px', 'square(every: 1s, amp: 90px)', 'time * 0px/s']) {
      const path = traced({ x }, { angle: 3, distance: 2 })(8)
      expect([...path.points].every(Number.isFinite)).toBe(true)
      expect(path.points.length).toBeGreaterThan(2)
    }
  })
})

describe('an emitter', () => {
  type Emitter = Extract<Shape, { type: 'emitter' }>
  const made = (
    shape: Partial<Emitter>,
    hand: Readonly<Record<string, number>>,
    drives: Readonly<Record<string, string>> = {},
  ) => {
    const b = new Builder('Petals', 1)
    const id = b.part('Fan', { type: 'emitter', seed: 3, flight: 'changing', reverses: false, ...shape }, {}, hand)
    for (const [property, text] of Object.entries(drives)) b.drive(id, property, text)
    const program = new Program(b.piece)
    for (const slot of program.slots.values()) expect(slot.problems).toEqual([])
    return emitterOf(program, id, b.piece.parts[id]!, 0)
  }
  it('particles set off one after the other and move on, along the direction of the part', () => {
    const fan = made({}, { births: 2, life: 3, speed: 100, spread: 0, rotation: 90, x: 5 })
    // At 10.25 s those born at 7.5 s … 10 s are there.
    const ages = [2.75, 2.25, 1.75, 1.25, 0.75, 0.25]
    pairs(fan(at(10.25))).forEach(([x, y], i) => {
      expect(x).toBeCloseTo(5, 9)
      expect(y).toBeCloseTo(100 * ages[i]!, 6)
    })
    expect(pairs(fan(at(10.25)))).toHaveLength(6)
  })
  it('are known at any moment, in any order', () => {
    const drives = { speed: '80px/s + noise(0.7Hz, 90px/s)', births: '6Hz + sine(every: 5s) * 4Hz' }
    const moments = [3600.4, 12, 12.6, -7.5, 100.25, 101.1, 3600.4].map(at)
    const [one, two] = [made({}, { variety: 40 }, drives), made({}, { variety: 40 }, drives)]
    const seen = moments.map(m => [...one(m).points])
    expect([...moments].reverse().map(m => [...two(m).points])).toEqual([...seen].reverse())
    expect(seen.every(s => s.length > 0 && s.every(Number.isFinite))).toBe(true)
  })
  it('never turn back unless asked, whatever the gusts', () => {
    const gusts = { speed: '40px/s + noise(1Hz, 160px/s)' }
    const run = (reverses: boolean) => {
      const fan = made({ reverses }, { births: 0.05, life: 15, spread: 0 }, gusts)
      return Array.from({ length: 140 }, (_, k) => fan(momentOfSeconds(rational(201 + k, 10), RATE)).points[0]!)
    }
    const backwards = (xs: number[]) => xs.filter((x, i) => i > 0 && x < xs[i - 1]! - 1e-9).length
    expect(backwards(run(false))).toBe(0)
    expect(backwards(run(true))).toBeGreaterThan(5)
  })
  it('keep the speed of their birth, or change it in flight', () => {
    const faster = { speed: 'time * 10px/s / 1s' }
    const x = (flight: Emitter['flight']) =>
      made({ flight }, { births: 0.1, life: 9, spread: 0 }, faster)(at(14)).points[0]!
    // Born at 10 s, at 100 px a second; in flight 4 s at 120 on average.
    expect(x('fixed')).toBeCloseTo(400, 6)
    expect(x('changing')).toBeCloseTo(480, 6)
  })
  it('births that change are added up, so that none is missed', () => {
    const fan = made({}, { life: 4, spread: 0 }, { births: '3Hz + sine(every: 4s) * 3Hz' })
    // Over whole periods of 4 s there are 12 births.
    for (const s of [40.01, 43.3, 77.7]) expect(pairs(fan(at(s)))).toHaveLength(12)
  })
})

describe('a scene that goes on with another program', () => {
  const b = new Builder('Going on', 1)
  const light = b.part('Light', { type: 'ellipse' }, { copies: { layout: 'row', count: 3, dx: 9, dy: 0 } })
  b.drive(light, 'x', 'sine(every: 2s, amp: 30px)')
  b.drive(b.part('Lamp', { type: 'rectangle' }), 'y', 'time * 3px/s')
  b.part('Trail', { type: 'trace', of: light, x: 0, y: 0, every: 10 }, {}, { trail: 1 })
  b.part('Petals', { type: 'emitter', seed: 1, flight: 'fixed', reverses: false }, {}, { births: 9, life: 2 })
  const first = new Program(b.piece)
  /** All corners of a picture. */
  const picture = (scene: Scene, p: Program) => {
    const m = at(3.3)
    const { positions, triangles } = simulateVertexShader(
      new StageMesh().build(scene.update(p.moment(m, new Float64Array(p.size)), m), 1),
      1,
    )
    return triangles.flatMap(k => [positions[2 * k]!, positions[2 * k + 1]!])
  }
  const changed = (act: (b: Builder) => void) => {
    const other = new Builder('Going on', 1)
    other.piece = b.piece
    act(other)
    return new Program(other.piece, first)
  }
  it.each([
    ['another number', (o: Builder): void => void o.drive(light, 'x', 'sine(every: 2s, amp: 70px)'), true],
    ['another formula of something else', (o: Builder): void => void o.drive('p2', 'y', 'time * -9px/s'), true],
    ['a formula more', (o: Builder): void => void o.drive('p2', 'x', 'time * 9px/s'), false],
    [
      'another place by hand',
      (o: Builder): void => void o.do({ undoLabel: '', puts: [{ in: 'bases', id: 'p2.x', value: { value: 9 } }] }),
      true,
    ],
    [
      'another place of what is traced, and its scale',
      (o: Builder): void => {
        for (const [id, value] of [
          ['p1.y', 55],
          ['p1.scaleX', 30],
          ['p4.rotation', 70],
        ] as const)
          o.do({ undoLabel: '', puts: [{ in: 'bases', id, value: { value } }] })
      },
      true,
    ],
    [
      'a place of one copy',
      (o: Builder): void =>
        void o.do({ undoLabel: '', puts: [{ in: 'bases', id: 'p1.y', value: { value: 0, copies: { 1: 9 } } }] }),
      false,
    ],
    [
      'keyframes',
      (o: Builder): void => {
        const points = [0, 5].map(time => ({ time, value: 30 * time, shape: 'straight' as const }))
        o.do({
          undoLabel: '',
          puts: [{ in: 'bases', id: 'p2.x', value: { value: 0, keys: { points, after: 'hold' } } }],
        })
      },
      false,
    ],
    [
      'another set value',
      (o: Builder): void => void o.do({ undoLabel: '', puts: [{ in: 'bases', id: 'p2.width', value: { value: 9 } }] }),
      true,
    ],
    [
      'a tail',
      (o: Builder): void =>
        void o.do({ undoLabel: '', puts: [{ in: 'bases', id: 'p3.tailWidth', value: { value: 0 } }] }),
      false,
    ],
  ] as const)('after %s it draws what a new one would', (_, act, goesOn) => {
    const scene = new Scene(first)
    picture(scene, first)
    const next = changed(act)
    expect(scene.adopt(next)).toBe(goesOn)
    const drawn = picture(goesOn ? scene : new Scene(next), next)
    expect(drawn).toEqual(picture(new Scene(next), next))
    expect(drawn).not.toEqual(picture(new Scene(first), first))
  })
})
