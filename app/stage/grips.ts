/** The handles round the part in hand: sides and corners, the knob that turns it, its pin. */
import { sizedBy } from '~~/core/acts/stage-edits.ts'
import { outlineAt } from '~~/core/rig/outlined.ts'
import { extent } from '~~/core/rig/gradient.ts'
import type { Body } from '~~/core/rig/body.ts'
import type { Scene } from '~~/core/rig/scene.ts'
import type { Box } from '~~/core/rig/snapping.ts'
import { seen } from '~~/core/rig/depth/eye.ts'
import type { Lens } from './view.ts'

export interface Handle {
  readonly is: 'size' | 'turn' | 'pin'
  /** Of a side or corner: −1, 0 or 1 across and up. */
  readonly side: readonly [number, number]
  /** On the page, from the stage's corner. */
  readonly x: number
  readonly y: number
}

/** Page pixels from the top side to the knob that turns. */
const KNOB = 22
/** Half a side, in page pixels, below which a part is small. */
const SMALL = 20
/** The same of a thin one, whose pin has room in its length. */
const LONG = 50
const CORNERS = [
  [-1, -1],
  [1, -1],
  [1, 1],
  [-1, 1],
] as const
const SIDES = [
  [0, -1],
  [1, 0],
  [0, 1],
  [-1, 0],
] as const

/** How far the outline of an instance reaches from its middle across and up, px of its own; null where it has none. */
export function halfOf(body: Body, instance: number): readonly [number, number] | null {
  const outline = outlineAt(body, instance)
  if (!outline || outline.points.length === 0 || body.lay) return null
  const [across, up] = extent(outline.points)
  return [across / 2, up / 2]
}

export function handlesRound(scene: Scene, body: Body, instance: number, lens: Lens): Handle[] {
  const m = body.worlds[instance]!
  const at = (x: number, y: number) => lens.toScreen(...seen(scene.eye, m, x, y))
  const { pivot } = body.part
  const [px, py] = at(pivot.x, pivot.y)
  const pin: Handle = { is: 'pin', side: [0, 0], x: px, y: py }
  if (body.lay) return []
  const half = halfOf(body, instance)
  if (!half) {
    // A group is turned about its pin, by a knob a little above it.
    return [pin, knobOf([px, py - 2 * KNOB], [px, py + 2 * KNOB], lens)]
  }
  const by = sizedBy(scene.program.piece, body.id)
  const sides = by === 'sides' ? [...CORNERS, ...SIDES] : by === 'side' ? SIDES.filter(s => s[0] !== 0) : CORNERS
  // The shape of a gear's teeth is its own: it is sized where its teeth and their size are typed.
  const round = body.part.shape.type === 'gear' ? [] : sides
  const [tx, ty] = at(0, half[1])
  const [cx, cy] = at(0, 0)
  const [rx, ry] = at(half[0], 0)
  const long = Math.hypot(tx - cx, ty - cy) || 1
  const [ux, uy] = long > 1 ? [(tx - cx) / long, (ty - cy) / long] : [0, -1]
  const knob = knobOf([tx + ux * KNOB, ty + uy * KNOB], [2 * cx - tx - ux * KNOB, 2 * cy - ty - uy * KNOB], lens)
  // What is small is taken hold of to be moved: the middles of its sides would leave no room for that, nor would its pin
  // where it is not long.
  const wide = Math.hypot(rx - cx, ry - cy)
  const small = Math.min(long, wide) < SMALL
  return [
    ...(small && Math.max(long, wide) < LONG ? [] : [pin]),
    knob,
    ...round
      .filter(side => !small || sides.length <= 4 || (side[0] !== 0 && side[1] !== 0))
      .map(side => {
        const [x, y] = at(side[0] * half[0], side[1] * half[1])
        return { is: 'size' as const, side, x, y }
      }),
  ]
}

/** The handles of a frame round several: its corners, and the knob above it. */
export function handlesRoundAll({ left, right, low, high }: Box, lens: Lens): Handle[] {
  const [[x, y], [to, foot]] = [lens.toScreen(left, high), lens.toScreen(right, low)]
  const [cx, cy] = [(x + to) / 2, (y + foot) / 2]
  const small = Math.min(to - x, foot - y) < SMALL
  const corners = CORNERS.map(side => ({
    is: 'size' as const,
    side,
    x: cx + (side[0] * (to - x)) / 2,
    y: cy - (side[1] * (foot - y)) / 2,
  }))
  return [knobOf([cx, y - KNOB], [cx, foot + KNOB], lens), ...(small ? [] : corners)]
}

/** The knob that turns: above, at the foot where only that is seen, else inside. */
function knobOf(above: readonly [number, number], below: readonly [number, number], lens: Lens): Handle {
  const inside = [(above[0] + below[0]) / 2, (above[1] + below[1]) / 2 - 2 * KNOB] as const
  const [x, y] = [above, below].find(at => lens.shows(...at)) ?? (lens.shows(...inside) ? inside : above)
  return { is: 'turn', side: [0, 1], x, y }
}

/** The handle under a point of the page. */
export function handleAt(handles: readonly Handle[], x: number, y: number): Handle | null {
  const near = handles
    .map(h => ({ h, far: Math.hypot(h.x - x, h.y - y) }))
    .filter(({ h, far }) => far <= (h.is === 'pin' ? 6 : 8))
    .sort((a, b) => a.far - b.far)
  return near[0]?.h ?? null
}
