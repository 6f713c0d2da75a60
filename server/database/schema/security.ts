import { boolean, index, pgTable, text, uuid } from 'drizzle-orm/pg-core'
import type { LoggedAct } from '#shared/people/accessLog'
import { id, madeAt } from './columns'

/**
 * Who came in, what was taken away and what was refused. Rows are only ever added, and go after a year; people and
 * seminars are named by id alone, so that nothing keeps a row from being what it was.
 */
export const accessLog = pgTable(
  'access_log',
  {
    id: id(),
    at: madeAt(),
    act: text().$type<LoggedAct>().notNull(),
    done: boolean().notNull(),
    personId: uuid(),
    seminarId: uuid(),
    about: text().notNull().default(''),
    client: text().notNull(),
  },
  t => [index().on(t.at), index().on(t.personId)],
)
