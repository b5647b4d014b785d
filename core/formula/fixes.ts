/**
 * Fixes for kinds that do not fit. Candidates are made from the shape of the formula (a bare number gets a
 * unit, an amplitude left out is written, a factor is put behind) and each is tried: only what mends the
 * formula is offered.
 */
import { PLAIN, TIME, isPlain, quotientKind, sameKind } from '../units/kinds.ts'
import { unitOfKind } from '../units/units.ts'
import { isZero } from '../time/rational.ts'
import type { Clash } from './lookup.ts'
import { functionNamed } from '../functions/index.ts'
import { change, type Change, type Fix, type Problem } from './problem.ts'
import { outerSpan, walk, type CallNode, type Formula, type Node, type NumberNode } from './tree.ts'

/** Most fixes offered and most candidates tried for one problem. */
const OFFERED = 2
const TRIED = 10

/** Units that a bare number may lack, likeliest first: what is wanted, what is missing, and that below a fraction. */
function unitsFor(clash: Clash): string[] {
  const missing = quotientKind(clash.wanted, clash.got)
  const all = [clash.wanted, missing, quotientKind(PLAIN, missing)].map(unitOfKind)
  return [...new Set(all.filter((u): u is string => u !== undefined && u !== ''))]
}

export function kindFixes(formula: Formula, clash: Clash, was: Problem, tried: (text: string) => number | null): Fix[] {
  const before = tried(formula.text) ?? Infinity
  const found: Fix[] = []
  let count = 0
  const offer = (changes: readonly Change[]) => {
    if (found.length >= OFFERED || count >= TRIED || changes.length === 0) return
    count++
    const text = change(formula.text, changes)
    const after = tried(text)
    if (after === null || after >= before || found.some(f => change(formula.text, f.changes) === text)) return
    found.push({ label: shown(text, changes), changes })
  }
  const numbers = bareNumbers(clash.node)
  const behind = (n: NumberNode, unit: string): Change => ({ from: n.to, to: n.to, insert: unit })
  for (const unit of unitsFor(clash)) {
    for (const n of numbers) offer([behind(n, unit)])
    if (found.length === 0 && numbers.length > 1) offer(numbers.map(n => behind(n, unit)))
  }
  if (found.length === 0) {
    const wide = bareNumbers(formula.body).filter(n => n.from >= was.from - 40)
    for (const unit of unitsFor(clash)) if (wide.length > 1) offer(wide.map(n => behind(n, unit)))
  }
  const call = sourceWithoutAmp(clash.node)
  const amp = unitOfKind(clash.wanted)
  if (call && amp) {
    const size = amp === 'deg' || amp === 'px' ? 20 : 1
    offer([{ from: call.to - 1, to: call.to - 1, insert: `${call.args.length ? ', ' : ''}amp: ${size}${amp}` }])
  }
  // Where no number stands, a factor of one unit: sin(time) becomes sin(time * 1deg/s).
  const needed = quotientKind(clash.wanted, clash.got)
  const factor =
    sameKind(needed, quotientKind(clash.wanted, TIME)) && !isPlain(clash.wanted) ? perSecond(clash) : unitOfKind(needed)
  if (numbers.length === 0 && factor && !sameKind(needed, PLAIN)) {
    const { from, to } = outerSpan(clash.node)
    const bracket = clash.node.type === 'binary' && !clash.node.outer && !['*', '/', '^'].includes(clash.node.op)
    const text = formula.text.slice(from, to)
    offer([{ from, to, insert: `${bracket ? `(${text})` : text} * 1${factor}` }])
  }
  // What has a unit and should have none, or another: divided by one of its own.
  const over = unitOfKind(quotientKind(clash.got, clash.wanted))
  const [own, wanted] = [unitOfKind(clash.got), unitOfKind(clash.wanted)]
  const divided = over ? ` / 1${over}` : own && wanted ? ` / 1${own} * 1${wanted}` : ''
  if (found.length === 0 && numbers.length === 0 && divided) {
    const { from, to } = outerSpan(clash.node)
    const bracket = clash.node.type === 'binary' && !clash.node.outer && !['*', '/', '^'].includes(clash.node.op)
    const text = formula.text.slice(from, to)
    offer([{ from, to, insert: `${bracket ? `(${text})` : text}${divided}` }])
  }
  return found
}

const perSecond = (clash: Clash) => `${unitOfKind(clash.wanted)}/s`

/** A fix in few words: the piece of the text round what changes. */
function shown(text: string, changes: readonly Change[]): string {
  if (text.length <= 60) return text
  const first = Math.min(...changes.map(c => c.from))
  const start = Math.max(0, text.lastIndexOf(' ', first - 12) + 1)
  const end = Math.min(text.length, start + 48)
  return `${start > 0 ? '… ' : ''}${text.slice(start, end)}${end < text.length ? ' …' : ''}`
}

/** The plain numbers whose unit could mend a node, through every operation but a power. */
function bareNumbers(node: Node): NumberNode[] {
  const found: NumberNode[] = []
  walk(node, n => {
    if (n.type === 'number' && n.unit === '' && !isZero(n.value)) found.push(n)
  })
  return found
}

/** The first oscillator or noise in a sum or product that has neither amp nor low and high. */
function sourceWithoutAmp(node: Node): CallNode | null {
  let found: CallNode | null = null
  walk(node, n => {
    if (found || n.type !== 'call') return
    const entry = functionNamed(n.name)
    const labels = n.args.map(a => a.label?.toLowerCase())
    const second = n.args.filter(a => a.label === undefined).length > 1
    if (
      entry?.pace &&
      entry.parameters.some(p => p.name === 'amp') &&
      !second &&
      !labels.some(l => l === 'amp' || l === 'low')
    )
      found = n
  })
  return found
}
