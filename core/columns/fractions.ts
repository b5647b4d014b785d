/**
 * Exact fractions by lane: what copies have of constants (`index * 7deg`). Doubles that are whole numbers hold them while
 * they fit, so that no lane makes a big integer; where one grows beyond, all are kept as big fractions.
 */
import { equal, isZero, negate, over, plus, times, toNumber, within, type Rational } from '../time/rational.ts'

/** n[i] / d[i] in lowest terms with d[i] > 0; or the same as big fractions. */
export type Fractions =
  | { readonly big: false; readonly n: Float64Array; readonly d: Float64Array }
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

/** The same fraction on every lane. */
export function uniform(value: Rational, lanes: number): Fractions {
  const s = small(value)
  if (!s) return { big: true, all: new Array<Rational>(lanes).fill(value) }
  return { big: false, n: new Float64Array(lanes).fill(s.n), d: new Float64Array(lanes).fill(s.d) }
}

/** Whole numbers. */
export const wholes = (n: Float64Array): Fractions => ({ big: false, n, d: new Float64Array(n.length).fill(1) })

const room = (lanes: number): Small => ({ big: false, n: new Float64Array(lanes), d: new Float64Array(lanes) })

export const lanesOf = (f: Fractions): number => (f.big ? f.all.length : f.n.length)
/** Some of the lanes. */
export const gathered = (f: Fractions, which: readonly number[]): Fractions =>
  f.big
    ? { big: true, all: which.map(i => f.all[i]!) }
    : { big: false, n: Float64Array.from(which, i => f.n[i]!), d: Float64Array.from(which, i => f.d[i]!) }

/** One lane as a fraction. */
export const laneOf = (f: Fractions, i: number): Rational =>
  f.big ? f.all[i]! : { n: BigInt(f.n[i]!), d: BigInt(f.d[i]!) }
export const allOf = (f: Fractions): readonly Rational[] => (f.big ? f.all : Array.from(f.n, (_, i) => laneOf(f, i)))

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

/** An operation lane by lane; null where a fraction leaves the size up to which exactness is kept, as in the plain evaluator. */
function each(
  a: Fractions,
  b: Fractions,
  quick: (out: Small, i: number, a: Small, b: Small) => boolean,
  exact: (a: Rational, b: Rational) => Rational,
): Fractions | null {
  const lanes = lanesOf(a)
  if (!a.big && !b.big) {
    const out = room(lanes)
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

export const plusLanes = (a: Fractions, b: Fractions): Fractions | null =>
  each(
    a,
    b,
    (out, i, a, b) => {
      const [p, q] = [a.n[i]! * b.d[i]!, b.n[i]! * a.d[i]!]
      return isSafe(p) && isSafe(q) && put(out, i, p + q, a.d[i]! * b.d[i]!)
    },
    plus,
  )

export const timesLanes = (a: Fractions, b: Fractions): Fractions | null =>
  each(a, b, (out, i, a, b) => put(out, i, a.n[i]! * b.n[i]!, a.d[i]! * b.d[i]!), times)

/** a ÷ b; null too where a lane of b is 0. */
export const overLanes = (a: Fractions, b: Fractions): Fractions | null =>
  isSomeZero(b) ? null : each(a, b, (out, i, a, b) => put(out, i, a.n[i]! * b.d[i]!, a.d[i]! * b.n[i]!), over)

/** Every lane times one fraction. */
export function scaledLanes(a: Fractions, by: Rational): Fractions | null {
  const s = small(by)
  if (isOne(by)) return a
  if (a.big || !s) return timesLanes(a, uniform(by, lanesOf(a)))
  const out = room(lanesOf(a))
  for (let i = 0; i < a.n.length; i++)
    if (!put(out, i, a.n[i]! * s.n, a.d[i]! * s.d)) return timesLanes(a, uniform(by, lanesOf(a)))
  return out
}
const isOne = (r: Rational): boolean => r.n === 1n && r.d === 1n

/** One fraction added to every lane. */
export const shiftedLanes = (a: Fractions, by: Rational): Fractions | null =>
  isZero(by) ? a : plusLanes(a, uniform(by, lanesOf(a)))

export const negatedLanes = (a: Fractions): Fractions =>
  a.big ? { big: true, all: a.all.map(negate) } : { big: false, n: a.n.map(x => 0 - x), d: a.d }

/** The nearest doubles, each rounded once. */
export const toNumbers = (f: Fractions): Float64Array =>
  f.big ? Float64Array.from(f.all, toNumber) : f.n.map((x, i) => x / f.d[i]!)

/** −1, 0 or 1 by lane. */
export const signsOf = (f: Fractions): Float64Array =>
  f.big ? Float64Array.from(f.all, r => (r.n > 0n ? 1 : r.n < 0n ? -1 : 0)) : f.n.map(x => (x > 0 ? 1 : x < 0 ? -1 : 0))

const isSomeZero = (f: Fractions): boolean => (f.big ? f.all.some(isZero) : f.n.includes(0))

/** Whole numbers by lane as doubles, or null where one is none. */
export function wholesOf(f: Fractions): Float64Array | null {
  return f.big || f.d.some(d => d !== 1) ? null : f.n
}

/** The one fraction that all lanes are, or null where they differ. */
export function commonOf(f: Fractions): Rational | null {
  if (f.big) return f.all.every(r => equal(r, f.all[0]!)) ? f.all[0]! : null
  for (let i = 1; i < f.n.length; i++) if (f.n[i] !== f.n[0] || f.d[i] !== f.d[0]) return null
  return laneOf(f, 0)
}

/** The least number that all denominators divide; null where that is too large to be of use. */
export function commonDenominator(f: Fractions, most = 1e9): number | null {
  if (f.big) return null
  let all = 1
  for (const x of f.d) {
    if (all % x === 0) continue
    all = (all / gcd(all, x)) * x
    if (all > most) return null
  }
  return all
}
