import { LARGEST_PICTURE } from '../../../core/formats/pictures/head'
import { keepAsset } from '../../database/assets'
import { database, roomFor, wrote } from '../../database/current'
import { bytesOf, refuse } from '../../request'

/** Keeps a picture, the whole of it or nothing, and gives the hash by which it is found. */
export default defineEventHandler(async event => {
  const bytes = await bytesOf(event, LARGEST_PICTURE, 'A picture can have up to 16 MB.')
  if (!(await roomFor(bytes.length))) throw refuse(507, 'The disk is full: the picture wasn’t saved.')
  const kept = await keepAsset(await database(), bytes)
  if ('says' in kept) throw refuse(422, kept.says)
  wrote()
  setResponseStatus(event, 201)
  return kept
})
