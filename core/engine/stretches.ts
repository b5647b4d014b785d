/** What runs in a program, read over time: one driven value at many moments, by a timetable that is kept while it is asked for again. */
import { BLOCK } from '../columns/column.ts'
import type { Checked } from '../formula/check.ts'
import type { CompiledExpression } from '../form/compiled-expression.ts'
import { momentOfSeconds } from '../time/moment.ts'
import { ONE, rational, times, type Rational } from '../time/rational.ts'
import { compiledOf } from './deferred.ts'
import type { Env } from './env.ts'
import type { Meanings } from './meaning.ts'
import type { Slot } from './slot.ts'
import { nothingTracked, surroundings, type Ground } from './surroundings.ts'
import { timetableOf, type Timetable, type TimetableHost } from './timetable.ts'

/** What runs in a program. */
export interface RunningSlots {
  readonly slots: ReadonlyMap<string, Slot>
  readonly meanings: Meanings
  readonly ground: Ground
}

/** So many moments, a step apart, from one that is so many seconds on. */
export interface Stretch {
  readonly from: Rational
  readonly step: Rational
  readonly count: number
}

/** Timetables that are kept at most. */
const MOST = 32

export class Stretches {
  private readonly kept = new Map<string, Timetable | null>()

  /** Writes the values of one instance into `out`. */
  values(
    runs: RunningSlots,
    key: string,
    instance: number,
    { from, step, count }: Stretch,
    out: Float64Array,
  ): Float64Array {
    if (count === 0) return out
    const lanes = Math.ceil(count / Math.ceil(count / BLOCK))
    const table = this.table(runs, key, instance, step, lanes)
    const begin = momentOfSeconds(from, runs.ground.measures.frameRate)
    const reader = runs.slots.get(key)!.readers[instance]!
    for (let done = 0; done < count; done += lanes) {
      const now = Math.min(lanes, count - done)
      const moment = begin.ahead(times(rational(done), step))
      if (table) {
        table.run(moment)
        out.set(table.of(0, now), done)
      } else for (let i = 0; i < now; i++) out[done + i] = reader.at(moment.ahead(times(rational(i), step)))
    }
    return out
  }

  /** Whether a stretch of it, all that it reads included, is worked out in columns. */
  hasColumns(runs: RunningSlots, key: string, instance: number): boolean {
    return this.table(runs, key, instance, ONE, 1)?.isWhole ?? false
  }

  /** The timetable of so many steps from a moment on; null where it is too much. */
  private table(runs: RunningSlots, key: string, instance: number, step: Rational, lanes: number): Timetable | null {
    const name = `${key}#${instance}/${step.n}/${step.d}/${lanes}`
    const known = this.kept.get(name)
    if (known !== undefined) return known
    const ahead = Array.from({ length: lanes }, (_, i) => times(rational(i), step))
    const made = timetableOf(timetableHost(runs, slotsInOrder(runs.slots, [key])), [{ key, instance, ahead }])
    if (this.kept.size >= MOST) this.kept.clear()
    this.kept.set(name, made)
    return made
  }
}

/** Slots and all that they read, each after what it reads: a column is read from what others have written. */
export function slotsInOrder(all: ReadonlyMap<string, Slot>, keys: readonly string[]): Slot[] {
  const slots = new Set<Slot>()
  const add = (key: string): void => {
    const slot = all.get(key)
    if (!slot || slots.has(slot)) return
    // What runs may read others than what is written does: the order of the texts is not enough.
    for (const other of slot.slots) add(other)
    slots.add(slot)
  }
  for (const key of keys) add(key)
  return [...slots]
}

/** The formula that a slot runs; null where it holds what is set. */
export function runningIn({ slots, meanings }: RunningSlots, key: string): Checked | null {
  const m = meanings.all.get(key)!
  const { running } = slots.get(key)!
  return running === 'text' ? m.text : running === 'good' ? m.good : null
}

/** What a timetable asks of these slots, which are in their order. */
export function timetableHost(runs: RunningSlots, order: readonly Slot[]): TimetableHost {
  const { slots, meanings, ground } = runs
  const reader = (key: string, instance: number): CompiledExpression | null => {
    const slot = slots.get(key)
    return slot ? compiledOf(slot.readers[instance]!) : null
  }
  const envs = new Map<string, (instance: number) => Env>()
  let note: Parameters<TimetableHost['formula']>[2]
  const envOf = (key: string): ((instance: number) => Env) => {
    let found = envs.get(key)
    if (!found) {
      found = surroundings(ground, meanings.all.get(key)!, nothingTracked(), (of, which) => {
        if (!meanings.all.has(of)) return null
        const read = reader(of, which)!
        note(read, of, which)
        return read
      })
      envs.set(key, found)
    }
    return found
  }
  return {
    order: order.map(s => s.key),
    own: key => slots.get(key)!.own,
    reader,
    readsLater: key => runningIn(runs, key)?.reads.some(r => r.type === 'property' && r.after) ?? false,
    formula: (key, instance, tell) => {
      const checked = runningIn(runs, key)
      note = tell
      return checked && { checked, env: envOf(key)(instance) }
    },
  }
}
