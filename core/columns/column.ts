/**
 * Columns: what a formula is on many lanes at one moment, a lane a copy. A plan is made of columns, each of which fills a
 * block of lanes from those that it reads. The plain evaluator says what every lane must be, to the bit; a lane on which a
 * kernel cannot decide that (a floor or a comparison too near its edge, no number) is marked, and read by it again.
 */
import type { CompiledExpression } from '../form/compiled-expression.ts'
import type { Moment } from '../time/moment.ts'
import { toNumbers, type Fractions } from './fractions.ts'
import type { SteadyLanes } from './steady.ts'

/** Lanes that are filled at a time: so many fit into the fastest cache with what they are made of. */
export const BLOCK = 512

/** A moment as columns read it. */
export interface Now {
  readonly moment: Moment
  /** Its seconds; of lanes that are moments themselves those furthest from 0. */
  readonly seconds: number
  /** All driven values of this moment so far: of what stands before in the order. */
  readonly values: Float64Array
  /** Where the values of each driven property begin among them. */
  readonly offsets: ReadonlyMap<string, number>
  /** Lanes that the plain evaluator has to read again: 1 for each. */
  readonly doubts: Uint8Array
  /** Whether there are any. */
  doubtful: boolean
}

/** Fills `out[0 … count)` with the lanes from `from` on. */
export type Fill = (now: Now, from: number, count: number, out: Float64Array) => void

/** A lane that only the plain evaluator can tell. */
export function doubt(now: Now, lane: number): void {
  now.doubts[lane] = 1
  now.doubtful = true
}

export type Column =
  /** The same on every lane, read once a moment. */
  | { readonly type: 'one'; readonly form: CompiledExpression; readonly fill: Fill }
  /** A constant of each lane. `paced`: it is made of dials or laps, which only the plain evaluator follows into a pace. */
  | { readonly type: 'fixed'; readonly exact: Fractions; readonly paced: boolean; readonly fill: Fill }
  /** Steady growth, in seconds of the piece. */
  | {
      readonly type: 'steady'
      readonly rate: Fractions
      readonly base: Fractions
      readonly lanes: SteadyLanes
      readonly fill: Fill
    }
  | { readonly type: 'moving'; readonly fill: Fill }

/** Whether a column stands still or grows steadily, exactly. */
export const isExact = (c: Column): boolean => (c.type === 'one' ? c.form.exact !== null : c.type !== 'moving')

export function one(form: CompiledExpression): Column {
  let last: Moment | null = null
  let value = 0
  return {
    type: 'one',
    form,
    fill: (now, from, count, out) => {
      // The first block of a moment reads it: what is pending is asked for again with every moment.
      if (from === 0 || now.moment !== last) {
        value = form.at(now.moment)
        last = now.moment
      }
      out.fill(value, 0, count)
      if (value !== value) for (let i = 0; i < count; i++) doubt(now, from + i)
    },
  }
}

export function fixedLanes(exact: Fractions, paced = false): Column {
  let values: Float64Array | null = null
  const fill: Fill = (_, from, count, out) => out.set((values ??= toNumbers(exact)).subarray(from, from + count))
  return { type: 'fixed', exact, paced, fill }
}

export function steadyLanes(rate: Fractions, base: Fractions, lanes: SteadyLanes): Column {
  return { type: 'steady', rate, base, lanes, fill: (now, from, count, out) => lanes.at(now.moment, from, count, out) }
}

export const moving = (fill: Fill): Column => ({ type: 'moving', fill })

/** Room for a block of each of some columns. */
export function scratch(columns: 1, lanes: number): readonly [Float64Array]
export function scratch(columns: 2, lanes: number): readonly [Float64Array, Float64Array]
export function scratch(columns: number, lanes: number): readonly Float64Array[]
export function scratch(columns: number, lanes: number): readonly Float64Array[] {
  return Array.from({ length: columns }, () => new Float64Array(Math.min(BLOCK, lanes)))
}

/** Sums, differences, products and quotients of two columns. What is no number in them is none for the plain evaluator either. */
export function arithmetic(op: '+' | '-' | '*' | '/', a: Column, b: Column, lanes: number): Column {
  const [other] = scratch(1, lanes)
  const run = LOOPS[op]
  return moving((now, from, count, out) => {
    a.fill(now, from, count, out)
    b.fill(now, from, count, other)
    run(out, other, count)
  })
}

const LOOPS: Readonly<Record<'+' | '-' | '*' | '/', (out: Float64Array, b: Float64Array, count: number) => void>> = {
  '+': (out, b, count) => {
    for (let i = 0; i < count; i++) out[i] = out[i]! + b[i]!
  },
  '-': (out, b, count) => {
    for (let i = 0; i < count; i++) out[i] = out[i]! - b[i]!
  },
  '*': (out, b, count) => {
    for (let i = 0; i < count; i++) out[i] = out[i]! * b[i]!
  },
  '/': (out, b, count) => {
    for (let i = 0; i < count; i++) out[i] = out[i]! / b[i]!
  },
}

/**
 * A column made of others by a loop of its own, which is as fast as one by hand; every lane is what the plain evaluator
 * says. What many formulas are made of has such a loop, the rest is `pointwise`.
 */
export function columnwise<const C extends readonly Column[]>(
  columns: C,
  lanes: number,
  loop: (of: { readonly [K in keyof C]: Float64Array }, count: number, out: Float64Array) => void,
): Column {
  const of = scratch(columns.length, lanes) as { readonly [K in keyof C]: Float64Array }
  return moving((now, from, count, out) => {
    for (let k = 0; k < columns.length; k++) columns[k]!.fill(now, from, count, of[k]!)
    loop(of, count, out)
  })
}

/**
 * A column whose lanes are a function of those of others. NaN is a lane that it cannot tell.
 * @param of up to five values, then the seconds of the moment
 */
export function pointwise(columns: readonly Column[], lanes: number, of: (...values: number[]) => number): Column {
  const [a, b, c, d, e] = scratch(columns.length, lanes) as readonly [Float64Array, ...Float64Array[]]
  const [A, B, C, D, E] = columns as [Column, ...Column[]]
  const check = (now: Now, from: number, count: number, out: Float64Array): void => {
    for (let i = 0; i < count; i++) if (out[i] !== out[i]) doubt(now, from + i)
  }
  switch (columns.length) {
    case 1:
      return moving((now, from, count, out) => {
        A.fill(now, from, count, a)
        const t = now.seconds
        for (let i = 0; i < count; i++) out[i] = of(a[i]!, t)
        check(now, from, count, out)
      })
    case 2:
      return moving((now, from, count, out) => {
        A.fill(now, from, count, a)
        B!.fill(now, from, count, b!)
        const t = now.seconds
        for (let i = 0; i < count; i++) out[i] = of(a[i]!, b![i]!, t)
        check(now, from, count, out)
      })
    case 3:
      return moving((now, from, count, out) => {
        A.fill(now, from, count, a)
        B!.fill(now, from, count, b!)
        C!.fill(now, from, count, c!)
        const t = now.seconds
        for (let i = 0; i < count; i++) out[i] = of(a[i]!, b![i]!, c![i]!, t)
        check(now, from, count, out)
      })
    default:
      return moving((now, from, count, out) => {
        A.fill(now, from, count, a)
        B!.fill(now, from, count, b!)
        C!.fill(now, from, count, c!)
        D!.fill(now, from, count, d!)
        E!.fill(now, from, count, e!)
        const t = now.seconds
        for (let i = 0; i < count; i++) out[i] = of(a[i]!, b![i]!, c![i]!, d![i]!, e![i]!, t)
        check(now, from, count, out)
      })
  }
}
