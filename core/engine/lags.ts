/**
 * Chains of links with lags, where each follows the one before a while later: read one by one they would be read again at
 * every moment that any link further on asks for, half the square of their number. A timetable works each out once.
 */
import type { Checked } from '../formula/check.ts'
import { everyNode } from '../formula/tree.ts'
import { functionNamed } from '../functions/index.ts'
import type { Moment } from '../time/moment.ts'
import { ZERO } from '../time/rational.ts'
import type { Slot } from './slot.ts'
import { timetableOf, type Timetable, type TimetableHost } from './timetable.ts'

/** Driven values that read others with a lag, from which on it is worth while, and at most. */
const FEWEST = 8
const MOST = 4000
/** How long a chain of them is, and at how many moments each is read on the average, from which on it is worth while. */
const LONG = 6
const OFTEN = 4

export class Lags {
  constructor(
    /** The slots that it works out, and all that these read. */
    readonly slots: readonly Slot[],
    private readonly read: readonly Slot[],
    readonly table: Timetable,
  ) {}

  /** Keys of those that have columns. */
  get keys(): ReadonlySet<string> {
    return this.table.inColumns
  }

  /** Whether all of it is as it was in another program. */
  stands(now: ReadonlyMap<string, Slot>): boolean {
    return this.read.every(s => now.get(s.key) === s)
  }

  run(m: Moment, out: Float64Array, offsets: ReadonlyMap<string, number>): void {
    this.table.run(m)
    let k = 0
    for (const { key, count } of this.slots) {
      const offset = offsets.get(key)!
      for (let i = 0; i < count; i++) out[offset + i] = this.table.first(k++)
    }
  }
}

/** What reads others with a lag among slots; null where it is read one by one as fast. */
export function lagsOf(
  slots: readonly Slot[],
  running: (slot: Slot) => Checked | null,
  host: TimetableHost,
  before: Lags | null,
): Lags | null {
  const lagging = slots.filter(s => {
    return !s.plan && s.offset >= 0 && hasLag(running(s))
  })
  const count = lagging.reduce((n, s) => n + s.count, 0)
  if (count < FEWEST || count > MOST || longestChain(slots, new Set(lagging)) < LONG) return null
  const asked = lagging.flatMap(({ key, count }) =>
    Array.from({ length: count }, (_, instance) => ({ key, instance, ahead: [ZERO] })),
  )
  const alike = before?.slots.length === lagging.length && before.slots.every((s, i) => sameCopies(s, lagging[i]!))
  const table = (alike && before.table.renewed(host)) || timetableOf(host, asked)
  if (!table || table.size.values < OFTEN * table.size.units) return null
  return new Lags(lagging, slots, table)
}

/** How many slots with lags read one another in a row, copies that read one another among them. */
function longestChain(slots: readonly Slot[], lagging: ReadonlySet<Slot>): number {
  const by = new Map<string, number>()
  let longest = 0
  for (const slot of slots) {
    let length = 0
    for (const key of slot.slots) length = Math.max(length, by.get(key) ?? 0)
    if (lagging.has(slot)) length += slot.chained || slot.slots.has(slot.key) ? slot.count : 1
    by.set(slot.key, length)
    longest = Math.max(longest, length)
  }
  return longest
}

const sameCopies = (a: Slot, b: Slot): boolean => a.key === b.key && a.count === b.count

/** Whether an argument of a function is read so many seconds away from the call. */
const readsEarlier = (name: string): boolean =>
  functionNamed(name)?.parameters.some(p => p.readAt === 'earlier') ?? false

const known = new WeakMap<Checked, boolean>()

/** Whether a formula reads a driven value at another moment. */
export function hasLag(checked: Checked | null): boolean {
  if (!checked) return false
  let found = known.get(checked)
  if (found === undefined) {
    const links = checked.reads.filter(r => r.type === 'property' || r.type === 'signal')
    found = everyNode(checked.formula).some(
      n => n.type === 'call' && readsEarlier(n.name) && links.some(l => n.from <= l.from && l.to <= n.to),
    )
    known.set(checked, found)
  }
  return found
}
