import { createRequire } from 'node:module'
import { describe, expect, it } from 'vitest'
import { OFF, solid } from '../../../tests/solids.ts'
import { Builder } from '../../acts/build.ts'
import { setEye } from '../../acts/settings.ts'
import { Program } from '../../engine/program.ts'
import { Scene } from '../../rig/scene.ts'
import { boxOf, type Box } from '../../rig/snapping.ts'
import { at } from '../../testing/fair.ts'
import { rational } from '../../time/rational.ts'
import { gltfOf } from './gltf.ts'
import { read, type ReadGltf } from './reading-gltf.ts'

const validator = createRequire(import.meta.url)('gltf-validator') as {
  validateBytes: (bytes: Uint8Array) => Promise<{ issues: { numErrors: number; numWarnings: number } }>
}

/** The box round what a node shows as the eye sees it. */
function seen(file: ReadGltf, node: number, seconds: number): Box {
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

describe('what is thick, turned, slanted, made in another order', () => {
  it.each([
    ['stands', false, 150, 0.05],
    ['moves', true, 25, 0.1],
  ] as const)('is seen in the file where it is on the stage: %s', (_, moves, tries, most) => {
    for (let n = 0; n < tries; n++) {
      const { piece, id } = solid(n, moves)
      const file = read(gltfOf({ piece, from: rational(0), span: rational(2), frames: 60, pictures: new Map() }))
      const program = new Program(piece)
      const scene = new Scene(program)
      for (const s of moves ? [0, 0.1, 0.7, 1, 1.5, 2 - 1 / 30] : [0])
        program.queue.settle(() => {
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
      const { piece } = solid(n, moves)
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
