import { sql } from 'drizzle-orm'
import { customType, timestamp, uuid } from 'drizzle-orm/pg-core'
import { v7 } from 'uuid'

/** Ids are UUIDv7: they sort by the time they were made, so that indexes grow at their end. */
export const id = () =>
  uuid()
    .primaryKey()
    .$defaultFn(() => v7())
export const instant = () => timestamp({ withTimezone: true, mode: 'date' })
export const madeAt = () =>
  instant()
    .notNull()
    .default(sql`now()`)
export const bytes = customType<{ data: Buffer }>({ dataType: () => 'bytea' })
