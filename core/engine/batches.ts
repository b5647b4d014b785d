/**
 * Batches: drives of parts without copies whose formulas have one shape, run together, a lane each. A batch is taken over from
 * program to program; a drive that is changed leaves it and is run by itself, until so many have left that it is made anew.
 */
import { propertyKey } from '../piece/drive-key.ts'
import type { Checked } from '../formula/check.ts'
import { propertyNamed } from '../piece/properties.ts'
import { seedOf } from '../signal/hash.ts'
import { ZERO } from '../time/rational.ts'
import type { Env } from './env.ts'
import type { SlotReuse } from './slot-reuse.ts'
import { readKeys, runningFormula, type Meaning, type Meanings } from './meaning.ts'
import { PlannerOfDrives, type DrivesHost, type LaneRead } from './plan/planner-of-drives.ts'
import type { ExactLane } from './plan/exact-lanes.ts'
import { planOf, type Plan } from './plan/plan.ts'
import { shapeOf } from './formula-shape.ts'
import { exactForm, type Slot } from './slot.ts'
import { nothingTracked, type Ground, type Tracked } from './surroundings.ts'

/** Drives of one shape from which on they are run together. */
const FEW = 4
/** A batch is made anew when one lane in so many has left it. */
const LEFT = 4

export interface Batch {
  readonly plan: Plan
  /** Its drives by lane; null for one that has left. */
  readonly keys: readonly (string | null)[]
  /** How many stand in the longest chain of links that ends with each of its drives, the same for all. */
  readonly level: number
  /** What all of its drives hang on alike. */
  readonly shared: Tracked
  /** What its drives read and know exactly, or follow to other moments: the plan holds these as they were. */
  readonly exact: ReadonlySet<string>
  /** What a lane takes at most, in operations. */
  readonly operations: number
}

export interface BatchLane {
  readonly batch: Batch
  readonly lane: number
}

/** What is asked of the program that batches are made for. */
export interface BatchHost {
  readonly meanings: Meanings
  readonly ground: Ground
  readonly making: SlotReuse
  readonly resting: ReadonlyMap<string, string>
  /** A driven property or signal, made if it is not yet. */
  readonly slot: (key: string) => Slot
  /** The surroundings of a drive; `tracked` notes what it reads of them, its links to other parts aside. */
  readonly env: (m: Meaning, tracked: Tracked) => Env
}

export class Batches {
  readonly all: Batch[] = []
  private readonly lanes = new Map<string, BatchLane>()

  lane(key: string): BatchLane | undefined {
    return this.lanes.get(key)
  }

  /** Whether a drive may stay in its batch. */
  holds(host: Pick<BatchHost, 'making' | 'slot'>, key: string): boolean {
    return host.making.standsItself(key) && this.readsAsBefore(host, this.lanes.get(key)!.batch, key)
  }

  /** Takes over what stands of the batches before, and makes new ones of what has none. */
  form(host: BatchHost, before: Batches | null): void {
    const { meanings, making } = host
    const levels = meanings.links
    const loose = new Set<string>()
    for (const batch of before?.all ?? []) this.takeOver(host, batch, levels, loose)
    const shapes = new Map<string, { readonly level: number; readonly keys: string[] }>()
    for (const key of meanings.order) {
      if (this.lanes.has(key) || (making.slot(key) && !loose.has(key))) continue
      const m = meanings.all.get(key)!
      if (!mayJoin(host, m)) continue
      const level = levels.get(key)!
      const name = `${level} ${m.target.property!.name} ${shapeOf(runningFormula(m)!)}`
      const known = shapes.get(name)
      if (known) known.keys.push(key)
      else shapes.set(name, { level, keys: [key] })
    }
    const many = [...shapes.values()].filter(s => s.keys.length >= FEW)
    // What a batch reads is known before it is planned.
    for (const { level, keys } of many.sort((a, b) => a.level - b.level)) {
      const made = this.planned(host, keys, level)
      if (made) this.add(made)
    }
    this.all.sort((a, b) => a.level - b.level)
  }

  private add(batch: Batch): void {
    this.all.push(batch)
    batch.keys.forEach((key, lane) => {
      if (key !== null) this.lanes.set(key, { batch, lane })
    })
  }

  private takeOver(host: BatchHost, batch: Batch, levels: ReadonlyMap<string, number>, loose: Set<string>): void {
    const { making } = host
    let [level, isLevel, left] = [-1, true, 0]
    const keys = batch.keys.map(key => {
      if (key === null || !making.standsItself(key) || !this.readsAsBefore(host, batch, key)) {
        left++
        return null
      }
      const now = levels.get(key)!
      if (level < 0) level = now
      isLevel &&= now === level
      return key
    })
    if (isLevel && left * LEFT < keys.length) {
      const same = level === batch.level && keys.every((key, lane) => key === batch.keys[lane])
      this.add(same ? batch : { ...batch, keys, level })
    } else for (const key of batch.keys) if (key !== null) loose.add(key)
  }

  private readsAsBefore(
    { making, slot }: Pick<BatchHost, 'making' | 'slot'>,
    { shared, exact }: Batch,
    key: string,
  ): boolean {
    const { slots } = making.before(key)
    if (slots.size === 0) return true
    for (const read of slots) {
      if (making.stands(read)) continue
      if (shared.slots.has(read) || exact.has(read) || this.exactLane(slot, read)) return false
    }
    return true
  }

  /** What a driven value is exactly, or null. */
  private exactLane(slot: BatchHost['slot'], key: string): ExactLane | null {
    const found = this.lanes.get(key)
    if (found) return found.batch.plan.exactLane(found.lane)
    return exactForm(slot(key).readers[0]!)
  }

  private planned(host: BatchHost, keys: readonly string[], level: number): Batch | null {
    const made: Made = { shared: nothingTracked(), first: new Set(), exact: new Set() }
    const drives = this.drives(host, keys, made, made.shared)
    const plan = planOf(drives.checked[0]!, keys.length, lanes => new PlannerOfDrives(drives, lanes))
    // A sum of its own has a slip of its own, which the others don't have.
    const own = [...made.first]
    if (!plan || [...made.shared.paces.keys()].some(slip => own.some(key => slip.includes(key)))) return null
    for (const key of own) made.shared.setValueKeys.delete(key)
    return { plan, keys, level, shared: made.shared, exact: made.exact, operations: plan.operations }
  }

  /** What drives of one shape are planned with. */
  private drives(host: BatchHost, keys: readonly string[], made: Made, tracked: Tracked): DrivesHost {
    const { ground, meanings } = host
    const all = keys.map(key => meanings.all.get(key)!)
    const checked = all.map(m => runningFormula(m)!)
    return {
      checked,
      measures: ground.measures,
      env: lane => {
        made.first.add(keys[lane]!)
        return host.env(all[lane]!, tracked)
      },
      base: lane => handLane(ground, all[lane]!.target.part!, all[lane]!.target.property!.name),
      read: (lane, nth) => {
        const read = checked[lane]!.reads[nth]!
        if (read.type !== 'property' || read.before || !isSingle(ground, read.part)) return null
        return this.read(host, read.part, read.property, made.exact)
      },
      seed: (lane, name, nth) => seedOf(all[lane]!.source.seed, name, nth),
      shape: key => {
        const m = meanings.all.get(key)!
        return mayJoin(host, m) ? `${m.target.property!.name} ${shapeOf(runningFormula(m)!)}` : null
      },
      others: others => {
        for (const key of others) made.exact.add(key)
        return this.drives(host, others, made, nothingTracked())
      },
    }
  }

  private read(
    { ground, meanings, slot }: BatchHost,
    part: string,
    property: string,
    exact: Set<string>,
  ): LaneRead | null {
    const key = propertyKey(part, property)
    if (!meanings.all.has(key)) return handLane(ground, part, property)
    const known = this.exactLane(slot, key)
    if (known) exact.add(key)
    return known ?? { key }
  }
}

/** What is noted while a batch is planned. */
interface Made {
  readonly shared: Tracked
  /** Drives whose surroundings stood for those of others. */
  readonly first: Set<string>
  readonly exact: Set<string>
}

const isSingle = (ground: Ground, part: string): boolean => ground.instancesOf(part).levels.length === 0

/** A set value that keyframes don't move; null where they do. */
function handLane(ground: Ground, part: string, property: string): ExactLane | null {
  const value = ground.handConstant(part, propertyNamed(property)!)
  return value && { rate: ZERO, base: value, paced: false }
}

/** Whether a drive can be run with others: one value, in surroundings that others have too. */
function mayJoin({ ground, resting }: BatchHost, m: Meaning): boolean {
  const { part } = m.target
  const checked = runningFormula(m)
  return (
    part !== null &&
    checked !== null &&
    !ground.piece.parts[part]!.span &&
    !ground.piece.bases[m.key]?.keys &&
    !resting.has(m.key) &&
    isSingle(ground, part) &&
    !readsItself(m, checked)
  )
}

const readsItself = (m: Meaning, checked: Checked): boolean => readKeys(checked).includes(m.key)
