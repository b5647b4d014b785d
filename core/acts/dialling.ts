/** A dial out of a number of a formula: the number becomes a dial of that value, read by its name. */
import { argumentsOf } from '../formula/arguments.ts'
import { parse } from '../formula/parse.ts'
import { change } from '../formula/problem.ts'
import { everyNode, handles, type Formula, type NumberNode } from '../formula/tree.ts'
import { written } from '../formula/words.ts'
import { functionNamed } from '../functions/index.ts'
import { apply, compose, type Operation } from '../piece/operation.ts'
import type { Dial, Piece } from '../piece/schema.ts'
import { toNumber } from '../time/rational.ts'
import { addDial } from './drives.ts'
import { freeName } from './parts.ts'
import { setText, sourceOf } from './sources.ts'

const UNITS: readonly string[] = ['', '%', 'deg', 'px', 's', 'Hz'] satisfies Dial['unit'][]

/** What the number is called where it stands: the argument that it fills. */
function roleOf(formula: Formula, n: NumberNode): string | null {
  for (const node of everyNode(formula)) {
    const entry = node.type === 'call' ? functionNamed(node.name) : undefined
    if (node.type !== 'call' || !entry) continue
    const filled = argumentsOf(node, entry).filled.find(f => f.arg.value === n)
    if (filled) return filled.parameter.name
  }
  return null
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
  const name = freeName(piece, own ? (roleOf(formula, n) ?? 'amount') : 'pace')
  const value = own ? toNumber(n.value) : 100
  const high = value > 0 ? value * 2 : value < 0 ? -value : 1
  const low = value < 0 ? value * 2 : 0
  const made = addDial(piece, { name, unit: (own ? unit : '%') as Dial['unit'], value, initial: value, low, high })
  const insert = own ? written(name) : ` * ${written(name)}`
  const text = change(source.text, [{ from: own ? n.from : n.to, to: n.to, insert }])
  return {
    name,
    op: { ...compose(made.op, setText(apply(piece, made.op), key, text, true)), says: `make a dial ${name}` },
  }
}
