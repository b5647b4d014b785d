/** Keyframes: what a property holds by hand over time, read on the clock in force. */
import { propertyKey } from '../piece/drive-key.ts'
import type { Base, Piece } from '../piece/schema.ts'
import { initialOf, type Property } from '../piece/properties.ts'
import { sizeOfUnit, type Measures } from '../units/units.ts'
import { setValueExpression } from './env.ts'
import * as I from '../facts/interval.ts'
import { costOf } from '../facts/cost.ts'
import { everySeconds, type Repeats } from '../facts/repeats.ts'
import { curveBends } from '../form/curve-bends.ts'
import { beyond, drawnCurve } from '../signal/drawn.ts'
import {
  ONE,
  ZERO,
  fromNumber,
  isZero,
  minus,
  negate,
  over,
  rational,
  times,
  toNumber,
  type Rational,
} from '../time/rational.ts'
import { PIECE_CLOCK, clockReading, type ActiveClock } from '../form/active-clock.ts'
import { expressionOf, type CompiledExpression } from '../form/compiled-expression.ts'

/** The expression of keyframes; `size` is the unit's, so that values come in base measure. */
export function keyframeExpression(
  keys: NonNullable<Base['keys']>,
  size: Rational,
  beat: ActiveClock,
  frameRate: Rational,
): CompiledExpression {
  const curve = drawnCurve(keys.points)
  const length = curve.end > curve.start ? minus(fromNumber(curve.end), fromNumber(curve.start)) : ONE
  const read = clockReading(
    { rate: over(ONE, length), base: negate(over(fromNumber(curve.start), length)) },
    beat,
    frameRate,
  )
  const scale = toNumber(size)
  const gain = times(minus(fromNumber(curve.last), fromNumber(curve.first)), size)
  const { every } = read.cyclic
  const repeats = (): Repeats => {
    if (keys.after === 'hold') return read.between(ZERO, ONE)
    if (!every || isZero(every)) return read.once
    if (keys.after === 'mirror') return everySeconds(times(every, rational(2)))
    return keys.after === 'carry' ? { every, gain: over(gain, every), from: null } : everySeconds(every)
  }
  const endless = keys.after === 'carry' && curve.first !== curve.last
  return expressionOf(
    m => {
      const { whole, part } = read.splitAt(m)
      return beyond(curve, keys.after, whole, part) * scale
    },
    {
      bounds: () => (endless ? I.ALL : I.times(I.interval(curve.low, curve.high), I.point(scale))),
      repeats,
      bends: () => curveBends(curve, keys.after, read),
      cost: () => costOf(1, []),
      finite: () => true,
    },
  )
}

/** What properties hold by hand, in base measure: one number, keyframes, or a copy's own. Kept for the piece's own time. */
export class SetValueExpressions {
  private readonly known = new Map<string, readonly CompiledExpression[]>()
  private readonly sizes = new Map<string, Rational>()

  constructor(
    private readonly piece: Piece,
    private readonly measures: Measures,
  ) {}

  /** One expression for each of `count` instances. */
  of(part: string, property: Property, count: number, beat: ActiveClock): readonly CompiledExpression[] {
    if (beat !== PIECE_CLOCK) return this.make(part, property, count, beat)
    const key = propertyKey(part, property.name)
    let found = this.known.get(key)
    if (!found) this.known.set(key, (found = this.make(part, property, count, beat)))
    return found
  }

  /** The same as plain numbers, where it is no keys: for what is drawn. `own` where copies differ. */
  numbers(
    part: string,
    property: Property,
    count: number,
  ): { readonly all: number; readonly own: Float64Array | null } {
    const { piece } = this
    const base = piece.bases[propertyKey(part, property.name)]
    const unit = this.sizeOf(property.unit)
    const of = (value: number) => (value === 0 ? 0 : toNumber(times(fromNumber(value), unit)))
    const all = of(base?.value ?? initialOf(property, piece.parts[part]!.shape.type))
    if (!base?.copies) return { all, own: null }
    const own = new Float64Array(count).fill(all)
    for (const [i, value] of Object.entries(base.copies)) if (Number(i) < count) own[Number(i)] = of(value)
    return { all, own }
  }

  /** What is set on a part without copies, exactly; null where keyframes move it. */
  constant(part: string, property: Property): Rational | null {
    const { piece } = this
    const base = piece.bases[propertyKey(part, property.name)]
    if (base?.keys) return null
    const value = base?.copies?.[0] ?? base?.value ?? initialOf(property, piece.parts[part]!.shape.type)
    return times(fromNumber(value), this.sizeOf(property.unit))
  }

  private sizeOf(unit: string): Rational {
    let size = this.sizes.get(unit)
    if (!size) this.sizes.set(unit, (size = sizeOfUnit(unit, this.measures)))
    return size
  }

  private make(part: string, property: Property, count: number, beat: ActiveClock): CompiledExpression[] {
    const { piece, measures: m } = this
    const size = this.sizeOf(property.unit)
    const base = piece.bases[propertyKey(part, property.name)]
    const common = base?.value ?? initialOf(property, piece.parts[part]!.shape.type)
    const same = base?.keys
      ? keyframeExpression(base.keys, size, beat, m.frameRate)
      : setValueExpression(common, size, m.frameRate)
    const all = new Array<CompiledExpression>(count).fill(same)
    for (const [i, own] of Object.entries(base?.copies ?? {}))
      if (Number(i) in all) all[Number(i)] = setValueExpression(own, size, m.frameRate)
    return all
  }
}
