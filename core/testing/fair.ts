/** A small fair for tests: a carousel with mounts on it, three dials, and one formula to look at. */
import { splitDriveKey } from '../piece/drive-key.ts'
import { Program } from '../engine/program.ts'
import type { Slot } from '../engine/slot.ts'
import type { Builder } from '../acts/build.ts'
import { exampleFair } from '../manual/example-fair.ts'
import type { Piece } from '../piece/schema.ts'
import { momentOfSeconds, type Moment } from '../time/moment.ts'
import { fromNumber, rational } from '../time/rational.ts'

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
  readonly on?: 'Carousel' | 'Mount' | 'Flag' | 'Idler' | 'Basin'
  readonly property?: string
  /** Further formulas, by `Part.property`. */
  readonly with?: Readonly<Record<string, string>>
  readonly signals?: Readonly<Record<string, string>>
  readonly change?: (b: Builder) => void
}

/** The fair with `text` on a property (the carousel's rotation unless said otherwise). */
export function fair(text: string, place: Place = {}): Fair {
  const { b, ids } = exampleFair()
  for (const [name, formula] of Object.entries(place.signals ?? {})) b.signal(name, formula)
  for (const [target, formula] of Object.entries(place.with ?? {})) {
    const [name, property] = splitDriveKey(target)
    b.drive(ids[name]!, property, formula)
  }
  const part = ids[place.on ?? 'Carousel']!
  const property = place.property ?? 'rotation'
  b.drive(part, property, text)
  place.change?.(b)
  const program = new Program(b.piece)
  const key = `${part}.${property}`
  const slot = program.slots.get(key)!
  const value = (seconds: number, instance = 0) => program.queue.settle(() => slot.readers[instance]!.at(at(seconds)))
  return { piece: b.piece, program, key, slot, value }
}

/** The fair with `text` on so many mounts. */
export const fairOfCopies = (text: string, count: number): Fair =>
  fair(text, {
    on: 'Mount',
    change: b => {
      const [id, part] = Object.entries(b.piece.parts).find(([, p]) => p.name === 'Mount')!
      b.do({
        undoLabel: '',
        puts: [{ in: 'parts', id, value: { ...part, copies: { ...part.copies!, count } as never } }],
      })
    },
  })

/** The problems of a formula, by code. */
export const codes = (text: string, place?: Place): string[] => fair(text, place).slot.problems.map(p => p.code)

/** The value of a formula without problems at some seconds, in base measure. */
export function value(text: string, seconds: number, place?: Place): number {
  const f = fair(text, place)
  const [first] = f.slot.problems
  if (first) throw new Error(`${text}: ${first.message}`)
  return f.value(seconds)
}
