/** Text to tree. The grammar is `formula.grammar`; what it finds wrong is told by `syntax.ts`. */
import type { SyntaxNode } from '@lezer/common'
import { fromDecimal, ONE } from '../time/rational.ts'
import { parser } from './formula.parser.ts'
import { unitSpelled } from '../units/units.ts'
import { change, problem, type Change, type Problem, type Span } from './problem.ts'
import { syntaxProblem } from './syntax.ts'
import { everyNode } from './tree.ts'
import type { Arg, BinaryOp, Formula, Let, Node, NumberNode } from './tree.ts'

/** Longest text of a formula, in characters. */
export const LONGEST_FORMULA = 2000
/** Deepest nesting of a formula. */
export const DEEPEST_NESTING = 64

export type Parsed = { readonly formula: Formula; readonly problems: readonly [] } | Unparsed
export interface Unparsed {
  readonly formula: null
  readonly problems: readonly Problem[]
}

/** What was read last: a number that is dragged is read by the editor, the check and the program in turn. */
const recent = new Map<string, Parsed>()
const MOST_RECENT = 64

/** Reads a text. Gives the tree, or problems with their places; never throws. The same object for a text that was just read. */
export function parse(text: string): Parsed {
  const known = recent.get(text)
  if (known) return known
  const made = parsedAnew(text)
  if (recent.size >= MOST_RECENT) recent.delete(recent.keys().next().value!)
  recent.set(text, made)
  return made
}

function parsedAnew(text: string): Parsed {
  if (text.length > LONGEST_FORMULA) {
    const says = `A formula can have up to ${LONGEST_FORMULA} characters, and this has ${text.length}. Move part of it to a signal.`
    return { formula: null, problems: [problem('limit', { from: LONGEST_FORMULA, to: text.length }, says)] }
  }
  const tree = parser.parse(text)
  const cursor = tree.cursor()
  let depth = 0
  let error: SyntaxNode | null = null
  let deepest: Span | null = null
  cursor.iterate(
    node => {
      depth++
      if (depth > DEEPEST_NESTING + 2 && !deepest) deepest = { from: node.from, to: node.to }
      if (node.type.isError && !error) error = node.node
    },
    () => void depth--,
  )
  if (deepest) {
    const says = `This is nested more than ${DEEPEST_NESTING} deep. Move part of it to a signal.`
    return { formula: null, problems: [problem('limit', deepest, says)] }
  }
  if (error) return { formula: null, problems: [syntaxProblem(text, error)] }
  try {
    const lets: Let[] = tree.topNode.getChildren('Let').map(n => readLet(n, text))
    return { formula: { text, lets, body: read(parts(tree.topNode).at(-1)!, text) }, problems: [] }
  } catch (e) {
    if (e instanceof OutOfRange) {
      return { formula: null, problems: [problem('limit', e.at, 'This number is too large or too small.')] }
    }
    throw e
  }
}

class OutOfRange extends Error {
  constructor(readonly at: Span) {
    super('out of range')
  }
}

/** Signs as they are typed elsewhere, and ours. */
const SIGNS: Readonly<Record<string, string>> = { '×': '*', '·': '*', '÷': '/', '−': '-', '–': '-' }
const signSpelled = (sign: string): string => SIGNS[sign] ?? sign

/** A text with signs and units as they are written here: what is meant stays the same. */
export function plainly(text: string): string {
  const { formula } = parse(text)
  if (!formula) return text
  const changes: Change[] = []
  const spell = (from: number, to: number, want: string) => {
    if (text.slice(from, to) !== want) changes.push({ from, to, insert: want })
  }
  for (const n of everyNode(formula)) {
    if (n.type === 'number' && UNUSUAL.test(text.slice(n.unitFrom, n.to))) spell(n.unitFrom, n.to, n.unit)
  }
  const plain = change(text, changes)
  // Within backquotes and notes a sign is part of a name or of what is said.
  return plain.replace(/`[^`]*`|\/\/[^\n]*|[×·÷−–]/g, s => (s.length === 1 ? signSpelled(s) : s))
}
const UNUSUAL = /^(?!(?:deg|rad|turn|s|ms|min|f|lap|Hz|bpm|px|%)?(?:\/(?:s|ms|min|f|lap))?$)/i

const spanOf = (n: SyntaxNode): Span => ({ from: n.from, to: n.to })

/** A name without its backquotes. */
function nameIn(n: SyntaxNode, text: string): string {
  const raw = text.slice(n.from, n.to)
  return raw.startsWith('`') ? raw.slice(1, -1).trim() : raw
}

function readLet(n: SyntaxNode, text: string): Let {
  const [definition, value] = parts(n)
  return { ...spanOf(n), name: nameIn(definition!, text), nameAt: spanOf(definition!), value: read(value!, text) }
}

/** The named children of a node that are no tokens of the grammar's own. */
function parts(n: SyntaxNode): SyntaxNode[] {
  const found: SyntaxNode[] = []
  for (let c = n.firstChild; c; c = c.nextSibling) if (!PUNCTUATION.has(c.name)) found.push(c)
  return found
}
const PUNCTUATION = new Set([...'()[],.:;=', 'if', 'then', 'else', 'and', 'or', 'not', 'on', 'let', 'Comment'])

function read(n: SyntaxNode, text: string): Node {
  const p = parts(n)
  const at = spanOf(n)
  switch (n.name) {
    case 'Number':
      return readNumber(n, text)
    case 'TimeWord':
      return {
        type: 'number',
        ...at,
        value: ONE,
        unit: unitSpelled(text.slice(n.from, n.to).toLowerCase()),
        unitFrom: n.from,
      }
    case 'Reference':
      return { type: 'name', ...at, name: nameIn(n, text), ...(text[n.from] === '`' ? { quoted: true as const } : {}) }
    case 'Bracket': {
      const inner = read(p[0]!, text)
      return { ...inner, outer: at }
    }
    case 'Member':
      return { type: 'member', ...at, of: read(p[0]!, text), name: nameIn(p[1]!, text), nameAt: spanOf(p[1]!) }
    case 'Index':
      return { type: 'index', ...at, of: read(p[0]!, text), at: read(p[1]!, text) }
    case 'Call':
      return {
        type: 'call',
        ...at,
        name: nameIn(p[0]!, text),
        nameAt: spanOf(p[0]!),
        args: n.getChildren('Arg').map(a => readArg(a, text)),
      }
    case 'Method': {
      const of = read(p[0]!, text)
      const given = n.getChildren('Arg').map(a => readArg(a, text))
      const first: Arg = { from: of.from, to: of.to, value: of }
      const call = { type: 'call', ...at, name: nameIn(p[1]!, text), nameAt: spanOf(p[1]!), method: true } as const
      return { ...call, args: [first, ...given] }
    }
    case 'Sign':
      return { type: 'unary', ...at, op: signSpelled(text[n.from]!) as '-' | '+', of: read(p[1]!, text) }
    case 'Not':
      return { type: 'unary', ...at, op: 'not', of: read(p[0]!, text) }
    case 'If':
      return { type: 'if', ...at, test: read(p[0]!, text), yes: read(p[1]!, text), no: read(p[2]!, text) }
    case 'On':
      return { type: 'on', ...at, of: read(p[0]!, text), clock: nameIn(p[1]!, text), clockAt: spanOf(p[1]!) }
    case 'And':
    case 'Or':
      return binary(n, n.name === 'And' ? 'and' : 'or', p[0]!, p[1]!, text)
    default:
      return binary(n, signSpelled(text.slice(p[1]!.from, p[1]!.to)) as BinaryOp, p[0]!, p[2]!, text)
  }
}

const binary = (n: SyntaxNode, op: BinaryOp, left: SyntaxNode, right: SyntaxNode, text: string): Node => ({
  type: 'binary',
  ...spanOf(n),
  op,
  left: read(left, text),
  right: read(right, text),
})

function readArg(n: SyntaxNode, text: string): Arg {
  const p = parts(n)
  const { from, to } = n
  if (p.length === 1) return { from, to, value: read(p[0]!, text) }
  return { from, to, label: nameIn(p[0]!, text), labelAt: spanOf(p[0]!), value: read(p[1]!, text) }
}

function readNumber(n: SyntaxNode, text: string): NumberNode {
  const raw = text.slice(n.from, n.to)
  const digits = /^(\d*\.?\d+|\d+)(e[+-]?\d+)?/i.exec(raw)![0]
  try {
    const value = fromDecimal(digits)
    return {
      type: 'number',
      ...spanOf(n),
      value,
      unit: unitSpelled(raw.slice(digits.length)),
      unitFrom: n.from + digits.length,
    }
  } catch {
    throw new OutOfRange(spanOf(n))
  }
}
