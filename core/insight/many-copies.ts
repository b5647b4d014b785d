/**
 * Drives on many copies. What is known of them for all time is proven of all together, by one expression that stands for every
 * copy; where that does not do, each is looked at by itself while they are not too many, and else in columns, which sees
 * and proves nothing.
 */
import { everyCopy } from '../engine/every-copy.ts'
import type { Program } from '../engine/program.ts'
import type { Slot } from '../engine/slot.ts'
import type { Facts } from '../facts/facts.ts'
import { ALL, isBounded, union, type Interval } from '../facts/interval.ts'
import { ofEveryCopy } from '../form/differs-by-copy.ts'
import { momentOfSeconds } from '../time/moment.ts'
import { provenClosure, seenClosure, type Closure, type Round, type Seen } from './closure.ts'

/** Copies that are looked at one by one in any case: they are looked at closer, and their ranges are the tighter. */
const FEW = 256
/** Copies that are looked at one by one at most. */
const MOST_LOOKED = 2500

export const isFew = (slot: Slot): boolean => slot.count <= FEW
export const isTooMany = (slot: Slot): boolean => slot.count > MOST_LOOKED

/** One fact of all copies; null where it takes single copies to tell. */
export function factOfAll<K extends keyof Facts>(program: Program, key: string, fact: K): Facts[K] | null {
  const form = everyCopy(program, key)
  return form && ofEveryCopy(() => form.facts()[fact])
}

/** Lowest and highest value of all copies, or speed per second. */
export function rangeOfAll(program: Program, slot: Slot, fact: 'bounds' | 'slope' = 'bounds'): Interval {
  const together = isFew(slot) ? null : factOfAll(program, slot.key, fact)
  if (together && (isBounded(together) || isTooMany(slot))) return together
  return isTooMany(slot) ? ALL : slot.readers.map(r => r.facts()[fact]).reduce(union)
}

/** Whether no copy ever leaps, as far as that is known of all together. */
export const neverLeaps = (program: Program, key: string): boolean =>
  factOfAll(program, key, 'leaps')?.only?.length === 0

/** That every copy loops, where that is proven of all together. */
export function closureOfAll(program: Program, key: string, round: Round): Closure | null {
  const form = everyCopy(program, key)
  return form && ofEveryCopy(() => provenClosure(form, round))
}

/** The widest gap that any copy has at the lap, or within it. */
export const seenOfAll = (program: Program, key: string, round: Round): Seen =>
  seenClosure(s => program.copiesAt(key, momentOfSeconds(s, round.measures.frameRate)), round)
