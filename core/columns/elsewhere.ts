/** Columns that are read as if the moment were another. */
import { moving, type Column, type Now } from './column.ts'

/** @param to the moment at which lanes are read, and their seconds, of lanes with moments of their own those furthest from 0 */
export function readAt(of: Column, to: (now: Now) => Pick<Now, 'moment' | 'seconds'>): Column {
  let last: Now | null = null
  let then: Now | null = null
  return moving((now, from, count, out) => {
    if (now !== last || !then) {
      then = { ...now, ...to(now) }
      last = now
    }
    of.fill(then, from, count, out)
    now.doubtful ||= then.doubtful
  })
}
