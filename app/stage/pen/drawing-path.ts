/** Draws a new path point by point, until it is closed or left open. */
import { addPath, type OutlinePoint } from '~~/core/acts/path-edits.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import { pullFrom } from '../pull.ts'
import { NEAR, type PenGround } from './pen-ground.ts'

export function useDrawingPath({ lens, redraw, ruled }: PenGround) {
  const store = useOpenPiece()
  const hand = useSelection()
  /** Points laid so far, on the stage. */
  let laid: OutlinePoint[] = []
  /** Where the pointer is, on the stage, while it draws. */
  let tip: readonly [number, number] | null = null
  watch(
    () => hand.pen,
    () => {
      laid = []
      tip = null
      redraw()
    },
  )

  /** A press lays a point, pulled it is smooth; on the first point it closes. */
  function lay(e: PointerEvent, at: readonly [number, number]): void {
    const [first] = laid
    const start = first && lens().toScreen(first.x, first.y)
    if (start && laid.length > 2 && Math.hypot(start[0] - at[0], start[1] - at[1]) <= NEAR + 2) return end(true)
    const [x, y] = ruled(at, e)
    const point = { x, y, smooth: e.altKey }
    laid = [...laid, point]
    pullFrom(e, {
      move: () => {
        laid = [...laid.slice(0, -1), { ...point, smooth: true }]
        redraw()
      },
      end: () => redraw(),
    })
    redraw()
  }

  /** What was laid becomes a part. */
  function end(closed: boolean): void {
    const points = laid
    hand.pen = false
    if (points.length < 2) {
      store.say('A path needs at least two points, so nothing was drawn.')
      return
    }
    const { id, op } = addPath(store.piece, points, closed && points.length > 2)
    store.act(op)
    hand.choose(id)
  }

  function key(e: KeyboardEvent): boolean {
    if (e.key === 'Enter') end(false)
    else if (e.key === 'Escape') hand.pen = false
    else if (e.key === 'Backspace' || e.key === 'Delete') laid = laid.slice(0, -1)
    else return false
    redraw()
    return true
  }

  function hover(at: readonly [number, number], e: MouseEvent): void {
    if (!hand.pen) return
    tip = ruled(at, e)
    redraw()
  }

  /** Points laid so far and the pointer, on the page. */
  const drawing = (): { points: (readonly [number, number])[]; tip: readonly [number, number] | null } => ({
    points: laid.map(p => lens().toScreen(p.x, p.y)),
    tip: tip && lens().toScreen(...tip),
  })

  return { lay, end, hover, drawing, key }
}
