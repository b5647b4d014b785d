/** What parts from a file are called, and what of a file is no part. */

export const titled = (name: string): string => name.charAt(0).toUpperCase() + name.slice(1)

/** An id as a name that a formula can write: letters, digits and spaces, no longer than names are. */
export function plain(name: string): string {
  const words = name
    .replace(/_x[0-9A-F]{2,4}_/g, ' ')
    .replace(/[^\p{L}\p{N} ]+/gu, ' ')
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, 40)
  return /^\p{L}/u.test(words) ? words : `Part ${words}`.trim()
}

/** What is no part, and nothing is missed without it. */
export const SILENT = new Set([
  'defs',
  'title',
  'desc',
  'metadata',
  'style',
  'linearGradient',
  'radialGradient',
  'symbol',
])
/** What is told as not taken. */
export const LISTED: Record<string, string> = {
  text: 'text (add a text part instead)',
  image: 'pictures',
  filter: 'filters',
  mask: 'masks',
  clipPath: 'clipping',
  pattern: 'patterns',
  script: 'scripts, which are never run',
  foreignObject: 'foreign objects',
  animate: 'animations',
  animateTransform: 'animations',
  animateMotion: 'animations',
  set: 'animations',
  marker: 'markers',
}
