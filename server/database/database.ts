/** The database as it is to all who read and write it, wherever it lies. */
import type { drizzle } from 'drizzle-orm/pglite'
import type * as schema from './schema'

export type Database = ReturnType<typeof drizzle<typeof schema>>
