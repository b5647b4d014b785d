/** What is done with all parts that are chosen: taken away, doubled, lined up. */
import { aligned, type Side } from '~~/core/acts/aligning.ts'
import { duplicatePart } from '~~/core/acts/duplicate.ts'
import { removePart } from '~~/core/acts/parts.ts'
import { outermost } from '~~/core/acts/staging.ts'
import { Scene } from '~~/core/rig/scene.ts'
import { boxWithCarried } from '~~/core/rig/snapping.ts'
import { useHand } from './hand.ts'
import { usePiece } from './piece.ts'

export function useSeveral() {
  const store = usePiece()
  const hand = useHand()
  const chosen = () => outermost(store.piece!, hand.chosen)

  function remove(): void {
    const ids = chosen()
    hand.choose(null)
    store.beginGesture()
    for (const id of ids) store.act(removePart(store.piece!, id))
    store.endGesture()
    if (ids.length > 1) store.notice = { says: `${ids.length} parts are gone.`, act: { says: 'Undo', do: store.undo } }
  }

  /** Each once more, a little aside so that it is seen. */
  function double(): void {
    store.beginGesture()
    const made = chosen().map(id => {
      const { id: fresh, op } = duplicatePart(store.piece!, id)
      store.act(op)
      return fresh
    })
    store.endGesture()
    hand.chooseAll(made)
  }

  /** Lined up on a side or a middle of them all, or spread evenly, as they stand at this moment. */
  function align(side: Side): void {
    const program = store.program!
    const now = store.player!.now()
    const scene = new Scene(program).update(program.moment(now, new Float64Array(program.size)), now)
    const all = chosen().flatMap(id => {
      const [body, box] = [scene.bodies.get(id)!, boxWithCarried(scene, id, 0)]
      return box ? [{ grip: { id, seat: scene.seatOf(body, 0), world: body.worlds[0]! }, ...box }] : []
    })
    const op = aligned(store.piece!, all, side, now.seconds)
    if (op.puts.length > 0) store.act(op)
    else store.notice = { says: 'They stand so already.' }
  }

  return { remove, double, align }
}
