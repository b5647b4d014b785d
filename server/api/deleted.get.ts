import { database } from '../database/current'
import { listDeleted } from '../database/pieces'

/** Pieces that were deleted in the last 30 days, the latest first. */
export default defineEventHandler(async () => listDeleted(await database()))
