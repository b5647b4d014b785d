/** What drawing a path and pulling its points have in common. */
import type { Lens } from '../view.ts'

/** How near a point, in px of the page, a press is on it. */
export const NEAR = 7

/** What both of the pen's hands work with. */
export interface PenGround {
  readonly lens: () => Lens
  readonly redraw: () => void
  /** A place on the stage, drawn to its guides and grid where there are any; Ctrl lets go. */
  readonly ruled: (at: readonly [number, number], e: MouseEvent) => [number, number]
}
