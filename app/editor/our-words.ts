/** The words that are ours, each in a few plain ones: shown where it first stands, on hover and on focus. */
export const OUR_WORDS = {
  lap: 'How long the loop is: after one lap the picture should come round again.',
  closes: 'At the end of the lap it stands as at its beginning, or looks the same: the loop has no seam there.',
  span: 'From when to when a part is there; formulas can be fitted to it.',
} as const
export type OurWord = keyof typeof OUR_WORDS
