import { drizzle, type PostgresJsDatabase } from 'drizzle-orm/postgres-js'
import postgres from 'postgres'
import * as schema from './schema'

export type Database = PostgresJsDatabase<typeof schema>
/** A database or a transaction in it: what services take. */
export type Db = Database | Parameters<Parameters<Database['transaction']>[0]>[0]

/** Opens a pool. `close` waits for running queries. */
export function openDatabase(url: string, connections = 10): { db: Database; close: () => Promise<void> } {
  const client = postgres(url, { max: connections, onnotice: () => {} })
  return { db: drizzle(client, { schema, casing: 'snake_case' }), close: () => client.end({ timeout: 5 }) }
}
