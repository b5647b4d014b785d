/** A small fair for tests: a carousel with mounts on it, three dials, and one formula to look at. */
import { Program, type Slot } from './engine/program.ts'
import { Builder } from './piece/build.ts'
import type { Piece } from './piece/schema.ts'
import { momentOfSeconds, type Moment } from './time/moment.ts'
import { fromNumber, rational } from './time/rational.ts'

export const RATE = rational(30)
export const at = (seconds: number): Moment => momentOfSeconds(fromNumber(seconds), RATE)

export interface Fair {
  readonly piece: Piece
  readonly program: Program
  readonly key: string
  readonly slot: Slot
  /** The value at some seconds, in base measure. */
  readonly value: (seconds: number, instance?: number) => number
}

export interface Place {
  /** `Carousel` unless given; `Mount` stands twelve times on the carousel. */
  readonly on?: 'Carousel' | 'Mount' | 'Flag'
  readonly property?: string
  /** Further formulas, by `Part.property`. */
  readonly with?: Readonly<Record<string, string>>
  readonly signals?: Readonly<Record<string, string>>
  readonly change?: (b: Builder) => void
}

/** The fair with `text` on a property (the carousel's rotation unless said otherwise). */
export function fair(text: string, place: Place = {}): Fair {
  const b = new Builder('Test fair', 77)
  b.dial('fairPace')
  b.dial('wind', { value: 35, high: 100 })
  b.dial('dusk', { unit: '', value: 0.8, low: 0, high: 1 })
  b.clock('slow', { way: { type: 'steady', rate: 0.5, ahead: 0 } })
  b.clock('back', { way: { type: 'steady', rate: -1, ahead: 3 } })
  b.clock('slower', { on: 'k1', way: { type: 'steady', rate: 0.5, ahead: 1 } })
  b.clock('toAndFro', { way: { type: 'toAndFro', length: 3 } })
  b.clock('again', { way: { type: 'restart', every: 2 } })
  b.clock('stepped', { hold: 10 })
  b.cue('blow', [2, 5, 5.5])
  b.cue('beat', [1], 2)
  b.cue('never', [])
  b.clock('onBlow', { way: { type: 'cue', cue: 'q1' } })
  b.curve(
    'rocking',
    {
      angle: [
        [0, -10],
        [2, 20],
        [4, -10],
      ],
    },
    { unit: 'deg' },
  )
  b.curve(
    'swing',
    {
      arm: [
        [0, 0],
        [0.6, 40],
        [0.9, -60, 'straight'],
        [1.2, 0],
      ],
      puck: [
        [0, 0, 'stepped'],
        [0.9, 100],
        [2, 0],
      ],
    },
    { unit: 'deg', hit: 0.9 },
  )
  b.curve('climb', {
    height: [
      [0, 0, 'straight'],
      [2, 1],
    ],
  })
  const ids: Record<string, string> = {}
  ids.Carousel = b.part('Carousel', { type: 'ellipse' })
  const round = { layout: 'ring', count: 12, radius: 170, from: 0, sweep: 360, turn: true } as const
  ids.Mount = b.part('Mount', { type: 'ellipse' }, { parent: ids.Carousel, copies: round })
  ids.Flag = b.part('Flag', { type: 'rectangle' }, { copies: { layout: 'row', count: 5, dx: 40, dy: 0 } })
  ids['Ticket arch'] = b.part('Ticket arch', { type: 'star', points: 6 })
  for (const [name, formula] of Object.entries(place.signals ?? {})) b.signal(name, formula)
  for (const [target, formula] of Object.entries(place.with ?? {})) {
    const [name, property] = target.split('.') as [string, string]
    b.drive(ids[name]!, property, formula)
  }
  const part = ids[place.on ?? 'Carousel']!
  const property = place.property ?? 'rotation'
  b.drive(part, property, text)
  place.change?.(b)
  const program = new Program(b.piece)
  const key = `${part}.${property}`
  const slot = program.slots.get(key)!
  const value = (seconds: number, instance = 0) => slot.readers[instance]!.at(at(seconds))
  return { piece: b.piece, program, key, slot, value }
}

/** The problems of a formula, by code. */
export const codes = (text: string, place?: Place): string[] => fair(text, place).slot.problems.map(p => p.code)
