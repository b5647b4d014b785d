import { LARGEST_FILE, unpackPiece } from '../../../core/formats/piece-file/piece-file'
import { hashOf } from '../../database/assets'
import { database, roomFor, wrote } from '../../database/current'
import { takeIn } from '../../database/pieces'
import { bytesOf, refuse } from '../../request'

/** Takes a piece file in: the piece and all its pictures in one step, or nothing. */
export default defineEventHandler(async event => {
  const bytes = await bytesOf(event, LARGEST_FILE, 'A piece file can have up to 64 MB.')
  if (!(await roomFor(bytes.length * 2))) throw refuse(507, 'The disk is full: nothing was imported.')
  const read = unpackPiece(bytes, hashOf)
  if ('says' in read) throw refuse(422, `Nothing was imported. ${read.says}`)
  const made = await takeIn(await database(), read)
  wrote()
  setResponseStatus(event, 201)
  return made
})
