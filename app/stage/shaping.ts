/** What the handles round the part in hand do: turn it, size it, set its pin; round several, or a group, all of them. */
import { pinTo, sizeTo, turnBy } from '~~/core/acts/stage-edits.ts'
import { sizeAll, turnAll } from '~~/core/acts/stage-edits-several.ts'
import { applyX, applyY, unapply } from '~~/core/piece/transform.ts'
import { drawnTo, snapLines, sideDrawnTo } from '~~/core/rig/snapping.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import { halfOf, type Handle } from './grips.ts'
import { REACH, type Holding } from './holding.ts'

export function useShaping({ scene, lens, shown, now, fine, gripOf, held, isTogether, pull }: Holding) {
  const store = useOpenPiece()
  const hand = useSelection()

  /** Degrees that the hand has gone round a place of the page; all the way round counts on, and does not fall back. */
  function roundOf(e: PointerEvent, at: readonly [number, number], [px, py]: readonly [number, number]) {
    const angle = (x: number, y: number) => (Math.atan2(py - y, x - px) * 180) / Math.PI
    let last = angle(at[0], at[1])
    let turned = 0
    return (m: PointerEvent): number => {
      const to = angle(at[0] + m.clientX - e.clientX, at[1] + m.clientY - e.clientY)
      turned += ((((to - last + 180) % 360) + 360) % 360) - 180
      last = to
      return turned
    }
  }

  function turning(e: PointerEvent, at: readonly [number, number]): void {
    const grip = gripOf(hand.part!, hand.instance)
    const { pivot } = store.piece.parts[hand.part!]!
    if (!grip) return
    const { world: w } = grip
    const [px, py] = lens().toScreen(applyX(w, pivot.x, pivot.y), applyY(w, pivot.x, pivot.y))
    const round = roundOf(e, at, [px, py])
    pull(e, (before, _x, _y, m) => turnBy(before, grip, round(m), now(), m.shiftKey ? 15 : 0))
  }

  function sizing(e: PointerEvent, { side }: Handle): void {
    const grip = gripOf(hand.part!, hand.instance)
    const body = scene()?.bodies.get(hand.part!)
    const half = body && halfOf(body, Math.min(hand.instance, body.count - 1))
    if (!grip || !half) return
    const m = grip.world
    const [hx, hy] = [side[0] * half[0], side[1] * half[1]]
    const [x, y] = [m[0] * hx + m[1] * hy + m[3], m[4] * hx + m[5] * hy + m[7]]
    // What hangs on it moves along, so it is drawn to nothing of that.
    const lines = snapLines(scene()!, new Set([hand.part!]))
    pull(e, (before, dx, dy, p) => {
      const free = p.ctrlKey || p.metaKey
      const drawn = sideDrawnTo(m, side, x + dx, y + dy, lines, free ? 0 : REACH / lens().scale)
      shown.x = drawn.x
      shown.y = drawn.y
      const places = drawn.x !== null || drawn.y !== null ? 2 : fine()
      const to = unapply(m, x + dx + drawn.dx, y + dy + drawn.dy)
      return to && sizeTo(before, grip, side, half, to, now(), p.altKey, p.shiftKey, places)
    })
  }

  function pinning(e: PointerEvent, press: () => void): void {
    const grip = gripOf(hand.part!, hand.instance)
    const body = scene()?.bodies.get(hand.part!)
    if (!grip || !body) return
    const { pivot } = body.part
    const half = halfOf(body, Math.min(hand.instance, body.count - 1))
    const m = grip.world
    const [x, y] = [m[0] * pivot.x + m[1] * pivot.y + m[3], m[4] * pivot.x + m[5] * pivot.y + m[7]]
    pull(
      e,
      (before, dx, dy, p) => {
        const to = unapply(m, x + dx, y + dy)
        if (!to) return null
        const free = p.ctrlKey || p.metaKey || !half
        const near = (v: number, h: number) =>
          free ? v : ([-h, 0, h].find(t => Math.abs(t - v) * lens().scale < REACH) ?? v)
        return pinTo(before, grip, near(to[0], half?.[0] ?? 0), near(to[1], half?.[1] ?? 0), now())
      },
      { press },
    )
  }

  /** All that is chosen, about its middle. */
  function turningAll(e: PointerEvent, at: readonly [number, number]): void {
    const { grips, box } = held()
    if (!box) return
    const middle = [(box.left + box.right) / 2, (box.low + box.high) / 2] as const
    const round = roundOf(e, at, lens().toScreen(...middle))
    pull(e, (before, _x, _y, m) => turnAll(before, grips, middle, round(m), now(), m.shiftKey ? 15 : 0))
  }

  /** All that is chosen, from the corner over against the one that is pulled, or about its middle. */
  function sizingAll(e: PointerEvent, { side }: Handle): void {
    const { ids, grips, box } = held()
    if (!box) return
    const lines = snapLines(scene()!, new Set(ids))
    const [w, h] = [((box.right - box.left) / 2) * side[0], ((box.high - box.low) / 2) * side[1]]
    const [mx, my] = [(box.left + box.right) / 2, (box.low + box.high) / 2]
    pull(e, (before, dx, dy, p) => {
      // From what stays to the corner.
      const share = p.altKey ? 1 : 2
      const [ax, ay] = p.altKey ? [mx, my] : [mx - w, my - h]
      const [vx, vy] = [w * share, h * share]
      let factor = Math.max(0.01, ((vx + dx) * vx + (vy + dy) * vy) / Math.max(1e-9, vx * vx + vy * vy))
      shown.x = shown.y = null
      if (!p.ctrlKey && !p.metaKey) {
        const [x, y] = [ax + vx * factor, ay + vy * factor]
        const to = drawnTo({ left: x, right: x, low: y, high: y }, lines, REACH / lens().scale)
        // It grows both ways at once: the nearer line is kept to.
        if (to.x !== null && vx !== 0 && (to.y === null || Math.abs(to.dx) <= Math.abs(to.dy))) {
          factor = (to.x - ax) / vx
          shown.x = to.x
        } else if (to.y !== null && vy !== 0) {
          factor = (to.y - ay) / vy
          shown.y = to.y
        }
      }
      return sizeAll(before, grips, [ax, ay], factor, now())
    })
  }

  /** @param at where the handle was pressed, page pixels from the stage's corner; @param press of a press that pulled nothing */
  return {
    pull(e: PointerEvent, at: readonly [number, number], handle: Handle, press: () => void): void {
      if (handle.is === 'pin') pinning(e, press)
      else if (handle.is === 'turn') (hand.others.length > 0 ? turningAll : turning)(e, at)
      else (isTogether() ? sizingAll : sizing)(e, handle)
    },
  }
}
