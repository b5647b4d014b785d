/** Proofs of the rules on depth and water. */
import { expect } from 'vitest'
import { setEye } from '../acts/settings.ts'
import { addPart, setBase } from '../acts/parts.ts'
import { Program } from '../engine/program.ts'
import { apply } from '../piece/operation.ts'
import type { Piece } from '../piece/schema.ts'
import { matrix, posed, restPose } from '../piece/transform.ts'
import { hit } from '../rig/hit.ts'
import { Scene } from '../rig/scene.ts'
import { at, fair } from '../testing/fair.ts'
import { value, prove, type Proofs } from '../testing/rule-proofs.ts'

const DEPTH = {
  'parts.nearer': () => {
    const f = fair('0px', { property: 'x', change: b => void b.do(setEye(b.piece, 1000)) })
    const { id, op } = addPart(f.piece, { type: 'rectangle' }, { order: -100 })
    const near = apply(apply(f.piece, op), setBase(apply(f.piece, op), id, 'z', 300))
    const found = (piece: Piece) => {
      const program = new Program(piece)
      return hit(new Scene(program).update(program.moment(at(0), new Float64Array(program.size)), at(0)), 0, 0, 1)?.id
    }
    expect(found(near)).toBe(id)
    expect(found({ ...near, camera: null })).not.toBe(id)
  },
  'parts.steps': () => {
    const of = { ...restPose(), rotation: 0.25, scaleX: 2 }
    const near = (m: Float64Array) => [...m].map(v => Number(v.toFixed(12)) + 0)
    const usual = near(posed(of, matrix()))
    expect(near(posed({ ...of, steps: ['thicken', 'scale', 'turn', 'move'] }, matrix()))).toEqual(usual)
    expect(near(posed({ ...of, steps: ['thicken', 'turn', 'scale', 'move'] }, matrix()))).not.toEqual(usual)
  },
  'parts.foam': () => {
    const foam = (s: number) => value('Basin.foam(40px, -20px)', s, { on: 'Mount', property: 'scale' })
    for (const s of [0, 1.3, 5, 7.7]) {
      expect(foam(s) >= 0 && foam(s) <= 1).toBe(true)
      expect(foam(s + 8)).toBe(foam(s))
    }
  },
} satisfies Proofs
export type Proved = keyof typeof DEPTH
prove(DEPTH)
