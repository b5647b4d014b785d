/** Drives on so many copies that what is known for all time is not worked out: it is known of each copy by itself. */
import type { Slot } from '../engine/slot.ts'

export const MOST_LOOKED = 2500

export const isTooMany = (slot: Slot): boolean => slot.count > MOST_LOOKED

export const tooManyText = (slot: Slot): string => `${slot.count.toLocaleString('en')} copies, not looked at one by one`
