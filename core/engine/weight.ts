/**
 * What a moment of a piece weighs, told before anything is worked out: at how many moments each driven value is asked
 * for, times its operations. What would take too long is not begun.
 */
import { ASKED_NOW, MOMENT, alsoAsked, asked, times, type Asked } from '../facts/cost.ts'
import { everyNode, type Formula } from '../formula/tree.ts'
import { compiledOf } from './deferred.ts'
import type { Slot } from './slot.ts'

/** Operations that one moment of a piece may take, a delayed reading counted as some. */
export const MOST_WORK = 4_000_000
/** Pieces of formula that are compiled in all, those of every copy counted that is not run in columns. */
export const MOST_PIECES = 100_000

/** What an operation on a lane takes of one by a form of its own, as measured (`npm run bench`). */
const IN_COLUMNS = 0.1

/** How much a drive or signal takes. */
export interface Weight {
  readonly slot: Slot
  /** Operations a moment, all copies and all moments it is asked for. */
  readonly work: number
  /** At how many moments one copy of it is asked for, at most. */
  readonly moments: number
}

/** What each weighs; `slots` with each after all that it reads. */
export function weightsOf(slots: Iterable<Slot>): Weight[] {
  const all = [...slots]
  const sought = new Map<object, Asked>()
  return all
    .reverse()
    .map(slot => {
      let [work, most] = [0, 0]
      const plain = allAlike(slot, sought)
      if (plain !== null) return { slot, work: plain, moments: 1 }
      // Copies read those before them.
      for (let i = slot.readers.length - 1; i >= 0; i--) {
        const reader = compiledOf(slot.readers[i]!)
        const { own, reads } = slot.forms[i]!.facts().cost
        const by = slot.offset < 0 ? sought.get(reader) : alsoAsked(sought.get(reader), ASKED_NOW)
        if (!by) continue
        const moments = times(by)
        work += own + (own + MOMENT) * (moments - 1)
        most = Math.max(most, moments)
        if (reads) for (const [other, how] of reads) sought.set(other, alsoAsked(sought.get(other), asked(by, how)))
      }
      return { slot, work, moments: most }
    })
    .reverse()
}

/** Looked at for all: copies that nothing asks for at other moments and that ask for none weigh about the same. */
function allAlike(slot: Slot, sought: ReadonlyMap<object, Asked>): number | null {
  const { plan, count } = slot
  // Columns without lanes of their own forms ask for nothing at other moments.
  if (plan?.isWhole && !slot.compiled.some(r => sought.has(r))) return plan.operations * count * IN_COLUMNS
  const { readers, forms } = slot
  if (readers.length < 24 || slot.offset < 0 || slot.compiled.some(r => sought.has(r))) return null
  // In a chain each asks the one before: then all are looked at, the first ones first.
  if (slot.chained) {
    for (const f of forms) void f.facts().cost
    return null
  }
  const looked = [0, 1, forms.length >> 1, forms.length - 1].map(i => forms[i]!.facts().cost)
  if (
    looked.some(c => c.reads && [...c.reads.values()].some(a => a.fresh > 0 || a.before.size > 1 || !a.before.has(0)))
  )
    return null
  return Math.max(...looked.map(c => c.own)) * forms.length
}

const figure = (n: number): string => (n < 1e12 ? Math.round(n).toLocaleString('en') : 'more than a million million')

export const tooHeavy = ({ moments, work }: Weight): string =>
  `This would be worked out for ${moments === 1 ? 'one moment' : `${figure(moments)} moments`} a frame, ${figure(work)} operations; ${figure(MOST_WORK)} are done for all of the piece. It holds its hand value. Read it with fewer delays or averages within one another, or with fewer copies.`

const lengths = new WeakMap<Formula, number>()

/** How many nodes a formula has. */
export function lengthOf(formula: Formula): number {
  let known = lengths.get(formula)
  if (known === undefined) lengths.set(formula, (known = everyNode(formula).length))
  return known
}

/** Said of a formula that would come to too many pieces. */
export const tooManyPieces = (copies: number, pieces: number): string =>
  `With its ${figure(copies)} copies this formula comes to ${figure(pieces)} pieces; ${figure(MOST_PIECES)} fit in a piece. It holds its hand value. Use fewer copies, or a shorter formula.`

/** The heaviest that have to rest so that the others fit. */
export function tooMuch(weights: readonly Weight[], most = MOST_WORK): Weight[] {
  let sum = 0
  return [...weights].sort((a, b) => a.work - b.work).filter(w => (sum += w.work) > most)
}
