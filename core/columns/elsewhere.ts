/** Columns that are read as if the moment were another. */
import type { Moment } from '../time/moment.ts'
import { doubt, moving, type Column, type Now } from './column.ts'

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

/** Of lanes that are all read at one other moment. */
export const readAtMoment = (of: Column, to: (m: Moment) => Moment): Column =>
  readAt(of, now => {
    const moment = to(now.moment)
    return { moment, seconds: moment.seconds }
  })

/** A formula that is followed: where it has no value, what is set is read instead, by the plain evaluator. */
export const orSet = (of: Column): Column =>
  moving((now, from, count, out) => {
    of.fill(now, from, count, out)
    for (let i = 0; i < count; i++) if (!(out[i]! - out[i]! === 0)) doubt(now, from + i)
  })
