import { database } from '../../../../database/current'
import { readVersion } from '../../../../database/pieces'
import { idOf, numberOf, refuse } from '../../../../request'

/** The document of a kept state. */
export default defineEventHandler(async event => {
  const document = await readVersion(await database(), idOf(event), numberOf(event, 'version'))
  if (!document) throw refuse(404, 'This version is no longer kept.')
  return { document }
})
