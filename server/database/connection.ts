import { openDatabase, type Database } from './client'

let opened: ReturnType<typeof openDatabase> | null = null

/** This process's pool, opened at the first use from `DATABASE_URL`. */
export function useDatabase(): Database {
  if (!opened) {
    const url = process.env.DATABASE_URL
    if (!url) throw new Error('DATABASE_URL is not set: start Jovrel with npm start or npm run demo')
    opened = openDatabase(url)
  }
  return opened.db
}

export async function closeDatabase(): Promise<void> {
  await opened?.close()
  opened = null
}
