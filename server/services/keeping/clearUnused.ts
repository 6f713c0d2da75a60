import { and, eq, isNotNull, lt, or, sql, type SQL } from 'drizzle-orm'
import type { PgTable } from 'drizzle-orm/pg-core'
import { rowsOf, type Database } from '#server/database/client'
import {
  addressLinks,
  idempotencyRecords,
  mailroomMessages,
  mails,
  notices,
  pageWriters,
  passkeyChallenges,
  passwordLinks,
  recordMarkers,
  sessions,
  signInSteps,
} from '#server/database/schema'

const DAY = 86_400_000 // milliseconds
const AT_ONCE = 5000 // rows, so that nobody waits long for what is being removed

const days = (name: string, usual: number): number => {
  const given = Number(process.env[name] ?? usual)
  return Number.isInteger(given) && given > 0 ? given : usual
}

/**
 * Removes what is of no further use: answers kept for a write that may be sent again (a browser may wait as long without a
 * connection), sessions and links that have ended, what was told and mailed long ago.
 *
 * @param now real time
 * @returns how many rows there were
 */
export async function clearUnused(db: Database, now: Date): Promise<number> {
  const ago = (n: number) => new Date(now.getTime() - n * DAY)
  const mailed = ago(days('JOVREL_KEEP_MAILS_DAYS', 90))
  const unused: ReadonlyArray<readonly [PgTable, SQL]> = [
    [idempotencyRecords, lt(idempotencyRecords.madeAt, ago(30))],
    [sessions, or(lt(sessions.expiresAt, ago(30)), lt(sessions.revokedAt, ago(30)))!],
    [passwordLinks, or(lt(passwordLinks.expiresAt, ago(1)), isNotNull(passwordLinks.usedAt))!],
    [addressLinks, lt(addressLinks.expiresAt, ago(1))],
    [signInSteps, lt(signInSteps.expiresAt, ago(1))],
    [passkeyChallenges, lt(passkeyChallenges.expiresAt, ago(1))],
    [pageWriters, lt(pageWriters.seenAt, ago(1))],
    [recordMarkers, lt(recordMarkers.seenAt, ago(1))],
    [notices, lt(notices.madeAt, ago(days('JOVREL_KEEP_NOTICES_DAYS', 400)))],
    [mails, and(eq(mails.state, 'sent'), lt(mails.sentAt, mailed))!],
    [mailroomMessages, lt(mailroomMessages.receivedAt, mailed)],
  ]
  let removed = 0
  for (const [table, isUnused] of unused) removed += await removeAll(db, table, isUnused)
  return removed
}

async function removeAll(db: Database, table: PgTable, isUnused: SQL): Promise<number> {
  for (let removed = 0; ;) {
    const gone = await rowsOf(
      db,
      sql`delete from ${table} where ctid = any (array(select ctid from ${table} where ${isUnused} limit ${AT_ONCE})) returning 1`,
    )
    removed += gone.length
    if (gone.length < AT_ONCE) return removed
  }
}
