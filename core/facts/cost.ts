/** What a value costs: operations, and at how many moments it reads what others are. */

/** How often another driven value is read for one value of this. */
export interface ReadingCost {
  /** At moments so many seconds before, each once however often it is read there; 0 for the same moment. */
  readonly before: ReadonlySet<number>
  /** So many times at moments that nothing else is read at. */
  readonly fresh: number
}

export type Reads = ReadonlyMap<object, ReadingCost>

export interface Cost {
  /** Operations where what it reads is worked out for that moment anyway: an operator one, an octave one. */
  readonly now: number
  /** Operations with all that it reads, as at a moment of its own. */
  readonly anew: number
  /** Operations of its own, without what others are that it reads. */
  readonly own: number
  /** What it reads; null for nothing. */
  readonly reads: Reads | null
}

export const FREE: Cost = { now: 0, anew: 0, own: 0, reads: null }

/** More moments than these are counted, not kept apart. */
const APART = 2500

/** A second a while before, to a billionth: two ways to the same moment are one. */
const second = (s: number): number => Math.round(s * 1e9) / 1e9

const SAME: ReadonlySet<number> = new Set([0])
/** Once, at the same moment. */
export const ASKED_NOW: ReadingCost = { before: SAME, fresh: 0 }

/** Read by others as it is: once a moment. */
export const costRead = (reader: object, anew: number): Cost => ({
  now: 1,
  anew,
  own: 1,
  reads: new Map([[reader, ASKED_NOW]]),
})

/** Both readings; too many moments become a figure. */
export function alsoAsked(a: ReadingCost | undefined, b: ReadingCost): ReadingCost {
  if (!a || a === b) return b
  if (a.before === SAME && b.before === SAME) return { before: SAME, fresh: a.fresh + b.fresh }
  const before = new Set([...a.before, ...b.before])
  const fresh = a.fresh + b.fresh
  return before.size > APART ? { before: SAME, fresh: fresh + before.size } : { before, fresh }
}

/** What is read when something is read by another that is itself asked for so often. */
export function asked(by: ReadingCost, reads: ReadingCost): ReadingCost {
  if (by === ASKED_NOW) return reads
  const fresh = by.fresh * times(reads) + by.before.size * reads.fresh
  const pairs = by.before.size * reads.before.size
  if (pairs > 4 * APART) return { before: SAME, fresh: fresh + pairs }
  if (by.before === SAME) return { before: reads.before, fresh }
  const before = new Set<number>()
  for (const a of by.before) for (const b of reads.before) before.add(second(a + b))
  return before.size > APART ? { before: SAME, fresh: fresh + before.size } : { before, fresh }
}

/** At how many moments. */
export const times = (a: ReadingCost): number => a.before.size + a.fresh

/** What making a moment of its own takes, in operations. */
export const MOMENT = 40
/** Readings when something is first added up: so often what it reads is asked for at once. */
const AT_FIRST = 400

/** The cost of adding something up, as a figure; what it reads is asked for often at first. */
export const costSummed = (own: number, of: { readonly cost: Cost }, count: number): Cost => ({
  ...costAnew(own, of, count, null, AT_FIRST),
  own: own + (of.cost.own + MOMENT) * 3 * count,
})

function allReads(of: readonly { readonly cost: Cost }[]): Reads | null {
  const those = of.map(p => p.cost.reads).filter(r => r !== null)
  if (those.length <= 1) return those[0] ?? null
  const all = new Map(those[0])
  for (const reads of those.slice(1)) for (const [reader, a] of reads) all.set(reader, alsoAsked(all.get(reader), a))
  return all
}

/** The cost of something made of parts by so many operations of its own. */
export const costOf = (own: number, parts: readonly { readonly cost: Cost }[]): Cost => ({
  now: parts.reduce((n, p) => n + p.cost.now, own),
  anew: parts.reduce((n, p) => n + p.cost.anew, own),
  own: parts.reduce((n, p) => n + p.cost.own, own),
  reads: allReads(parts),
})

/**
 * The cost of reading something at a moment of its own, so many times.
 * @param before seconds before, where that is a constant
 * @param often how often what others are is asked for, where that is more
 */
export function costAnew(
  own: number,
  of: { readonly cost: Cost },
  count = 1,
  before: number | null = null,
  often = count,
): Cost {
  const { anew, reads } = of.cost
  const by: ReadingCost =
    before === null ? { before: new Set(), fresh: often } : { before: new Set([second(before)]), fresh: 0 }
  const all = own + anew * count
  return {
    now: all,
    anew: all,
    own: own + of.cost.own * count,
    reads: reads && new Map([...reads].map(([reader, a]) => [reader, asked(by, a)])),
  }
}
