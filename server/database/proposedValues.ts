import { getTableColumns, sql, type SQL } from 'drizzle-orm'
import type { PgTable } from 'drizzle-orm/pg-core'

/** A column as the database calls it. */
export const columnName = (column: { readonly name: string }): string =>
  column.name.replace(/[A-Z]/g, c => `_${c.toLowerCase()}`)

/** For an upsert: every column but the id, each with the value of the row that could not be inserted. */
export function proposedValues(table: PgTable): Record<string, SQL> {
  const columns = Object.entries(getTableColumns(table)).filter(([name]) => name !== 'id')
  return Object.fromEntries(
    columns.map(([name, column]) => [name, sql`excluded.${sql.identifier(columnName(column))}`]),
  )
}
