import { describe, expect, it } from 'vitest'
import { Builder } from '../acts/build.ts'
import { setBase } from '../acts/parts.ts'
import { setEye } from '../acts/settings.ts'
import { Program } from '../engine/program.ts'
import { at } from '../testing/fair.ts'
import { matrix, placeMatrix } from '../piece/transform.ts'
import { hit } from './hit.ts'
import { Scene } from './scene.ts'
import {
  around,
  boxOf,
  boxWithCarried,
  drawnTo,
  engaging,
  snapLines,
  pointDrawnTo,
  ruledLines,
  sideDrawnTo,
  type Box,
} from './snapping.ts'

function sceneOf(make: (b: Builder) => void) {
  const b = new Builder('Lines', 1)
  make(b)
  const program = new Program(b.piece)
  const scene = new Scene(program).update(program.moment(at(0), new Float64Array(program.size)), at(0))
  const id = (name: string) => Object.entries(b.piece.parts).find(([, p]) => p.name === name)![0]
  return { scene, id, body: (name: string) => scene.bodies.get(id(name))! }
}
const box = (left: number, right: number, low: number, high: number): Box => ({ left, right, low, high })
const near = (a: Box | null, b: Box) => {
  for (const side of ['left', 'right', 'low', 'high'] as const) expect(a![side]).toBeCloseTo(b[side], 6)
}

describe('the box round a part', () => {
  it('is that of its outline as it is turned and scaled', () => {
    const { scene, body } = sceneOf(b => {
      b.part('Plain', { type: 'rectangle' }, {}, { x: 10, y: -5, width: 40, height: 20 })
      b.part('Turned', { type: 'rectangle' }, {}, { rotation: 90, width: 40, height: 20 })
      b.part('Half', { type: 'rectangle' }, {}, { rotation: 45, width: 40, height: 40, scale: 50 })
    })
    near(boxOf(scene, body('Plain'), 0), box(-10, 30, -15, 5))
    near(boxOf(scene, body('Turned'), 0), box(-10, 10, -20, 20))
    const r = 20 * Math.SQRT1_2
    near(boxOf(scene, body('Half'), 0), box(-r, r, -r, r))
  })
  it('a group has none of its own, and that of all it carries', () => {
    const { scene, id, body } = sceneOf(b => {
      const group = b.part('Group', { type: 'group' }, {}, { x: 100 })
      b.part('Left', { type: 'rectangle' }, { parent: group }, { x: -50, width: 20, height: 20 })
      const inner = b.part('Inner', { type: 'group' }, { parent: group }, { x: 50 })
      b.part('Right', { type: 'rectangle' }, { parent: inner }, { y: 30, width: 20, height: 20 })
    })
    expect(boxOf(scene, body('Group'), 0)).toBeNull()
    near(boxWithCarried(scene, id('Group'), 0), box(40, 160, -10, 40))
    near(boxWithCarried(scene, id('Inner'), 0), box(140, 160, 20, 40))
    expect(boxWithCarried(scene, 'nobody', 0)).toBeNull()
  })
  it('of what is thick, seen in depth, holds its back too', () => {
    const { scene, id, body } = sceneOf(b => {
      b.do(setEye(b.piece, 1000))
      const group = b.part('Group', { type: 'group' }, {}, { x: 300 })
      b.part('Block', { type: 'rectangle' }, { parent: group }, { width: 100, height: 100, thickness: 1000 })
      b.part('Line', { type: 'line' }, { parent: group }, { y: 200, width: 100, thickness: 1000 })
    })
    // At 1,000 px behind the stage all is seen half as far out.
    near(boxOf(scene, body('Block'), 0), box(125, 350, -50, 50))
    expect(boxOf(scene, body('Line'), 0)!.left).toBe(250)
    near(boxWithCarried(scene, id('Group'), 0), box(125, 350, -50, 200))
  })
  it('as large at its back as its taper says, and taken hold of there', () => {
    const { scene, id, body } = sceneOf(b => {
      b.do(setEye(b.piece, 1000))
      b.part(
        'Wide',
        { type: 'rectangle' },
        {},
        { width: 100, height: 100, thickness: 1000, taper: 600, fillAlpha: 100 },
      )
      const far = b.part('Narrow', { type: 'rectangle' }, {}, { x: 400, width: 100, height: 100, thickness: 1000 })
      b.do(setBase(b.piece, far, 'taper', 0))
    })
    // Half as far out, six times as large.
    near(boxOf(scene, body('Wide'), 0), box(-150, 150, -150, 150))
    near(boxOf(scene, body('Narrow'), 0), box(200, 450, -50, 50))
    expect(hit(scene, -140, 140, 1)?.id).toBe(id('Wide'))
    expect(hit(scene, -160, 140, 1)).toBeNull()
    // Seen half way back it is half as large, and at the back a point.
    expect(hit(scene, 400 / 1.5 + 10, 0, 0.1)?.id).toBe(id('Narrow'))
    expect(hit(scene, 400 / 1.5, 30, 0.1)).toBeNull()
  })
  it('of one copy holds what that copy carries, not what the others do', () => {
    const { scene, id } = sceneOf(b => {
      const cart = b.part('Cart', { type: 'group' }, { copies: { layout: 'row', count: 3, dx: 200, dy: 0 } })
      b.part(
        'Wheel',
        { type: 'rectangle' },
        { parent: cart, copies: { layout: 'row', count: 2, dx: 40, dy: 0 } },
        { width: 10, height: 10 },
      )
    })
    near(boxWithCarried(scene, id('Cart'), 0), box(-225, -175, -5, 5))
    near(boxWithCarried(scene, id('Cart'), 2), box(175, 225, -5, 5))
    near(boxWithCarried(scene, id('Wheel'), 3), box(15, 25, -5, 5))
  })
  it('several are held by one', () => near(around([box(0, 1, 5, 6), box(-3, 0.5, 5.5, 9)]), box(-3, 1, 5, 9)))
})

describe('lines that a part is drawn to', () => {
  const fair = () =>
    sceneOf(b => {
      b.part('Sky', { type: 'rectangle' }, {}, { width: 1280, height: 720 })
      b.part('Post', { type: 'rectangle' }, { pivot: { x: 0, y: -40 } }, { x: 300, width: 20, height: 80 })
      const cart = b.part('Cart', { type: 'rectangle' }, {}, { x: -200, width: 60, height: 30 })
      b.part('Rider', { type: 'rectangle' }, { parent: cart }, { y: 111, width: 10, height: 10 })
      b.part('Ghost', { type: 'rectangle' }, {}, { x: 77, opacity: 0 })
    })
  it('are those of the stage, of other parts and their pins; not of what is moved, or carried, or unseen', () => {
    const { scene, id } = fair()
    const { x, y } = snapLines(scene, new Set([id('Cart')]))
    expect(new Set(x)).toEqual(new Set([-640, 0, 640, 300, 290, 310]))
    expect(new Set(y)).toEqual(new Set([-360, 0, 360, -40, 40]))
    const all = snapLines(scene, new Set())
    expect(all.x).toContain(-230)
    expect(all.y).toContain(116)
    expect(all.x).not.toContain(77)
  })
  it('the nearest within reach wins, side or middle; none is told where none is near', () => {
    const lines = { x: [0, 100, 300], y: [50], grid: 0 }
    expect(drawnTo(box(94, 134, 0, 20), lines, 7)).toEqual({ dx: 6, dy: 0, x: 100, y: null })
    expect(drawnTo(box(-21, 19, 38, 58), lines, 7)).toEqual({ dx: 1, dy: 2, x: 0, y: 50 })
    expect(drawnTo(box(262, 302, 45, 54), lines, 7)).toEqual({ dx: -2, dy: 0.5, x: 300, y: 50 })
    expect(drawnTo(box(20, 40, 0, 20), lines, 7)).toEqual({ dx: 0, dy: 0, x: null, y: null })
    // Just at the end of its reach it is let go.
    expect(drawnTo(box(107, 147, 0, 20), lines, 7).x).toBeNull()
  })
  it('guides that are shown and safe margins count, those that are not shown do not', () => {
    const stage = new Builder('Ruled', 1).piece.stage
    const own = { ...stage, ownGuides: { x: [123], y: [-77, 4] } }
    expect(new Set(ruledLines(own).x)).toEqual(new Set([-640, 0, 640]))
    const shown = ruledLines({ ...own, guides: true })
    expect(new Set(shown.x)).toEqual(new Set([-640, 0, 640, -576, 576, -512, 512, 123]))
    expect(new Set(shown.y)).toEqual(new Set([-360, 0, 360, -324, 324, -288, 288, -77, 4]))
  })
  it('a side is drawn only the way it goes, a corner both', () => {
    const lines = { x: [100], y: [50], grid: 0 }
    const upright = matrix()
    expect(sideDrawnTo(upright, [1, 0], 97, 49, lines, 7)).toEqual({ dx: 3, dy: 0, x: 100, y: null })
    expect(sideDrawnTo(upright, [0, -1], 97, 49, lines, 7)).toEqual({ dx: 0, dy: 1, x: null, y: 50 })
    expect(sideDrawnTo(upright, [-1, 1], 97, 49, lines, 7)).toEqual({ dx: 3, dy: 1, x: 100, y: 50 })
    // Turned by a quarter, its right side looks up.
    expect(sideDrawnTo(placeMatrix(0, 0, 0.25), [1, 0], 97, 49, lines, 7)).toEqual({ dx: 0, dy: 1, x: null, y: 50 })
    expect(sideDrawnTo(upright, [1, 1], 97, 49, lines, 0)).toEqual({ dx: 0, dy: 0, x: null, y: null })
  })
  it('a grid lies everywhere, on both sides of the middle, and gives way to what is nearer', () => {
    const grid = { x: [], y: [], grid: 40 }
    expect(pointDrawnTo(83, -121, grid, 7)).toEqual([80, -120])
    expect(pointDrawnTo(60, 60, grid, 7)).toEqual([60, 60])
    expect(pointDrawnTo(-1e6 - 2, 0.5, grid, 7)).toEqual([-1e6, 0])
    expect(drawnTo(box(77, 99, 300, 310), { x: [78], y: [], grid: 40 }, 7)).toEqual({ dx: 1, dy: 0, x: 78, y: null })
    expect(pointDrawnTo(83, 7, { ...grid, grid: 0 }, 7)).toEqual([83, 7])
  })
})

describe('a gear that is moved', () => {
  const train = () =>
    sceneOf(b => {
      b.part('Wheel', { type: 'gear', teeth: 24, spokes: 5, module: 6 }, {}, { x: 100, y: 20 })
      b.part('Pinion', { type: 'gear', teeth: 12, spokes: 0, module: 6 })
      b.part('Large', { type: 'gear', teeth: 20, spokes: 0, module: 5 }, {}, { x: -400, scale: 200 })
      b.part('Disc', { type: 'ellipse' })
    })
  it('meets another where their pitch circles touch, whichever way it comes from', () => {
    const { scene, id } = train()
    // 24 and 12 teeth of 6 px: 72 + 36 px apart.
    for (const turn of [0, 40, 123, 270]) {
      const [c, s] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)]
      const found = engaging(scene, id('Pinion'), 0, [100 + 115 * c, 20 + 115 * s], 10)!
      expect(found.other).toBe(id('Wheel'))
      expect([found.dx, found.dy]).toEqual([expect.closeTo(-7 * c, 9), expect.closeTo(-7 * s, 9)])
    }
  })
  it('counts with how large they are drawn, and takes the nearest', () => {
    const { scene, id } = train()
    // 50 px of radius drawn twice as large, and its own 36.
    expect(engaging(scene, id('Pinion'), 0, [-400, 130], 10)).toMatchObject({ dx: 0, dy: 6, other: id('Large') })
  })
  it('meets none out of reach, nor what is no gear, nor itself; what is no gear meets none', () => {
    const { scene, id } = train()
    expect(engaging(scene, id('Pinion'), 0, [100 + 130, 20], 10)).toBeNull()
    expect(engaging(scene, id('Disc'), 0, [100 + 108, 20], 10)).toBeNull()
    // Right on the middle of another there is no direction to go.
    expect(engaging(scene, id('Pinion'), 0, [100, 20], 1000)?.other).not.toBe(id('Wheel'))
  })
})
