/** The tables. A piece's document is kept whole; every saved state stays as a revision, thinned with age. */
import { index, integer, jsonb, pgTable, serial, text, timestamp } from 'drizzle-orm/pg-core'
import type { Piece } from '../../core/piece/schema.ts'

const moment = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' })

export const pieces = pgTable('pieces', {
  id: text('id').primaryKey(),
  title: text('title').notNull(),
  document: jsonb('document').$type<Piece>().notNull(),
  /** Counts up with every save; a save names the one it was made from. */
  revision: integer('revision').notNull(),
  created: moment('created').notNull().defaultNow(),
  changed: moment('changed').notNull().defaultNow(),
  /** When it was deleted; it can be brought back until it is cleared. */
  deleted: moment('deleted'),
})

export const revisions = pgTable(
  'revisions',
  {
    id: serial('id').primaryKey(),
    piece: text('piece')
      .notNull()
      .references(() => pieces.id, { onDelete: 'cascade' }),
    revision: integer('revision').notNull(),
    document: jsonb('document').$type<Piece>().notNull(),
    /** `refused`: made from a revision that was no longer the newest; kept so that nothing is lost. */
    state: text('state').$type<'saved' | 'refused'>().notNull(),
    at: moment('at').notNull().defaultNow(),
  },
  table => [index('revisions_piece').on(table.piece, table.revision)],
)
