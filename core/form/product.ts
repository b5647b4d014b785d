/**
 * Products and quotients, taken whole: all constants fold to one exact fraction; time multiplied by a pace
 * stays exact and carries the slip that tuning a dial has left (see `dial-factors.ts`); the rest is multiplied in
 * the order it is written.
 */
import * as B from '../facts/bends.ts'
import * as I from '../facts/interval.ts'
import * as R from '../facts/repeats.ts'
import { scale, type Affine } from '../time/affine.ts'
import { isZero, negate, over, plus, times, toNumber, within, ONE, type Rational } from '../time/rational.ts'
import { clockTime } from './clock-time.ts'
import { combineFactors, paceOf, secondsFrom, type DialFactors, type ElapsedTime } from './dial-factors.ts'
import { crossings } from './operators.ts'
import {
  bends,
  bounds,
  constantOf,
  leaps,
  exactlyOf,
  constantExpression,
  expressionOf,
  natureOf,
  repeats,
  restOf,
  slope,
  steadyExpression,
  type CompiledExpression,
} from './compiled-expression.ts'
import { scaledIntegral } from './integral.ts'
import type { WorkQueue } from './work-queue.ts'

export interface Factor {
  readonly form: CompiledExpression
  /** Divided by instead of multiplied with. */
  readonly inverse: boolean
}

/** What a product needs to know of the piece. */
export interface ProductContext {
  readonly frameRate: Rational
  /** Where what takes long to add up waits. */
  readonly queue: WorkQueue
  /** The moment in seconds at which lap 0 begins. */
  readonly lapStart: Rational
  /** The slip of a pace made of dials: `pace` is its value now. */
  readonly slip: (dials: DialFactors, pace: Rational, run: ElapsedTime) => Rational
}

export function multiplyExpressions(factors: readonly Factor[], setting: ProductContext): CompiledExpression {
  let constant = ONE
  let dials: DialFactors = { atoms: new Map(), factor: ONE }
  let perLap = false
  const moving: Factor[] = []
  for (const f of factors) {
    const c = constantOf(f.form)
    const value = c && !(f.inverse && isZero(c)) ? (f.inverse ? over(constant, c) : times(constant, c)) : null
    if (!c || !value || !within(value)) {
      moving.push(f)
      continue
    }
    constant = value
    perLap = perLap !== f.form.perLap
    const own = f.form.dials ?? { atoms: new Map(), factor: c }
    if (!(f.inverse && isZero(own.factor))) dials = combineFactors(dials, own, f.inverse)
  }
  const dialled = dials.atoms.size > 0 ? dials : null
  if (moving.length === 0) return constantExpression(constant, setting.frameRate, { perLap, dials: dialled })
  const only = moving[0]!
  if (moving.length === 1 && !only.inverse && only.form.exact) {
    const exact = only.form.ofTime
      ? paced(only.form.exact, constant, perLap, dialled, setting)
      : scale(only.form.exact, constant)
    if (exact) return steadyExpression(exact, setting.frameRate, { ofTime: only.form.ofTime })
  }
  if (moving.length === 1 && !only.inverse && only.form.onClock) {
    const { affine, beat } = only.form.onClock
    const counted = paced(affine, constant, perLap, dialled, setting)
    if (counted) return clockTime(counted, beat, setting.frameRate)
  }
  const made = general(moving, constant, setting)
  if (moving.length > 1 && !dialled) return made
  return {
    ...made,
    rate: { type: 'scaled', by: constant, dials: dialled, of: general(moving, ONE, setting) },
  }
}

/** Time multiplied by a constant pace. */
function paced(
  time: Affine,
  by: Rational,
  perLap: boolean,
  dials: DialFactors | null,
  s: ProductContext,
): Affine | null {
  const shift = perLap ? times(time.rate, s.lapStart) : null
  const counted = shift ? { rate: time.rate, base: plus(time.base, negate(shift)) } : time
  const scaled = scale(counted, by)
  if (!scaled || !dials || isZero(time.rate)) return scaled
  const origin = over(negate(counted.base), counted.rate)
  const slip = times(times(s.slip(dials, paceOf(dials, by), secondsFrom(origin)), dials.factor), time.rate)
  return { rate: scaled.rate, base: plus(scaled.base, slip) }
}

function general(moving: readonly Factor[], constant: Rational, setting: ProductContext): CompiledExpression {
  const { frameRate } = setting
  const [first, ...rest] = moving
  const start: CompiledExpression = first!.inverse
    ? pair(constantExpression(ONE, frameRate), first!, setting)
    : first!.form
  const all = rest.reduce((a, f) => pair(a, f, setting), start)
  return constant.n === constant.d
    ? all
    : pair(constantExpression(constant, frameRate), { form: all, inverse: false }, setting)
}

function pair(a: CompiledExpression, f: Factor, setting: ProductContext): CompiledExpression {
  const b = f.form
  const ca = constantOf(a)
  const cb = constantOf(b)
  return expressionOf(
    f.inverse ? m => a.at(m) / b.at(m) : ca && fits(ca) ? scaledBy(ca, b) : m => a.at(m) * b.at(m),
    {
      ...natureOf([a, b]),
      ...(f.inverse && !cb ? poles(a, b, setting.frameRate) : {}),
      finite: () => a.facts().finite && b.facts().finite && !(f.inverse && touches0(bounds(b))),
      repeats: () =>
        ca && !f.inverse
          ? R.scaled(repeats(b), ca)
          : cb && !(f.inverse && isZero(cb))
            ? R.scaled(repeats(a), f.inverse ? over(ONE, cb) : cb)
            : faded(a, b, f.inverse, setting),
      bounds: () =>
        f.inverse ? I.over(bounds(a), bounds(b)) : a === b ? I.square(bounds(a)) : I.times(bounds(a), bounds(b)),
      slope: () =>
        !f.inverse
          ? I.plus(I.times(slope(a), bounds(b)), I.times(bounds(a), slope(b)))
          : cb && !isZero(cb)
            ? I.over(slope(a), bounds(b))
            : I.ALL,
    },
    {
      integral: constantFactor(a, f, ca, cb),
      exactly: exactlyOf([a, b], f.inverse ? quotient : times),
      grid: f.inverse ? null : stepOf(a, b),
    },
  )
}

const quotient = (x: Rational, y: Rational): Rational | null => (isZero(y) ? null : over(x, y))

/** The step of products: that of one times that of the other. */
const stepOf = (a: CompiledExpression, b: CompiledExpression): Rational | null =>
  a.grid && b.grid ? times(a.grid, b.grid) : null

/** Whether a fraction's two whole numbers are so small that a value is multiplied by one and divided by the other. */
const fits = (c: Rational): boolean => areSmall(toNumber({ n: c.n, d: 1n }), toNumber({ n: c.d, d: 1n }))
/** The same of whole numbers. */
export const areSmall = (n: number, d: number): boolean => d !== 1 && Math.abs(n) <= MOST && d <= MOST
const MOST = 67_108_864

/** A value times n/d, with the division last: whole numbers that it makes whole come out whole. */
function scaledBy(c: Rational, of: CompiledExpression): CompiledExpression['at'] {
  const [n, d] = [Number(c.n), Number(c.d)]
  return n === 1 ? m => of.at(m) / d : m => (of.at(m) * n) / d
}

/** What is divided by passes 0: there the quotient jumps from one far end to the other. */
function poles(a: CompiledExpression, b: CompiledExpression, frameRate: Rational) {
  const at0 = () =>
    touches0(bounds(b)) ? crossings(b, constantExpression({ n: 0n, d: 1n }, frameRate), frameRate) : B.SMOOTH
  return {
    bends: () => B.joined(bends(a), bends(b), at0()),
    leaps: () => B.joined(leaps(a), leaps(b), at0()),
  }
}

const touches0 = (i: I.Interval): boolean => i.low <= 0 && i.high >= 0

/** Where a factor comes to rest at 0 the product does; else it repeats when both do. */
function faded(
  a: CompiledExpression,
  b: CompiledExpression,
  inverse: boolean,
  { frameRate, queue }: ProductContext,
): R.Repeats {
  for (const [f, other] of inverse
    ? []
    : ([
        [a, b],
        [b, a],
      ] as const)) {
    if (restOf(f, frameRate, queue) === 0 && I.isBounded(bounds(other))) return repeats(f)
  }
  return R.together([repeats(a), repeats(b)])
}

/** The integral where one of the two is a constant. */
function constantFactor(
  a: CompiledExpression,
  f: Factor,
  ca: Rational | null,
  cb: Rational | null,
): CompiledExpression['integral'] {
  if (ca && !f.inverse) return scaledIntegral(f.form, toNumber(ca))
  return cb ? scaledIntegral(a, f.inverse ? 1 / toNumber(cb) : toNumber(cb)) : null
}
