import { describe, expect, it } from 'vitest'
import { Builder } from '../../acts/build.ts'
import { setEye } from '../../acts/settings.ts'
import { Program } from '../../engine/program.ts'
import { stillSvg } from '../../formats/svg.ts'
import type { Copies, Shape } from '../../piece/schema.ts'
import { at } from '../../testing/fair.ts'
import { rational } from '../../time/rational.ts'
import { eyeOf } from '../depth/eye.ts'
import { hit } from '../hit.ts'
import { StageMesh } from './stage-mesh.ts'
import { PER_ROW } from './instance-table.ts'
import { Scene } from '../scene.ts'
import { boxOf } from '../snapping.ts'
import { ROW_STEP, TAG } from './mesh-sheet.ts'

const TEXT: Extract<Shape, { type: 'text' }> = {
  type: 'text',
  words: 'IO',
  shows: 'letters',
  decimals: 0,
  prefix: '',
  suffix: '',
  align: 'middle',
}
const layered = (count: number, given: object = {}): Copies => ({ layout: 'layers', count, dz: 10, ...given }) as Copies

function stage(make: (b: Builder) => void, distance: number | null = 1000) {
  const b = new Builder('Deep', 1)
  b.do(setEye(b.piece, distance))
  make(b)
  const program = new Program(b.piece)
  const scene = (s = 0) => new Scene(program).update(program.moment(at(s), new Float64Array(program.size)), at(s))
  return { b, program, scene, mesh: (s = 0) => new StageMesh().build(scene(s), 1) }
}
/** Corners of a mesh that stand on a part of a solid. */
const corners = (mesh: StageMesh, tag: number) =>
  [...mesh.pen.tags.subarray(0, mesh.corners)].filter(t => (t & tag) !== 0).length
const passes = (mesh: StageMesh) => mesh.deep!.passes.map(p => p.is)

describe('a mesh in depth', () => {
  it('what is flat and solid lies in one sheet; what lies further comes first, what is see-through last', () => {
    const { mesh } = stage(b => {
      b.part('Near', { type: 'rectangle' }, {}, { z: 100 })
      b.part('Pane', { type: 'rectangle' }, {}, { z: -300, fillAlpha: 40 })
      b.part('One', { type: 'rectangle' })
      b.part('Two', { type: 'ellipse' }, {}, { x: 90, rotation: 30 })
      b.part('Far', { type: 'rectangle' }, {}, { z: -200 })
    })
    const { passes: all } = mesh().deep!
    // Parallel planes are one, the furthest first.
    expect(all.map(p => [p.is, p.near, p.members])).toEqual([
      ['sheet', -200, 4],
      ['glass', -300, 1],
    ])
    const starts = [...all[0]!.runs].filter((_, k) => k % 3 === 0)
    expect(starts).toHaveLength(3)
    // Far was laid last, One and Two lie side by side, Near was laid first.
    expect(starts[0]).toBe(Math.max(...starts))
    expect(starts[2]).toBe(0)
  })
  it('a thousand sheets one before the other are painted in one go', () => {
    const { mesh } = stage(b => {
      b.part(
        'Sheet',
        { type: 'rectangle' },
        { copies: layered(1000, { apart: true, dz: 2 }) },
        { rotationY: 20, rotationX: 10 },
      )
    }, 4000)
    const [all, ...more] = mesh().deep!.passes
    expect([all!.is, all!.members, all!.runs.length, more.length]).toEqual(['sheet', 1000, 3, 0])
  })
  it('planes that the eye stands between, that cross, or whose order tells otherwise stay apart', () => {
    const count = (make: (b: Builder) => void, distance = 1000) => passes(stage(make, distance).mesh()).length
    // Seen from behind, the one further out is further away.
    const behind = (b: Builder) => {
      b.part('One', { type: 'rectangle' }, {}, { rotationY: 80, x: 900, z: 500 })
      b.part('Two', { type: 'rectangle' }, {}, { rotationY: 80, x: 950, z: 500 })
    }
    expect(count(behind, 600)).toBe(2)
    expect(
      count(b => {
        b.part('One', { type: 'rectangle' }, {}, { rotationY: 30 })
        b.part('Two', { type: 'rectangle' }, {}, { rotationY: -30, z: 10 })
      }),
    ).toBe(2)
    // Its middle is nearer, its plane is not.
    expect(
      count(b => {
        b.part('One', { type: 'rectangle' }, {}, { rotationY: 45, x: 0, z: 0 })
        b.part('Two', { type: 'rectangle' }, {}, { rotationY: 45, x: -400, z: 100 })
      }),
    ).toBe(2)
    // See-through ones are joined as well, but never with what hides.
    expect(
      count(b => {
        for (const z of [0, 20, 40]) b.part('Pane', { type: 'rectangle' }, {}, { z, fillAlpha: 40 })
        b.part('Wall', { type: 'rectangle' }, {}, { z: 30 })
      }),
    ).toBe(2)
  })
  it('a sheet of which a part is solid hides what is behind; parts turned in space lie in planes of their own', () => {
    const { mesh } = stage(b => {
      b.part('One', { type: 'rectangle' }, {}, { fillAlpha: 50 })
      b.part('Two', { type: 'rectangle' })
      b.part('Tilted', { type: 'rectangle' }, {}, { rotationY: 30 })
    })
    expect(mesh().deep!.passes.map(p => [p.is, p.members])).toEqual([
      ['sheet', 2],
      ['sheet', 1],
    ])
  })
  it('a solid has sides and a back; one without thickness has none, flat pieces have none', () => {
    const box = (b: Builder) => void b.part('Box', { type: 'rectangle' }, {}, { thickness: 40 })
    const { mesh } = stage(box)
    expect(passes(mesh())).toEqual(['solid'])
    // Four edges, each a face of its own with four corners, two of them on the back.
    expect(corners(mesh(), TAG.side)).toBe(16)
    expect(corners(stage(b => void b.part('Sheet', { type: 'rectangle' })).mesh(), TAG.side)).toBe(0)
    expect(corners(stage(box, null).mesh(), TAG.side)).toBe(0)
    expect(stage(box, null).mesh().deep).toBeNull()
  })
  it('thickness that is driven up from nothing lays sides when it is there', () => {
    const { program } = stage(b => {
      const box = b.part('Box', { type: 'ellipse' })
      b.drive(box, 'thickness', 'max(0px, (time - 1s) * 30px/s)')
    })
    const scene = new Scene(program)
    const mesh = new StageMesh()
    const drawn = (s: number) =>
      mesh.build(scene.update(program.moment(at(s), new Float64Array(program.size)), at(s)), 1)
    expect([0.5, 1.5, 2.5].map(s => corners(drawn(s), TAG.side) > 0)).toEqual([false, true, true])
    const row = mesh.pen.tags[0]! >>> Math.log2(ROW_STEP)
    expect(mesh.deep!.data[row * 8 + 6]).toBeCloseTo(-45, 4)
  })
  it('its back is as far away as it is thick, in the order in which it is made', () => {
    const back = (steps?: ('thicken' | 'scale' | 'turn' | 'move')[]) => {
      const { mesh } = stage(b => {
        const given = steps ? { steps } : {}
        b.part('Box', { type: 'rectangle' }, given, { thickness: 10, scaleZ: 300, rotationY: 90 })
      })
      return [...mesh().deep!.data.subarray(4, 7)].map(v => Math.round(v * 1000) / 1000 + 0)
    }
    // Thickened, scaled three times in depth, turned to the side.
    expect(back()).toEqual([-30, 0, 0])
    expect(back(['scale', 'thicken', 'turn', 'move'])).toEqual([-10, 0, 0])
    expect(back(['scale', 'turn', 'thicken', 'move'])).toEqual([0, 0, -10])
    expect(back(['scale', 'turn', 'move', 'thicken'])).toEqual([0, 0, -10])
  })
  it('layers of letters are joined by a skin: a face in front, one at the back, none between', () => {
    const letters = (given: object = {}) =>
      stage(b => {
        const depth = b.part('Depth', { type: 'group' }, { copies: layered(3, given) })
        const copies: Copies = { layout: 'row', count: 2, dx: 80, dy: 0 }
        const id = b.part('Letters', TEXT, { parent: depth, copies })
        b.drive(id, 'y', 'layer * 7px + index * 1px')
        b.drive(id, 'thickness', '(layer + 1) * 2px')
      })
    const mesh = letters().mesh()
    expect(corners(mesh, TAG.next)).toBeGreaterThan(0)
    expect(passes(mesh)).toEqual(['solid'])
    expect(corners(letters({ apart: true }).mesh(), TAG.next)).toBe(0)
    // Where the next layer of the same letter stands, told from its row.
    const { deep, rows } = mesh
    const first = [...Array(6).keys()].filter(r => deep!.data[r * 8 + 7] !== 0)
    expect(first).toHaveLength(4)
    for (const r of first) {
      const next = r + deep!.data[r * 8 + 7]!
      expect(rows.data[next * PER_ROW + 6]! - rows.data[r * PER_ROW + 6]!).toBeCloseTo(7, 4)
      expect(rows.data[next * PER_ROW + 2]).toBeCloseTo(rows.data[r * PER_ROW + 2]!, 4)
    }
    // Each is pushed back by the thickness of those before it: 10 apart, and 2, then 4.
    const depths = [...letters().scene().bodies.values()].at(-1)!.worlds.map(m => m[11]!)
    expect(depths.map(z => Math.round(z))).toEqual([0, 0, -12, -12, -26, -26])
  })
  it('what flies away, or has no place, takes nothing else along', () => {
    const { mesh } = stage(b => {
      b.part('Here', { type: 'rectangle' }, {}, { z: 50 })
      const gone = b.part('Gone', { type: 'rectangle' })
      b.drive(gone, 'z', '-1px * pow(10, 200)')
      const none = b.part('None', { type: 'rectangle' })
      b.drive(none, 'z', '1px * pow(10, 200) * pow(10, 200)')
    })
    const { nearest, furthest, passes: all } = mesh().deep!
    expect(Math.round(nearest)).toBe(50)
    expect(furthest).toBeGreaterThanOrEqual(0)
    // It is painted after what flew away.
    expect([all.length, all[0]!.members, all[0]!.runs.at(-3)]).toEqual([1, 3, 0])
  })
  it('water is a field of its own, and its lines are told to the card', () => {
    const { mesh, b } = stage(
      b =>
        void b.part(
          'Basin',
          { type: 'waves', longest: 200, depth: 90, wind: 0, waves: 5, tile: 0, seed: 2, fields: 8 },
          {},
          { swell: 30, crest: 40 },
        ),
    )
    const made = mesh()
    expect(corners(made, TAG.water)).toBe(9 * 9 + 3 * 8 * 4)
    expect([...made.deep!.waters.data.subarray(0, 6)].map(v => Number(v.toFixed(4)))).toEqual([
      60, 600, 400, 30, 0.4, 5,
    ])
    expect(Object.keys(b.piece.parts)).toHaveLength(1)
  })
  it('the nearest is hit, whatever is painted above it; from the side too', () => {
    const { scene } = stage(b => {
      b.part('Near', { type: 'rectangle' }, {}, { z: 200, width: 100, height: 100 })
      b.part('Above', { type: 'rectangle' }, {}, { z: -200, width: 400, height: 400 })
      b.part('Block', { type: 'rectangle' }, {}, { x: 400, width: 60, height: 60, thickness: 300 })
    })
    const name = (s: Scene, x: number, y: number) => {
      const found = hit(s, x, y, 2)
      return found && s.program.piece.parts[found.id]!.name
    }
    const ahead = scene()
    expect(name(ahead, 0, 0)).toBe('Near')
    expect(name(ahead, 100, 100)).toBe('Above')
    expect(name(ahead, 500, 300)).toBeNull()
    ahead.eye = eyeOf(ahead.program.piece, { aside: 0.2, above: 0 })
    // Between its front and its back: 400 px to the right and 150 px back, turned by 72°, seen from 1000 px.
    expect(name(ahead, -13, 0)).toBe('Block')
    expect(name(ahead, -13, 60)).not.toBe('Block')
  })
})

describe('a still in depth', () => {
  const svg = (make: (b: Builder) => void) => stillSvg(stage(make).b.piece, rational(0))
  it('paints what is further first, and the sides of what is thick', () => {
    const text = svg(b => {
      b.part('Near', { type: 'rectangle' }, {}, { z: 200, fillHue: 0, fillChroma: 0.1 })
      b.part('Far', { type: 'rectangle' }, {}, { z: -200, fillHue: 140, fillChroma: 0.1 })
    })
    const fills = [...text.matchAll(/<path d="M([-\d.]+)/g)].map(m => Number(m[1]))
    // 60 px of half its width, seen from 1000 px: 50 where it is further, 75 where it is nearer.
    expect(fills).toEqual([50, 75])
    const sides = svg(b => void b.part('Box', { type: 'rectangle' }, {}, { thickness: 90, rotationY: 30 }))
    // Its front, and of its four sides the one that is turned to the eye.
    expect(sides.match(/<path/g)!.length).toBe(2)
  })
  it('draws water, letters in layers, particles and traces without a number that is none', () => {
    const text = svg(b => {
      b.part('Basin', { type: 'waves', longest: 200, depth: 90, wind: 0, waves: 5, tile: 0, seed: 2 }, {}, { y: -400 })
      const depth = b.part('Depth', { type: 'group' }, { copies: layered(3) })
      b.part('Letters', TEXT, { parent: depth, copies: { layout: 'row', count: 2, dx: 80, dy: 0 } })
      const light = b.part('Light', { type: 'ellipse' })
      b.drive(light, 'z', 'sine(every: 2s, amp: 100px)')
      b.part('Trail', { type: 'trace', of: light, x: 0, y: 0, every: 30 })
      b.part(
        'Fan',
        { type: 'emitter', seed: 1, flight: 'fixed', reverses: false, birth: 'area' },
        {},
        { particleFade: 50 },
      )
    })
    expect(text).not.toMatch(/NaN|Infinity|undefined/)
    expect(text.match(/<path/g)!.length).toBeGreaterThan(0.8 * 28 * 28)
  })
})

describe('a line whose points lie in depth', () => {
  const corner = (x: number, y: number, z: number) => ({ x, y, z, smooth: false })
  const b = new Builder('Rail', 1)
  b.do(setEye(b.piece, 1000))
  const id = b.part(
    'Rail',
    { type: 'path', closed: false, poses: [[[corner(0, 100, 500), corner(200, 100, 500), corner(200, 100, -1000)]]] },
    {},
    { strokeWidth: 6, strokeAlpha: 100 },
  )
  const program = new Program(b.piece)
  const scene = new Scene(program).update(program.moment(at(0), new Float64Array(program.size)), at(0))
  it('is taken hold of where it is seen: half way to the eye twice as far out', () => {
    expect(hit(scene, 200, 200, 3)?.id).toBe(id)
    expect(hit(scene, 100, 50, 3)?.id).toBe(id)
    expect(hit(scene, 100, 100, 3)).toBeNull()
    expect(hit(scene, 250, 125, 3)?.id).toBe(id)
  })
  it('has its box round what is seen', () => {
    const box = boxOf(scene, scene.bodies.get(id)!, 0)!
    expect([box.left, box.right, box.low, box.high]).toEqual([0, 400, 50, 200])
  })
})
