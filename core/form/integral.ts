/**
 * The integral of a form from second 0. Closed forms come first (`integral` of a form, sums and constant
 * factors split); what comes back is integrated over one period; the rest on a fixed grid from 0 whose sums are
 * kept, each cell cut where the value is known to leap. Kept sums never change a result.
 */
import {
  isZero,
  over,
  toNumber,
  rational,
  plus,
  times,
  minus,
  compare,
  floor,
  fraction,
  type Rational,
} from '../time/rational.ts'
import { momentOfSeconds, type Moment } from '../time/moment.ts'
import type { Edges } from '../facts/edges.ts'
import type { Facts } from '../facts/facts.ts'

export type Integral = (m: Moment) => number

/** What can be added up over time: a value at moments, what is known of it, its closed form where it has one. */
export interface Summand {
  readonly at: (m: Moment) => number
  readonly facts: () => Facts
  readonly integral?: Integral | null
}

/** Cells of the grid in a second, and the weights of the closed Newton–Cotes rule on nine points of a cell. */
const CELLS = 8n
const WEIGHTS = [989, 5888, -928, 10496, -4540, 10496, -928, 5888, 989].map(w => (w * 4) / 14175 / 8)
/** Cells that are added up at most, to either side; beyond them a value has no integral here. */
const MOST_CELLS = 2_000_000
/** Seconds of the longest period that is integrated once and counted. */
const LONGEST = rational(10_000)

/** The seconds after which a form comes back, when they are few enough to be integrated once and counted. */
function rounds(form: Summand): Rational | null {
  const { every, gain, from } = form.facts().repeats
  return every && !isZero(every) && isZero(gain) && !from && compare(every, LONGEST) <= 0 ? every : null
}

/** Whether the integral of a form has an end: added up cell by cell it reaches some days to either side. */
export const hasEnd = (form: Summand): boolean => !form.integral && !rounds(form)

export function integralOf(form: Summand, frameRate: Rational): Integral {
  if (form.integral) return form.integral
  const plain = quadrature(form, form.facts().edges, frameRate)
  const every = rounds(form)
  if (!every) return plain
  let whole: number | undefined
  const round = (n: number) => (n === 0 ? 0 : n * (whole ??= plain(momentOfSeconds(every, frameRate))))
  return m => {
    const laps = over(m.exactSeconds, every)
    const rest = times(fraction(laps), every)
    return round(Number(floor(laps))) + plain(momentOfSeconds(rest, frameRate))
  }
}

function quadrature(form: Summand, edges: Edges, frameRate: Rational): Integral {
  const at = (t: Rational) => form.at(momentOfSeconds(t, frameRate))
  const smooth = (from: Rational, to: Rational): number => {
    const length = minus(to, from)
    const step = times(length, rational(1, 8))
    let sum = 0
    let t = from
    for (let k = 0; k <= 8; k++) {
      // The end is read just before it, where a leap may lie.
      sum += WEIGHTS[k]! * at(k === 8 ? minus(to, times(length, NEAR)) : t)
      t = plus(t, step)
    }
    return sum * toNumber(length)
  }
  const between = (from: Rational, to: Rational): number => {
    let sum = 0
    let start = from
    for (const cut of [...cuts(edges, from, to), to]) {
      sum += smooth(start, cut)
      start = cut
    }
    return sum
  }
  const up = [0]
  const down = [0]
  return m => {
    const t = m.exactSeconds
    const cells = Number(floor(times(t, rational(CELLS))))
    const list = cells >= 0 ? up : down
    if (Math.abs(cells) > MOST_CELLS) return NaN
    while (list.length <= Math.abs(cells)) {
      const k = BigInt(list.length - 1)
      const [from, to] =
        cells >= 0 ? [rational(k, CELLS), rational(k + 1n, CELLS)] : [rational(-k - 1n, CELLS), rational(-k, CELLS)]
      list.push(list[list.length - 1]! + (cells >= 0 ? 1 : -1) * between(from, to))
    }
    const begun = rational(BigInt(cells), CELLS)
    return list[Math.abs(cells)]! + (compare(begun, t) < 0 ? between(begun, t) : 0)
  }
}

const NEAR = rational(1n, 1n << 40n)

/** The known leaps strictly between two seconds, in order. */
function cuts(edges: Edges, from: Rational, to: Rational): Rational[] {
  const found: Rational[] = []
  for (const e of edges) {
    if (e === 'anywhere') continue
    if (!e.every) {
      if (compare(e.at, from) > 0 && compare(e.at, to) < 0) found.push(e.at)
      continue
    }
    let t = plus(e.at, times(rational(floor(over(minus(from, e.at), e.every)) + 1n), e.every))
    for (let n = 0; n < 64 && compare(t, to) < 0; n++, t = plus(t, e.every)) if (compare(t, from) > 0) found.push(t)
  }
  return found.sort((a, b) => compare(a, b)).filter((t, i) => i === 0 || compare(t, found[i - 1]!) !== 0)
}

/** The integral of a + b and of a · k, where the parts have one. */
export const sumIntegral = (a: Summand, b: Summand): Integral | null =>
  a.integral && b.integral ? m => a.integral!(m) + b.integral!(m) : null
export const scaledIntegral = (a: Summand, by: number): Integral | null =>
  a.integral ? m => a.integral!(m) * by : null

/** rate · t² ÷ 2 + base · t, exact until it is rounded once. */
export function affineIntegral(rate: Rational, base: Rational): Integral {
  return m => {
    const t = m.exactSeconds
    return toNumber(plus(times(times(rate, times(t, t)), rational(1, 2)), times(base, t)))
  }
}
