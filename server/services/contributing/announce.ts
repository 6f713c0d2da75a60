import { sql } from 'drizzle-orm'
import type { Db } from '#server/database/client'

export const CHANNEL = 'jovrel_live'
/** That something about one contribution has changed; what of it anyone gets, every process decides for its own readers. */
export interface Announcement {
  readonly activityId: string
  readonly id: string | null
} // null: all of it is to be fetched anew

/** Tells every process, once the transaction is through and not at all if it fails. */
export async function announce(tx: Db, { activityId, id }: Announcement): Promise<void> {
  await tx.execute(sql`select pg_notify(${CHANNEL}, ${JSON.stringify({ activityId, id })})`)
}
