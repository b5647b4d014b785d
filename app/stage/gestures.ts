/** What hands do on the stage: choose, move, turn, size, set the pin, draw a frame; each pull is one undo step. */
import { engageWith } from '~~/core/acts/gear-acts.ts'
import { moveBy, outermost, pinTo, sizeTo, turnBy, type Grip } from '~~/core/acts/staging.ts'
import type { Operation } from '~~/core/piece/operation.ts'
import type { Piece } from '~~/core/piece/schema.ts'
import { applyX, applyY, unapply } from '~~/core/piece/transform.ts'
import { flattened, inDepth } from '~~/core/rig/eye.ts'
import { hit } from '~~/core/rig/hit.ts'
import type { Scene } from '~~/core/rig/scene.ts'
import {
  around,
  boxOf,
  boxWithCarried,
  drawnTo,
  engaging,
  linesOf,
  sideDrawnTo,
  type Box,
} from '~~/core/rig/snapping.ts'
import { useHand } from '~/stores/hand.ts'
import { usePiece } from '~/stores/piece.ts'
import { halfOf, handleAt, handlesRound, type Handle } from './grips.ts'
import { useOffer } from './offering.ts'
import type { Marquee } from './overlay.ts'
import { pullFrom } from './pull.ts'
import type { Lens } from './view.ts'

/** Page pixels within which something is drawn to a line, or a gear to another. */
const REACH = 7
const GEAR_REACH = 18

export interface Shown {
  marquee: Marquee | null
  /** Lines that what is moved lies on. */
  x: number | null
  y: number | null
}

/** @param scene the scene as it was last drawn; @param lens from the stage to the page */
export function useStageHand(scene: () => Scene | null, lens: () => Lens, redraw: () => void) {
  const store = usePiece()
  const hand = useHand()
  const offer = useOffer()
  const shown: Shown = { marquee: null, x: null, y: null }
  const now = () => store.player!.now().seconds
  /** Decimals that the eye can tell at this size. */
  const fine = () => (lens().scale > 8 ? 2 : lens().scale > 2 ? 1 : 0)

  function gripOf(id: string, instance: number): Grip | null {
    const drawn = scene()
    const body = drawn?.bodies.get(id)
    if (!drawn || !body) return null
    const at = Math.min(instance, body.count - 1)
    const { pivot } = body.part
    const world = body.worlds[at]!
    if (!inDepth(drawn.eye)) return { id, seat: drawn.seatOf(body, at), world: world.slice() }
    // In depth the hand reckons with how it looks about the pin, in the plane in which x and y count.
    const seat = drawn.seatOf(body, at)
    const z = body.get('z', at)
    for (let r = 0; r < 12; r += 4) seat[r + 3]! += seat[r + 2]! * z
    const [px, py] = [body.get('x', at) + pivot.x, body.get('y', at) + pivot.y]
    return { id, seat: flattened(drawn.eye, seat, px, py), world: flattened(drawn.eye, world, pivot.x, pivot.y) }
  }

  /** Makes an operation over and over while it is pulled, always from how the piece was. */
  function pull(
    e: PointerEvent,
    make: (before: Piece, dx: number, dy: number, m: PointerEvent) => Operation | null,
    ended?: () => void,
    press?: () => void,
  ): void {
    const before = store.piece!
    let last: Operation | null = null
    pullFrom(e, {
      begin: () => store.beginGesture(),
      move: (dx, dy, m) => {
        const op = make(before, dx / lens().scale, -dy / lens().scale, m)
        if (!op || op.puts.length === 0) return
        last = op
        store.act(op)
      },
      end: pulled => {
        shown.x = shown.y = null
        if (pulled) {
          ended?.()
          store.endGesture()
          offer(last)
        } else press?.()
        redraw()
      },
      giveUp: () => {
        if (last) store.undo()
        store.notice = { says: 'Given up: it is where it was.' }
      },
    })
  }

  function moving(e: PointerEvent, press?: () => void): void {
    const drawn = scene()!
    const ids = outermost(store.piece!, hand.chosen)
    const grips = ids.flatMap(id => gripOf(id, id === hand.part ? hand.instance : 0) ?? [])
    const boxes = ids.flatMap(id => boxWithCarried(drawn, id, id === hand.part ? hand.instance : 0) ?? [])
    const box = boxes.length > 0 ? around(boxes) : null
    const lines = linesOf(drawn, new Set(ids))
    const alone = ids.length === 1 ? { id: ids[0]!, grip: grips[0] } : null
    let meets: string | null = null
    pull(
      e,
      (before, dx, dy, m) => {
        let [x, y] = [dx, dy]
        let places = fine()
        // With Shift straight across or up.
        if (m.shiftKey) [x, y] = Math.abs(dx) > Math.abs(dy) ? [dx, 0] : [0, dy]
        shown.x = shown.y = meets = null
        // Ctrl lets go of what it is drawn to.
        if (!m.ctrlKey && !m.metaKey) {
          const reach = 1 / lens().scale
          const gear =
            alone?.grip &&
            engaging(
              drawn,
              alone.id,
              hand.instance,
              [alone.grip.world[3]! + x, alone.grip.world[7]! + y],
              GEAR_REACH * reach,
            )
          if (gear) {
            ;[x, y] = [x + gear.dx, y + gear.dy]
            meets = gear.other
            places = 6
          } else if (box) {
            const to = drawnTo(shifted(box, x, y), lines, REACH * reach)
            ;[x, y] = [x + to.dx, y + to.dy]
            if (to.x !== null || to.y !== null) places = 2
            shown.x = to.x
            shown.y = to.y
          }
        }
        return moveBy(before, grips, x, y, now(), places)
      },
      () => {
        if (meets === null || !alone) return
        const made = engageWith(store.piece!, alone.id, meets)
        if (made.op) store.act(made.op)
        store.notice = { says: made.says, ...(made.op ? { act: { says: 'Undo', do: store.undo } } : {}) }
      },
      press,
    )
  }

  function turning(e: PointerEvent, at: readonly [number, number]): void {
    const grip = gripOf(hand.part!, hand.instance)
    const { pivot } = store.piece!.parts[hand.part!]!
    if (!grip) return
    const { world: w } = grip
    const [px, py] = lens().toScreen(applyX(w, pivot.x, pivot.y), applyY(w, pivot.x, pivot.y))
    const angle = (x: number, y: number) => (Math.atan2(py - y, x - px) * 180) / Math.PI
    const start = angle(at[0], at[1])
    let [last, turned] = [start, 0]
    pull(e, (before, _x, _y, m) => {
      const to = angle(at[0] + m.clientX - e.clientX, at[1] + m.clientY - e.clientY)
      // All the way round counts on, and does not fall back.
      turned += ((((to - last + 180) % 360) + 360) % 360) - 180
      last = to
      return turnBy(before, grip, turned, now(), m.shiftKey ? 15 : 0)
    })
  }

  function sizing(e: PointerEvent, { side }: Handle): void {
    const grip = gripOf(hand.part!, hand.instance)
    const body = scene()?.bodies.get(hand.part!)
    const half = body && halfOf(body, Math.min(hand.instance, body.count - 1))
    if (!grip || !half) return
    const m = grip.world
    const [hx, hy] = [side[0] * half[0], side[1] * half[1]]
    const [x, y] = [m[0]! * hx + m[1]! * hy + m[3]!, m[4]! * hx + m[5]! * hy + m[7]!]
    // What hangs on it moves along, so it is drawn to nothing of that.
    const lines = linesOf(scene()!, new Set([hand.part!]))
    pull(e, (before, dx, dy, p) => {
      const free = p.ctrlKey || p.metaKey
      const drawn = sideDrawnTo(m, side, x + dx, y + dy, lines, free ? 0 : REACH / lens().scale)
      shown.x = drawn.x
      shown.y = drawn.y
      const places = drawn.x !== null || drawn.y !== null ? 2 : fine()
      const to = unapply(m, x + dx + drawn.dx, y + dy + drawn.dy)
      return to && sizeTo(before, grip, side, half, to, now(), p.altKey, places)
    })
  }

  function pinning(e: PointerEvent): void {
    const grip = gripOf(hand.part!, hand.instance)
    const body = scene()?.bodies.get(hand.part!)
    if (!grip || !body) return
    const { pivot } = body.part
    const half = halfOf(body, Math.min(hand.instance, body.count - 1))
    const m = grip.world
    const [x, y] = [m[0]! * pivot.x + m[1]! * pivot.y + m[3]!, m[4]! * pivot.x + m[5]! * pivot.y + m[7]!]
    pull(e, (before, dx, dy, p) => {
      const to = unapply(m, x + dx, y + dy)
      if (!to) return null
      const free = p.ctrlKey || p.metaKey || !half
      const near = (v: number, h: number) =>
        free ? v : ([-h, 0, h].find(t => Math.abs(t - v) * lens().scale < REACH) ?? v)
      return pinTo(before, grip, near(to[0], half?.[0] ?? 0), near(to[1], half?.[1] ?? 0), now())
    })
  }

  /** A frame is drawn round several. */
  function framing(e: PointerEvent, at: readonly [number, number]): void {
    const before = e.shiftKey ? hand.chosen : []
    if (!e.shiftKey) hand.choose(null)
    pullFrom(e, {
      move: (dx, dy) => {
        shown.marquee = {
          x: Math.min(at[0], at[0] + dx),
          y: Math.min(at[1], at[1] + dy),
          width: Math.abs(dx),
          height: Math.abs(dy),
        }
        redraw()
      },
      end: () => {
        const frame = shown.marquee
        shown.marquee = null
        if (frame) hand.chooseAll([...new Set([...within(frame), ...before])])
        redraw()
      },
    })
  }

  /** Parts that lie wholly within a frame; what is carried by one of them is not named besides. */
  function within({ x, y, width, height }: Marquee): string[] {
    const drawn = scene()
    if (!drawn) return []
    const [[left, high], [right, low]] = [lens().toStage(x, y), lens().toStage(x + width, y + height)]
    const found = new Set<string>()
    for (const { body, instance } of drawn.paint) {
      const box = body.opacity[instance]! > 0 && !body.part.locked ? boxOf(body, instance, drawn.eye) : null
      if (box && box.left >= left && box.right <= right && box.low >= low && box.high <= high) found.add(body.id)
    }
    return outermost(store.piece!, [...found])
  }

  function handles(): Handle[] {
    const drawn = scene()
    const body = hand.part === null || hand.others.length > 0 ? undefined : drawn?.bodies.get(hand.part)
    return drawn && body ? handlesRound(drawn, body, Math.min(hand.instance, body.count - 1), lens()) : []
  }

  /** @param at where it was pressed, page pixels from the stage's corner */
  function press(e: PointerEvent, at: readonly [number, number]): void {
    const drawn = scene()
    if (!drawn) return
    const handle = handleAt(handles(), at[0], at[1])
    if (handle?.is === 'turn') return turning(e, at)
    if (handle?.is === 'size') return sizing(e, handle)
    if (handle?.is === 'pin') return pinning(e)
    const [x, y] = lens().toStage(at[0], at[1])
    const found = hit(drawn, x, y, 4 / lens().scale)
    if (!found) return framing(e, at)
    if (e.shiftKey) return hand.chooseToo(found.id, found.instance)
    const one = () => hand.choose(found.id, found.instance)
    // One of several that are chosen moves them all; a press alone chooses it.
    if (hand.chosen.length > 1 && hand.chosen.includes(found.id)) return moving(e, one)
    one()
    moving(e)
  }

  function nudge(dx: number, dy: number): void {
    const ids = outermost(store.piece!, hand.chosen)
    const grips = ids.flatMap(id => gripOf(id, id === hand.part ? hand.instance : 0) ?? [])
    const op = moveBy(store.piece!, grips, dx, dy, now())
    if (op.puts.length === 0) return
    store.act(op)
    offer(op)
  }

  return { shown, press, nudge, handles, handleAt: (at: readonly [number, number]) => handleAt(handles(), ...at) }
}

const shifted = (b: Box, x: number, y: number): Box => ({
  left: b.left + x,
  right: b.right + x,
  low: b.low + y,
  high: b.high + y,
})
