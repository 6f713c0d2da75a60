import { readdirSync, readFileSync } from 'node:fs'
import { basename, join } from 'node:path'
import { brotliDecompressSync } from 'node:zlib'
import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { keepDue } from '#server/services/standing/keepStandings'
import { startServices } from '#server/services/startServices'
import { testDatabase } from '#server/testing/database'
import { rowsOf } from './client'

type Values = Record<string, unknown>
type Tables = ReadonlyMap<string, readonly Values[]>

const folder = join(import.meta.dirname, 'releases')
const releases = readdirSync(folder).filter(name => name.endsWith('.sql.br'))

/** What a later release keeps otherwise, and why that loses nothing. */
const KEPT_OTHERWISE: Readonly<Record<string, string>> = {
  'rows of expectations differ':
    'reviews asked are those that are assigned; of teammates everyone is reviewed',
  'rubric_criteria.outcome_id is gone': 'the one outcome of a criterion is a row of criterion_outcomes',
}

describe.each(releases)('a database of %s', release => {
  let database: Awaited<ReturnType<typeof testDatabase>>
  let before: Tables
  beforeAll(async () => {
    const dump = brotliDecompressSync(readFileSync(join(folder, release))).toString()
    database = await testDatabase({ dump })
    before = await everything()
    await database.migrate()
  })
  afterAll(() => database.drop())

  /** Every row of every table, as PostgreSQL writes it down. */
  async function everything(): Promise<Tables> {
    const tables = await rowsOf<{ name: string }>(
      database.db,
      sql`select tablename as name from pg_tables where schemaname = 'public' order by 1`,
    )
    const all = new Map<string, readonly Values[]>()
    for (const { name } of tables) {
      const rows = await rowsOf<{ row: Values }>(
        database.db,
        sql`select to_jsonb(r) as row from ${sql.identifier(name)} r`,
      )
      all.set(
        name,
        rows.map(r => r.row),
      )
    }
    return all
  }

  /** Rows by what they hold in some columns, in an order of their own. */
  const linesOf = (rows: readonly Values[], columns: readonly string[]) =>
    rows.map(row => JSON.stringify(columns.map(column => row[column]))).sort()

  it(`has people, work and marks in it (${basename(release)})`, () => {
    for (const table of ['enrolments', 'contributions', 'marks', 'allocations', 'page_versions', 'messages'])
      expect(before.get(table)!.length, table).toBeGreaterThan(5)
  })

  it('keeps every row and every value through all migrations', async () => {
    const after = await everything()
    const lost: string[] = []
    for (const [table, rows] of before) {
      const now = after.get(table)
      const columns = Object.keys(rows[0] ?? {})
      const gone = columns.filter(column => !now || !Object.hasOwn(now[0] ?? {}, column))
      const stays = columns.filter(column => !gone.includes(column))
      lost.push(...gone.map(column => `${table}.${column} is gone`))
      if (now && linesOf(rows, stays).join('\n') !== linesOf(now, stays).join('\n'))
        lost.push(`rows of ${table} differ`)
    }
    expect(lost).toEqual(Object.keys(KEPT_OTHERWISE))
  })

  it('gives the figures it gave', async () => {
    startServices()
    await keepDue(database.db, new Date('2026-10-14T08:20:00Z'))
    const figures = await rowsOf(
      database.db,
      sql`select a.title, count(*)::int as people, sum(s.shown)::int as shown, sum(s.words)::int as words,
          count(*) filter (where s.standing = 'ready')::int as ready,
          sum((select count(*) from jsonb_array_elements(s.checks) c where (c ->> 'met')::boolean))::int as met,
          sum(m.points)::int as points, count(m.returned)::int as letters
        from standings s join activities a on a.id = s.activity_id
        left join marks m on m.activity_id = s.activity_id and m.enrolment_id = s.enrolment_id
        group by a.title order by a.title`,
    )
    expect(figures).toMatchSnapshot()
  })
})
