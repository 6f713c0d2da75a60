import { and, eq } from 'drizzle-orm'
import type { Database, Db } from '#server/database/client'
import { lock } from '#server/database/locks'
import { idempotencyRecords } from '#server/database/schema'
import type { Enrolment } from '#server/access/seminar'

/**
 * Does a write once for its key. The same key again, from the same person, gets the first answer: also when the two
 * arrive at the same instant (an advisory lock lets the second wait for the first). Write and idempotency record share a transaction.
 */
export function withIdempotency<T>(
  db: Database,
  actor: Enrolment,
  key: string,
  write: (tx: Db) => Promise<T>,
): Promise<T> {
  return db.transaction(async tx => {
    await lock(tx, 'write', `${actor.id}:${key}`)
    const [idempotencyRecord] = await tx
      .select()
      .from(idempotencyRecords)
      .where(and(eq(idempotencyRecords.enrolmentId, actor.id), eq(idempotencyRecords.key, key)))
    if (idempotencyRecord) return idempotencyRecord.answer as T
    const answer = await write(tx)
    await tx
      .insert(idempotencyRecords)
      .values({ enrolmentId: actor.id, key, seminarId: actor.seminarId, answer })
    return answer
  })
}
