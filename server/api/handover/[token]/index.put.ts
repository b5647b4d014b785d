import * as v from 'valibot'
import type { Bounds } from '../../../reading/reading'
import { database, wrote } from '../../../database/current'
import { isGood, tune } from '../../../database/handovers'
import { bodyOf, notHanded, refuse, tokenOf } from '../../../request'

const Values = v.strictObject({
  tuned: v.pipe(v.record(v.pipe(v.string(), v.maxLength(40)), v.pipe(v.number(), v.finite())), v.maxEntries(200)),
})

const TUNED: Bounds = { bytes: 16 * 1024, depth: 3, count: 400 }

/** What the receiver tuned: within the locks, or refused. */
export default defineEventHandler(async event => {
  const token = tokenOf(event)
  // The token is checked before the body is read.
  if (!(await isGood(await database(), token))) throw notHanded()
  const { tuned } = await bodyOf(event, Values, TUNED)
  const kept = await tune(await database(), token, tuned)
  if (!kept) throw notHanded()
  if ('says' in kept) throw refuse(422, kept.says)
  wrote()
  return kept
})
