import { migrate } from 'drizzle-orm/node-postgres/migrator'
import { openDatabase } from './client'

/** Brings a database to the current schema. Safe to run again. */
export async function migrateDatabase(url: string, folder: string): Promise<void> {
  const { db, close } = openDatabase(url, 1)
  try {
    await migrate(db, { migrationsFolder: folder })
  } finally {
    await close()
  }
}
