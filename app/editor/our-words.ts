/** The words that are ours, each in a few plain ones: shown where it first stands, on hover and on focus. */
export const OUR_WORDS = {
  lap: 'How long the loop is: after one lap the picture should come round again.',
  closes: 'At the end of the lap it stands as at its beginning, or looks the same: the loop has no seam there.',
  drive: 'A function of time on one property of a part.',
  span: 'From when to when a part is there; formulas can be fitted to it.',
  take: 'A formula that was kept, to be put back or compared.',
  stretch: 'A piece of time that is marked, to be run through again.',
  dial: 'A number with a name, which many formulas can read.',
} as const
export type OurWord = keyof typeof OUR_WORDS
