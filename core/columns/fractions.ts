/**
 * Exact fractions by lane: what copies have of constants (`index * 7deg + 12deg`). Doubles that are whole numbers hold them
 * while they fit, and what is added to all lanes alike is kept apart, so that no lane makes a big integer; where one grows
 * beyond, all are kept as big fractions.
 */
import {
  equal,
  isZero,
  negate,
  ONE,
  over,
  plus,
  times,
  toNumber,
  within,
  ZERO,
  type Rational,
} from '../time/rational.ts'

/** n[i] / d[i] in lowest terms with d[i] > 0, plus an offset; or the same as big fractions. */
export type Fractions =
  | { readonly big: false; readonly n: Float64Array; readonly d: Float64Array; readonly offset: Rational }
  | { readonly big: true; readonly all: readonly Rational[] }

type Small = Fractions & { readonly big: false }

const SAFE = Number.MAX_SAFE_INTEGER
const isSafe = (x: number): boolean => x <= SAFE && x >= -SAFE

/** Greatest common divisor of two whole numbers ≥ 0, of 32 bits where they have no more. */
function gcd(a: number, b: number): number {
  if (a <= 0x7fffffff && b <= 0x7fffffff) {
    let [x, y] = [a | 0, b | 0]
    while (y !== 0) {
      const rest = (x % y) | 0
      x = y
      y = rest
    }
    return x
  }
  let [x, y] = [a, b]
  while (y !== 0) {
    const rest = x % y
    x = y
    y = rest
  }
  return x
}

/** A fraction as two doubles, or null where they don't hold it. */
export function small(r: Rational): { readonly n: number; readonly d: number } | null {
  const [n, d] = [Number(r.n), Number(r.d)]
  return isSafe(n) && isSafe(d) ? { n, d } : null
}

const room = (lanes: number, offset = ZERO): Small => ({
  big: false,
  n: new Float64Array(lanes),
  d: new Float64Array(lanes),
  offset,
})

export function fractionsOf(values: readonly Rational[]): Fractions {
  const out = room(values.length)
  for (let i = 0; i < values.length; i++) {
    const s = small(values[i]!)
    if (!s) return { big: true, all: values }
    out.n[i] = s.n
    out.d[i] = s.d
  }
  return out
}

/** Whole numbers. */
export const wholes = (n: Float64Array): Small => ({
  big: false,
  n,
  d: new Float64Array(n.length).fill(1),
  offset: ZERO,
})

/** Lanes of 0, which nobody writes to. */
const nothing = new Map<number, Small>()
function nothingOn(lanes: number): Small {
  const known = nothing.get(lanes)
  if (known) return known
  if (nothing.size >= 16) nothing.clear()
  const made = wholes(new Float64Array(lanes))
  nothing.set(lanes, made)
  return made
}
const isNothing = ({ n }: Small): boolean => n === nothing.get(n.length)?.n

/** The same fraction on every lane. */
export const uniform = (value: Rational, lanes: number): Fractions => ({ ...nothingOn(lanes), offset: value })

/** Some of the lanes. */
export const gathered = (f: Fractions, which: ArrayLike<number>): Fractions =>
  f.big
    ? { big: true, all: Array.from(which, i => f.all[i]!) }
    : { ...f, n: Float64Array.from(which, i => f.n[i]!), d: Float64Array.from(which, i => f.d[i]!) }

export const lanesOf = (f: Fractions): number => (f.big ? f.all.length : f.n.length)

/** One lane as a fraction. */
export function laneOf(f: Fractions, i: number): Rational {
  if (f.big) return f.all[i]!
  const own = { n: BigInt(f.n[i]!), d: BigInt(f.d[i]!) }
  return isZero(f.offset) ? own : plus(own, f.offset)
}

/** Puts n / d, d ≠ 0, into a lane in lowest terms; false where they are too large. */
function put(out: Small, i: number, n: number, d: number): boolean {
  if (!isSafe(n) || !isSafe(d)) return false
  const [top, bottom] = d < 0 ? [-n, -d] : [n, d]
  const g = bottom === 1 ? 1 : gcd(top < 0 ? -top : top, bottom)
  // `+ 0` makes a zero of −0, which no fraction has.
  out.n[i] = top / g + 0
  out.d[i] = bottom / g
  return true
}

/** Puts a sum into a lane; false where it is too large. */
function putSum(out: Small, i: number, an: number, ad: number, bn: number, bd: number): boolean {
  const [p, q] = [an * bd, bn * ad]
  return isSafe(p) && isSafe(q) && put(out, i, p + q, ad * bd)
}

/** The same with nothing kept apart. */
export function joinedUp(f: Fractions): Fractions {
  if (f.big || isZero(f.offset)) return f
  const s = small(f.offset)
  const out = room(f.n.length)
  let i = 0
  while (s && i < f.n.length && putSum(out, i, f.n[i]!, f.d[i]!, s.n, s.d)) i++
  return i === f.n.length ? out : fractionsOf(Array.from(f.n, (_, k) => laneOf(f, k)))
}

/** An operation lane by lane; null where a fraction leaves the size up to which exactness is kept, as in the plain evaluator. */
function each(
  a: Fractions,
  b: Fractions,
  quick: (out: Small, i: number, a: Small, b: Small) => boolean,
  exact: (a: Rational, b: Rational) => Rational,
  offset = ZERO,
): Fractions | null {
  const lanes = lanesOf(a)
  if (!a.big && !b.big) {
    const out = room(lanes, offset)
    let i = 0
    while (i < lanes && quick(out, i, a, b)) i++
    if (i === lanes) return out
  }
  const all: Rational[] = []
  for (let i = 0; i < lanes; i++) {
    const made = exact(laneOf(a, i), laneOf(b, i))
    if (!within(made)) return null
    all.push(made)
  }
  return fractionsOf(all)
}

export function plusLanes(a: Fractions, b: Fractions): Fractions | null {
  if (a.big || b.big) return each(a, b, () => false, plus)
  const offset = plus(a.offset, b.offset)
  if (!within(offset)) return null
  if (isNothing(b)) return { ...a, offset }
  if (isNothing(a)) return { ...b, offset }
  return each(a, b, (out, i, a, b) => putSum(out, i, a.n[i]!, a.d[i]!, b.n[i]!, b.d[i]!), plus, offset)
}

/** One fraction added to every lane. */
export const shiftedLanes = (a: Fractions, by: Rational): Fractions | null =>
  isZero(by) ? a : plusLanes(a, uniform(by, lanesOf(a)))

export const timesLanes = (a: Fractions, b: Fractions): Fractions | null =>
  each(joinedUp(a), joinedUp(b), (out, i, a, b) => put(out, i, a.n[i]! * b.n[i]!, a.d[i]! * b.d[i]!), times)

/** What lanes came to lately times one fraction: a formula is planned again and again while another number of it is tuned. */
const lately = new WeakMap<Fractions, { readonly by: Rational; readonly made: Fractions | null }[]>()
const MOST_LATELY = 4

/** Every lane times one fraction; the same object for the same. */
export function scaledLanes(a: Fractions, by: Rational): Fractions | null {
  if (equal(by, ONE)) return a
  const known = lately.get(a) ?? []
  const found = known.find(k => equal(k.by, by))
  if (found) return found.made
  const made = scaled(a, by)
  lately.set(a, [{ by, made }, ...known.slice(0, MOST_LATELY - 1)])
  return made
}

function scaled(a: Fractions, by: Rational): Fractions | null {
  const s = small(by)
  if (!a.big && s) {
    const offset = times(a.offset, by)
    const out = room(lanesOf(a), offset)
    let i = 0
    while (i < a.n.length && put(out, i, a.n[i]! * s.n, a.d[i]! * s.d)) i++
    if (i === a.n.length && within(offset)) return out
  }
  return timesLanes(a, uniform(by, lanesOf(a)))
}

/** a ÷ b; null too where a lane of b is 0. */
export function overLanes(a: Fractions, b: Fractions): Fractions | null {
  const [x, y] = [joinedUp(a), joinedUp(b)]
  if (y.big ? y.all.some(isZero) : y.n.includes(0)) return null
  return each(x, y, (out, i, a, b) => put(out, i, a.n[i]! * b.d[i]!, a.d[i]! * b.n[i]!), over)
}

export function negatedLanes(a: Fractions): Fractions {
  if (a.big) return { big: true, all: a.all.map(negate) }
  return { ...a, n: isNothing(a) ? a.n : a.n.map(x => 0 - x), offset: negate(a.offset) }
}

/** The nearest doubles, each rounded once. */
export function toNumbers(fractions: Fractions): Float64Array {
  const f = joinedUp(fractions)
  return f.big ? Float64Array.from(f.all, toNumber) : f.n.map((x, i) => x / f.d[i]!)
}

/** −1, 0 or 1 by lane. */
export function signsOf(fractions: Fractions): Float64Array {
  const f = joinedUp(fractions)
  const sign = (n: number | bigint): number => (n > 0 ? 1 : n < 0 ? -1 : 0)
  return f.big ? Float64Array.from(f.all, r => sign(r.n)) : f.n.map(sign)
}

/** Whole numbers by lane as doubles, or null where one is none. */
export function wholesOf(fractions: Fractions): Float64Array | null {
  const f = joinedUp(fractions)
  return f.big || f.d.some(d => d !== 1) ? null : f.n
}

/** The one fraction that all lanes are, or null where they differ. */
export function commonOf(f: Fractions): Rational | null {
  if (f.big) return f.all.every(r => equal(r, f.all[0]!)) ? f.all[0]! : null
  for (let i = 1; i < f.n.length; i++) if (f.n[i] !== f.n[0] || f.d[i] !== f.d[0]) return null
  return laneOf(f, 0)
}

/** Denominators of lanes and the least number that all divide, by the lanes' own array. */
const common = new WeakMap<Float64Array, number | null>()
const MOST_COMMON = 1e9

/** The least number that all denominators divide, the offset's aside; null where that is too large to be of use. */
export function commonDenominator(f: Fractions): number | null {
  if (f.big) return null
  let known = common.get(f.d)
  if (known === undefined) common.set(f.d, (known = leastCommon(f.d)))
  return known
}

function leastCommon(denominators: Float64Array): number | null {
  let all = 1
  for (const x of denominators) {
    if (all % x === 0) continue
    all = (all / gcd(all, x)) * x
    if (all > MOST_COMMON) return null
  }
  return all
}
