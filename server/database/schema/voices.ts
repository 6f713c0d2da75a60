import { integer, pgTable, uuid } from 'drizzle-orm/pg-core'
import { contributions } from './contributing'
import { seminars } from './people'

/** What was counted once in a contribution's own words, of the version it was counted in. */
export const textMeasures = pgTable('text_measures', {
  contributionId: uuid()
    .primaryKey()
    .references(() => contributions.id, { onDelete: 'cascade' }),
  seminarId: uuid()
    .notNull()
    .references(() => seminars.id),
  version: integer().notNull(),
  sentences: integer().notNull(),
  syllables: integer().notNull(),
})
