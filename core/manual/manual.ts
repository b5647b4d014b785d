/**
 * What the language means, for people who use it: the page /manual and docs/formula.md both print it, and the
 * tables of functions, words, units, easings and properties beside it.
 */
import { EASING_NAMES, FAMILIES } from '../signal/easing.ts'
import { exampleFair } from './example-fair.ts'
import { Program } from '../engine/program.ts'
import { propertyKey } from '../piece/schema.ts'
import { kindName } from '../units/kinds.ts'
import { FUNCTIONS } from '../functions/index.ts'
import type { Entry, Parameter } from '../functions/entry.ts'

export interface Section {
  readonly title: string
  readonly says: readonly string[]
  readonly examples?: readonly Example[]
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
      'One line of text drives one property, for ever. `time * 45deg/s` turns a part an eighth of a turn a second; `sine(every: 2s, amp: 24px)` lets it rise and fall. While it plays, every number in the text is a handle: drag it sideways.',
      'Names are the same in capitals. A name of more than one word stands in backquotes, as `Ticket arch` does. What stands behind // is a note.',
    ],
    examples: [
      on('Carousel', 'rotation', 'time * 45deg/s * fairPace'),
      on('Mount', 'y', 'sine(every: 2s, amp: 24px, phase: index / count * 1turn)'),
    ],
  },
  {
    title: 'Units are part of the number',
    says: [
      'Degrees, turns, seconds, frames, laps, hertz, pixels and shares are written on the number and checked. A mix-up is said where it stands, with a fix: `time * 40` on a rotation gives seconds, and `time * 40deg/s` is what was meant.',
      'A bare number alone takes the unit of the property it drives. Times, frequencies and rates always carry theirs. `%` is a share: 50% is 0.5. 0 fits anything.',
      '`3/lap` is a frequency by the lap: it closes at the lap whatever its length, if it is a whole number. 0.375Hz is never taken for it.',
    ],
  },
  {
    title: 'Values at any time, in any order',
    says: [
      'Time has no end and may be below 0. Every value is exact at any moment, a second or a year in, forwards or backwards, and the same on every machine. What grows steadily is kept as exact fractions, so a frame that lies on a step always takes the value from the right.',
      'Chance is hashed, not drawn: each property and each copy has its own, kept through undo and renaming. With a `seed:` of your own it is shared.',
    ],
    examples: [
      on('Carousel', 'rotation', 'noise(freq: 1Hz, amp: 20deg, octaves: 2)'),
      on('Carousel', 'rotation', 'random(-30, 30, rate: 2Hz)'),
    ],
  },
  {
    title: 'Links and copies',
    says: [
      '`carousel.rotation * -0.3` follows another property. `own.y` is another property of the same part, `parent.rotation` one of what it hangs on, `before.rotation` one of the copy before (for the first copy, what it holds by hand). `mount[3].y` names a copy from outside.',
      '`index` counts the copies from 0, `count` says how many there are, `along` goes from 0 to 1. In a grid `row` and `rows` count the rows. Copies further out are `parent.index`.',
      'Links that run in a circle are found as they are written, and named in full.',
    ],
    examples: [
      on('Flag', 'rotation', 'if index == 0 then sine(every: 2s, amp: 30deg) else delay(before.rotation, 90ms) * 80%'),
    ],
  },
  {
    title: 'Stages',
    says: [
      'if … then … else … changes from one formula to another. Count the second stage from its own start, and it begins where the first one ends. A leap is reported with its size, and with the constant that closes it.',
    ],
    examples: [on('Carousel', 'rotation', 'if time < 3s then time * 30deg/s else 90deg + (time - 3s) * 120deg/s')],
  },
  {
    title: 'Tuning without a jump',
    says: [
      'A frequency, period or rate that is changed while it plays keeps the value where it is and changes only where it goes next. The difference goes into `phase:`, into a constant beside the time, or into `from:`; one drag is one undo, and undo brings back the exact text.',
      'A dial that many formulas read changes no text: the piece remembers how far it has moved things along. *Settle from 0* clears that.',
      'This holds while playing; in the masthead you can have it always, or never. A change made while stopped is exactly what you typed. If a value can’t be kept, a message says how far it jumps. Retyping a whole line keeps the value too; *Apply without smoothing* gives exactly what you typed. Removing a formula or a link keeps the part where it is.',
      'A pace that itself wobbles is added up with `accumulate`: `time * something that changes` would leap and run back.',
    ],
    examples: [on('Carousel', 'rotation', 'accumulate(45deg/s * (1 + noise(1Hz, 0.5)))')],
  },
  {
    title: 'Clocks, cues and drawn curves',
    says: [
      '`… on slow` reads everything to its left on a clock: slower, faster, backwards, to and fro, again and again, held at so many steps a second. Links, signals and dials keep their own clock, so two linked parts on one slow clock are slowed once.',
      'A cue is a list of marks. `play(curve, cue)` lets a drawn gesture land its hit point on each mark; `since(cue)` counts the seconds, `fires(cue)` is yes for a frame.',
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
  p.initial === undefined ? (p.required ? '' : 'may be left out') : String(p.initial)

/** A call with the names of its arguments: `sine(freq, amp, offset, phase, every, low, high)`. */
export const signature = (f: Entry): string => `${f.name}(${f.takes.map(p => p.name).join(', ')}${f.many ? ', …' : ''})`

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
