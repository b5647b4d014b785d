/**
 * A timetable: at which moments driven values are read, and their columns over these. What is asked for, such as a property
 * over a stretch or a chain of links with lags, says when it reads others, and so on down to what reads none; then each is
 * worked out once for all of its moments, from those that are read to those that read. Moments are so many seconds ahead
 * of the one that is asked for, so a timetable serves wherever it is run. The values are the plain evaluator's, to the bit.
 */
import { BLOCK, moving, type Column, type Now } from '../columns/column.ts'
import type { CompiledExpression } from '../form/compiled-expression.ts'
import type { Checked } from '../formula/check.ts'
import type { Moment } from '../time/moment.ts'
import { toNumber, type Rational } from '../time/rational.ts'
import { RequestedMoments, Lanes, Moments } from './requested-moments.ts'
import type { Env } from './env.ts'
import { CannotPlan, leavesToPlain } from './plan/planner.ts'
import { SplitLanes } from './plan/split.ts'
import { PlannerOfTimes, type LaneTimes } from './plan/planner-of-times.ts'

/** What a timetable asks of a program while it is made. */
export interface TimetableHost {
  /** Keys of slots, each after all that it reads. */
  readonly order: readonly string[]
  /** Stands for what a formula itself is made of: the same object while that stands. */
  readonly own: (key: string) => object
  /** How a driven value is read by itself; null where nothing drives it. */
  readonly reader: (key: string, instance: number) => CompiledExpression | null
  /** The formula that runs, and its surroundings, which note whom they read; null where none does. */
  readonly formula: (
    key: string,
    instance: number,
    note: (reader: CompiledExpression, key: string, instance: number) => void,
  ) => { readonly checked: Checked; readonly env: Env } | null
  /** Whether copies read those after them. */
  readonly readsLater: (key: string) => boolean
}

/** A driven value, and the seconds ahead at which it is asked for. */
export interface ColumnRequest {
  readonly key: string
  readonly instance: number
  readonly ahead: readonly Rational[]
}

/** Values that a timetable works out at most. */
const MOST_VALUES = 300_000

/** Another driven value as a column reads it: what it is exactly, and else from its own column. */
interface Read {
  readonly key: string
  readonly instance: number
  readonly exact: CompiledExpression | null
}

/** A driven value on one copy at all of its moments. */
interface Unit {
  readonly key: string
  readonly instance: number
  /** Stands for what its own formula is made of, whatever becomes of those that it reads. */
  readonly own: object
  readonly reader: CompiledExpression
  /** What its column was made with. */
  readonly reads: readonly Read[]
  readonly ids: Int32Array
  readonly at: number
  /** Null: it is read by itself at each. */
  readonly body: Column | null
}

/** All moments, and by key and copy when each driven value is read. */
interface Drafts {
  readonly moments: Moments
  readonly of: Map<string, Map<number, RequestedMoments>>
}

export class Timetable {
  /** Values of the last run. */
  private readonly values: Float64Array
  private readonly doubts: Uint8Array
  private readonly furthest: number
  private readonly ahead: readonly Rational[]

  constructor(
    /** Each after all that it reads. */
    private readonly units: readonly Unit[],
    private readonly drafts: Drafts,
    /** Where the values of what was asked for begin. */
    private readonly places: readonly number[],
  ) {
    this.ahead = drafts.moments.all
    this.values = new Float64Array(units.reduce((n, u) => n + u.ids.length, 0))
    this.doubts = new Uint8Array(units.reduce((n, u) => Math.max(n, u.ids.length), 0))
    this.furthest = this.ahead.reduce((n, a) => Math.max(n, Math.abs(toNumber(a))), 0)
  }

  /** Whether everything that was asked for has columns. */
  get isWhole(): boolean {
    return this.units.every(u => u.body)
  }
  /** Keys of what has columns on all copies that are read. */
  get inColumns(): ReadonlySet<string> {
    const keys = new Set(this.units.map(u => u.key))
    for (const u of this.units) if (!u.body) keys.delete(u.key)
    return keys
  }
  /** How many values it works out, and of how many driven values. */
  get size(): { readonly values: number; readonly units: number } {
    return { values: this.values.length, units: this.units.length }
  }

  /** The same of a program in which other formulas run; null where these read at other moments. */
  renewed(host: TimetableHost): Timetable | null {
    const units: Unit[] = []
    for (const unit of this.units) {
      const { key, instance, ids } = unit
      const reader = host.reader(key, instance)
      if (!reader) return null
      const own = host.own(key)
      if (own === unit.own && unit.reads.every(r => isReadAsBefore(host, r))) {
        units.push({ ...unit, reader })
        continue
      }
      const fits = bodyOf(host, key, instance, ids, this.drafts, false)
      if (!fits) return null
      units.push({ ...unit, own, ...fits, reader })
    }
    return new Timetable(units, this.drafts, this.places)
  }

  /** Works all values out; `of` gives those of what was asked for as the k-th. They stand until the next run. */
  run(moment: Moment): void {
    const { values, doubts } = this
    let when: Moment[] | null = null
    const at = (id: number): Moment => ((when ??= [])[id] ??= moment.ahead(this.ahead[id]!))
    const seconds = Math.abs(moment.seconds) + this.furthest
    const now: Now = { moment, seconds, values, offsets: NO_OFFSETS, doubts, doubtful: false }
    for (const { reader, ids, at: start, body } of this.units) {
      const count = ids.length
      if (!body) {
        for (let i = 0; i < count; i++) values[start + i] = reader.at(at(ids[i]!))
        continue
      }
      for (let from = 0; from < count; from += BLOCK) {
        const block = values.subarray(start + from, start + Math.min(count, from + BLOCK))
        body.fill(now, from, block.length, block)
        for (let i = 0; i < block.length; i++) {
          if (block[i]! - block[i]! === 0) continue
          doubts[from + i] = 1
          now.doubtful = true
        }
      }
      if (!now.doubtful) continue
      now.doubtful = false
      for (let i = 0; i < count; i++) {
        if (doubts[i] === 0) continue
        doubts[i] = 0
        values[start + i] = reader.at(at(ids[i]!))
      }
    }
  }

  /** The same of what was asked for at one moment. */
  first(k: number): number {
    return this.values[this.places[k]!]!
  }

  of(k: number, count: number): Float64Array {
    return this.values.subarray(this.places[k]!, this.places[k]! + count)
  }
}

const NO_OFFSETS: ReadonlyMap<string, number> = new Map()

/** The timetable of what is asked for; null where it would work out too much. */
export function timetableOf(host: TimetableHost, asked: readonly ColumnRequest[]): Timetable | null {
  const drafts: Drafts = { moments: new Moments(), of: new Map() }
  const roots = asked.map(({ key, instance, ahead }) => {
    const draft = draftOf(drafts, key, instance)
    for (const a of ahead) draft.lane(drafts.moments.id(a))
    return draft
  })
  const planned: { readonly draft: RequestedMoments; readonly unit: Omit<Unit, 'at'> }[] = []
  let values = 0
  // Whoever reads comes before what it reads, so that all moments of a value are known when it is planned.
  for (const key of [...host.order].reverse()) {
    const later = host.readsLater(key)
    for (;;) {
      const instance = nextOf(drafts.of.get(key), later)
      if (instance === null) break
      const draft = draftOf(drafts, key, instance)
      draft.isPlanned = true
      values += draft.ids.length
      if (values > MOST_VALUES) return null
      const ids = Int32Array.from(draft.ids)
      const made = bodyOf(host, key, instance, ids, drafts, true)!
      planned.push({
        draft,
        unit: { key, instance, ids, ...made, own: host.own(key), reader: host.reader(key, instance)! },
      })
    }
  }
  const units: Unit[] = []
  let at = 0
  for (const { draft, unit } of planned.reverse()) {
    draft.place.at = at
    units.push({ ...unit, at })
    at += unit.ids.length
  }
  return new Timetable(
    units,
    drafts,
    roots.map(r => r.place.at),
  )
}

function draftOf({ of }: Drafts, key: string, instance: number): RequestedMoments {
  const all = of.get(key) ?? new Map<number, RequestedMoments>()
  of.set(key, all)
  const found = all.get(instance) ?? new RequestedMoments()
  all.set(instance, found)
  return found
}

/** The copy to be planned next: the last one, or the first where copies read later ones; null where all are. */
function nextOf(drafts: ReadonlyMap<number, RequestedMoments> | undefined, later: boolean): number | null {
  let next: number | null = null
  for (const [i, { isPlanned }] of drafts ?? [])
    if (!isPlanned && (next === null || (later ? i < next : i > next))) next = i
  return next
}

const BY_ITSELF: Pick<Unit, 'body' | 'reads'> = { body: null, reads: [] }

function isReadAsBefore(host: TimetableHost, { key, instance, exact }: Read): boolean {
  const now = host.reader(key, instance)
  return exact ? now === exact : now !== null && now.exact === null
}

/**
 * The column of a value at all of its moments, null where it is read by itself.
 * @param mayAsk whether others may be read at moments that nobody has asked for; else null as a whole where they are
 */
function bodyOf(
  host: TimetableHost,
  key: string,
  instance: number,
  ids: Int32Array,
  drafts: Drafts,
  mayAsk: boolean,
): Pick<Unit, 'body' | 'reads'> | null {
  const readers = new Map<CompiledExpression, readonly [string, number]>()
  const found = host.formula(key, instance, (reader, of, which) => readers.set(reader, [of, which]))
  if (!found) return BY_ITSELF
  const asked = new Map<RequestedMoments, number>()
  let isFull = true
  const link = (reader: CompiledExpression, at: LaneTimes): Column | null => {
    const read = readers.get(reader)
    if (!read) return null
    const there = (at as Lanes).ids
    if (!mayAsk) {
      const other = drafts.of.get(read[0])?.get(read[1])
      const lanes = other && there.map(id => other.known(id))
      if (!lanes || lanes.includes(-1)) isFull = false
      return isFull ? gathered(other!.place, lanes!) : null
    }
    const other = draftOf(drafts, ...read)
    if (other.isPlanned) throw new CannotPlan()
    if (!asked.has(other)) asked.set(other, other.ids.length)
    return gathered(
      other.place,
      there.map(id => other.lane(id)),
    )
  }
  try {
    const times = new Lanes(drafts.moments, ids)
    const planner = new PlannerOfTimes(found.checked, found.env, ids.length, times, link)
    const body = planner.column(found.checked.formula.body)
    const reads = [...readers].map(([form, [of, which]]) => ({ key: of, instance: which, exact: form.exact && form }))
    return isFull ? { body, reads } : null
  } catch (e) {
    if (!leavesToPlain(e) && !(e instanceof SplitLanes)) throw e
    for (const [other, count] of asked) other.shortened(count)
    return isFull ? BY_ITSELF : null
  }
}

/** What another value is at some of its moments. */
function gathered(place: { readonly at: number }, lanes: Int32Array): Column {
  return moving((now, from, count, out) => {
    const start = place.at
    for (let i = 0; i < count; i++) out[i] = now.values[start + lanes[from + i]!]!
  })
}
