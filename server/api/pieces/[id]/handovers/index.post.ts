import * as v from 'valibot'
import { FORMATS } from '../../../../../core/formats/export/formats'
import { database, wrote } from '../../../../database/current'
import { handOver } from '../../../../database/handovers'
import { readStored } from '../../../../database/pieces'
import { bodyOf, idOf, refuse } from '../../../../request'

const number = v.pipe(v.number(), v.finite())
const Making = v.strictObject({
  revision: v.number(),
  lent: v.pipe(
    v.array(
      v.strictObject({
        dial: v.pipe(v.string(), v.maxLength(40)),
        says: v.pipe(v.string(), v.trim(), v.minLength(1, 'Every dial needs a label.'), v.maxLength(60)),
        low: number,
        high: number,
      }),
    ),
    v.maxLength(40),
  ),
  formats: v.pipe(v.array(v.picklist(Object.keys(FORMATS))), v.maxLength(20)),
  until: v.nullable(v.pipe(v.string(), v.isoTimestamp())),
})

/** Hands a piece over as it stands saved. The token is told in the answer, and never again. */
export default defineEventHandler(async event => {
  const { revision, lent, formats, until } = await bodyOf(event, Making)
  const db = await database()
  const id = idOf(event)
  const stored = await readStored(db, id)
  if (!stored) throw refuse(404, 'There’s no such piece.')
  if (stored.revision !== revision) throw refuse(409, 'The piece was just changed. Try again.')
  for (const l of lent) {
    const dial = Object.hasOwn(stored.document.dials, l.dial) ? stored.document.dials[l.dial] : undefined
    if (!dial) throw refuse(422, `The dial ${l.says} is no longer in the piece.`)
    if (!(l.low < l.high) || l.low < dial.low || l.high > dial.high)
      throw refuse(422, `${l.says} can be limited to between ${dial.low} and ${dial.high}, the lower first.`)
  }
  if (new Set(lent.map(l => l.dial)).size < lent.length) throw refuse(422, 'A dial is named twice.')
  const token = await handOver(db, id, stored.document, {
    lent,
    formats,
    until: until === null ? null : new Date(until),
  })
  wrote()
  setResponseStatus(event, 201)
  return { token }
})
