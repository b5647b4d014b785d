import { database } from '../../database/current'
import { listPieces } from '../../database/pieces'

/** The pieces in the harbour, newest change first. */
export default defineEventHandler(async () => listPieces(await database()))
