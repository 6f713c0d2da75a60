import { and, eq, inArray, isNull, lt, or, sql } from 'drizzle-orm'
import type { Database, Db } from '#server/database/client'
import { mails, persons } from '#server/database/schema'
import { handOver, isRefusal } from './mailServer'

interface NewMail {
  readonly person: Pick<typeof persons.$inferSelect, 'id' | 'email'>
  readonly seminarId: string | null
  readonly key: string // the reason: one mail for each
  readonly subject: string
  readonly text: string
}

/** Writes a mail into the outgoing post, in the transaction of what it tells; a second for the same reason is not written. */
export async function mailTo(db: Db, mail: NewMail): Promise<void> {
  await mailToAll(db, [mail])
}

export async function mailToAll(db: Db, list: readonly NewMail[]): Promise<void> {
  for (let i = 0; i < list.length; i += 500) {
    await db
      .insert(mails)
      .values(
        list.slice(i, i + 500).map(m => ({
          seminarId: m.seminarId,
          personId: m.person.id,
          key: m.key,
          to: m.person.email,
          subject: m.subject,
          text: m.text,
        })),
      )
      .onConflictDoNothing()
  }
}

/** Mails that wait and that nobody has in the queue; of several processes one gets each. Those stuck for minutes are taken again. */
export async function claimWaiting(db: Database): Promise<string[]> {
  const rows = await db
    .update(mails)
    .set({ queuedAt: sql`now()` })
    .where(
      and(
        eq(mails.state, 'waiting'),
        or(isNull(mails.queuedAt), lt(mails.queuedAt, sql`now() - interval '5 minutes'`)),
      ),
    )
    .returning({ id: mails.id })
  return rows.map(r => r.id)
}

/**
 * Sends one mail. A server that does not answer leaves it waiting and throws, so that the queue tries again; one that
 * refuses it for good has it kept with the reason.
 */
export async function sendMail(db: Database, id: string): Promise<void> {
  const [mail] = await db.select().from(mails).where(eq(mails.id, id))
  if (!mail || mail.state !== 'waiting') return
  try {
    await handOver(mail)
  } catch (error) {
    const lastError = error instanceof Error ? error.message.slice(0, 500) : String(error)
    const refused = isRefusal(error)
    await db
      .update(mails)
      .set({ tries: mail.tries + 1, lastError, ...(refused && { state: 'refused' as const }) })
      .where(eq(mails.id, id))
    if (refused) return
    throw error
  }
  await db
    .update(mails)
    .set({ state: 'sent', sentAt: new Date(), tries: mail.tries + 1, lastError: null })
    .where(and(eq(mails.id, id), inArray(mails.state, ['waiting'])))
}
