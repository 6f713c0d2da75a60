import { sql } from 'drizzle-orm'
import type { Db } from './client'

/** All advisory locks there are: what is held by each, until the transaction ends. Their numbers keep equal words apart. */
const LOCKS = {
  write: 0, // one write of one person, by its key: sent twice at once, the second waits for the first
  draft: 1, // the one text somebody has begun at one place
  numbering: 2, // the next number in an activity
  terms: 3, // the terms of a lexicon: no two of one name
  pages: 4, // the pages of a wiki: their order and titles
  firstAccount: 5, // of two first accounts at once, one is first
} as const
export type LockName = keyof typeof LOCKS

/** Waits until no other transaction holds the lock of this name on this thing, and holds it. */
export async function lock(tx: Db, name: LockName, on: string): Promise<void> {
  await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${on}, ${LOCKS[name]}))`)
}
