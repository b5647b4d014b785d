/** What hands do on the stage: choose, move, double, draw a frame; the handles are pulled in shaping.ts. */
import { duplicatePart } from '~~/core/acts/duplicate.ts'
import { engageWith } from '~~/core/acts/gear-acts.ts'
import { withCarried } from '~~/core/acts/parts.ts'
import { moveBy, outermost } from '~~/core/acts/stage-edits.ts'
import { hit } from '~~/core/rig/hit.ts'
import type { Scene } from '~~/core/rig/scene.ts'
import { boxOf, drawnTo, engaging, snapLines, type Box } from '~~/core/rig/snapping.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import { handleAt, handlesRound, handlesRoundAll, type Handle } from './grips.ts'
import { REACH, useHolding } from './holding.ts'
import { useOffer } from './offering.ts'
import type { Marquee } from './overlay.ts'
import { pullFrom } from './pull.ts'
import { useShaping } from './shaping.ts'
import type { Lens } from './view.ts'

/** Page pixels within which a gear is drawn to another. */
const GEAR_REACH = 18

/** @param scene the scene as it was last drawn; @param lens from the stage to the page */
export function useStageHand(scene: () => Scene | null, lens: () => Lens, redraw: () => void) {
  const store = useOpenPiece()
  const hand = useSelection()
  const offer = useOffer()
  const holding = useHolding(scene, lens, redraw)
  const shaping = useShaping(holding)
  const { shown, now, fine, held, isTogether, pull } = holding

  /** All that is chosen is moved; with Alt a double of it, and it stays. */
  function moving(e: PointerEvent, press?: () => void): void {
    const drawn = scene()!
    const { ids, grips: were, box } = held()
    let grips = were
    let lines = snapLines(drawn, new Set(ids))
    let meets: string | null = null
    const alone = ids.length === 1 && grips.length === 1
    const doubles = () => grips !== were
    function first({ altKey }: PointerEvent): void {
      if (!altKey) return
      grips = were.map(grip => {
        const { id, op } = duplicatePart(store.piece, grip.id, false)
        store.act(op)
        return { ...grip, id }
      })
      // A double may well stand in line with what it is of.
      lines = snapLines(drawn, new Set())
      hand.chooseAll(grips.map(g => g.id))
    }
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
          const [wx, wy] = [(were[0]?.world[3] ?? 0) + x, (were[0]?.world[7] ?? 0) + y]
          const gear = alone && engaging(drawn, ids[0]!, hand.instance, [wx, wy], GEAR_REACH * reach, doubles())
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
      {
        first,
        gaveUp: () => doubles() && hand.chooseAll(ids),
        press,
        ended() {
          if (meets === null) return
          const made = engageWith(store.piece, grips[0]!.id, meets)
          if (made.op) store.act(made.op)
          store.say(made.says, made.op ? store.undoAction : undefined)
        },
      },
    )
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
      const box = body.opacity[instance]! > 0 && !body.part.locked ? boxOf(drawn, body, instance) : null
      if (box && box.left >= left && box.right <= right && box.low >= low && box.high <= high) found.add(body.id)
    }
    return outermost(store.piece, [...found])
  }

  /** The frame round several, or round a group. */
  const frame = (): Box | null => (isTogether() ? held().box : null)

  function handles(round = frame()): Handle[] {
    const drawn = scene()
    const body = hand.part === null ? undefined : drawn?.bodies.get(hand.part)
    if (!drawn || !body) return []
    const own = hand.others.length > 0 ? [] : handlesRound(drawn, body, Math.min(hand.instance, body.count - 1), lens())
    return round ? [...own.filter(h => h.is === 'pin'), ...handlesRoundAll(round, lens())] : own
  }

  /** @param at where it was pressed, page pixels from the stage's corner */
  function press(e: PointerEvent, at: readonly [number, number]): void {
    const drawn = scene()
    if (!drawn) return
    const handle = handleAt(handles(), at[0], at[1])
    const [x, y] = lens().toStage(at[0], at[1])
    const found = hit(drawn, x, y, 4 / lens().scale)
    const one = () => found && hand.choose(found.id, found.instance)
    if (handle) return shaping.pull(e, at, handle, one)
    if (!found) return framing(e, at)
    if (e.shiftKey) return hand.chooseToo(found.id, found.instance)
    // What is chosen moves as a whole, groups with all they carry; a press alone chooses what lies there.
    if (hand.chosen.some(id => withCarried(store.piece, id).includes(found.id))) return moving(e, one)
    one()
    moving(e)
  }

  function nudge(dx: number, dy: number): void {
    const op = moveBy(store.piece, held().grips, dx, dy, now())
    if (op.puts.length === 0) return
    store.act(op)
    offer(op)
  }

  return {
    shown,
    press,
    nudge,
    frame,
    handles,
    handleAt: (at: readonly [number, number]) => handleAt(handles(), ...at),
  }
}

const shifted = (b: Box, x: number, y: number): Box => ({
  left: b.left + x,
  right: b.right + x,
  low: b.low + y,
  high: b.high + y,
})
