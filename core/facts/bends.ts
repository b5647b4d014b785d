/**
 * Where a value leaps or bends, and how fast it turns between: what is needed to add it up exactly, and to look for
 * leaps at every moment at which there may be one.
 */
export interface Bends {
  /** Seconds of the piece strictly between two at which the value may leap or bend, in no order. */
  readonly between: (from: number, to: number) => number[]
  /** How many there are a second, on the whole; 0 when there are only so many in all. */
  readonly often: number
  /** Seconds in which it makes one turn at most; Infinity for what is a polynomial between its bends. */
  readonly grain: number
  /** Whether no other moment may be one. */
  readonly all: boolean
  /** All there ever are, where they are so few that they can be listed. */
  readonly only?: readonly number[]
}

export const SMOOTH: Bends = { between: () => [], often: 0, grain: Infinity, all: true, only: [] }

/** More moments than these in one window are not listed. */
const MOST = 20_000
/** The grain of what nothing is known of: a 64th of a second. */
export const UNKNOWN: Bends = { between: () => [], often: 0, grain: 1 / 64, all: false }

/** A smooth value that makes so many turns a second at most. */
export const turning = (pace: number): Bends =>
  pace > 0 ? { ...SMOOTH, grain: Number.isFinite(pace) ? 1 / pace : UNKNOWN.grain } : SMOOTH

export function joined(...of: readonly Bends[]): Bends {
  const own = of.filter(b => b !== SMOOTH)
  if (own.length < 2) return own[0] ?? SMOOTH
  return {
    between: (from, to) => own.flatMap(b => b.between(from, to)),
    often: own.reduce((n, b) => n + b.often, 0),
    grain: Math.min(...own.map(b => b.grain)),
    all: own.every(b => b.all),
    ...(own.every(b => b.only) ? { only: own.flatMap(b => b.only!) } : {}),
  }
}

/** At single seconds. */
export const atSeconds = (seconds: readonly number[]): Bends =>
  seconds.length === 0
    ? SMOOTH
    : { ...SMOOTH, only: seconds, between: (from, to) => seconds.filter(t => t > from && t < to) }

/** Wherever rate · t + base passes a whole number after one of the `offsets` has been taken off. */
export function steadily(rate: number, base: number, offsets: readonly number[]): Bends {
  if (rate === 0 || offsets.length === 0) return SMOOTH
  return {
    grain: Infinity,
    all: true,
    often: Math.abs(rate) * offsets.length,
    between: (from, to) => {
      const found: number[] = []
      for (const offset of offsets) {
        const [a, b] = [rate * from + base - offset, rate * to + base - offset].sort((x, y) => x - y) as [
          number,
          number,
        ]
        for (let k = Math.floor(a); k <= Math.ceil(b) && found.length < MOST; k++) {
          const t = (k + offset - base) / rate + 0
          if (t > from && t < to) found.push(t)
        }
      }
      return found
    },
  }
}

/** The same some seconds later. */
export const later = (b: Bends, by: number): Bends =>
  b === SMOOTH || by === 0
    ? b
    : {
        ...b,
        between: (from, to) => b.between(from - by, to - by).map(t => t + by),
        ...(b.only ? { only: b.only.map(t => t + by) } : {}),
      }

/** The seconds between two, in order, each once. */
export function ordered(b: Bends, from: number, to: number): number[] {
  const found = b.between(from, to).sort((x, y) => x - y)
  return found.filter((t, i) => i === 0 || t - found[i - 1]! > 1e-12 * (1 + Math.abs(t)))
}

/** Looks in a turn, and at least in a piece between two bends. */
const LOOKS = 16
const LEAST = 8
/** Looks at most in one window. */
const MOST_LOOKS = 4096

/**
 * Wherever a value passes from one of several ranges to the next (`rangeOf` numbers them): found by looking often
 * enough that no turn is missed, at every crest too, and by halving where the number changes.
 * @param value at a second of the piece
 * @param inner bends of the value itself, which count as well
 */
export function passing(value: (t: number) => number, inner: Bends, rangeOf: (v: number) => number): Bends {
  return {
    // How often a value passes ranges without end is not known beforehand: once a second is taken for it.
    often: inner.often + (Number.isFinite(inner.grain) ? 2 / inner.grain : 1),
    grain: inner.grain,
    all: inner.all,
    between: (from, to) => {
      const found = inner.between(from, to)
      const cuts = [from, ...ordered({ ...inner, between: () => [...found] }, from, to), to]
      for (let k = 1; k < cuts.length; k++) search(value, rangeOf, cuts[k - 1]!, cuts[k]!, inner.grain, found)
      return found
    },
  }
}

interface Look {
  readonly t: number
  readonly v: number
}

function search(
  value: (t: number) => number,
  rangeOf: (v: number) => number,
  from: number,
  to: number,
  grain: number,
  found: number[],
): void {
  // Just within the piece: at its ends the value may stand on the other side of a leap.
  const inset = (to - from) * 1e-12
  const [a, b] = [from + inset, to - inset]
  if (!(b > a)) return
  const steps = Math.min(MOST_LOOKS, Math.max(LEAST, Math.ceil(((b - a) / grain) * LOOKS)))
  const at = (t: number): Look => ({ t, v: value(t) })
  const looks: Look[] = []
  for (let k = 0; k <= steps; k++) looks.push(at(a + ((b - a) * k) / steps))
  const all: Look[] = [looks[0]!]
  for (let k = 1; k <= steps; k++) {
    const [x, y, z] = [looks[k - 1]!, looks[k]!, looks[k + 1]]
    all.push(y)
    if (z && (y.v - x.v) * (z.v - y.v) < 0) {
      const crest = extremum(at, x, z, y.v > x.v)
      all.push(crest)
    }
  }
  all.sort((x, y) => x.t - y.t)
  for (let k = 1; k < all.length; k++) halve(at, rangeOf, all[k - 1]!, all[k]!, found)
}

/** The crest (or trough) between two looks, by golden sections. */
function extremum(at: (t: number) => Look, from: Look, to: Look, up: boolean): Look {
  const G = 0.6180339887498949
  let [a, b] = [from.t, to.t]
  let [x, y] = [at(b - G * (b - a)), at(a + G * (b - a))]
  for (let k = 0; k < 40 && b - a > 1e-12 * (1 + Math.abs(b)); k++) {
    if (up ? x.v > y.v : x.v < y.v) {
      b = y.t
      y = x
      x = at(b - G * (b - a))
    } else {
      a = x.t
      x = y
      y = at(a + G * (b - a))
    }
  }
  return x
}

function halve(at: (t: number) => Look, rangeOf: (v: number) => number, a: Look, b: Look, found: number[]): void {
  const [ra, rb] = [rangeOf(a.v), rangeOf(b.v)]
  if (ra === rb || found.length > MOST) return
  const t = a.t + (b.t - a.t) / 2
  if (!(t > a.t && t < b.t) || b.t - a.t < 2e-15 * (1 + Math.abs(t))) {
    found.push(b.t)
    return
  }
  const middle = at(t)
  halve(at, rangeOf, a, middle, found)
  halve(at, rangeOf, middle, b, found)
}
