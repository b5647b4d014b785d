/** The words that are ours, each in a few plain ones: shown where it first stands, on hover and on focus. */
export const OUR_WORDS = {
  lap: 'How long the loop is: after one lap the picture should repeat.',
  closes: 'At the end of the lap it is as at the start, or looks the same: the loop has no visible seam.',
  span: 'From when to when a part is there; formulas can be fitted to it.',
} as const
export type OurWord = keyof typeof OUR_WORDS
