/** The tables. A piece's document is kept whole and packed; every saved state stays as a revision, thinned with age. */
import { customType, index, integer, jsonb, pgTable, serial, text, timestamp } from 'drizzle-orm/pg-core'
import type { Device } from '../../core/piece/device'
import type { DialLoan } from '../../core/piece/lent'

const moment = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' })
const bytes = customType<{ data: Uint8Array }>({ dataType: () => 'bytea' })

export const pieces = pgTable('pieces', {
  id: text('id').primaryKey(),
  title: text('title').notNull(),
  /** The document as JSON, packed; null only where it still lies in `document`. */
  packed: bytes('packed'),
  /** Where the first versions of Open Tide kept it; packed when the database is opened. */
  document: jsonb('document'),
  /** Counts up with every save; a save names the one it was made from. */
  revision: integer('revision').notNull(),
  created: moment('created').notNull().defaultNow(),
  changed: moment('changed').notNull().defaultNow(),
  /** When it was deleted; it can be brought back until it is cleared. */
  deleted: moment('deleted'),
  /** Where it lies in the harbour; empty where it lies with all the others. */
  folder: text('folder').notNull().default(''),
})

export const revisions = pgTable(
  'revisions',
  {
    id: serial('id').primaryKey(),
    piece: text('piece')
      .notNull()
      .references(() => pieces.id, { onDelete: 'cascade' }),
    revision: integer('revision').notNull(),
    packed: bytes('packed'),
    document: jsonb('document'),
    /** `refused`: made from a revision that was no longer the newest; kept so that nothing is lost. */
    state: text('state').$type<'saved' | 'refused'>().notNull(),
    /** The save's own name: one that is repeated, since its answer was lost, is known again. */
    save: text('save'),
    at: moment('at').notNull().defaultNow(),
  },
  table => [
    index('revisions_piece').on(table.piece, table.revision),
    index('revisions_save').on(table.piece, table.save),
  ],
)

/** Pictures that pieces show, by their hash. */
export const assets = pgTable('assets', {
  hash: text('hash').primaryKey(),
  type: text('type').notNull(),
  bytes: bytes('bytes').notNull(),
  at: moment('at').notNull().defaultNow(),
})

/** What was handed over: a piece as it stood then, the dials that may be turned, what may be taken away. */
export const handovers = pgTable(
  'handovers',
  {
    id: serial('id').primaryKey(),
    /** The SHA-256 of its token, in hexadecimal; the token itself is kept nowhere. */
    hash: text('hash').notNull().unique(),
    piece: text('piece')
      .notNull()
      .references(() => pieces.id, { onDelete: 'cascade' }),
    packed: bytes('packed').notNull(),
    lent: jsonb('lent').$type<DialLoan[]>().notNull(),
    /** The formats that may be taken away. */
    formats: jsonb('formats').$type<string[]>().notNull(),
    /** Values of dials as the receiver left them, by the dial's id. */
    tuned: jsonb('tuned').$type<Record<string, number>>().notNull().default({}),
    tunedAt: moment('tuned_at'),
    made: moment('made').notNull().defaultNow(),
    /** Until when it opens; null for as long as it is not withdrawn. */
    until: moment('until'),
    withdrawn: moment('withdrawn'),
  },
  table => [index('handovers_piece').on(table.piece)],
)

/** Patterns: drives with all that they need, to be put on other parts. */
export const patterns = pgTable('patterns', {
  id: text('id').primaryKey(),
  title: text('title').notNull(),
  packed: bytes('packed').notNull(),
  made: moment('made').notNull().defaultNow(),
})

/** What of a piece goes to a device. */
export const devices = pgTable('devices', {
  piece: text('piece')
    .primaryKey()
    .references(() => pieces.id, { onDelete: 'cascade' }),
  device: jsonb('device').$type<Device>().notNull(),
})
