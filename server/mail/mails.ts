import { and, eq, lte, sql } from 'drizzle-orm'
import type { Database, Db } from '#server/database/client'
import { mails, persons } from '#server/database/schema'
import { slicesOf } from '#server/database/slices'
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
  for (const some of slicesOf(list)) {
    await db
      .insert(mails)
      .values(
        some.map(m => ({
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

const MINUTE = 60_000 // milliseconds
/** Seconds to the second try; each later one waits twice as long, an hour at the most. Tests shorten it. */
const RETRY_SECONDS = Number(process.env.JOVREL_MAIL_RETRY_SECONDS ?? 10)
const LONGEST_WAIT = 3600 // seconds
/** From then on a mail that could not be handed over is kept as refused. */
const GIVEN_UP_AFTER = 5 * 1440 * MINUTE

/** Hands over what waits and may be tried, one mail after another; of several processes each has another. @returns how many went out */
export async function sendWaiting(db: Database, isStopping: () => boolean): Promise<number> {
  for (let sent = 0; ;) {
    const outcome = isStopping() ? 'none' : await sendNext(db)
    if (outcome === 'none') return sent
    if (outcome === 'sent') sent++
  }
}

/**
 * Sends the mail that has waited longest, while its row is locked: a process that dies leaves it waiting. A server that does
 * not answer has it tried again later and later; one that refuses it for good has it kept with the reason.
 */
async function sendNext(db: Database): Promise<'none' | 'sent' | 'failed'> {
  return db.transaction(async tx => {
    const [mail] = await tx
      .select()
      .from(mails)
      .where(and(eq(mails.state, 'waiting'), lte(mails.nextAt, sql`now()`)))
      .orderBy(mails.nextAt)
      .limit(1)
      .for('update', { skipLocked: true })
    if (!mail) return 'none'
    const tries = mail.tries + 1
    try {
      await handOver(mail)
    } catch (error) {
      const isOver = isRefusal(error) || Date.now() - mail.madeAt.getTime() > GIVEN_UP_AFTER
      const wait = Math.min(RETRY_SECONDS * 2 ** mail.tries, LONGEST_WAIT)
      await tx
        .update(mails)
        .set({
          tries,
          lastError: error instanceof Error ? error.message.slice(0, 500) : String(error),
          nextAt: new Date(Date.now() + wait * 1000),
          ...(isOver && { state: 'refused' as const }),
        })
        .where(eq(mails.id, mail.id))
      return 'failed'
    }
    await tx
      .update(mails)
      .set({ state: 'sent', sentAt: new Date(), tries, lastError: null })
      .where(eq(mails.id, mail.id))
    return 'sent'
  })
}
