/**
 * The tree of a formula. Every node knows its place in the text, so that a gesture on a number or a link
 * can write exactly there. Brackets are no nodes: what stands in them carries the place of its outermost pair.
 */
import type { Rational } from '../time/rational.ts'
import type { Span } from './problem.ts'

interface Placed extends Span {
  /** With the brackets round it, when there are any. */
  readonly outer?: Span
}

export interface NumberNode extends Placed {
  readonly type: 'number'
  readonly value: Rational
  /** As written, `deg`, `px/f`, `/lap` or ''. */
  readonly unit: string
  /** Where the digits end and the unit begins. A bare time word (`3/lap`) has no digits: unitFrom = from. */
  readonly unitFrom: number
}
export interface NameNode extends Placed {
  readonly type: 'name'
  readonly name: string
  /** Written in backquotes: a thing of the piece, whatever the language calls by that word. */
  readonly quoted?: true
}
export interface MemberNode extends Placed {
  readonly type: 'member'
  readonly of: Node
  readonly name: string
  readonly nameAt: Span
}
export interface IndexNode extends Placed {
  readonly type: 'index'
  readonly of: Node
  readonly at: Node
}
export interface Arg extends Span {
  readonly label?: string
  readonly labelAt?: Span
  readonly value: Node
}
export interface CallNode extends Placed {
  readonly type: 'call'
  readonly name: string
  readonly nameAt: Span
  readonly args: readonly Arg[]
  /** Written behind its first argument: `basin.height(x)`. */
  readonly method?: true
}
export interface UnaryNode extends Placed {
  readonly type: 'unary'
  readonly op: '-' | '+' | 'not'
  readonly of: Node
}
export type BinaryOp = '+' | '-' | '*' | '/' | '^' | '<' | '<=' | '>' | '>=' | '==' | '!=' | 'and' | 'or'
export interface BinaryNode extends Placed {
  readonly type: 'binary'
  readonly op: BinaryOp
  readonly left: Node
  readonly right: Node
}
export interface IfNode extends Placed {
  readonly type: 'if'
  readonly test: Node
  readonly yes: Node
  readonly no: Node
}
export interface OnNode extends Placed {
  readonly type: 'on'
  readonly of: Node
  readonly clock: string
  readonly clockAt: Span
}
export type Node = NumberNode | NameNode | MemberNode | IndexNode | CallNode | UnaryNode | BinaryNode | IfNode | OnNode

export interface Let extends Span {
  readonly name: string
  readonly nameAt: Span
  readonly value: Node
}

export interface Formula {
  readonly text: string
  readonly lets: readonly Let[]
  readonly body: Node
}

/** The nodes directly below one. */
export function children(node: Node): readonly Node[] {
  switch (node.type) {
    case 'number':
    case 'name':
      return []
    case 'member':
      return [node.of]
    case 'index':
      return [node.of, node.at]
    case 'call':
      return node.args.map(a => a.value)
    case 'unary':
    case 'on':
      return [node.of]
    case 'binary':
      return [node.left, node.right]
    case 'if':
      return [node.test, node.yes, node.no]
  }
}

/** Visits a node and all below it, in text order. */
export function walk(node: Node, visit: (n: Node) => void): void {
  visit(node)
  for (const child of children(node)) walk(child, visit)
}

/** Every node of a formula, those of its `let`s first. */
export function everyNode(formula: Formula): Node[] {
  const all: Node[] = []
  for (const l of formula.lets) walk(l.value, n => all.push(n))
  walk(formula.body, n => all.push(n))
  return all
}

/** The numbers of a formula that were written with digits, in text order: the ones that have a handle. */
export const handles = (formula: Formula): NumberNode[] =>
  everyNode(formula).filter((n): n is NumberNode => n.type === 'number' && n.unitFrom > n.from)

/** A node's place with its brackets. */
export const outerSpan = (node: Node): Span => node.outer ?? node
