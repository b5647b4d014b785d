/** The pen: outlines drawn on the stage point by point, and the points of a path that is chosen, pose by pose. */
import type { Scene } from '~~/core/rig/scene.ts'
import { pointDrawnTo, ruledLines } from '~~/core/rig/snapping.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import type { Lens } from '../view.ts'
import { useDrawingPath } from './drawing-path.ts'
import { NEAR, type PenGround } from './pen-ground.ts'
import { usePathPoints } from './path-points.ts'

export function usePen(scene: () => Scene | null, lens: () => Lens, redraw: () => void) {
  const store = useOpenPiece()
  const hand = useSelection()
  const ground: PenGround = {
    lens,
    redraw,
    ruled: (at, e) => {
      const to = lens().toStage(...at)
      const { stage } = store.piece
      const free = e.ctrlKey || e.metaKey || (!stage.guides && !stage.grid)
      return free ? to : pointDrawnTo(...to, ruledLines(stage), NEAR / lens().scale)
    },
  }
  const { lay, end, hover, drawing, key: keyWhileDrawing } = useDrawingPath(ground)
  const { key: keyOfPoints, ...points } = usePathPoints(scene, ground)

  /** Keys on the stage; whether one was meant for the pen. */
  const key = (e: KeyboardEvent): boolean => (hand.pen ? keyWhileDrawing(e) : keyOfPoints(e))

  return { ...points, lay, end, hover, drawing, key }
}
