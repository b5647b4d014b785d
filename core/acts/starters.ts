/** First formulas in plain words: what a property should do, and the text to tune from there. */
import { PROPERTIES, type Property } from '../piece/properties.ts'

export interface Starter {
  readonly name: string
  /** What it is called for a property. */
  readonly title: (p: Property) => string
  readonly says: string
  readonly text: (p: Property) => string
  /** What of the piece it cannot do without: something to follow, a curve to play on a cue. */
  readonly needs?: 'driver' | 'gesture'
}

const amount = (p: Property, share: number): string => {
  const digits = p.unit === '' ? 3 : 0
  return `${Number((p.stride * share).toFixed(digits))}${p.unit}`
}
const turns = (p: Property): boolean => p.kind.angle === 1
/** A share of what it holds by hand, where that says more than something added. */
const within = (p: Property): boolean => p.unit === '%'

export const STARTERS: readonly Starter[] = [
  {
    name: 'turn',
    title: p => (turns(p) ? 'Turn steadily' : p.group === 'place' ? 'Move steadily' : 'Grow steadily'),
    says: 'At a steady rate, forever.',
    text: p => (turns(p) ? 'base + time * 45deg/s' : `base + time * ${amount(p, 1)}/s`),
  },
  {
    name: 'swing',
    title: () => 'Swing',
    says: 'Back and forth around its set value.',
    text: p => `base + sine(every: 2s, amp: ${amount(p, 1)})`,
  },
  {
    name: 'lap',
    title: () => 'Once a lap',
    says: 'Loops with the lap, whatever its length.',
    text: p => (turns(p) ? 'base + lapProgress * 1turn' : `base + sine(freq: 1/lap, amp: ${amount(p, 1)})`),
  },
  {
    name: 'wander',
    title: () => 'Wander',
    says: 'Smooth and random.',
    text: p => `base + noise(freq: 1Hz, amp: ${amount(p, 1)})`,
  },
  {
    name: 'flicker',
    title: () => 'Flicker',
    says: 'A new random value, several times a second.',
    text: p => `base + random(low: -${amount(p, 1)}, high: ${amount(p, 1)}, rate: 8Hz)`,
  },
  {
    name: 'triangle',
    title: () => 'Straight back and forth',
    says: 'A triangle wave: the same speed both ways.',
    text: p => `base + triangle(every: 2s, amp: ${amount(p, 1)})`,
  },
  {
    name: 'square',
    title: () => 'Two values in turn',
    says: 'A square wave: one, then the other.',
    text: p => `base + square(every: 1s, duty: 0.5, low: -${amount(p, 1)}, high: ${amount(p, 1)})`,
  },
  {
    name: 'saw',
    title: () => 'Rise and restart',
    says: 'A sawtooth: up at constant speed, back at once.',
    text: p => `base + saw(every: 2s, low: ${amount(p, 0).replace('-', '')}, high: ${amount(p, 1)})`,
  },
  {
    name: 'go',
    title: () => 'Go there, once',
    says: 'From the current value to another one.',
    text: p => `base + ramp(length: 2s, to: ${amount(p, 1)}, ease: cubicOut)`,
  },
  {
    name: 'return',
    title: () => 'Go there and back',
    says: 'With easing, over and over.',
    text: p => `base + ramp(length: 1.5s, to: ${amount(p, 1)}, ease: sineInOut, after: mirror)`,
  },
  {
    name: 'count',
    title: () => 'Step',
    says: 'One step every second.',
    text: p => (turns(p) ? 'base + floor(time / 1s) * 30deg' : `base + floor(time / 1s) * ${amount(p, 1)}`),
  },
  {
    name: 'span',
    title: () => 'In, hold, out',
    says: 'Fitted to the part’s span, or else the lap.',
    text: p => {
      const shape = 'envelope(attack: 1s, release: 1s, ease: cubicInOut, over: span)'
      return within(p) ? `base * ${shape}` : `base + ${amount(p, 1)} * ${shape}`
    },
  },
  {
    name: 'follow',
    title: () => 'Follow another property',
    says: 'By a ratio. Choose which below.',
    text: p => `base + ${amount(p, 1)} * sine(every: 2s)`,
    needs: 'driver',
  },
  {
    name: 'gesture',
    title: () => 'Play a curve on a cue',
    says: 'A drawn gesture at every mark.',
    text: p => `base + ${amount(p, 1)} * envelope(attack: 0.3s, release: 0.6s, over: lap)`,
    needs: 'gesture',
  },
  {
    name: 'keys',
    title: () => 'On top of keyframes',
    says: 'Keyframes set with K, plus extra motion.',
    text: p => `base + sine(every: 4s, amp: ${amount(p, 0.2)})`,
  },
]

/** The properties that are most often driven come first. */
const LIKELY = ['rotation', 'x', 'y', 'scale', 'opacity']
export const likelyFirst = (list: readonly Property[]): Property[] =>
  [...list].sort((a, b) => rank(a) - rank(b) || PROPERTIES.indexOf(a) - PROPERTIES.indexOf(b))
const rank = (p: Property) => (LIKELY.includes(p.name) ? LIKELY.indexOf(p.name) : LIKELY.length)
