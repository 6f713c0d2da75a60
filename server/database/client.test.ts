import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { testDatabase } from '#server/testing/database'
import { until } from '#server/testing/until'
import { rowsOf } from './client'

describe('a transaction', () => {
  let database: Awaited<ReturnType<typeof testDatabase>>
  beforeAll(async () => {
    database = await testDatabase({ empty: true })
  })
  afterAll(() => database.drop())

  it('answers what is asked side by side, each with its own, and asks the database one after another', async () => {
    const warnings: string[] = []
    const listen = (warning: Error) => warnings.push(warning.message)
    process.on('warning', listen)
    const answers = await database.db.transaction(tx =>
      Promise.all(
        [1, 2, 3, 4, 5].map(n => rowsOf<{ n: number }>(tx, sql`select ${n}::int as n, pg_sleep(0.01)::text`)),
      ),
    )
    process.off('warning', listen)
    expect(answers.map(rows => rows[0]!.n)).toEqual([1, 2, 3, 4, 5])
    expect(warnings).toEqual([])
  })
  it('that fails at one of them is rolled back, and the connection serves the next', async () => {
    await database.db.execute(sql`create table kept (n int)`)
    const failing = database.db.transaction(tx =>
      Promise.all([
        tx.execute(sql`insert into kept values (1)`),
        tx.execute(sql`select 1 / 0`),
        tx.execute(sql`insert into kept values (2)`),
      ]),
    )
    await expect(failing).rejects.toThrow()
    expect(await rowsOf(database.db, sql`select n from kept`)).toEqual([])
  })
  it('whose connection breaks while nothing is asked fails alone: the process goes on, and so does the pool', async () => {
    const uncaught: unknown[] = []
    const told = vi.spyOn(console, 'error').mockImplementation(() => {})
    const listen = (error: unknown) => uncaught.push(error)
    process.on('uncaughtException', listen)
    const broken = database.db.transaction(async tx => {
      const [own] = await rowsOf<{ pid: number }>(tx, sql`select pg_backend_pid() as pid`)
      await database.db.execute(sql`select pg_terminate_backend(${own!.pid}, 10000)`)
      await until('the break is heard of', async () => told.mock.calls.length + uncaught.length > 0)
      return rowsOf(tx, sql`select 1`)
    })
    await expect(broken).rejects.toThrow()
    process.off('uncaughtException', listen)
    told.mockRestore()
    expect(uncaught).toEqual([])
    expect(await rowsOf(database.db, sql`select 2 as n`)).toEqual([{ n: 2 }])
  })
})
