/**
 * What a formula is worth at a moment, straight from the design page: one walk over the tree, in exact fractions
 * wherever the value is one, in doubles elsewhere. It is slow and has no cleverness; rates are added up by bisection.
 */
import { compare, decimal, floorOf, minus, ofDouble, over, plus, q, times, toDouble, type Q } from './fraction.ts'
import { read, type Tree } from './read.ts'
import { source } from './sources.ts'
import { CURVES, DIALS, FPS, LAP, LINKS, STEADY } from './world.ts'

export type V = Q | number | boolean

/** Where a formula is read: at a moment of the piece, on a clock, for a copy, with the names given by `let`. */
export interface Place {
  readonly t: Q
  readonly clock: string | null
  readonly lets: ReadonlyMap<string, { readonly of: Tree; readonly lets: Place['lets'] }>
  readonly index: number
  readonly count: number
  readonly self: string
}

export const isQ = (v: V): v is Q => typeof v === 'object'
export const num = (v: V): number => (isQ(v) ? toDouble(v) : Number(v))
const both = (a: V, b: V, exact: (a: Q, b: Q) => V, plain: (a: number, b: number) => V): V =>
  isQ(a) && isQ(b) ? exact(a, b) : plain(num(a), num(b))

const UNITS: Readonly<Record<string, Q | number>> = {
  '': q(1),
  turn: q(1),
  deg: q(1, 360),
  rad: 1 / (2 * Math.PI),
  s: q(1),
  ms: q(1, 1000),
  min: q(60),
  f: over(q(1), FPS),
  lap: LAP,
  hz: q(1),
  bpm: q(1, 60),
  px: q(1),
  '%': q(1, 100),
}

export const add = (a: V, b: V): V => both(a, b, plus, (x, y) => x + y)
export const sub = (a: V, b: V): V => both(a, b, minus, (x, y) => x - y)
export const mul = (a: V, b: V): V => both(a, b, times, (x, y) => x * y)
export const div = (a: V, b: V): V => (isQ(b) && b.n === 0n ? NaN : both(a, b, over, (x, y) => x / y))
/** Set when something was decided between two doubles that hardly differ: then the trial itself is not sure. */
export const doubt = { seen: false }
const close = (x: number, y: number) => Math.abs(x - y) < 1e-9 * (1 + Math.abs(x))
export function less(a: V, b: V): boolean {
  if (isQ(a) && isQ(b)) return compare(a, b) < 0
  const [x, y] = [num(a), num(b)]
  if (close(x, y)) doubt.seen = true
  return x < y
}
export function floorV(a: V): V {
  if (isQ(a)) return q(floorOf(a))
  const x = num(a)
  if (close(x, Math.round(x))) doubt.seen = true
  return Math.floor(x)
}
export const fractV = (a: V): V => sub(a, floorV(a))
export const least = (a: V, b: V): V => (less(b, a) ? b : a)
export const most = (a: V, b: V): V => (less(a, b) ? b : a)

/** Seconds on the clock in force. */
export function clockTime(p: Place): Q {
  const c = p.clock
  if (c === null) return p.t
  if (STEADY[c]) return plus(times(p.t, STEADY[c][0]), STEADY[c][1])
  const round = (every: Q) => minus(p.t, times(every, q(floorOf(over(p.t, every)))))
  if (c === 'again') return round(q(2))
  if (c === 'toandfro') {
    const u = round(q(6))
    return compare(u, q(3)) <= 0 ? u : minus(q(6), u)
  }
  if (c === 'stepped') return over(q(floorOf(times(p.t, q(10)))), q(10))
  throw new Error(`no clock ${c}`)
}

/** The tree of the text that was read last, so that what is kept by it is found again. */
let last: { text: string; tree: Tree } | null = null
function treeOf(text: string): Tree {
  if (last?.text !== text) last = { text, tree: read(text) }
  return last.tree
}

export function valueOf(text: string, seconds: Q, given: Partial<Place> = {}): V {
  return evaluate(treeOf(text), { t: seconds, clock: null, lets: new Map(), index: 0, count: 1, self: '', ...given })
}

const known = new Map<string, Tree>()
function linked(name: string, p: Place, index = 0): V {
  const text = LINKS[name]
  if (text === undefined) throw new Error(`no link ${name}`)
  if (!known.has(name)) known.set(name, read(text))
  return evaluate(known.get(name)!, { t: p.t, clock: null, lets: new Map(), index, count: 5, self: name })
}

function named(name: string, p: Place): V {
  const bound = p.lets.get(name)
  if (bound) return evaluate(bound.of, { ...p, lets: bound.lets })
  const t = () => clockTime(p)
  switch (name) {
    case 'time':
      return t()
    case 'frame':
      return times(t(), FPS)
    case 'fps':
      return FPS
    case 'frametime':
      return over(q(1), FPS)
    case 'laplength':
      return LAP
    case 'lapprogress':
      return fractV(over(t(), LAP))
    case 'lapindex':
      return floorV(over(t(), LAP))
    case 'index':
      return q(p.index)
    case 'count':
      return q(p.count)
    case 'pi':
      return Math.PI
    case 'base':
      return q(0)
  }
  if (DIALS[name]) return DIALS[name]
  // A curve by its bare name is followed as curve(…) would.
  if (CURVES[name]) return source({ is: 'call', name: 'curve', args: [{ name: '', of: { is: 'name', name } }] }, p)
  return linked(name, p)
}

export function evaluate(tree: Tree, p: Place): V {
  switch (tree.is) {
    case 'number': {
      const [unit, per] = tree.unit.toLowerCase().split('/') as [string, string?]
      const size = UNITS[unit]
      if (size === undefined) throw new Error(`no unit ${tree.unit}`)
      const value = mul(decimal(tree.text), size)
      return per ? div(value, UNITS[per]!) : value
    }
    case 'name':
      return named(tree.name, p)
    case 'dot': {
      if (tree.of.is === 'name' && tree.of.name === 'before') {
        return p.index === 0 ? q(0) : linked(p.self, p, p.index - 1)
      }
      if (tree.of.is === 'index' && tree.of.of.is === 'name')
        return linked(`${tree.of.of.name}.${tree.name}`, p, Number(num(evaluate(tree.of.at, p))))
      if (tree.of.is === 'name') return linked(`${tree.of.name}.${tree.name}`, p)
      throw new Error('no such reading')
    }
    case 'index':
      throw new Error('no such reading')
    case 'one': {
      const v = evaluate(tree.of, p)
      return tree.op === 'not' ? v !== true : tree.op === '-' ? sub(q(0), v) : v
    }
    case 'if':
      return evaluate(evaluate(tree.test, p) === true ? tree.yes : tree.no, p)
    case 'on':
      return evaluate(tree.of, { ...p, clock: tree.clock })
    case 'let':
      return evaluate(tree.then, { ...p, lets: new Map([...p.lets, [tree.name, { of: tree.of, lets: p.lets }]]) })
    case 'two':
      return two(tree.op, tree.a, tree.b, p)
    case 'call':
      return source(tree, p)
  }
}

function two(op: string, a: Tree, b: Tree, p: Place): V {
  const x = evaluate(a, p)
  if (op === 'and') return x === true && evaluate(b, p) === true
  if (op === 'or') return x === true || evaluate(b, p) === true
  const y = evaluate(b, p)
  switch (op) {
    case '+':
      return add(x, y)
    case '-':
      return sub(x, y)
    case '*':
      return mul(x, y)
    case '/':
      return div(x, y)
    case '^':
      return power(x, y)
    case '<':
      return less(x, y)
    case '>':
      return less(y, x)
    case '<=':
      return !less(y, x)
    case '>=':
      return !less(x, y)
    case '==':
      return !less(x, y) && !less(y, x)
    default:
      return less(x, y) || less(y, x)
  }
}

export function power(x: V, y: V): V {
  if (isQ(x) && isQ(y) && y.d === 1n && y.n >= 0n && y.n < 40n) {
    let all = q(1)
    for (let k = 0n; k < y.n; k++) all = times(all, x)
    return all
  }
  return num(x) ** num(y)
}

/** A moment as an exact fraction of a fine grid, so that fractions stay short. */
export const moment = (seconds: number): Q => ofDouble(Math.round(seconds * 2 ** 40) / 2 ** 40)
