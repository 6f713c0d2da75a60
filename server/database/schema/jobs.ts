import { index, integer, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core'
import type { DueTask } from '#shared/people/dueFailures'
import { instant } from './columns'
import { seminars } from './people'

/** Work that was due and could not be done: why, and when it is tried again. A row goes once it is done. */
export const dueFailures = pgTable(
  'due_failures',
  {
    task: text().$type<DueTask>().notNull(),
    subjectId: uuid().notNull(), // the activity, mark, contribution, rule or conversation it is about
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id, { onDelete: 'cascade' }),
    reason: text().notNull(), // a code: never a text or a parameter
    tries: integer().notNull(),
    firstAt: instant().notNull(),
    lastAt: instant().notNull(),
    nextAt: instant().notNull(),
  },
  t => [primaryKey({ columns: [t.task, t.subjectId] }), index().on(t.seminarId)],
)
