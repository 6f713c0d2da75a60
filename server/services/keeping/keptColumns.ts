import { getTableColumns, getTableName } from 'drizzle-orm'
import { getTableConfig } from 'drizzle-orm/pg-core'
import { columnName } from '#server/database/proposedValues'
import { type KeptTable } from './keptTables'

export const nameOf = (kept: Pick<KeptTable, 'table'>): string => getTableName(kept.table)
/** Names of a table's columns as the database and an archive have them, with their types. */
export const columnsOf = ({
  table,
}: Pick<KeptTable, 'table'>): Array<{ readonly name: string; readonly type: string }> =>
  Object.values(getTableColumns(table)).map(c => ({ name: columnName(c), type: c.getSQLType() }))
/** Columns of a table that point to another, and to which. */
export const pointersOf = ({
  table,
}: Pick<KeptTable, 'table'>): Array<{ readonly column: string; readonly to: string }> =>
  getTableConfig(table).foreignKeys.flatMap(f => {
    const { columns, foreignTable } = f.reference()
    return columns.map(c => ({ column: columnName(c), to: getTableName(foreignTable) }))
  })
/** The order in which rows leave: the same every time. */
export const keyOf = ({ table }: Pick<KeptTable, 'table'>): string[] => {
  const { primaryKeys, columns } = getTableConfig(table)
  return primaryKeys.length > 0
    ? primaryKeys[0]!.columns.map(columnName)
    : columns.filter(c => c.primary).map(columnName)
}
