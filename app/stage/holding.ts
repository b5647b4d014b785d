/** What the hand on the stage holds: parts as they stand when it takes hold of them, pulled in one undo step. */
import { outermost, type Grip } from '~~/core/acts/stage-edits.ts'
import type { Operation } from '~~/core/piece/operation.ts'
import type { Piece } from '~~/core/piece/schema.ts'
import { flattened, inDepth } from '~~/core/rig/depth/eye.ts'
import type { Scene } from '~~/core/rig/scene.ts'
import { around, boxWithCarried, type Box } from '~~/core/rig/snapping.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import { useOffer } from './offering.ts'
import type { Marquee } from './overlay.ts'
import { pullFrom } from './pull.ts'
import type { Lens } from './view.ts'

/** Page pixels within which something is drawn to a line. */
export const REACH = 7

export interface PullMarks {
  marquee: Marquee | null
  /** Lines that what is moved lies on. */
  x: number | null
  y: number | null
}

/** Makes the operation of a pull, px of the stage from where it began; null for none. */
export type Make = (before: Piece, dx: number, dy: number, e: PointerEvent) => Operation | null

export interface StagePull {
  /** Done at once when it is pulled, in the same undo step. */
  readonly first?: (e: PointerEvent) => void
  readonly ended?: () => void
  readonly gaveUp?: () => void
  /** A press that went nowhere. */
  readonly press?: () => void
}

/** @param scene the scene as it was last drawn; @param lens from the stage to the page */
export function useHolding(scene: () => Scene | null, lens: () => Lens, redraw: () => void) {
  const store = useOpenPiece()
  const hand = useSelection()
  const offer = useOffer()
  const shown: PullMarks = { marquee: null, x: null, y: null }
  const now = () => store.player.now().seconds
  /** Decimals that the eye can tell at this size. */
  const fine = () => (lens().scale > 8 ? 2 : lens().scale > 2 ? 1 : 0)

  /** The copy of a part that the hand is on. */
  const copyOf = (id: string) => (id === hand.part ? hand.instance : 0)

  function gripOf(id: string, instance: number): Grip | null {
    const drawn = scene()
    const body = drawn?.bodies.get(id)
    if (!drawn || !body) return null
    const at = Math.min(instance, body.count - 1)
    const { pivot } = body.part
    const world = body.worlds[at]!
    if (!inDepth(drawn.eye)) return { id, seat: drawn.parentFrameOf(body, at), world: world.slice() }
    // In depth the hand reckons with how it looks about the pin, in the plane in which x and y count.
    const seat = drawn.parentFrameOf(body, at)
    const z = body.get('z', at)
    for (let r = 0; r < 12; r += 4) seat[r + 3]! += seat[r + 2]! * z
    const [px, py] = [body.get('x', at) + pivot.x, body.get('y', at) + pivot.y]
    return { id, seat: flattened(drawn.eye, seat, px, py), world: flattened(drawn.eye, world, pivot.x, pivot.y) }
  }

  /** Makes an operation over and over while it is pulled, always from how the piece was. */
  function pull(e: PointerEvent, make: Make, { first, ended, gaveUp, press }: StagePull = {}): void {
    const were = store.piece
    let before = were
    let last: Operation | null = null
    pullFrom(e, {
      begin: m => {
        store.beginGesture()
        first?.(m)
        before = store.piece
      },
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
        // Also what was done at first.
        if (store.piece !== were) store.undo()
        gaveUp?.()
        store.say('Cancelled: it’s back where it was.')
      },
    })
  }

  /** All that is chosen, as it stands: what one of them carries moves with it. */
  function held(): { ids: string[]; grips: Grip[]; box: Box | null } {
    const drawn = scene()
    const ids = outermost(store.piece, hand.chosen)
    const boxes = drawn ? ids.flatMap(id => boxWithCarried(drawn, id, copyOf(id)) ?? []) : []
    return {
      ids,
      grips: ids.flatMap(id => gripOf(id, copyOf(id)) ?? []),
      box: boxes.length > 0 ? around(boxes) : null,
    }
  }

  /** Whether several are in hand, or a group that is sized as one. */
  const isTogether = (): boolean =>
    hand.others.length > 0 || (hand.part !== null && store.piece.parts[hand.part]?.shape.type === 'group')

  return { scene, lens, redraw, shown, now, fine, gripOf, held, isTogether, pull }
}

export type Holding = ReturnType<typeof useHolding>
