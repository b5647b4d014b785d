/** First formulas in plain words: what a property should do, and the text to tune from there. */
import { PROPERTIES, type Property } from '../piece/properties.ts'

export interface Starter {
  readonly name: 'turn' | 'swing'
  /** What it is called for a property. */
  readonly title: (p: Property) => string
  readonly says: string
  readonly text: (p: Property) => string
}

const amount = (p: Property, share: number): string => {
  const digits = p.unit === '' ? 3 : 0
  return `${Number((p.stride * share).toFixed(digits))}${p.unit}`
}

export const STARTERS: readonly Starter[] = [
  {
    name: 'turn',
    title: p => (p.kind.angle === 1 ? 'Turn steadily' : p.group === 'place' ? 'Move steadily' : 'Grow steadily'),
    says: 'At one rate, for ever.',
    text: p => (p.kind.angle === 1 ? 'base + time * 45deg/s' : `base + time * ${amount(p, 1)}/s`),
  },
  {
    name: 'swing',
    title: () => 'Swing',
    says: 'To and fro round where it stands.',
    text: p => `base + sine(every: 2s, amp: ${amount(p, 1)})`,
  },
]

/** The properties that are most often driven come first. */
const LIKELY = ['rotation', 'x', 'y', 'scale', 'opacity']
export const likelyFirst = (list: readonly Property[]): Property[] =>
  [...list].sort((a, b) => rank(a) - rank(b) || PROPERTIES.indexOf(a) - PROPERTIES.indexOf(b))
const rank = (p: Property) => (LIKELY.includes(p.name) ? LIKELY.indexOf(p.name) : LIKELY.length)
