/**
 * What the language means, for people who use it: the page /manual and docs/formula.md both print it, and the
 * tables of functions, words, units, easings and properties beside it.
 */
import { propertyKey } from '../piece/drive-key.ts'
import type { ManualPictureName } from './pictures.ts'
import { EASING_NAMES, FAMILIES } from '../signal/easing.ts'
import { exampleFair } from './example-fair.ts'
import { Program } from '../engine/program.ts'
import { kindName } from '../units/kinds.ts'
import { FUNCTIONS } from '../functions/index.ts'
import type { Entry } from '../functions/entry.ts'
import type { Parameter } from '../functions/parameter.ts'

export interface Section {
  readonly title: string
  readonly says: readonly string[]
  readonly examples?: readonly Example[]
  /** A small piece that shows it on the stage. */
  readonly picture?: ManualPictureName
}
export interface Example {
  readonly part: string
  readonly property: string
  readonly text: string
}

const on = (part: string, property: string, text: string): Example => ({ part, property, text })

export const SECTIONS: readonly Section[] = [
  {
    title: 'A formula drives a property',
    says: [
      'One line of text drives one property, forever. `time * 45deg/s` rotates a part by an eighth of a turn per second; `sine(every: 2s, amp: 24px)` makes it rise and fall. Every number in the text is a handle: drag it sideways while the piece plays.',
      'Upper and lower case don’t matter. Put a name with spaces in backquotes, such as `Ticket arch`. Anything after // is a comment.',
    ],
    examples: [
      on('Carousel', 'rotation', 'time * 45deg/s * fairPace'),
      on('Mount', 'y', 'sine(every: 2s, amp: 24px, phase: index / count * 1turn)'),
    ],
  },
  {
    title: 'Units are part of the number',
    says: [
      'Degrees, turns, seconds, frames, laps, hertz, pixels and percentages are part of the number and are checked. A mix-up is marked where it is, with a fix: `time * 40` on a rotation gives seconds; you probably meant `time * 40deg/s`.',
      'A number on its own takes the unit of the property it drives. Times, frequencies and rates always need their unit. 50% is 0.5. 0 fits anywhere.',
      '`3/lap` is a frequency per lap. A whole number of cycles loops whatever the lap’s length; 0.375Hz is never treated as one.',
    ],
  },
  {
    title: 'Values at any time, in any order',
    says: [
      'Time has no end and can be negative. Every value is exact at any moment, a second or a year in, forwards or backwards, and the same on every machine. Steady growth is kept as exact fractions, so a frame exactly on a step always takes the value after it.',
      'Random values are fixed: each property and each copy has its own, and keeps it through undo and renaming. Give several the same `seed:` to share it.',
    ],
    examples: [
      on('Carousel', 'rotation', 'noise(freq: 1Hz, amp: 20deg, octaves: 2)'),
      on('Carousel', 'rotation', 'random(-30, 30, rate: 2Hz)'),
    ],
  },
  {
    title: 'Links and copies',
    says: [
      '`carousel.rotation * -0.3` follows another property. `own.y` is another property of the same part, `parent.rotation` one of its parent, `before.rotation` one of the copy before (for the first copy, its set value). `mount[3].y` reads one copy from outside.',
      '`index` counts the copies from 0, `count` is how many there are, and `along` goes from 0 to 1. In a grid, `row` and `rows` count the rows. `parent.index` is the index of the outer copies.',
      'Links that form a circle are found while you type, and named in full.',
    ],
    examples: [
      on('Flag', 'rotation', 'if index == 0 then sine(every: 2s, amp: 30deg) else delay(before.rotation, 90ms) * 80%'),
    ],
  },
  {
    title: 'Stages',
    says: [
      'if … then … else … switches from one formula to another. Count the second stage from its own start and it continues where the first one ends. A jump is reported with its size and the constant that removes it.',
    ],
    examples: [on('Carousel', 'rotation', 'if time < 3s then time * 30deg/s else 90deg + (time - 3s) * 120deg/s')],
  },
  {
    title: 'Tuning without a jump',
    says: [
      'When you change a frequency, period or rate while playing, the value stays where it is and only its future changes. The difference goes into `phase:`, into a constant next to the time, or into `from:`. One drag is one undo, and undo restores the exact text.',
      'A dial read by many formulas doesn’t change any text: the piece remembers how far tuning has offset things. *Reset tuning offsets* on the Piece page clears that.',
      'This holds while playing; in the masthead you can have it always, or never. A change made while paused is exactly what you typed. If a value can’t be kept, a message says how far it jumps. Retyping a whole line keeps the value too; *Apply without smoothing* gives exactly what you typed. Removing a formula or a link keeps the part where it is.',
      'Use `accumulate` for a pace that itself changes: `time * something that changes` would jump and run backwards.',
    ],
    examples: [on('Carousel', 'rotation', 'accumulate(45deg/s * (1 + noise(1Hz, 0.5)))')],
  },
  {
    title: 'Clocks, cues and drawn curves',
    says: [
      '`… on slow` reads everything to its left on a clock: slower, faster, backwards, back and forth, repeating, or stepped. Links, signals and dials keep their own clock, so two linked parts on one slow clock are only slowed once.',
      'A cue is a list of marks. `play(curve, cue)` plays a drawn gesture so that its hit point lands on each mark; `since(cue)` counts the seconds since the last mark, and `fires(cue)` is yes for one frame.',
    ],
    examples: [
      on('Carousel', 'rotation', 'time * 45deg/s on toAndFro'),
      on('Carousel', 'rotation', 'play(swing, blow, channel: arm)'),
    ],
  },
]

/** The sections of functions, in order. */
export const GROUPS: readonly (readonly [Entry['group'], string])[] = [
  ['source', 'Sources: what moves by itself'],
  ['time', 'Time: any formula at other moments'],
  ['shape', 'Shapes: what one value becomes'],
  ['angle', 'Angles and sides'],
  ['rig', 'The rig'],
]
export const functionsIn = (group: Entry['group']): Entry[] => FUNCTIONS.filter(f => f.group === group)

/** What an argument takes, in words. */
export function argumentKind(p: Parameter): string {
  if (p.thing) return `the name of a ${p.thing}`
  if (p.free) return 'a name'
  if (p.words) {
    const words = p.words()
    return words.length > 8 ? 'an easing' : words.join(', ')
  }
  if (p.kind === 'result') return 'as the result'
  if (p.kind === 'other') return 'any kind, all alike'
  if (p.kind === 'any') return 'anything'
  return p.kind === 'perSecond' ? 'the result per time' : kindName(p.kind)
}

export const argumentDefault = (p: Parameter): string =>
  p.initial === undefined ? (p.required ? '' : 'optional') : String(p.initial)

/** A call with the names of its arguments: `sine(freq, amp, offset, phase, every, low, high)`. */
export const callSignature = (f: Entry): string =>
  `${f.name}(${f.parameters.map(p => p.name).join(', ')}${f.variadic ? ', …' : ''})`

/** The easings by family, and how many there are. */
export const EASINGS = {
  families: FAMILIES.map(f => ({ name: f.name, says: f.says, strength: f.strength })),
  names: EASING_NAMES,
}

/** An example running on the example fair; null when it cannot, which a test forbids. */
export function running(example: Example): { program: Program; key: string } | null {
  const { b, ids } = exampleFair()
  const part = ids[example.part] ?? ids.Carousel!
  if (example.property !== 'y' || part !== ids.Mount)
    b.drive(ids.Mount!, 'y', 'sine(every: 2s, amp: 24px, phase: index / count * 1turn)')
  if (part !== ids.Carousel || example.property !== 'rotation') b.drive(ids.Carousel!, 'rotation', 'time * 45deg/s')
  b.drive(part, example.property, example.text)
  const program = new Program(b.piece)
  const key = propertyKey(part, example.property)
  const slot = program.slots.get(key)
  return slot && slot.problems.length === 0 ? { program, key } : null
}
