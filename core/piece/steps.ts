/** What is done to a part, first to last, unless its own order is another. */
export const STEPS = ['thicken', 'scale', 'turn', 'move'] as const
export type Step = (typeof STEPS)[number]
