import { createRequire } from 'node:module'
import { describe, expect, it } from 'vitest'
import { random } from '../../../tests/random.ts'
import { Builder } from '../../acts/build.ts'
import { setEye } from '../../acts/settings.ts'
import { Program } from '../../engine/program.ts'
import { workedOut } from '../../form/working.ts'
import type { Part, Piece, Shape } from '../../piece/schema.ts'
import { Scene } from '../../rig/scene.ts'
import { boxOf, type Box } from '../../rig/snapping.ts'
import { at } from '../../testing.ts'
import { rational } from '../../time/rational.ts'
import { gltfOf } from './gltf.ts'
import { read, type Read } from './reading.ts'

const validator = createRequire(import.meta.url)('gltf-validator') as {
  validateBytes: (bytes: Uint8Array) => Promise<{ issues: { numErrors: number; numWarnings: number } }>
}

/** How far off the eye stands. */
const OFF = 900
const way = [
  [
    { x: -40, y: 0, smooth: true },
    { x: 0, y: 40, smooth: false },
    { x: 50, y: -10, smooth: true },
  ],
]
const SHAPES: readonly Shape[] = [
  { type: 'rectangle' },
  { type: 'ellipse' },
  { type: 'polygon', sides: 5 },
  { type: 'star', points: 5 },
  { type: 'ring' },
  { type: 'gear', teeth: 9, module: 8, spokes: 3 },
  { type: 'path', closed: true, poses: [way] },
]
const STEPS: readonly (Part['steps'] | undefined)[] = [
  undefined,
  ['thicken', 'scale', 'turn', 'move'],
  ['move', 'turn', 'scale', 'thicken'],
  ['scale', 'thicken', 'move', 'turn'],
  ['turn', 'scale', 'thicken', 'move'],
]

/** The box round what a node shows as the eye sees it. */
function seen(file: Read, node: number, seconds: number): Box {
  const points = file.corners(node, seconds)
  let [left, right, low, high] = [Infinity, -Infinity, Infinity, -Infinity]
  for (let k = 0; k < points.length; k += 3) {
    const w = 1 - points[k + 2]! / OFF
    left = Math.min(left, points[k]! / w)
    right = Math.max(right, points[k]! / w)
    low = Math.min(low, points[k + 1]! / w)
    high = Math.max(high, points[k + 1]! / w)
  }
  return { left, right, low, high }
}
const apart = (a: Box, b: Box) =>
  Math.max(...(['left', 'right', 'low', 'high'] as const).map(side => Math.abs(a[side] - b[side])))

/** A part of chance in a group that is turned and scaled, thick or flat, in some order; moving when it is asked. */
function chance(n: number, moves: boolean): { piece: Piece; id: string } {
  const r = random(n)
  const b = new Builder('Block', 1)
  b.piece = { ...b.piece, lap: { length: { n: 2, d: 1 }, start: 0 } }
  b.do(setEye(b.piece, OFF))
  const hand = { x: r(200) - 100, y: r(200) - 100, z: r(300) - 150, rotation: r(360), rotationX: r(80) - 40 }
  const cart = b.part('Cart', { type: 'group' }, {}, { ...hand, rotationY: r(80) - 40, scale: 60 + r(80) })
  const steps = STEPS[r(STEPS.length)]
  const id = b.part(
    'Block',
    SHAPES[r(SHAPES.length)]!,
    {
      parent: r(2) ? cart : null,
      pivot: r(2) ? { x: 10, y: -20 } : { x: 0, y: 0 },
      ...(steps && { steps }),
      ...(r(3) === 0 && { copies: { layout: 'row', count: 3, dx: 80, dy: 20 } }),
    },
    {
      ...{ x: r(200) - 100, y: r(100) - 50, z: r(200) - 100, rotation: r(360) },
      ...{ rotationX: r(180) - 90, rotationY: r(180) - 90, scale: 50 + r(100), scaleZ: 50 + r(150) },
      ...(r(4) === 0 && { scaleX: 60 + r(80), scaleY: 60 + r(80) }),
      ...{ thickness: r(4) ? r(120) : 0, taper: r(3) ? 100 : r(250), fillAlpha: 100, strokeWidth: 0 },
    },
  )
  if (moves) {
    b.drive(id, 'rotationY', 'time * 40deg/s + index * 30deg')
    b.drive(cart, 'scaleX', '100% + sine(every: 2s, amp: 30%)')
    if (r(2)) b.drive(id, 'thickness', '40px + sine(every: 1s, amp: 30px)')
  }
  return { piece: b.piece, id }
}

describe('what is thick, turned, slanted, made in another order', () => {
  it.each([
    ['stands', false, 150, 0.05],
    ['moves', true, 25, 0.1],
  ] as const)('is seen in the file where it is on the stage: %s', (_, moves, tries, most) => {
    for (let n = 0; n < tries; n++) {
      const { piece, id } = chance(n, moves)
      const file = read(gltfOf({ piece, from: rational(0), span: rational(2), frames: 60, pictures: new Map() }))
      const program = new Program(piece)
      const scene = new Scene(program)
      for (const s of moves ? [0, 0.1, 0.7, 1, 1.5, 2 - 1 / 30] : [0])
        workedOut(() => {
          scene.update(program.moment(at(s), new Float64Array(program.size)), at(s))
          const body = scene.bodies.get(id)!
          for (let i = 0; i < body.count; i++)
            expect(apart(seen(file, i, s), boxOf(scene, body, i)!), `${n}, copy ${i}, at ${s} s`).toBeLessThan(most)
        })
    }
  })
  it('passes the validator of the format without error or warning', async () => {
    for (const [n, moves] of [
      [3, true],
      [5, true],
      [7, false],
    ] as const) {
      const { piece } = chance(n, moves)
      const bytes = gltfOf({ piece, from: rational(0), span: rational(2), frames: 20, pictures: new Map() })
      const { issues } = await validator.validateBytes(bytes)
      expect([issues.numErrors, issues.numWarnings]).toEqual([0, 0])
    }
  })
  it('only what is slanted has a node within its own', () => {
    const b = new Builder('Carts', 1)
    b.do(setEye(b.piece, OFF))
    const cart = b.part('Cart', { type: 'group' }, {}, { scaleX: 50 })
    b.part('Upright', { type: 'rectangle' }, { parent: cart }, { thickness: 10 })
    b.part('Turned', { type: 'rectangle' }, { parent: cart }, { rotation: 30 })
    b.part('Free', { type: 'rectangle' }, {}, { rotation: 30, scaleX: 50 })
    const { json } = read(
      gltfOf({ piece: b.piece, from: rational(0), span: rational(1), frames: 2, pictures: new Map() }),
    )
    const names = json.nodes.map(n => `${n.name}${n.mesh === undefined ? '' : ' shows'}${n.children ? ' holds' : ''}`)
    expect(names.slice(0, 4)).toEqual(['Upright shows', 'Turned, seat holds', 'Free shows', 'Turned shows'])
  })
})
