/**
 * A typed amount: numbers with units and the arithmetic between them, read as a formula reads them and told in the unit
 * of the field. One reader for every field, so that `10f`, `1turn` and `50%` mean the same wherever they are typed.
 */
import { isZero, minus, negate, over, plus, times, toNumber, within, type Rational } from '../time/rational.ts'
import { readTime } from '../time/reading.ts'
import {
  ANGLE,
  FREQUENCY,
  LENGTH,
  PLAIN,
  TIME,
  kindName,
  productKind,
  quotientKind,
  sameKind,
  type Kind,
} from '../units/kinds.ts'
import { readUnit, sizeOfUnit, type Measures } from '../units/units.ts'
import { parse, plainly } from './parse.ts'
import type { Node } from './tree.ts'

export type Quantity = { readonly value: number; readonly says: null } | { readonly value: null; readonly says: string }

/** An amount on its way: in base measure, and whether nothing in it has a unit. */
interface Amount {
  readonly of: Rational
  readonly kind: Kind
  readonly bare: boolean
}

class Unread extends Error {}

const EXAMPLES: readonly (readonly [Kind, string])[] = [
  [TIME, '1.5s, 10f or 1lap'],
  [ANGLE, '90deg, 0.25turn or 1.57rad'],
  [LENGTH, '40px'],
  [FREQUENCY, '2Hz, 120bpm or 3/lap'],
  [PLAIN, '0.5 or 50%'],
]
const suchAs = (kind: Kind, unit: string): string =>
  EXAMPLES.find(([k]) => sameKind(k, kind))?.[1] ?? (unit === '' ? '2' : `2${unit}`)

/**
 * Reads what was typed into a field of a unit (`deg`, `s`, `px`, `%`, `` for a plain number …).
 * A number without a unit takes the field's. Gives the value in that unit, or one sentence on what does not fit.
 */
export function readQuantity(text: string, unit: string, m: Measures): Quantity {
  const field = readUnit(unit) ?? readUnit('')!
  const right = (of: Rational): Quantity => ({ value: Number(toNumber(of).toFixed(9)), says: null })
  const wrong = (says: string): Quantity => ({ value: null, says })
  const example = suchAs(field.kind, unit)
  // A decimal comma is a point; nothing in a field takes a list.
  const typed = text
    .trim()
    .replace(/(\d),(\d)/g, '$1.$2')
    .replace(/^,(\d)/, '.$1')
  if (typed === '') return wrong(`Type a number, such as ${example}.`)
  if (sameKind(field.kind, TIME) && /^[-−]?\d+(:[0-5]?\d){1,2}(\.\d*)?$/.test(typed)) {
    const time = readTime(typed, m)
    if (time.seconds) return right(over(time.seconds, field.size(m)))
  }
  const spaced = typed.replace(/(\d)\s+(?=[a-zµ°%])/gi, '$1')
  const { formula } = parse(plainly(spaced))
  if (!formula || formula.lets.length > 0) return wrong(`“${short(text)}” isn't a number. Type one such as ${example}.`)
  try {
    const { of, kind, bare } = amountOf(formula.body, m, sizeOfUnit(unit, m), field.kind)
    if (bare) return right(of)
    if (!sameKind(kind, field.kind) && !isZero(of))
      return wrong(`“${short(text)}” is ${kindName(kind)}, but this takes ${kindName(field.kind)}, such as ${example}.`)
    return right(over(of, field.size(m)))
  } catch (e) {
    if (!(e instanceof Unread)) throw e
    return wrong(e.message || `“${short(text)}” isn't a number. Type one such as ${example}.`)
  }
}

const short = (text: string): string => (text.length > 24 ? `${text.slice(0, 23)}…` : text)

function amountOf(node: Node, m: Measures, size: Rational, kind: Kind): Amount {
  const read = (n: Node): Amount => kept(amountOf(n, m, size, kind))
  switch (node.type) {
    case 'number': {
      if (node.unit === '') return { of: node.value, kind: PLAIN, bare: true }
      const written = readUnit(node.unit)
      if (!written)
        throw new Unread(
          `“${node.unit}” isn't a unit. Units are deg, turn, rad, s, ms, min, f, lap, Hz, bpm, px and %.`,
        )
      return { of: times(node.value, written.size(m)), kind: written.kind, bare: false }
    }
    case 'unary': {
      const a = read(node.of)
      if (node.op === 'not') throw new Unread('')
      return node.op === '-' ? { ...a, of: negate(a.of) } : a
    }
    case 'binary': {
      const [a, b] = [read(node.left), read(node.right)]
      if (node.op === '*') return { of: times(a.of, b.of), kind: productKind(a.kind, b.kind), bare: a.bare && b.bare }
      if (node.op === '/') {
        if (isZero(b.of)) throw new Unread('This divides by 0. Type another number.')
        return { of: over(a.of, b.of), kind: quotientKind(a.kind, b.kind), bare: a.bare && b.bare }
      }
      if (node.op !== '+' && node.op !== '-') throw new Unread('')
      // Beside an amount with a unit a bare number takes the field's.
      const same = a.bare === b.bare
      const dressed = (x: Amount): Amount => (x.bare && !same ? { of: times(x.of, size), kind, bare: false } : x)
      const [x, y] = [dressed(a), dressed(b)]
      if (!sameKind(x.kind, y.kind))
        throw new Unread(`This adds ${kindName(x.kind)} and ${kindName(y.kind)}. Give both the same kind of unit.`)
      return { ...x, of: node.op === '+' ? plus(x.of, y.of) : minus(x.of, y.of) }
    }
    case 'name':
      throw new Unread(`“${short(node.name)}” isn't a number. Names can be read in formulas only.`)
    default:
      throw new Unread('')
  }
}

/** An amount of so many digits that a document can hold it. */
function kept(a: Amount): Amount {
  if (!within(a.of)) throw new Unread('This number is too large or too small.')
  return a
}
