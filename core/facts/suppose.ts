/**
 * Suppositions: what bounds a value has when some of what it is made of is taken to lie within narrower bounds. So
 * a name that is read twice is known to have one value in both places: its range is cut in pieces, the bounds are
 * worked out for each, and the pieces are joined (interval subdivision; Moore, "Interval Analysis", 1966). It runs
 * within one call and leaves nothing behind.
 */
import { interval, isBounded, union, type Interval } from './interval.ts'

/** Whatever has bounds; it is told apart by being the same object. */
export interface Bounded {
  readonly bounds: Interval
}

class Supposition {
  readonly worked = new Map<Bounded, Interval>()
  readonly asked = new Map<Bounded, number>()
  constructor(readonly of: ReadonlyMap<Bounded, Interval>) {}
}

let inForce: Supposition | null = null

/** Whether a supposition is in force. */
export const supposing = (): boolean => inForce !== null

/** The bounds of `self` under the supposition in force, worked out by `work`; null when none is. */
export function supposed(self: Bounded, work: () => Interval): Interval | null {
  const s = inForce
  if (!s) return null
  s.asked.set(self, (s.asked.get(self) ?? 0) + 1)
  const known = s.of.get(self) ?? s.worked.get(self)
  if (known) return known
  const made = work()
  s.worked.set(self, made)
  return made
}

function under(of: ReadonlyMap<Bounded, Interval>, work: () => Interval): { bounds: Interval; asked: Supposition } {
  const before = inForce
  const asked = new Supposition(of)
  inForce = asked
  try {
    return { bounds: work(), asked }
  } finally {
    inForce = before
  }
}

/** Pieces a range is cut into at most, and names that are followed. */
const MOST_PIECES = 160
const MOST_NAMES = 4
/** Pieces after which it is given up when they have brought nothing. */
const PATIENCE = 12

interface Piece {
  readonly of: ReadonlyMap<Bounded, Interval>
  readonly bounds: Interval
}

/**
 * Does something with no supposition in force: what is read at another moment has another value there, whatever is
 * supposed of it now.
 */
export function outside<T>(work: () => T): T {
  const before = inForce
  inForce = null
  try {
    return work()
  } finally {
    inForce = before
  }
}

/**
 * The bounds of `self` from what `work` gives, with every name that it reads twice or more taken for one value.
 * Under a supposition they are never wider than without one.
 */
export function tightened(self: Bounded, work: () => Interval): Interval {
  if (inForce) {
    const always = outside(() => self.bounds)
    const here = work()
    return interval(Math.max(always.low, here.low), Math.min(always.high, here.high))
  }
  const plain = under(new Map(), work)
  const repeated = [...plain.asked.asked]
    .filter(([, times]) => times > 1)
    .map(([name]) => [name, plain.asked.worked.get(name)!] as const)
    .filter(([, range]) => range !== undefined && isBounded(range) && range.low < range.high)
    .slice(0, MOST_NAMES)
  if (repeated.length === 0) return plain.bounds
  const whole = new Map(repeated)
  const pieces: Piece[] = [{ of: whole, bounds: plain.bounds }]
  let all = plain.bounds
  for (let n = 1; n < MOST_PIECES; n++) {
    const at = furthest(pieces, n % 2 === 0)
    pieces.push(...halves(pieces[at]!.of, whole).map(of => ({ of, bounds: under(of, work).bounds })))
    pieces.splice(at, 1)
    all = pieces.map(p => p.bounds).reduce(union)
    if (n === PATIENCE && all.low <= plain.bounds.low && all.high >= plain.bounds.high) break
  }
  // Never wider than what was known at once.
  return interval(Math.max(all.low, plain.bounds.low), Math.min(all.high, plain.bounds.high))
}

/** The piece that reaches furthest, up or down. */
function furthest(pieces: readonly Piece[], up: boolean): number {
  let best = 0
  pieces.forEach((p, i) => {
    const b = pieces[best]!.bounds
    if (up ? p.bounds.high > b.high : p.bounds.low < b.low) best = i
  })
  return best
}

/** A piece cut in two, where it is widest for its name. */
function halves(
  of: ReadonlyMap<Bounded, Interval>,
  whole: ReadonlyMap<Bounded, Interval>,
): ReadonlyMap<Bounded, Interval>[] {
  const share = (name: Bounded, i: Interval) => (i.high - i.low) / (whole.get(name)!.high - whole.get(name)!.low)
  const [name, range] = [...of].reduce((a, b) => (share(...b) > share(...a) ? b : a))
  const middle = range.low + (range.high - range.low) / 2
  return [interval(range.low, middle), interval(middle, range.high)].map(half => new Map(of).set(name, half))
}
