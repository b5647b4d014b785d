/** Things of chance in depth: thick or flat, turned and scaled, in a group that is too, made in some order, at rest or moving. */
import { Builder } from '../core/acts/build.ts'
import { setEye } from '../core/acts/settings.ts'
import type { Part, Piece, Shape } from '../core/piece/schema.ts'
import { random } from './random.ts'

/** How far off the eye stands, px. */
export const OFF = 900
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

/** One thing, the same from the same number; with nothing but its fill. */
export function solid(n: number, moves: boolean): { piece: Piece; id: string } {
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
      ...{ rotationX: r(180) - 90, rotationY: r(360) - 180, scale: 50 + r(100), scaleZ: 50 + r(150) },
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
