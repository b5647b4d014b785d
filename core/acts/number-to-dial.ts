/** A dial out of a number of a formula: the number becomes a dial of that value, read by its name. */
import { drivenProperty, isSignal } from '../piece/drive-key.ts'
import { argumentsOf } from '../formula/arguments.ts'
import { parse } from '../formula/parse.ts'
import { change } from '../formula/problem.ts'
import { everyNode, handles, type Formula, type NumberNode } from '../formula/tree.ts'
import { quotedName } from '../formula/words.ts'
import { functionNamed } from '../functions/index.ts'
import { apply, compose, type Operation } from '../piece/operation.ts'
import type { Dial, Piece } from '../piece/schema.ts'
import { toNumber } from '../time/rational.ts'
import { addDial } from './drives.ts'
import { freeName } from './parts.ts'
import { setText, sourceName, sourceOf } from './sources.ts'

const UNITS: readonly string[] = ['', '%', 'deg', 'px', 's', 'Hz'] satisfies Dial['unit'][]

/** Where a number stands in its formula. */
interface Place {
  /** What a dial made of it is called: after the argument or the let it fills, else after what it does to the property. */
  readonly name: string
  /** It must stay above 0, or at least at it. */
  readonly least: 'positive' | 'zero' | null
}

const bigFirst = (word: string) => word.replace(/^./, c => c.toUpperCase())

function placeOf(formula: Formula, n: NumberNode, property: string): Place {
  for (const node of everyNode(formula)) {
    const entry = node.type === 'call' ? functionNamed(node.name) : undefined
    if (node.type !== 'call' || !entry) continue
    const filled = argumentsOf(node, entry).filled.find(f => f.arg.value === n)
    if (!filled) continue
    const { name, positive } = filled.parameter
    return { name, least: positive ? 'positive' : FROM_0.has(name) ? 'zero' : null }
  }
  const named = formula.lets.find(l => l.value === n)
  if (named) return { name: `${named.name}Value`, least: null }
  const above = everyNode(formula).find(m => m.type === 'binary' && (m.left === n || m.right === n))
  const does = above?.type === 'binary' ? DOES[above.op] : undefined
  return { name: `${property}${bigFirst(does ?? (formula.body === n ? 'value' : 'amount'))}`, least: null }
}
/** Arguments that mean nothing below 0. */
const FROM_0: ReadonlySet<string> = new Set(['duty', 'octaves', 'rate', 'freq', 'attack', 'release', 'hold'])
const DOES: Partial<Record<string, string>> = {
  '+': 'offset',
  '-': 'offset',
  '*': 'factor',
  '/': 'divisor',
  '^': 'power',
  '<': 'limit',
  '<=': 'limit',
  '>': 'limit',
  '>=': 'limit',
}

/** What a value of 0 may become, by its unit. */
const ROOM: Readonly<Record<string, number>> = { '': 1, '%': 100, deg: 180, px: 100, s: 2, Hz: 2 }

/** The next of 1, 2, 5, 10, 20 … at or above a size. */
function round(size: number): number {
  // The power of ten is read off the number as it is written: 4.8e+1.
  const ten = Number(`1e${size.toExponential().split('e')[1]!}`)
  return Number(([1, 2, 5, 10].find(k => k * ten >= size * (1 - 1e-9))! * ten).toPrecision(6))
}

/** Lowest and highest value of a dial that stands at one, with room on both sides. */
export function rangeRound(value: number, unit: string, least: Place['least']): { low: number; high: number } {
  const size = Math.abs(value)
  const high = size === 0 ? ROOM[unit]! : round(2 * size)
  if (least === 'positive') return { low: Number((size === 0 ? high / 10 : round(size / 10)).toPrecision(6)), high }
  if (least === 'zero' || (unit === '%' && value >= 0)) return { low: 0, high }
  return { low: -high, high }
}

/** A dial that goes as far as a value, on the side on which it did not, with room beyond it. */
export function widened({ low, high, unit }: Dial, value: number): { low: number; high: number } {
  const wide = rangeRound(value, unit, null)
  return value > high ? { low, high: wide.high } : value < low ? { low: wide.low, high } : { low, high }
}

/** The number of a text that a place lies in, or the first there is; −1 when there is none. */
export function numberAt(text: string, place: number): number {
  const { formula } = parse(text)
  const all = formula ? handles(formula) : []
  const at = all.findIndex(n => place >= n.from && place <= n.to)
  return at >= 0 || all.length === 0 ? at : 0
}

/**
 * Makes the n-th number of a formula a dial. One whose unit no dial has (a rate) stays, and is multiplied by a dial of
 * 100 %. Null where there is no such number.
 */
export function dialOf(piece: Piece, key: string, nth: number): { name: string; op: Operation } | null {
  const source = sourceOf(piece, key)
  const formula = source && parse(source.text).formula
  const n = formula && handles(formula)[nth]
  if (!source || !formula || !n) return null
  const unit = n.unit.toLowerCase() === 'hz' ? 'Hz' : n.unit
  const own = UNITS.includes(unit)
  const place = placeOf(formula, n, isSignal(key) ? sourceName(piece, key) : drivenProperty(key))
  const name = freeName(piece, own ? place.name : 'pace')
  const value = own ? toNumber(n.value) : 100
  const { low, high } = own ? rangeRound(value, unit, place.least) : { low: 0, high: 200 }
  const made = addDial(piece, { name, unit: (own ? unit : '%') as Dial['unit'], value, initial: value, low, high })
  const insert = own ? quotedName(name) : ` * ${quotedName(name)}`
  const text = change(source.text, [{ from: own ? n.from : n.to, to: n.to, insert }])
  return {
    name,
    op: { ...compose(made.op, setText(apply(piece, made.op), key, text, true)), undoLabel: `make a dial ${name}` },
  }
}
