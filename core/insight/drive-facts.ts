/** What is told of a drive beside its strip, as plain data: worked out wherever there is time for it. */
import { promisesOf, sourceOf } from '../acts/sources.ts'
import type { Program } from '../engine/program.ts'
import type { Slot } from '../engine/slot.ts'
import type { Fix } from '../formula/problem.ts'
import { toNumber } from '../time/rational.ts'
import { jumpFix, jumpText } from './jumps.ts'
import { leapsOf, type CopyJump } from './leaps.ts'
import { isFew, isTooMany, neverLeaps } from './many-copies.ts'
import { promiseState, type PromiseState } from './promises.ts'
import { propertyOf, reportOf, showValue, symmetriesOf, type Report } from './report.ts'

/** What is known of a drive for all time, and whether it keeps what it promises, in the order of its promises. */
export interface DriveFacts {
  readonly report: Report
  readonly promises: readonly PromiseState[]
}

/** Its leaps in words, those of every copy, and the first that a change of its text would close. */
export interface DriveJumps {
  readonly says: readonly string[]
  /** Whether no leap is known, only that there may be one. */
  readonly may: boolean
  /** Where and how far, of the first copy: seconds, how often again, base measure. */
  readonly at: readonly {
    readonly second: number
    readonly every: number | null
    readonly from: number
    readonly to: number
  }[]
  readonly closed: { readonly says: string; readonly fix: Fix } | null
}

/** Leaps that are told, and those of which it is tried what would close them. */
const MOST_TOLD = 12
const MOST_TRIED = 4

/** It is known of all copies together that none leaps; of too many to be looked at one by one, that or nothing. */
const leapingOfMany = (program: Program, { key, count }: Slot): DriveJumps => ({
  says: neverLeaps(program, key) ? [] : [`may jump: ${count.toLocaleString('en')} copies, not checked one by one`],
  may: true,
  at: [],
  closed: null,
})

/** Null where there is no such drive. */
export function driveFacts(program: Program, key: string): DriveFacts | null {
  const slot = program.slots.get(key)
  const source = sourceOf(program.piece, key)
  if (!slot || !source) return null
  return {
    report: reportOf(program, slot),
    promises: promisesOf(source).map(p => promiseState(program, slot, p)),
  }
}

export function driveJumps(program: Program, key: string): DriveJumps | null {
  const slot = program.slots.get(key)
  if (!slot || !sourceOf(program.piece, key) || slot.running !== 'text') return null
  if (!isFew(slot) && (isTooMany(slot) || neverLeaps(program, key))) return leapingOfMany(program, slot)
  const { measures } = program
  const property = propertyOf(program, key)
  const { jumps, more } = leapsOf(slot.forms, program, toNumber(symmetriesOf(program, key).natural))
  const words = (j: CopyJump) =>
    jumpText(j, v => showValue(v, property, measures)) + (slot.count > 1 ? `, copy ${j.copy + 1}` : '')
  const says = [
    ...jumps.slice(0, MOST_TOLD).map(words),
    ...(more || jumps.length > MOST_TOLD ? [jumps.length > 0 ? 'and may jump elsewhere' : 'may jump'] : []),
  ]
  const at = jumps
    .filter(j => j.copy === 0)
    .map(j => ({ second: toNumber(j.at), every: j.every && toNumber(j.every), from: j.from, to: j.to }))
  for (const jump of jumps.slice(0, MOST_TRIED)) {
    const fix = jumpFix(program, key, jump)
    if (fix) return { says, may: false, at, closed: { says: words(jump), fix } }
  }
  return { says, may: jumps.length === 0, at, closed: null }
}
