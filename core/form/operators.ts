/** What the operators of the language make of expressions; products stand in `product.ts`, sums in `compiled-expression.ts`. */
import * as B from '../facts/bends.ts'
import * as I from '../facts/interval.ts'
import { power } from '../signal/maths.ts'
import { AffineReader, add, opposite } from '../time/affine.ts'
import type { Moment } from '../time/moment.ts'
import {
  ONE,
  ZERO,
  compare,
  isWhole,
  isZero,
  negate,
  over,
  times,
  toNumber,
  within,
  type Rational,
} from '../time/rational.ts'
import * as R from '../facts/repeats.ts'
import { settledBy } from './active-clock.ts'
import {
  bends,
  bounds,
  bySecond,
  constantOf,
  exactlyOf,
  constantExpression,
  expressionOf,
  gridOf,
  hardlyApart,
  natureOf,
  repeats,
  restOf,
  slope,
  type CompiledExpression,
} from './compiled-expression.ts'
import type { WorkQueue } from './work-queue.ts'

/** The largest whole power that is worked out by multiplying. */
export const MOST_FACTORS = 64

/** base ^ exponent: a whole power by multiplying, any other as `maths.ts` has it. */
export function raiseToPower(
  base: CompiledExpression,
  exponent: CompiledExpression,
  frameRate: Rational,
): CompiledExpression {
  const b = constantOf(base)
  const e = constantOf(exponent)
  const n = e && isWhole(e) ? Number(e.n) : null
  if (n === null || Math.abs(n) > MOST_FACTORS) {
    return expressionOf(m => power(base.at(m), exponent.at(m)), {
      ...natureOf([base, exponent]),
      bounds: () => anyPowerBounds(bounds(base), bounds(exponent)),
      finite: () => I.isBounded(anyPowerBounds(bounds(base), bounds(exponent))),
    })
  }
  if (b && !(n < 0 && isZero(b))) {
    let value = ONE
    for (let k = 0; k < Math.abs(n) && within(value); k++) value = times(value, b)
    if (within(value)) return constantExpression(n < 0 ? over(ONE, value) : value, frameRate)
  }
  const at = (x: number): number => {
    let y = 1
    for (let k = 0; k < Math.abs(n); k++) y *= x
    return n < 0 ? 1 / y : y
  }
  const facts = {
    ...natureOf([base]),
    bounds: () => I.wholePower(bounds(base), n),
    slope: () => (n < 1 ? I.ALL : I.times(I.times(I.point(n), I.wholePower(bounds(base), n - 1)), slope(base))),
    finite: () => base.facts().finite && (n >= 0 || !(bounds(base).low <= 0 && bounds(base).high >= 0)),
  }
  const exactly = exactlyOf([base], x => {
    if (n < 0 && isZero(x)) return null
    let value = ONE
    for (let k = 0; k < Math.abs(n) && within(value); k++) value = times(value, x)
    return n < 0 ? over(ONE, value) : value
  })
  const powered = (g: Rational): Rational => Array.from({ length: Math.abs(n) }, () => g).reduce(times, ONE)
  return expressionOf(m => at(base.at(m)), facts, { exactly, grid: base.grid && n > 0 ? powered(base.grid) : null })
}

function anyPowerBounds(x: I.Interval, y: I.Interval): I.Interval {
  const known = x.low >= 0 && I.isBounded(x) && y.low >= 0 && I.isBounded(y)
  return known ? I.anyPower(x, y) : I.ALL
}

const truth = (yes: boolean, frameRate: Rational): CompiledExpression => constantExpression(yes ? ONE : ZERO, frameRate)

/** Truths are numbers here: 0 is no, anything else yes. */
export function logicalNot(of: CompiledExpression, frameRate: Rational): CompiledExpression {
  const known = constantOf(of)
  if (known) return truth(isZero(known), frameRate)
  return expressionOf(m => (of.at(m) === 0 ? 1 : 0), {
    ...natureOf([of]),
    bounds: () => I.interval(0, 1),
    slope: () => I.point(0),
  })
}

/** a and b (`all`), or a or b. */
export function logicalJunction(
  all: boolean,
  a: CompiledExpression,
  b: CompiledExpression,
  frameRate: Rational,
): CompiledExpression {
  const known = constantOf(a)
  if (known) return isZero(known) === all ? truth(!all, frameRate) : b
  return expressionOf(
    all ? m => (a.at(m) !== 0 && b.at(m) !== 0 ? 1 : 0) : m => (a.at(m) !== 0 || b.at(m) !== 0 ? 1 : 0),
    {
      ...natureOf([a, b]),
      bounds: () => I.interval(0, 1),
      slope: () => I.point(0),
    },
  )
}

export type Comparison = '<' | '<=' | '>' | '>=' | '==' | '!='

export const HOLDS: Readonly<Record<Comparison, (a: number, b: number) => boolean>> = {
  '<': (a, b) => a < b,
  '<=': (a, b) => a <= b,
  '>': (a, b) => a > b,
  '>=': (a, b) => a >= b,
  '==': (a, b) => a === b,
  '!=': (a, b) => a !== b,
}

/** Whether it holds wherever the two lie in their ranges, never, or now and then. */
function sureOf(holds: (a: number, b: number) => boolean, a: I.Interval, b: I.Interval): I.Interval {
  if (a.low === a.high && b.low === b.high) return I.point(holds(a.low, b.low) ? 1 : 0)
  // Ranges that do not meet: all pairs compare as any one does.
  if (a.high < b.low || a.low > b.high) return I.point(holds(a.low, b.low) ? 1 : 0)
  return I.interval(0, 1)
}

/** A comparison. What is a fraction is compared exactly: a frame that lies on the boundary is never on its wrong side. */
export function comparison(
  op: Comparison,
  a: CompiledExpression,
  b: CompiledExpression,
  frameRate: Rational,
): CompiledExpression {
  const holds = HOLDS[op]
  const difference = a.exact && b.exact && add(a.exact, opposite(b.exact))
  if (difference && isZero(difference.rate)) return truth(holds(compare(difference.base, ZERO), 0), frameRate)
  const facts = {
    ...natureOf([a, b]),
    // Steady growths pass each other once; after that the truth rests.
    repeats: () => (difference ? settledBy(difference, ZERO, ZERO) : R.together([repeats(a), repeats(b)])),
    bounds: () => sureOf(holds, bounds(a), bounds(b)),
    slope: () => I.point(0),
    bends: () => crossings(a, b, frameRate),
    leaps: () => crossings(a, b, frameRate),
  }
  if (!difference) {
    const exactly = exactlyOf([a, b], (x, y) => (holds(compare(x, y), 0) ? ONE : ZERO))
    const at = (m: Moment): number => {
      const [x, y] = [a.at(m), b.at(m)]
      const sure = exactly && hardlyApart(x, y, m) ? exactly(m) : null
      return sure ? toNumber(sure) : holds(x, y) ? 1 : 0
    }
    return expressionOf(at, facts, { exactly })
  }
  const reader = new AffineReader(difference, frameRate)
  const at = (m: Moment): number => (holds(reader.signAt(m), 0) ? 1 : 0)
  return expressionOf(at, facts, { exactly: m => (at(m) === 1 ? ONE : ZERO) })
}

/** Where one value passes another. */
export function crossings(a: CompiledExpression, b: CompiledExpression, frameRate: Rational): B.Bends {
  const difference = a.exact && b.exact && add(a.exact, opposite(b.exact))
  if (difference) {
    return isZero(difference.rate) ? B.SMOOTH : B.atSeconds([toNumber(over(negate(difference.base), difference.rate))])
  }
  const [x, y] = [bySecond(a, frameRate), bySecond(b, frameRate)]
  return B.passing(
    t => x(t) - y(t),
    B.joined(bends(a), bends(b)),
    v => (v < 0 ? -1 : v > 0 ? 1 : 0),
  )
}

/** One of two values, as a truth that changes with time has it. */
export function conditional(
  test: CompiledExpression,
  yes: CompiledExpression,
  no: CompiledExpression,
  frameRate: Rational,
  queue: WorkQueue,
): CompiledExpression {
  const facts = {
    ...natureOf([test, yes, no]),
    repeats: () => {
      const last = restOf(test, frameRate, queue)
      if (last === null) return R.together([repeats(test), repeats(yes), repeats(no)])
      return R.onlyFrom(repeats(last === 0 ? no : yes), repeats(test).from)
    },
    bounds: () => {
      const t = bounds(test)
      if (t.low > 0 || t.high < 0) return bounds(yes)
      return t.low === 0 && t.high === 0 ? bounds(no) : I.union(bounds(yes), bounds(no))
    },
    slope: () => I.union(slope(yes), slope(no)),
  }
  const exactly = yes.exactly || no.exactly ? (m: Moment) => (test.at(m) !== 0 ? yes : no).exactly?.(m) ?? null : null
  return expressionOf(m => (test.at(m) !== 0 ? yes.at(m) : no.at(m)), facts, { exactly, grid: gridOf(yes, no) })
}
