import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Builder } from '../../acts/build.ts'
import { setEye } from '../../acts/settings.ts'
import { multiply, matrix, posed, restPose, applyX, applyY } from '../../piece/transform.ts'
import { eyeOf, FLAT, flattened, inDepth, lightFor, lit, seen, unseen } from './eye.ts'

const piece = (distance: number | null) => {
  const b = new Builder('Eye', 1)
  b.do(setEye(b.piece, distance))
  return b.piece
}
const eye = eyeOf(piece(1000))
const place = (given: Partial<ReturnType<typeof restPose>>) => posed({ ...restPose(), ...given }, matrix())

describe('the eye', () => {
  it('flat sees what is there, whatever its depth', () => {
    expect(inDepth(FLAT)).toBe(false)
    expect(eyeOf(piece(null))).toBe(FLAT)
    expect(seen(FLAT, place({ x: 3, y: 4, z: 500 }), 10, 20)).toEqual([13, 24])
  })
  it('sees twice as large what has come half way, and half as large what is as far again', () => {
    expect(seen(eye, place({ z: 500 }), 10, -20)).toEqual([20, -40])
    expect(seen(eye, place({ z: -1000 }), 10, -20)).toEqual([5, -10])
    expect(seen(eye, place({}), 10, -20)).toEqual([10, -20])
  })
  it('what lies behind it is far aside, and nothing is found there', () => {
    const behind = place({ x: 10, z: 1500 })
    expect(seen(eye, behind, 0, 0).every(Number.isFinite)).toBe(true)
    expect(unseen(eye, behind, 0, 0)).toBeNull()
  })
  it('finds the point of a thing that it sees, from wherever it looks', () => {
    const small = fc.double({ min: -300, max: 300, noNaN: true })
    const turn = fc.double({ min: -0.2, max: 0.2, noNaN: true })
    fc.assert(
      fc.property(small, small, small, turn, turn, turn, small, small, turn, turn, (x, y, z, a, b, c, u, v, l, k) => {
        const from = eyeOf(piece(1500), { aside: l, above: k })
        const m = place({ x, y, z, rotation: a, rotationX: b, rotationY: c })
        const found = unseen(from, m, ...seen(from, m, u, v))
        // From the side a small step on the picture is a large one on the thing.
        if (!found) return
        const [sx, sy] = seen(from, m, found[0], found[1])
        const [wx, wy] = seen(from, m, u, v)
        expect(Math.abs(sx - wx) + Math.abs(sy - wy)).toBeLessThan(1e-4)
      }),
    )
  })
  it('looking round turns about the middle of the stage: from the side a depth is a width', () => {
    const round = eyeOf(piece(1e6), { aside: 0.25, above: 0 })
    const [x, y] = seen(round, place({ z: 100, y: 40 }), 0, 0)
    expect(x).toBeCloseTo(100, 2)
    expect(y).toBeCloseTo(40, 2)
    const above = eyeOf(piece(1e6), { aside: 0, above: 0.25 })
    expect(seen(above, place({ z: 100 }), 0, 0)[1]).toBeCloseTo(-100, 2)
  })
  it('about a point a thing is as if it were flat', () => {
    const m = place({ x: 80, y: -30, z: 200, rotationX: 0.1, rotationY: -0.07 })
    const flat = flattened(eye, m, 12, 7)
    const [x, y] = seen(eye, m, 12, 7)
    expect(applyX(flat, 12, 7)).toBeCloseTo(x, 9)
    expect(applyY(flat, 12, 7)).toBeCloseTo(y, 9)
    const [nx, ny] = seen(eye, m, 12.01, 7.01)
    expect(applyX(flat, 12.01, 7.01)).toBeCloseTo(nx, 4)
    expect(applyY(flat, 12.01, 7.01)).toBeCloseTo(ny, 4)
    expect(flattened(FLAT, m, 0, 0)).toBe(m)
  })
  it('light stays where it is in space, and what looks straight ahead is as bright as its colour', () => {
    const [, , z] = lightFor(eye)
    expect(lit(z)).toBeCloseTo(1, 9)
    const half = eyeOf(piece(1000), { aside: 0.5, above: 0 })
    expect(lightFor(half)[2]).toBeLessThan(0)
    expect(lit(-1)).toBeGreaterThan(0)
    expect(lit(1)).toBeLessThanOrEqual(1.15)
  })
})

describe('the order in which a part is made', () => {
  const pose = { x: 100, y: 0, rotation: 0.25, scaleX: 2, scaleY: 1 }
  const made = (steps: ('thicken' | 'scale' | 'turn' | 'move')[]) => {
    const m = posed({ ...restPose(steps), ...pose }, matrix())
    return [applyX(m, 10, 0), applyY(m, 10, 0)].map(v => Number(v.toFixed(9)))
  }
  it('is worked out by hand: a point 10 px to the right, scaled twice across, a quarter turned, moved 100 px', () => {
    // Scaled to 20, turned to straight up, moved.
    expect(made(['thicken', 'scale', 'turn', 'move'])).toEqual([100, 20])
    // Turned up, where a scale across does nothing, moved.
    expect(made(['thicken', 'turn', 'scale', 'move'])).toEqual([100, 10])
    // Moved to 110, scaled to 220, turned up.
    expect(made(['thicken', 'move', 'scale', 'turn'])).toEqual([0, 220])
    // Moved to 110, turned up, scaled across.
    expect(made(['move', 'turn', 'thicken', 'scale'])).toEqual([0, 110])
  })
  it('the usual order said is the usual order', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -3, max: 3, noNaN: true }), { minLength: 11, maxLength: 11 }), v => {
        const [x, y, z, rotation, rotationX, rotationY, scaleX, scaleY, scaleZ, pivotX, pivotY] = v as number[]
        const of = { x, y, z, rotation, rotationX, rotationY, scaleX, scaleY, scaleZ, pivotX, pivotY } as ReturnType<
          typeof restPose
        >
        const usual = posed({ ...of, steps: null }, matrix())
        const said = posed({ ...of, steps: ['thicken', 'scale', 'turn', 'move'] }, matrix())
        for (let k = 0; k < 12; k++) expect(said[k]).toBeCloseTo(usual[k]!, 9)
      }),
    )
  })
  it('moves compose with what carries them', () => {
    const carrier = place({ x: 5, rotation: 0.25 })
    const own = place({ x: 10 })
    const world = multiply(carrier, own, matrix())
    expect([applyX(world, 0, 0), applyY(world, 0, 0)].map(v => Math.round(v))).toEqual([5, 10])
  })
})
