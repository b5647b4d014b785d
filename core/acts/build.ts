/** Writing a piece in code, operation by operation: for the demo, for starters and for tests. */
import { addDial, addDrive, addSignal } from './drives.ts'
import { apply, type Operation } from '../piece/operation.ts'
import { addPart, setBase, setCopies } from './parts.ts'
import { addClock, addCue, addCurve } from './time-edits.ts'
import { emptyPiece, type Clock, type Curve, type Dial, type Part, type Piece, type Shape } from '../piece/schema.ts'

export class Builder {
  piece: Piece

  constructor(title: string, seed: number) {
    this.piece = emptyPiece(title, seed)
  }

  do(op: Operation): this {
    this.piece = apply(this.piece, op)
    return this
  }

  /** A part with its set values in display units; gives its id. */
  part(name: string, shape: Shape, given: Partial<Part> = {}, hand: Readonly<Record<string, number>> = {}): string {
    const { id, op } = addPart(this.piece, shape, { ...given, name })
    this.do(op)
    for (const [property, value] of Object.entries(hand)) this.do(setBase(this.piece, id, property, value))
    return id
  }

  /** Set values of the instances of a part, from a function of their number. */
  copies(part: string, property: string, count: number, value: (i: number) => number): this {
    const values = Object.fromEntries(Array.from({ length: count }, (_, i) => [i, value(i)]))
    return this.do(setCopies(this.piece, part, property, values))
  }

  drive(part: string, property: string, text: string): this {
    return this.do(addDrive(this.piece, part, property, text))
  }

  dial(name: string, given: Partial<Dial> = {}): string {
    const { id, op } = addDial(this.piece, { ...given, name })
    this.do(op)
    return id
  }

  clock(name: string, given: Partial<Clock> = {}): string {
    const { id, op } = addClock(this.piece, { ...given, name })
    this.do(op)
    return id
  }

  cue(name: string, marks: readonly number[], every: number | null = null): string {
    const { id, op } = addCue(this.piece, { name, marks: [...marks], every })
    this.do(op)
    return id
  }

  /** A curve from points `[time, value]` or `[time, value, shape]` of each channel, smooth unless said otherwise. */
  curve(
    name: string,
    channels: Readonly<Record<string, readonly (readonly [number, number, string?])[]>>,
    given: Partial<Curve> = {},
  ): string {
    const drawn = Object.entries(channels).map(([channel, points]) => [
      channel,
      points.map(([time, value, shape = 'smooth']) => ({ time, value, shape })),
    ])
    const { id, op } = addCurve(this.piece, {
      ...given,
      name,
      channels: Object.fromEntries(drawn) as Curve['channels'],
    })
    this.do(op)
    return id
  }

  signal(name: string, text: string): string {
    const { id, op } = addSignal(this.piece, name, text)
    this.do(op)
    return id
  }
}
