/** What is done with all parts that are chosen: taken away, doubled, lined up. */
import { aligned, type Side } from '~~/core/acts/aligning.ts'
import { group, ungroup } from '~~/core/acts/grouping.ts'
import { duplicatePart } from '~~/core/acts/duplicate.ts'
import { removePart } from '~~/core/acts/parts.ts'
import { outermost } from '~~/core/acts/stage-edits.ts'
import { unapply } from '~~/core/piece/transform.ts'
import { around, boxWithCarried } from '~~/core/rig/snapping.ts'
import { useSelection } from '../stores/selection.ts'
import { useOpenPiece } from '../stores/open-piece.ts'

export function useSeveral() {
  const store = useOpenPiece()
  const hand = useSelection()
  const chosen = () => outermost(store.piece, hand.chosen)

  function remove(): void {
    const ids = chosen()
    hand.choose(null)
    store.beginGesture()
    for (const id of ids) store.act(removePart(store.piece, id))
    store.endGesture()
    if (ids.length > 1) store.sayWithUndo(`${ids.length} parts deleted.`)
  }

  /** Each once more, a little aside so that it is seen. */
  function double(): void {
    store.beginGesture()
    const made = chosen().map(id => {
      const { id: fresh, op } = duplicatePart(store.piece, id)
      store.act(op)
      return fresh
    })
    store.endGesture()
    hand.chooseAll(made)
  }

  /** Lined up on a side or a middle of them all, or spread evenly, as they stand at this moment. */
  function align(side: Side): void {
    const scene = store.sceneNow()
    const all = chosen().flatMap(id => {
      const [body, box] = [scene.bodies.get(id)!, boxWithCarried(scene, id, 0)]
      return box ? [{ grip: { id, seat: scene.parentFrameOf(body, 0), world: body.worlds[0]! }, ...box }] : []
    })
    const op = aligned(store.piece, all, side, store.player.now().seconds)
    if (op.puts.length > 0) store.act(op)
    else store.say('No change: they’re already there.')
  }

  /** All that is chosen in a group of its own, which turns about their middle. */
  function gather(): void {
    const ids = chosen()
    const scene = store.sceneNow()
    const boxes = ids.flatMap(id => boxWithCarried(scene, id, 0) ?? [])
    if (ids.length === 0 || boxes.length === 0) return
    const { left, right, low, high } = around(boxes)
    const { parent } = scene.bodies.get(ids[0]!)!
    const middle = [(left + right) / 2, (low + high) / 2] as const
    const [x, y] = parent ? (unapply(parent.worlds[0]!, ...middle) ?? [0, 0]) : middle
    const made = group(store.piece, ids, { x, y })
    if ('says' in made) store.say(made.says)
    else {
      store.act(made.op)
      hand.choose(made.id)
    }
  }

  /** The group in hand is given up; what it carried is chosen. */
  function scatter(): void {
    const made = ungroup(store.piece, hand.part!)
    if ('says' in made) store.say(made.says)
    else {
      store.act(made.op)
      hand.chooseAll(made.ids)
    }
  }

  return { remove, double, align, gather, scatter }
}
