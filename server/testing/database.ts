import { randomBytes } from 'node:crypto'
import { join } from 'node:path'
import pg from 'pg'
import { openDatabase } from '#server/database/client'
import { migrateDatabase } from '#server/database/migrate'

const admin = () => {
  const url = process.env.JOVREL_TEST_DATABASE
  if (!url) throw new Error('JOVREL_TEST_DATABASE is not set: run the tests with npm test')
  return url
}

const migrations = join(import.meta.dirname, '../database/migrations')

/**
 * A database of a test's own: a copy of the seeded one, or with nobody in it; made in a moment and dropped afterwards.
 * @param from.dump statements that fill it instead: a database of an earlier release, which `migrate` brings to this one
 */
export async function testDatabase({ empty = false, dump }: { empty?: boolean; dump?: string } = {}) {
  const name = `t_${randomBytes(6).toString('hex')}`
  const template = empty || dump ? 'template1' : new URL(admin()).pathname.slice(1)
  const root = new URL(admin())
  root.pathname = '/postgres'
  const sql = new pg.Client({ connectionString: root.href })
  await sql.connect()
  // copies of one template wait for each other
  await sql.query('select pg_advisory_lock(4711)')
  await sql.query(`create database "${name}" template "${template}"`)
  await sql.query('select pg_advisory_unlock(4711)')
  const url = new URL(admin())
  url.pathname = `/${name}`
  if (dump) await fill(url.href, dump)
  if (empty) await migrateDatabase(url.href, migrations)
  const { db, close } = openDatabase(url.href, 2)
  return {
    url: url.href,
    db,
    migrate: () => migrateDatabase(url.href, migrations),
    async drop() {
      await close()
      await sql.query(`drop database if exists "${name}" with (force)`)
      await sql.end()
    },
  }
}

async function fill(url: string, dump: string): Promise<void> {
  const sql = new pg.Client({ connectionString: url })
  await sql.connect()
  await sql.query(dump)
  await sql.end()
}
