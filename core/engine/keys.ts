/** Hand keys: what a property holds by hand over time, read on the clock in force. */
import { propertyKey, type Base, type Piece } from '../piece/schema.ts'
import { initialOf, type Property } from '../piece/properties.ts'
import { sizeOfUnit, type Measures } from '../units/units.ts'
import { handForm } from './env.ts'
import * as I from '../facts/interval.ts'
import { costOf } from '../facts/facts.ts'
import { everySeconds, type Repeats } from '../facts/repeats.ts'
import { curveBends } from '../form/drawing.ts'
import { beyond, drawn } from '../signal/drawn.ts'
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
import { reading, type Beat } from '../form/beat.ts'
import { form, type Form } from '../form/form.ts'

/** The form of hand keys; `size` is the unit's, so that values come in base measure. */
export function keyedForm(keys: NonNullable<Base['keys']>, size: Rational, beat: Beat, frameRate: Rational): Form {
  const curve = drawn(keys.points)
  const length = curve.end > curve.start ? minus(fromNumber(curve.end), fromNumber(curve.start)) : ONE
  const read = reading(
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
  return form(
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

/** What a property holds by hand at each of `count` instances, in base measure: one number, hand keys, or its own. */
export function handFormsOf(
  piece: Piece,
  m: Measures,
  part: string,
  property: Property,
  count: number,
  beat: Beat,
): Form[] {
  const size = sizeOfUnit(property.unit, m)
  const base = piece.bases[propertyKey(part, property.name)]
  const common = base?.value ?? initialOf(property, piece.parts[part]!.shape.type)
  const same = base?.keys ? keyedForm(base.keys, size, beat, m.frameRate) : handForm(common, size, m.frameRate)
  return Array.from({ length: count }, (_, i) => {
    const own = base?.copies?.[i]
    return own === undefined ? same : handForm(own, size, m.frameRate)
  })
}
