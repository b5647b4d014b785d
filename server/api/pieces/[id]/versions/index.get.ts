import { database } from '../../../../database/current'
import { listVersions } from '../../../../database/pieces'
import { idOf, refuse } from '../../../../request'

/** Every kept state of a piece, refused ones too, the newest first. */
export default defineEventHandler(async event => {
  const versions = await listVersions(await database(), idOf(event))
  if (!versions) throw refuse(404, 'There’s no such piece. It may have been deleted.')
  return versions
})
