/**
 * Terms of a sum, or factors of a product, that are left out without being lost: a bypassed term stands in the text as a
 * note of its own line, with the sign that it had, and comes back by the same press.
 */
import { parse } from './parse.ts'
import { change } from './problem.ts'
import { outerSpan, type Node } from './tree.ts'

/** A term as it stands in the text, with its sign where it is bypassed. */
export interface BypassTerm {
  readonly from: number
  readonly to: number
  readonly off: boolean
  /** The text after a press on it; null where it is all that is left, or cannot be left out. */
  readonly pressed: string | null
}

interface Piece {
  readonly from: number
  readonly to: number
  /** The place of the sign before it; −1 for the first. */
  readonly sign: number
}

/** A comment, or a name in backquotes, which may hold what looks like one. */
const NOTES = /`[^`\n]*`|\/\/[^\n]*/g

/** Where the comments of a text stand, from and to. */
const notesOf = (text: string): [number, number][] =>
  [...text.matchAll(NOTES)].flatMap(m => (m[0].startsWith('//') ? [[m.index, m.index + m[0].length]] : []))

/** The place of a sign between two places, comments aside. */
function signBetween(text: string, from: number, to: number): number {
  const notes = notesOf(text)
  for (let k = from; k < to; k++)
    if (!/\s/.test(text[k]!) && !notes.some(([a, b]) => k >= a && k < b) && !/[()]/.test(text[k]!)) return k
  return -1
}

function chainOf(text: string, node: Node, ops: readonly string[]): Piece[] {
  if (node.type !== 'binary' || !ops.includes(node.op)) return [{ ...outerSpan(node), sign: -1 }]
  // What stands in brackets of its own is one term.
  const left = node.left.outer ? [{ ...outerSpan(node.left), sign: -1 }] : chainOf(text, node.left, ops)
  const { from, to } = outerSpan(node.right)
  return [...left, { from, to, sign: signBetween(text, outerSpan(node.left).to, from) }]
}

/** Every term, those that run and those that are bypassed, in the order of the text. */
export function bypassTerms(text: string): BypassTerm[] {
  const { formula } = parse(text)
  if (!formula) return []
  const body = formula.body.type === 'on' ? formula.body.of : formula.body
  const sum = chainOf(text, body, ['+', '-'])
  const chain = sum.length > 1 || body.outer ? sum : chainOf(text, body, ['*'])
  const running = chain.map((p, i): BypassTerm => ({
    from: p.from,
    to: p.to,
    off: false,
    pressed: without(text, chain, i),
  }))
  const off = notesOf(text).flatMap(([from, to]): BypassTerm[] => {
    const back = text.slice(0, from) + text.slice(from + 2)
    const read = parse(back)
    if (!read.formula) return []
    return [
      { from: from + 2, to, off: true, pressed: tidy(text.slice(0, from), text.slice(from + 2, to), text.slice(to)) },
    ]
  })
  return [...running, ...off].sort((a, b) => a.from - b.from)
}

/** A term back in its line. */
const tidy = (before: string, term: string, after: string): string =>
  `${endsInNote(before) ? before : before.replace(/\s+$/, ' ')}${term.trim()}${after.replace(/^\s+/, ' ')}`.trim()

const endsInNote = (text: string): boolean => {
  const line = text.trimEnd()
  return notesOf(line).some(([, to]) => to === line.length)
}

function without(text: string, chain: readonly Piece[], nth: number): string | null {
  if (chain.length < 2) return null
  const term = chain[nth]!
  const next = chain[nth + 1]
  let [from, to] = [term.from, term.to]
  if (nth > 0) from = term.sign
  // The first goes with the sign behind it; a minus stays, for it belongs to the next.
  else if (text[next!.sign] !== '-' && text[next!.sign] !== '−') to = next!.sign + 1
  const taken = text.slice(from, to)
  if (from < 0 || notesOf(taken).length > 0) return null
  const made = change(text, [{ from, to, insert: `\n// ${taken.replace(/\s+/g, ' ').trim()}\n` }])
  const lines = made.replace(/[ \t]*\n\s*/g, '\n').trim()
  return parse(lines).formula ? lines : null
}

/** The text with the term at a place bypassed or brought back; null where there is none that can be. */
export function bypassAt(text: string, place: number): string | null {
  const all = bypassTerms(text)
  return (all.find(t => place >= t.from && place <= t.to) ?? all.find(t => place < t.from))?.pressed ?? null
}
