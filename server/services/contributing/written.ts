import { sql } from 'drizzle-orm'
import { contributions } from '#server/database/schema'

/** That a contribution was written here: what was taken in from a file is nobody's participation. */
export const isWrittenHere = sql`not (${contributions.detail} ? 'imported')`
