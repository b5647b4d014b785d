/**
 * Links as pins on a board: what drives, what is driven, in which ratio, how much on top and how much later. A pin that
 * is all of a formula (with a constant) can be turned round or made to work both ways; every pin can be cut.
 */
import { propertyKey, signalKey } from '../piece/drive-key.ts'
import { sourceOf } from '../acts/sources.ts'
import { runningFormula } from '../engine/meaning.ts'
import type { Program } from '../engine/program.ts'
import { argumentsOf } from '../formula/arguments.ts'
import type { Checked } from '../formula/check.ts'
import type { FormulaRead } from '../formula/lookup.ts'
import { outerSpan, walk, type Node } from '../formula/tree.ts'
import { functionNamed } from '../functions/index.ts'
import { toNumber } from '../time/rational.ts'
import { sizeOfUnit, type Measures } from '../units/units.ts'
import { propertyOf } from './report.ts'

export interface Pin {
  /** `part.property`, `~signal` or `dials/id`. */
  readonly driver: string
  /** `part.property` or `~signal`. */
  readonly driven: string
  /** How the formula names what drives; null where no formula does. */
  readonly written: string | null
  /** What it is multiplied by; null where it is part of something else. */
  readonly ratio: number | null
  /** Seconds by which it comes later. */
  readonly lag: number
  /** Where the link is all of the formula: what is added, in the unit of what is driven; else null. */
  readonly offset: number | null
  /** The tie by which it works both ways. */
  readonly tie: string | null
}

/** A term of the sum that a formula is, with the sign before it. */
export interface Term {
  readonly sign: 1 | -1
  readonly node: Node
}

export function termsOf(node: Node, sign: 1 | -1 = 1): Term[] {
  if (node.type === 'binary' && (node.op === '+' || node.op === '-')) {
    const right = node.op === '-' ? -sign : sign
    return [...termsOf(node.left, sign), ...termsOf(node.right, right as 1 | -1)]
  }
  if (node.type === 'unary' && node.op === '-') return termsOf(node.of, -sign as 1 | -1)
  return [{ sign, node }]
}

const driverOf = (r: FormulaRead): string =>
  r.type === 'property' ? propertyKey(r.part, r.property) : r.type === 'signal' ? signalKey(r.id) : `dials/${r.id}`

const holds = (node: Node, at: { from: number; to: number }): boolean => node.from <= at.from && at.to <= node.to

/** Whether a node is what is read, by itself or later: the seconds by which it is later, or null. */
function lagOf(node: Node, read: FormulaRead, m: Measures): number | null {
  if (node.from === read.from && node.to === read.to) return 0
  const entry = node.type === 'call' ? functionNamed(node.name) : undefined
  if (node.type !== 'call' || entry?.name !== 'delay') return null
  const [what, by] = argumentsOf(node, entry).filled
  const n = by?.arg.value
  if (!what || lagOf(what.arg.value, read, m) !== 0 || n?.type !== 'number') return null
  return toNumber(n.value) * toNumber(sizeOfUnit(n.unit, m))
}

/** The ratio and lag of a term that is what is read times plain numbers; null where it is anything else. */
function scaledBy(term: Term, read: FormulaRead, m: Measures): { ratio: number; lag: number } | null {
  let [ratio, lag]: [number, number | null] = [term.sign, null]
  const factor = (node: Node, over: boolean): boolean => {
    if (node.type === 'binary' && (node.op === '*' || node.op === '/'))
      return factor(node.left, over) && factor(node.right, over !== (node.op === '/'))
    if (node.type === 'unary' && node.op === '-') {
      ratio = -ratio
      return factor(node.of, over)
    }
    if (node.type === 'number' && (node.unit === '' || node.unit === '%')) {
      const v = toNumber(node.value) * (node.unit === '%' ? 0.01 : 1)
      if (over && v === 0) return false
      ratio = over ? ratio / v : ratio * v
      return true
    }
    const later = over || lag !== null ? null : lagOf(node, read, m)
    if (later === null) return false
    lag = later
    return true
  }
  return factor(term.node, false) && lag !== null ? { ratio: Number(ratio.toPrecision(12)), lag } : null
}

/** What the terms beside one come to, in the driven unit; null where one of them is no number. */
function offsetOf(terms: readonly Term[], beside: Term, unit: string, m: Measures): number | null {
  let sum = 0
  for (const t of terms) {
    if (t === beside) continue
    if (t.node.type !== 'number') return null
    const size = t.node.unit === '' ? 1 : toNumber(sizeOfUnit(t.node.unit, m)) / toNumber(sizeOfUnit(unit, m))
    sum += t.sign * toNumber(t.node.value) * size
  }
  return Number(sum.toPrecision(12))
}

function pinsIn(program: Program, driven: string, checked: Checked): Pin[] {
  const { measures } = program
  const terms = checked.formula.lets.length === 0 ? termsOf(checked.formula.body) : []
  const found = new Map<string, Pin>()
  for (const read of checked.reads) {
    if (read.type === 'property' && read.before) continue
    const driver = driverOf(read)
    if (found.has(driver)) continue
    const term = terms.find(t => holds(t.node, read))
    const scaled = term ? scaledBy(term, read, measures) : null
    const offset = scaled && offsetOf(terms, term!, propertyOf(program, driven).unit, measures)
    const written = checked.formula.text.slice(read.from, read.to)
    found.set(driver, {
      driver,
      driven,
      written,
      ratio: scaled?.ratio ?? null,
      lag: scaled?.lag ?? 0,
      offset,
      tie: null,
    })
  }
  return [...found.values()]
}

/** Every pin of a piece, in the order of its formulas; ties last. */
export function pinsOf(program: Program): Pin[] {
  const { piece } = program
  const pins: Pin[] = []
  for (const [key, meaning] of program.meanings.all) {
    const formula = runningFormula(meaning)
    if (formula && sourceOf(piece, key)) pins.push(...pinsIn(program, key, formula))
  }
  for (const [tie, { a, b, ratio, offset }] of Object.entries(piece.ties))
    pins.push({ driver: a, driven: b, written: null, ratio, lag: 0, offset, tie })
  return pins
}

/** The formula without the term that reads a driver; null where nothing would be left. */
export function textWithoutPin(program: Program, pin: Pin): string | null {
  const checked = program.meanings.all.get(pin.driven)?.text
  const read = checked?.reads.find(r => driverOf(r) === pin.driver)
  if (!checked || !read || checked.formula.lets.length > 0) return null
  const { text, body } = checked.formula
  const term = termsOf(body).find(t => holds(t.node, read))
  const written = (n: Node): string => text.slice(outerSpan(n).from, outerSpan(n).to)
  let left: string | null = null
  walk(body, n => {
    if (n.type !== 'binary' || (n.op !== '+' && n.op !== '-')) return
    const inRight =
      term !== undefined && outerSpan(n.right).from <= term.node.from && term.node.to <= outerSpan(n.right).to
    const side = inRight ? n.right : n.left
    const own = side === term?.node || (side.type === 'unary' && side.op === '-' && side.of === term?.node)
    if (!own) return
    const stays = inRight ? written(n.left) : (n.op === '-' ? '-' : '') + written(n.right)
    const at = outerSpan(n)
    left = text.slice(0, at.from) + stays + text.slice(at.to)
  })
  return left
}

/** Where the term of a pin stands in the text, and its sign; null where it is no plain term. */
export function pinPlace(program: Program, pin: Pin): { from: number; to: number; sign: 1 | -1 } | null {
  const checked = program.meanings.all.get(pin.driven)?.text
  const read = checked?.reads.find(r => driverOf(r) === pin.driver)
  if (!checked || !read || pin.ratio === null) return null
  const term = termsOf(checked.formula.body).find(t => holds(t.node, read))
  return term ? { ...outerSpan(term.node), sign: term.sign } : null
}
