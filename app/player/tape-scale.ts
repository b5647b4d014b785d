/** Where now is on paper that runs, and how far a second is on the tape. */

/** The share of the width at which the nib stands. */
export const NIB = 1 / 3
/** Screen pixels a second of the tape, unless zoomed; and how far it can be. */
export const TAPE_PER_SECOND = 42
export const TAPE_ZOOM = [2, 600] as const
