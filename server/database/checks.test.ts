import { is, sql } from 'drizzle-orm'
import { CasingCache } from 'drizzle-orm/casing'
import { getTableConfig, PgTable } from 'drizzle-orm/pg-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { testDatabase } from '#server/testing/database'
import { rowsOf } from './client'
import * as schema from './schema'

const casing = new CasingCache('snake_case')
const enumerated = Object.values(schema)
  .filter(table => is(table, PgTable))
  .flatMap(table =>
    getTableConfig(table)
      .columns.filter(column => column.enumValues !== undefined)
      .map(column => ({
        table: getTableConfig(table).name,
        column: casing.getColumnCasing(column),
        values: [...column.enumValues!],
      })),
  )

describe('what a column may hold', () => {
  let database: Awaited<ReturnType<typeof testDatabase>>
  beforeAll(async () => {
    database = await testDatabase()
  })
  afterAll(() => database.drop())

  it('is known of many', () => expect(enumerated.length).toBeGreaterThan(20))

  it.each(enumerated)('is held by the database: $table.$column', async ({ table, column, values }) => {
    const checks = await rowsOf<{ said: string }>(
      database.db,
      sql`select pg_get_constraintdef(c.oid) as said from pg_constraint c
        join pg_attribute a on a.attrelid = c.conrelid and a.attnum = any (c.conkey)
        where c.contype = 'c' and c.conrelid = ${table}::regclass and a.attname = ${column}`,
    )
    const held = checks.map(({ said }) =>
      [...said.matchAll(/'([^']*)'::text/g)].map(([, value]) => value!).sort(),
    )
    expect(held.map(values => [...new Set(values)])).toContainEqual(values.sort())
  })
})
