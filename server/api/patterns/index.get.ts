import { database } from '../../database/current'
import { listPatterns } from '../../database/patterns'

/** The patterns that were saved, the newest first. */
export default defineEventHandler(async () => listPatterns(await database()))
