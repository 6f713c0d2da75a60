import { and, desc, eq, inArray, isNull } from 'drizzle-orm'
import type { Actor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { enrolments, notices, persons, seminars } from '#server/database/schema'
import type { NoticeList } from '#shared/messaging/notices'
import { mailToAll } from '#server/mail/mails'
import { ownAddress } from '#server/mail/mailServer'

export interface NewNotice {
  readonly kind: (typeof notices.$inferSelect)['kind']
  readonly activityId: string | null
  readonly text: string // one sentence
  readonly detail: string // what more there is to say, in lines
}

/**
 * Tells people something: a notice for each, and a mail at once for those who want it so. Those who want one mail a day
 * get it with the day's others; those who want none find it in Jovrel.
 *
 * @param path where it leads, for somebody of a given seminar: an activity can be held with several
 */
export async function tell(
  db: Db,
  enrolmentIds: readonly string[],
  notice: NewNotice,
  path: (seminarId: string) => string,
  now: Date,
): Promise<void> {
  if (enrolmentIds.length === 0) return
  const people = await db
    .select({
      enrolmentId: enrolments.id,
      seminarId: enrolments.seminarId,
      id: persons.id,
      email: persons.email,
      givenName: enrolments.givenName,
      mailChoice: persons.mailChoice,
      title: seminars.title,
    })
    .from(enrolments)
    .innerJoin(persons, eq(persons.id, enrolments.personId))
    .innerJoin(seminars, eq(seminars.id, enrolments.seminarId))
    .where(
      and(
        inArray(enrolments.id, [...enrolmentIds]),
        eq(enrolments.state, 'active'),
        isNull(seminars.silentSince),
      ),
    )
  if (people.length === 0) return
  const rows = await db
    .insert(notices)
    .values(
      people.map(p => ({
        seminarId: p.seminarId,
        enrolmentId: p.enrolmentId,
        ...notice,
        madeAt: now,
        mailedAt: p.mailChoice === 'atOnce' ? now : null,
      })),
    )
    .returning({ id: notices.id, enrolmentId: notices.enrolmentId })
  await mailToAll(
    db,
    people
      .filter(p => p.mailChoice === 'atOnce')
      .map(p => ({
        person: p,
        seminarId: p.seminarId,
        key: `notice:${rows.find(r => r.enrolmentId === p.enrolmentId)!.id}`,
        subject: `${p.title}: ${notice.text}`,
        text: `Hello ${p.givenName},\n\n${notice.text}\n${notice.detail ? `\n${notice.detail}\n` : ''}\n${ownAddress()}${path(p.seminarId)}\n\nHow often Jovrel writes to you is your choice: ${ownAddress()}/account\n`,
      })),
  )
}

/** One mail a day, with everything of the day, to those who want it so. */
export async function mailDailyNotices(db: Database, now: Date): Promise<number> {
  return db.transaction(async tx => {
    const rows = await tx
      .select({
        notice: notices,
        personId: persons.id,
        email: persons.email,
        givenName: enrolments.givenName,
        title: seminars.title,
      })
      .from(notices)
      .innerJoin(enrolments, eq(enrolments.id, notices.enrolmentId))
      .innerJoin(persons, eq(persons.id, enrolments.personId))
      .innerJoin(seminars, eq(seminars.id, notices.seminarId))
      .where(
        and(
          isNull(notices.mailedAt),
          eq(persons.mailChoice, 'daily'),
          eq(enrolments.state, 'active'),
          isNull(seminars.silentSince),
        ),
      )
      .orderBy(notices.madeAt)
      .for('update', { of: notices, skipLocked: true })
    const people = new Map(rows.map(r => [r.personId, r]))
    await mailToAll(
      tx,
      [...people.values()].map(p => {
        const own = rows.filter(r => r.personId === p.personId)
        return {
          person: { id: p.personId, email: p.email },
          seminarId: null,
          key: `daily:${own[0]!.notice.id}`,
          subject:
            own.length === 1 ? `${p.title}: ${own[0]!.notice.text}` : `${own.length} things in your seminars`,
          text: `Hello ${p.givenName},\n\n${own.map(r => `- ${r.title}: ${r.notice.text}`).join('\n')}\n\n${ownAddress()}\n\nHow often Jovrel writes to you is your choice: ${ownAddress()}/account\n`,
        }
      }),
    )
    if (rows.length > 0)
      await tx
        .update(notices)
        .set({ mailedAt: now })
        .where(
          inArray(
            notices.id,
            rows.map(r => r.notice.id),
          ),
        )
    return people.size
  })
}

export async function ownNotices(db: Db, { enrolment }: Actor): Promise<NoticeList> {
  const rows = await db
    .select()
    .from(notices)
    .where(eq(notices.enrolmentId, enrolment.id))
    .orderBy(desc(notices.madeAt))
    .limit(100)
  return {
    notices: rows.map(n => ({
      id: n.id,
      kind: n.kind,
      activityId: n.activityId,
      text: n.text,
      detail: n.detail,
      madeAt: n.madeAt.toISOString(),
      seen: n.seenAt !== null,
    })),
  }
}

export async function markNoticesSeen(db: Db, { enrolment }: Actor, now: Date): Promise<void> {
  await db
    .update(notices)
    .set({ seenAt: now })
    .where(and(eq(notices.enrolmentId, enrolment.id), isNull(notices.seenAt)))
}
