/** Where a value may leap: at single moments, again and again, or at moments that are not known beforehand. */
import type { Affine } from '../time/affine.ts'
import { absolute, equal, isZero, negate, over, plus, ONE, type Rational } from '../time/rational.ts'

/** `at` in seconds of the piece; `every` null for a single moment. */
export type Edge = { readonly at: Rational; readonly every: Rational | null } | 'anywhere'
export type Edges = readonly Edge[]

export const NONE: Edges = []
/** More edges than these are taken for anywhere. */
const MOST = 64

/** Where something that grows steadily passes whole numbers. */
export const atWhole = (turns: Affine): Edges =>
  isZero(turns.rate) ? NONE : [{ at: negate(over(turns.base, turns.rate)), every: absolute(over(ONE, turns.rate)) }]

/** Where something that grows steadily passes 0. */
export const atZero = (a: Affine): Edges =>
  isZero(a.rate) ? NONE : [{ at: negate(over(a.base, a.rate)), every: null }]

export function joined(...lists: readonly Edges[]): Edges {
  const all: Edge[] = []
  for (const e of lists.flat()) {
    if (e === 'anywhere') return ['anywhere']
    const same = (f: Edge) =>
      f !== 'anywhere' && equal(f.at, e.at) && (f.every === e.every || (f.every && e.every && equal(f.every, e.every)))
    if (!all.some(same)) all.push(e)
  }
  return all.length > MOST ? ['anywhere'] : all
}

/** The same edges, some seconds later. */
export const later = (edges: Edges, by: Rational): Edges =>
  edges.map(e => (e === 'anywhere' ? e : { ...e, at: plus(e.at, by) }))
