/** A formula given to others: each the same, following the original or on its own, later, larger or faster by a step. */
import { drivenPart, splitDriveKey } from '../piece/drive-key.ts'
import { labelFor } from '../formula/labels.ts'
import { numberChange, decimalsOf } from '../formula/edit.ts'
import { argumentsOf } from '../formula/arguments.ts'
import { parse } from '../formula/parse.ts'
import { change, type Change } from '../formula/problem.ts'
import { everyNode, type Formula, type NumberNode } from '../formula/tree.ts'
import { functionNamed } from '../functions/index.ts'
import { apply, compose, type Operation } from '../piece/operation.ts'
import type { Piece } from '../piece/schema.ts'
import { hashUnit, seedOf } from '../signal/hash.ts'
import { toNumber } from '../time/rational.ts'
import { addDrive } from './drives.ts'
import { sourceName } from './sources.ts'

export interface SharingOptions {
  /** Whether it reads the original (changed there, changed everywhere) or has the text itself. */
  readonly follow: boolean
  /** Seconds that each is later than the one before, or at most, by chance. */
  readonly later: number
  /** What each is times the one before. */
  readonly size: number
  /** How much faster each is than the one before. */
  readonly pace: number
  /** Steps in order, or by chance within them. */
  readonly chance: boolean
}

export const SHARED_UNCHANGED: SharingOptions = { follow: false, later: 0, size: 1, pace: 1, chance: false }

/** Between 0 and 1, always the same for the same one. */
const byChance = (nth: number, what: number): number => hashUnit(nth, seedOf('given', what))
/** A number times itself, so many times. */
const again = (x: number, n: number): number => Array.from({ length: n }).reduce((all: number) => all * x, 1)
const plain = (x: number): string => String(Number(x.toFixed(4)))

/** A text whose paces are so many times as fast: frequencies, periods, lengths and rates per second. */
export function paced(text: string, factor: number): string {
  const { formula } = parse(text)
  if (!formula || factor === 1) return text
  const changes = new Map<NumberNode, Change>()
  const set = (n: NumberNode, by: number): void => {
    const value = toNumber(n.value) * by
    const digits = Math.max(decimalsOf(text.slice(n.from, n.unitFrom)), 3)
    const written = plain(Number(value.toFixed(digits)))
    if (n.unitFrom > n.from) changes.set(n, numberChange(text, n, value, decimalsOf(written)))
  }
  everyPace(formula, set, factor)
  return change(text, [...changes.values()])
}

function everyPace(formula: Formula, set: (n: NumberNode, by: number) => void, factor: number): void {
  for (const node of everyNode(formula)) {
    if (node.type === 'number' && /\/(s|min|f)$/i.test(node.unit)) set(node, factor)
    const entry = node.type === 'call' ? functionNamed(node.name) : undefined
    if (node.type !== 'call' || !entry) continue
    for (const { parameter, arg } of argumentsOf(node, entry).filled) {
      if (arg.value.type !== 'number' || /lap$/i.test(arg.value.unit)) continue
      if (parameter.name === 'freq' || parameter.name === 'rate') set(arg.value, factor)
      else if (['every', 'length', 'attack', 'hold', 'release'].includes(parameter.name)) set(arg.value, 1 / factor)
    }
  }
}

/** The formula that one of those, the n-th of those it is given to has, counted from 1. */
export function sharedText(piece: Piece, key: string, to: string, nth: number, g: SharingOptions): string {
  const drawn = (step: number, what: number): number => (g.chance ? step * byChance(nth, what) : step * nth)
  const own = piece.drives[key]!.text
  const factor = g.chance ? 1 + (g.pace - 1) * byChance(nth, 2) : again(g.pace, nth)
  let text = g.follow ? labelFor(piece, key, drivenPart(to)) : paced(own, factor)
  const later = drawn(g.later, 1)
  if (later !== 0) text = `delay(${text}, ${plain(later)}s)`
  const size = g.chance ? 1 + (g.size - 1) * byChance(nth, 3) : again(g.size, nth)
  if (size !== 1) text = g.follow || later !== 0 ? `${text} * ${plain(size)}` : `(${text}) * ${plain(size)}`
  return text
}

/** Gives a drive to others, by their `part.property`, in one step. */
export function shareFormula(piece: Piece, key: string, to: readonly string[], g: SharingOptions): Operation {
  const ops: Operation[] = []
  let next = piece
  to.forEach((target, i) => {
    const [part, property] = splitDriveKey(target)
    const op = addDrive(next, part, property, sharedText(piece, key, target, i + 1, g))
    ops.push(op)
    next = apply(next, op)
  })
  return {
    ...ops.reduce(compose, { undoLabel: '', puts: [] }),
    undoLabel: `apply ${sourceName(piece, key)} to ${to.length} others`,
  }
}
