import { databaseReady } from '../database/current'

/** 200 once the database answers, 503 before. */
export default defineEventHandler(event => {
  const ready = databaseReady()
  setResponseStatus(event, ready ? 200 : 503)
  return { ready }
})
