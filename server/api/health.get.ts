import { databaseReady } from '../database/current'

/** 200 once the database answers, 503 before. */
export default defineEventHandler(async event => {
  const ready = await databaseReady()
  setResponseStatus(event, ready ? 200 : 503)
  return { ready }
})
