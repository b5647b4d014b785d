import * as v from 'valibot'
import { database, wrote } from '../../../database/current'
import { tune } from '../../../database/handovers'
import { bodyOf, notHanded, refuse, tokenOf } from '../../../request'

const Values = v.strictObject({
  tuned: v.pipe(v.record(v.pipe(v.string(), v.maxLength(40)), v.pipe(v.number(), v.finite())), v.maxEntries(200)),
})

/** What the receiver tuned: within the locks, or refused. */
export default defineEventHandler(async event => {
  const token = tokenOf(event)
  const { tuned } = await bodyOf(event, Values)
  const kept = await tune(await database(), token, tuned)
  if (!kept) throw notHanded()
  if ('says' in kept) throw refuse(422, kept.says)
  wrote()
  return kept
})
