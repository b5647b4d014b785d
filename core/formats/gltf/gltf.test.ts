import { asMatrix } from '../../piece/transform.ts'
import { createRequire } from 'node:module'
import { describe, expect, it } from 'vitest'
import { Builder } from '../../acts/build.ts'
import { setEye } from '../../acts/settings.ts'
import { Program } from '../../engine/program.ts'
import type { Piece } from '../../piece/schema.ts'
import { Scene } from '../../rig/scene.ts'
import { momentOfSeconds } from '../../time/moment.ts'
import { fromNumber, rational } from '../../time/rational.ts'
import { bandOf, solidOf } from './triangle-forms.ts'
import { gltfOf } from './gltf.ts'
import { read } from './reading-gltf.ts'
import { standingOf, type Standing } from './standing.ts'

interface Report {
  issues: { numErrors: number; numWarnings: number; messages: unknown[] }
}
const validator = createRequire(import.meta.url)('gltf-validator') as {
  validateBytes(bytes: Uint8Array): Promise<Report>
}

function fairground(deep: boolean): Piece {
  const b = new Builder('Fairground', 2)
  b.piece = { ...b.piece, lap: { length: { n: 2, d: 1 }, start: 0 } }
  if (deep) b.do(setEye(b.piece, 1100))
  const ring = { layout: 'ring', count: 4, radius: 150, from: 90, sweep: 360, turn: true } as const
  const card = b.part(
    'Card',
    { type: 'star', points: 5 },
    { copies: ring },
    { radius: 60, innerRadius: 25, thickness: 40, strokeWidth: 4 },
  )
  b.drive(card, 'rotation', 'time * 1turn/s + index * 20deg')
  b.drive(card, 'scale', '100% + sine(every: 1s, amp: 30%)')
  if (deep) b.drive(card, 'rotationY', 'time * 180deg/s')
  b.drive(card, 'opacity', 'sine(every: 2s, low: 20%, high: 100%)')
  const wheel = b.part('Wheel', { type: 'gear', teeth: 12, spokes: 4, module: 6 } as never, {}, {})
  b.drive(wheel, 'x', 'square(every: 1s, amp: 100px)')
  return b.piece
}
const given = (piece: Piece) => ({ piece, from: rational(0), span: rational(2), frames: 60, pictures: new Map() })

describe('shapes in depth', () => {
  it.each([false, true])('pass the validator of the format without error or warning (in depth: %s)', async deep => {
    const report = await validator.validateBytes(gltfOf(given(fairground(deep))))
    expect(report.issues.messages.slice(0, 3)).toEqual([])
    expect([report.issues.numErrors, report.issues.numWarnings]).toEqual([0, 0])
  })

  it('have a node for each fill and line of each copy, which share their forms and colours', () => {
    const { json } = read(gltfOf(given(fairground(true))))
    expect(json.nodes.filter(n => n.mesh !== undefined).map(n => n.name)).toEqual([
      'Card 1',
      'Card 1, line',
      'Card 2',
      'Card 2, line',
      'Card 3',
      'Card 3, line',
      'Card 4',
      'Card 4, line',
      'Wheel',
    ])
    expect(json.meshes).toHaveLength(3)
    expect(json.cameras[0]!.type).toBe('perspective')
    expect(json.materials.every(m => m.extensions === undefined)).toBe(true)
    const flat = read(gltfOf(given(fairground(false)))).json
    expect(flat.cameras[0]!.type).toBe('orthographic')
  })

  it.each([
    [{}, 1],
    [{ taper: 40 }, 0.4],
    [{ taper: 0 }, 0],
    [{ taper: 250 }, 2.5],
  ] as const)('what is thick has a back as large as its taper says: %o', (hand, share) => {
    const b = new Builder('Block', 2)
    b.do(setEye(b.piece, 1100))
    b.part('Block', { type: 'rectangle' }, {}, { width: 80, height: 50, thickness: 30, ...hand })
    const { json, numbers } = read(gltfOf(given(b.piece)))
    const positions = numbers(json.meshes[0]!.primitives[0]!.attributes.POSITION)
    const reach = (z: number, axis: number) =>
      Math.max(...Array.from(positions, (v, k) => (k % 3 === axis && positions[k - axis + 2] === z ? v : -Infinity)))
    // Its sizes lie in its node or in its corners: what counts is the back against the front.
    for (const axis of [0, 1]) expect(reach(-1, axis) / reach(0, axis)).toBeCloseTo(share, 6)
  })

  it('stand at every frame where the engine has them', () => {
    const piece = fairground(true)
    const { json, numbers } = read(gltfOf(given(piece)))
    const program = new Program(piece)
    const scene = new Scene(program)
    const values = new Float64Array(program.size)
    const { channels, samplers } = json.animations![0]!
    const track = (node: number, path: string) => {
      const channel = channels.find(c => c.target.node === node && c.target.path === path)
      return (
        channel && { at: numbers(samplers[channel.sampler]!.input), rows: numbers(samplers[channel.sampler]!.output) }
      )
    }
    const at = (node: number, path: string, width: number, t: number): number[] => {
      const { at, rows } = track(node, path)!
      let k = 0
      while (k < at.length - 2 && at[k + 1]! <= t + 1e-6) k++
      const share = Math.min(1, Math.max(0, (t - at[k]!) / (at[k + 1]! - at[k]!)))
      return Array.from(
        { length: width },
        (_, c) => rows[k * width + c]! * (1 - share) + rows[(k + 1) * width + c]! * share,
      )
    }
    let worst = 0
    for (let n = 0; n <= 60; n++) {
      program.queue.settle(() => {
        const moment = momentOfSeconds(fromNumber(n / 30), program.measures.frameRate)
        scene.update(program.moment(moment, values), moment)
      })
      const body = [...scene.bodies.values()].find(b => b.part.name === 'Card')!
      for (let i = 0; i < 4; i++) {
        const m = body.worlds[i]!
        const [x, y, z, w] = at(2 * i, 'rotation', 4, n / 30) as [number, number, number, number]
        const [sx] = at(2 * i, 'scale', 3, n / 30)
        const q = Math.hypot(x, y, z, w)
        const first = [
          1 - (2 * (y * y + z * z)) / q ** 2,
          (2 * (x * y + z * w)) / q ** 2,
          (2 * (x * z - y * w)) / q ** 2,
        ]
        first.forEach((v, k) => (worst = Math.max(worst, 60 * Math.abs(v * sx! - m[4 * k]!))))
      }
    }
    // Px, of a star that reaches 60 px.
    expect(worst).toBeLessThan(0.05)
  })
})

describe('forms', () => {
  const square = new Float64Array([1, -1, 1, 1, -1, 1, -1, -1])
  const hole = new Float64Array([0.5, -0.5, 0.5, 0.5, -0.5, 0.5, -0.5, -0.5])
  const area = (f: { corners: number[]; triangles: number[] }, z: number) => {
    let sum = 0
    for (let k = 0; k < f.triangles.length; k += 3) {
      const p = [0, 1, 2].map(c => f.corners.slice(3 * f.triangles[k + c]!, 3 * f.triangles[k + c]! + 3))
      if (p.every(q => q[2] === z))
        sum +=
          ((p[1]![0]! - p[0]![0]!) * (p[2]![1]! - p[0]![1]!) - (p[2]![0]! - p[0]![0]!) * (p[1]![1]! - p[0]![1]!)) / 2
    }
    return sum
  }
  it('face the eye at the front and away from it at the back, with their holes', () => {
    const flat = solidOf([{ outline: square, holes: [hole] }], false, 1)
    expect(area(flat, 0)).toBeCloseTo(3, 12)
    const thick = solidOf([{ outline: square, holes: [hole] }], true, 0.5)
    expect(area(thick, 0)).toBeCloseTo(3, 12)
    expect(area(thick, -1)).toBeCloseTo(-3 / 4, 12)
  })
  it('lay a line as a band that is as wide everywhere', () => {
    const band = bandOf([{ points: square, closed: true }], 0.2)
    expect(area(band, 0)).toBeCloseTo(2.2 ** 2 - 1.8 ** 2, 9)
    expect(bandOf([{ points: [0, 0], closed: false }], 1).triangles).toEqual([])
  })
})

describe('standing', () => {
  it('goes through nothing and below without a leap', () => {
    let before: Standing | null = null
    const all = [1, 0.5, 0, -0.5, -1].map(
      w => (before = standingOf(asMatrix(new Float64Array([w, 0, 0, 3, 0, 2, 0, 4, 0, 0, 1, 5])), before)),
    )
    for (const s of all) {
      expect(s.turn.map(v => Math.round(v * 1e9) / 1e9 + 0)).toEqual([0, 0, 0, 1])
      expect(s.place).toEqual([3, 4, 5])
    }
    expect(all.map(s => s.stretch[1])).toEqual([2, 2, 2, 2, 2])
  })
})
