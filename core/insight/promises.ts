/** Promises of a drive: that its value, or its speed, stays above or below a limit. Proved by bounds, or broken by a moment. */
import { drivenProperty } from '../piece/drive-key.ts'
import type { Program } from '../engine/program.ts'
import type { Slot } from '../engine/slot.ts'
import type { Promised } from '../piece/schema.ts'
import { rangeOfAll } from './many-copies.ts'
import { propertyNamed, type Property } from '../piece/properties.ts'
import { Moment, momentOfTicks } from '../time/moment.ts'
import { floor, plus, rational, times, toNumber, type Rational } from '../time/rational.ts'
import { printNumber, sizeOfUnit, type Measures } from '../units/units.ts'

/** `kept`: for all time, as the bound proves. `broken`: at a moment. Else neither is known. All in display units. */
export type PromiseState =
  | { readonly verdict: 'kept'; readonly bound: number }
  | { readonly verdict: 'broken'; readonly at: Rational; readonly value: number }
  | { readonly verdict: 'open'; readonly bound: number; readonly seen: number }

/** Laps that are looked through for a moment at which a promise is broken, moments of them times copies at most, and moments in columns. */
const LAPS = 4
const MOST = 3_000
const IN_COLUMNS = 120
/** The step of a speed, in seconds; a power of 2, so that it divides without rounding. */
const STEP = rational(1, 4096)

/** `stays above 15px/s`. */
export function promiseText(p: Promised, property: Property): string {
  return `stays ${p.side} ${printNumber(p.than, 4)}${property.unit}${p.of === 'speed' ? '/s' : ''}`
}

export function promiseState(program: Program, slot: Slot, p: Promised): PromiseState {
  const m = program.measures
  const size = sizeOf(slot, m)
  const limit = p.than * size
  const beyond = (v: number) => (p.side === 'above' ? v < limit : v > limit)
  const bounds = rangeOfAll(program, slot, p.of === 'speed' ? 'slope' : 'bounds')
  const bound = p.side === 'above' ? bounds.low : bounds.high
  // A bound may be out by its own rounding; a promise is of what people can type.
  const slack = 1e-9 * Math.max(Math.abs(limit), size)
  if (!beyond(bound + (p.side === 'above' ? slack : -slack))) return { verdict: 'kept', bound: bound / size }
  let seen = p.side === 'above' ? Infinity : -Infinity
  for (const at of looks(slot, m)) {
    for (const v of p.of === 'speed' ? speeds(program, slot, at) : program.copiesAt(slot.key, at)) {
      if (beyond(v)) return { verdict: 'broken', at: at.exactSeconds, value: v / size }
      seen = p.side === 'above' ? Math.min(seen, v) : Math.max(seen, v)
    }
  }
  return { verdict: 'open', bound: bound / size, seen: seen / size }
}

/** What became of a promise, in one sentence. */
export function promiseStateText(kept: PromiseState, p: Promised, property: Property): string {
  const unit = property.unit + (p.of === 'speed' ? '/s' : '')
  const show = (v: number) => `${printNumber(Number(v.toPrecision(4)), 4).replace('-', '−')}${unit}`
  const never = p.side === 'above' ? 'below' : 'above'
  if (kept.verdict === 'kept') return `holds for all time: never ${never} ${show(kept.bound)}`
  if (kept.verdict === 'broken') return `broken at ${printNumber(toNumber(kept.at), 2)} s: ${show(kept.value)}`
  const known = Number.isFinite(kept.bound) ? `the bound is ${show(kept.bound)}` : 'it has no bound'
  return `not proven: nothing ${never} ${show(kept.seen)} was seen, but ${known}`
}

function sizeOf(slot: Slot, m: Measures): number {
  const property = propertyNamed(drivenProperty(slot.key))!
  return toNumber(sizeOfUnit(property.unit, m))
}

/** How fast each copy changes at a moment, per second. */
function speeds(program: Program, { key }: Slot, m: Moment): Float64Array {
  const next = program.copiesAt(key, new Moment(plus(m.frames, times(STEP, m.rate)), m.rate))
  const now = program.copiesAt(key, m)
  return next.map((v, i) => (v - now[i]!) / toNumber(STEP))
}

/** Moments of the first laps, evenly spread: every frame where there are few enough. */
function* looks(slot: Slot, m: Measures): Iterable<Moment> {
  const frames = Number(floor(times(times(m.lapLength, m.frameRate), rational(LAPS))))
  const count = Math.max(1, Math.min(frames, Math.max(Math.floor(MOST / slot.count), slot.plan ? IN_COLUMNS : 0)))
  for (let k = 0; k < count; k++) yield momentOfTicks(Math.floor((k * frames) / count) * 1024, m.frameRate)
}
