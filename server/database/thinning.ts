/** Old states thin out as new ones come: all of ten minutes, one a minute for an hour, one an hour for a day, then one a day. */
import { sql } from 'drizzle-orm'
import type { Database } from './database'
import { revisions } from './schema'

const STEPS = [
  ['10 minutes', 'minute'],
  ['1 hour', 'hour'],
  ['1 day', 'day'],
] as const

/** Refused states thin alike, among themselves; the newest of each kind stays. One pass over the piece's own states. */
export async function thin(db: Pick<Database, 'execute'>, piece: string): Promise<void> {
  for (const [age, unit] of STEPS) {
    await db.execute(sql`
      delete from ${revisions} where ${revisions.id} in (
        select id from (
          select id, at, lead(at) over (partition by state order by id) as later
          from ${revisions} where piece = ${piece} and at < now() - ${age}::interval
        ) kept where date_trunc(${unit}, later) = date_trunc(${unit}, at))`)
  }
}
