import * as v from 'valibot'
import { DOCUMENT } from '../../../../reading/reading'
import { database } from '../../../../database/current'
import { readDevice } from '../../../../database/devices'
import { readStored, revisionOf } from '../../../../database/pieces'
import { send, silence, statusOf } from '../../../../device/devices'
import { mayReach } from '../../../../device/sender'
import { bodyOf, documentOf, idOf, refuse } from '../../../../request'

const finite = v.pipe(v.number(), v.finite())
const Run = v.variant('by', [
  v.strictObject({ by: v.literal('quay'), seconds: finite, pace: finite, document: v.optional(v.unknown()) }),
  v.strictObject({ by: v.literal('alone'), seconds: finite }),
  v.strictObject({ by: v.literal('none') }),
])

/** Sends while a window plays, or by the server alone, or not any more. */
export default defineEventHandler(async event => {
  const run = await bodyOf(event, Run, DOCUMENT)
  const id = idOf(event)
  if (run.by === 'none') {
    silence(id)
    return statusOf(id)
  }
  const db = await database()
  if ((await revisionOf(db, id)) === null) throw refuse(404, 'There’s no such piece.')
  const device = await readDevice(db, id)
  if (!mayReach(device.host)) throw refuse(403, `Nothing can be sent to ${device.host}.`)
  if (run.by === 'quay') {
    const document = run.document === undefined ? null : documentOf(run.document)
    return send(id, document, device, 'quay', { seconds: run.seconds, pace: run.pace })
  }
  const stored = await readStored(db, id)
  if (!stored) throw refuse(404, 'There’s no such piece.')
  return send(id, stored.document, device, 'alone', { seconds: run.seconds, pace: 1 })
})
