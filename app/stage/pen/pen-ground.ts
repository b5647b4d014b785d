/** What drawing a path and editing its points share. */
import type { Lens } from '../view.ts'

/** A press within this distance of a point, in px of the page, is on the point. */
export const NEAR = 7

export interface PenGround {
  readonly lens: () => Lens
  readonly redraw: () => void
  /** The place on the stage, snapped to its guides and grid; not while Ctrl is held. */
  readonly ruled: (at: readonly [number, number], e: MouseEvent) => [number, number]
}
