/**
 * What a moment of a piece weighs, told before anything is worked out: at how many moments each driven value is asked
 * for, times its operations. What would take too long is not begun.
 */
import { ASKED_NOW, MOMENT, alsoAsked, asked, times, type ReadingCost } from '../facts/cost.ts'
import { everyNode, type Formula } from '../formula/tree.ts'
import { compiledOf } from './deferred.ts'
import type { Slot } from './slot.ts'

/** Operations that one moment of a piece may take, a delayed reading counted as some: a quarter of a second. */
export const MOST_WORK = 4_000_000
/** Milliseconds that an operation takes at most, as measured. */
const EACH = 6e-5
/** Pieces of formula that are compiled in all, those of every copy counted that is not run in columns. */
export const MOST_PIECES = 100_000

/** What an operation on a lane takes of one by an expression of its own, as measured (`npm run bench`). */
const IN_COLUMNS = 0.1

/** How much a drive or signal takes. */
export interface Weight {
  readonly slot: Slot
  /** Operations a moment, all copies and all moments it is asked for. */
  readonly work: number
  /** At how many moments one copy of it is asked for, at most. */
  readonly moments: number
}

/**
 * What each weighs; `slots` with each after all that it reads.
 * @param inChains those that a timetable works out, each once a moment that it is asked for
 */
export function weightsOf(slots: Iterable<Slot>, inChains: ReadonlySet<string> = new Set()): Weight[] {
  const all = [...slots]
  const sought = new Map<object, ReadingCost>()
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
        work += inChains.has(slot.key) ? own * moments * IN_COLUMNS : own + (own + MOMENT) * (moments - 1)
        most = Math.max(most, moments)
        if (reads) for (const [other, how] of reads) sought.set(other, alsoAsked(sought.get(other), asked(by, how)))
      }
      return { slot, work, moments: most }
    })
    .reverse()
}

/** What all weigh by key, and together. */
export interface Weighed {
  readonly sum: number
  readonly by: ReadonlyMap<string, Pick<Weight, 'work' | 'moments'>>
}

export const weighed = (weights: readonly Weight[]): Weighed => ({
  sum: weights.reduce((n, w) => n + w.work, 0),
  by: new Map(weights.map(({ slot, work, moments }) => [slot.key, { work, moments }])),
})

/**
 * The same after some slots have become others, where these ask for nothing at other moments, nothing asks for them at such,
 * and what they read was asked for before (a signal that nothing reads weighs nothing until something does); else null.
 */
export function reweighed(
  before: Weighed,
  was: ReadonlyMap<string, Slot>,
  now: ReadonlyMap<string, Slot>,
  /** Those that may have become others. */
  keys: Iterable<string> = now.keys(),
): Weighed | null {
  if (was.size !== now.size) return null
  let { sum } = before
  const changed: [string, Pick<Weight, 'work' | 'moments'>][] = []
  for (const key of keys) {
    const [old, slot] = [was.get(key), now.get(key)!]
    if (old === slot) continue
    const known = before.by.get(key)
    if (known && old && asksAlike(old, slot)) continue
    const own = known && old && lightWork(old) !== null ? lightWork(slot) : null
    if (!known || own === null) return null
    const { moments } = known
    // What is asked for at other moments is read by its expression at each.
    if (moments !== 1 && (moments < 1 || slot.plan || slot.laneOperations !== null)) return null
    for (const read of slot.slots) if (!before.by.get(read)?.moments) return null
    const work = own + (own + MOMENT) * (moments - 1)
    if (work === known.work) continue
    sum += work - known.work
    changed.push([key, { work, moments }])
  }
  return { sum, by: changed.length === 0 ? before.by : new Map([...before.by, ...changed]) }
}

/** Whether two slots with few expressions of their own take the same, and ask others for the same. */
function asksAlike(a: Slot, b: Slot): boolean {
  const isSmall = (s: Slot) => !s.plan && s.laneOperations === null && s.count < 24
  if (!isSmall(a) || !isSmall(b) || a.count !== b.count) return false
  return a.forms.every((f, i) => {
    const [x, y] = [f.facts().cost, b.forms[i]!.facts().cost]
    if (x.own !== y.own || x.reads?.size !== y.reads?.size) return false
    const others = [...(y.reads?.values() ?? [])]
    return [...(x.reads?.values() ?? [])].every((asks, k) => isSameAsked(asks, others[k]!))
  })
}

const isSameAsked = (a: ReadingCost, b: ReadingCost): boolean =>
  a.fresh === b.fresh && a.before.size === b.before.size && [...a.before].every(s => b.before.has(s))

/** The work of what reads others as they are at the moment, if it reads any; else null. */
function lightWork(slot: Slot): number | null {
  const { plan, laneOperations, offset, count } = slot
  if (offset < 0) return null
  if (laneOperations !== null) return laneOperations * IN_COLUMNS
  if (plan) return plan.isWhole ? plan.operations * count * IN_COLUMNS : null
  if (count >= 24) return null
  let work = 0
  // Of columns, asking for its expressions would make them.
  for (const f of slot.forms) {
    const { own, reads } = f.facts().cost
    for (const a of reads?.values() ?? []) if (a.fresh > 0 || a.before.size > 1 || !a.before.has(0)) return null
    work += own
  }
  return work
}

/** Looked at for all: copies that nothing asks for at other moments and that ask for none weigh about the same. */
function allAlike(slot: Slot, sought: ReadonlyMap<object, ReadingCost>): number | null {
  const { plan, laneOperations, count } = slot
  // Columns without lanes of their own expressions ask for nothing at other moments.
  const operations = plan?.isWhole ? plan.operations * count : laneOperations
  if (operations !== null && !slot.compiled.some(r => sought.has(r))) return operations * IN_COLUMNS
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

/** A whole number as it is told. */
export const figure = (n: number): string => (n < 1e12 ? Math.round(n).toLocaleString('en') : 'more than a trillion')

export const tooHeavy = ({ moments, work }: Weight): string =>
  `This would take ${duration(work * EACH)} a frame, worked out for ${moments === 1 ? 'one moment' : `${figure(moments)} moments`}; a piece may take a quarter of a second per frame. The property rests at its set value. Fewer nested delays or averages, or fewer copies, would help.`

/** Milliseconds as they are told. */
function duration(ms: number): string {
  for (const [most, size, unit] of LONG) if (ms < most) return `about ${Math.max(1, Math.round(ms / size))} ${unit}`
  return 'more than a year'
}
const LONG = [
  [1000, 1, 'ms'],
  [120_000, 1000, 's'],
  [7_200_000, 60_000, 'minutes'],
  [172_800_000, 3_600_000, 'hours'],
  [31_536_000_000, 86_400_000, 'days'],
] as const

const lengths = new WeakMap<Formula, number>()

/** How many nodes a formula has. */
export function lengthOf(formula: Formula): number {
  let known = lengths.get(formula)
  if (known === undefined) lengths.set(formula, (known = everyNode(formula).length))
  return known
}

/** Said of a formula that would come to too many pieces. */
export const tooManyPieces = (copies: number, pieces: number): string =>
  `With its ${figure(copies)} copies this formula has ${figure(pieces)} pieces; ${figure(MOST_PIECES)} is the limit for a piece. The property rests at its set value. Fewer copies or a shorter formula would help.`

/** The heaviest that have to rest so that the others fit. */
export function tooMuch(weights: readonly Weight[], most = MOST_WORK): Weight[] {
  let sum = 0
  return [...weights].sort((a, b) => a.work - b.work).filter(w => (sum += w.work) > most)
}
