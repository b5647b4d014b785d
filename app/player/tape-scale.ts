/** The scale of the moving paper: where the current time is, and how wide a second is on the tape. */

/** Position of the nib, as a share of the width. */
export const NIB = 1 / 3
/** Screen pixels per second on the tape without zoom, and the limits of zooming. */
export const TAPE_PER_SECOND = 42
export const TAPE_ZOOM = [2, 600] as const
