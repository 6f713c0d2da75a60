import { logSeldom } from '#server/log'
import type { SQL } from 'drizzle-orm'
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres'
import pg from 'pg'
import { noteQuery } from './queryCount'
import * as schema from './schema'

export type Database = NodePgDatabase<typeof schema>
/** A database or a transaction in it: what services take. */
export type Db = Database | Parameters<Parameters<Database['transaction']>[0]>[0]

/** What is done before a transaction is committed. */
export type BeforeCommit = (tx: Db) => Promise<void>

/** What a connection of a server may take, in milliseconds. Commands that prepare a database have no limits. */
export interface Limits {
  readonly statement: number
  readonly transaction: number // in which a transaction may do nothing
  readonly lock: number // that a statement waits for a lock
  readonly wait: number // for a connection of the pool
}

/**
 * A row that an index points to is in memory as a rule, and costs little more than one of a scan: PostgreSQL's own
 * estimate, 4, is for disks that turn, and would have it read whole tables for the rows of one seminar.
 */
const IN_MEMORY = '-c random_page_cost=1.1'

/**
 * Opens a pool. A connection that breaks (the database restarts, the network goes) is dropped; the next query opens another.
 * `close` waits for running queries.
 */
export function openDatabase(
  url: string,
  connections = 10,
  limits?: Limits,
  beforeCommit?: BeforeCommit,
): { db: Database; close: () => Promise<void> } {
  const pool = new pg.Pool({
    connectionString: url,
    max: connections,
    keepAlive: true,
    options: [process.env.PGOPTIONS, IN_MEMORY].join(' '),
    ...(limits && {
      statement_timeout: limits.statement,
      idle_in_transaction_session_timeout: limits.transaction,
      lock_timeout: limits.lock,
      connectionTimeoutMillis: limits.wait,
    }),
  })
  // a connection that breaks would end the process were nobody listening: an idle one is reported by the pool, too, and
  // one that is lent, between two queries of a transaction, by itself alone
  pool.on('error', () => {})
  pool.on('connect', client => {
    oneAfterAnother(client)
    client.on('error', error => logSeldom('database', error))
  })
  const db = drizzle(pool, { schema, casing: 'snake_case', logger: { logQuery: noteQuery } })
  if (beforeCommit) endWith(db, beforeCommit)
  return { db, close: () => pool.end() }
}

/** Does one thing more at the end of every transaction, as its part. */
function endWith(db: Database, beforeCommit: BeforeCommit): void {
  const begin = db.transaction.bind(db)
  db.transaction = (act, config) =>
    begin(async tx => {
      const answer = await act(tx)
      if (config?.accessMode !== 'read only') await beforeCommit(tx)
      return answer
    }, config)
}

/**
 * Sends the queries of one connection one after another. A transaction has one connection, and what it reads side by
 * side would otherwise be put in a queue of the driver's, which its next version no longer has.
 */
function oneAfterAnother(client: pg.PoolClient): void {
  const send = client.query.bind(client) as (...query: unknown[]) => unknown // one signature for its many
  let last: Promise<unknown> = Promise.resolve()
  const queued = (...query: unknown[]): unknown => {
    // with a callback the pool asks for itself, one query for each connection it lends
    if (typeof query.at(-1) === 'function') return send(...query)
    last = last.catch(() => {}).then(() => send(...query))
    return last
  }
  client.query = queued as typeof client.query // the same but for the order
}

/** Rows of a query written as SQL. Times come as PostgreSQL writes them, numbers of more than 53 bits as text. */
export async function rowsOf<Row extends Record<string, unknown>>(db: Db, query: SQL): Promise<Row[]> {
  return (await db.execute(query)).rows as Row[]
}
