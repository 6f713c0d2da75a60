import { sql, type SQL } from 'drizzle-orm'
import { type KeptTable } from './keptTables'

/** A row as it leaves: every column under its name, as PostgreSQL writes it in JSON. */
export function leaving(kept: KeptTable, seminarId: string): SQL {
  const changed = Object.entries(kept.instead ?? {}).map(([name, as]) => sql`${name}::text, ${as(seminarId)}`)
  const without = (kept.without ?? []).map(name => sql` - ${name}::text`)
  return sql`(to_jsonb(r)${sql.join(without, sql``)}${changed.length > 0 ? sql` || jsonb_build_object(${sql.join(changed, sql`, `)})` : sql``})::text`
}
export const belonging = (kept: KeptTable, seminarId: string): SQL =>
  kept.rows ? kept.rows(seminarId) : sql`${row('seminar_id')} = ${seminarId}`

export const row = (column: string) => sql`r.${sql.identifier(column)}`
