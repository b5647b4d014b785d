/** The moments of a timetable while they are gathered: all of them, and those at which each driven value is read. */
import { fractionsOf, type Fractions } from '../columns/fractions.ts'
import { minus, type Rational } from '../time/rational.ts'
import type { LaneTimes } from './plan/planner-of-times.ts'

/** One driven value on one copy while its moments are gathered. */
export class RequestedMoments {
  /** By lane which moment it is. */
  readonly ids: number[] = []
  /** By moment which lane it is, and one more; 0 for none. */
  private lanes = new Int32Array(16)
  /** Where its values begin. */
  readonly place = { at: 0 }
  isPlanned = false

  /** The lane of a moment; a new one where there is none yet. */
  lane(id: number): number {
    const found = this.known(id)
    if (found >= 0) return found
    if (id >= this.lanes.length) {
      const more = new Int32Array(Math.max(id + 1, 2 * this.lanes.length))
      more.set(this.lanes)
      this.lanes = more
    }
    this.lanes[id] = this.ids.push(id)
    return this.ids.length - 1
  }

  /** The same, −1 where there is none. */
  known(id: number): number {
    return id < this.lanes.length ? this.lanes[id]! - 1 : -1
  }

  /** Takes back the moments that were gathered last. */
  shortened(count: number): void {
    for (const id of this.ids.splice(count)) this.lanes[id] = 0
  }
}

/** The moments of a timetable, each once. */
export class Moments {
  readonly all: Rational[] = []
  private readonly known = new Map<string, number>()
  /** By seconds and moment the one that is so many earlier. */
  private readonly shifts = new Map<string, number[]>()

  id(ahead: Rational): number {
    const key = `${ahead.n}/${ahead.d}`
    let found = this.known.get(key)
    if (found === undefined) this.known.set(key, (found = this.all.push(ahead) - 1))
    return found
  }

  earlier(ids: Int32Array, seconds: Rational): Int32Array {
    const key = `${seconds.n}/${seconds.d}`
    const kept = this.shifts.get(key) ?? []
    this.shifts.set(key, kept)
    return ids.map(id => (kept[id] ??= this.id(minus(this.all[id]!, seconds))))
  }
}

export class Lanes implements LaneTimes {
  private made: Fractions | null = null
  private readonly others = new Map<string, Lanes>()

  constructor(
    private readonly moments: Moments,
    readonly ids: Int32Array,
  ) {}

  get ahead(): Fractions {
    return (this.made ??= fractionsOf(Array.from(this.ids, id => this.moments.all[id]!)))
  }

  earlier(seconds: Rational): Lanes {
    if (seconds.n === 0n) return this
    const key = `${seconds.n}/${seconds.d}`
    let found = this.others.get(key)
    if (!found) {
      found = new Lanes(this.moments, this.moments.earlier(this.ids, seconds))
      this.others.set(key, found)
    }
    return found
  }
}
