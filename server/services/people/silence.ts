import { and, eq, isNotNull, sql, type SQL } from 'drizzle-orm'
import type { PgColumn } from 'drizzle-orm/pg-core'
import type { Actor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { auditTrail, enrolments, messageRules, notices, persons, seminars } from '#server/database/schema'
import { namesOf } from './nameView'

/** That a seminar is not silent: only then anybody is told of anything in it. */
export const isSpeaking = (seminarId: PgColumn): SQL =>
  sql`not exists (select 1 from seminars silent where silent.id = ${seminarId} and silent.silent_since is not null)`

/** That it is neither silent nor closed: only then anything happens in it by itself. */
export const isRunning = (seminarId: PgColumn): SQL =>
  sql`exists (select 1 from seminars running where running.id = ${seminarId} and running.silent_since is null and running.state = 'active')`

/**
 * Silences a seminar that was just brought back: standing rules are off, what people were told before is not mailed, and
 * what is due waits until an instructor says so. Whoever brought it back is let in, and the history says it.
 */
export async function silenceRestored(db: Db, seminarId: string, personId: string, now: Date): Promise<void> {
  await db.update(seminars).set({ silentSince: now }).where(eq(seminars.id, seminarId))
  await db.update(messageRules).set({ on: false }).where(eq(messageRules.seminarId, seminarId))
  await db.update(notices).set({ mailedAt: now }).where(eq(notices.seminarId, seminarId))
  const inIt = and(eq(enrolments.seminarId, seminarId), eq(enrolments.personId, personId))
  const [known] = await db.select().from(enrolments).where(inIt)
  const [person] = await db.select().from(persons).where(eq(persons.id, personId))
  const [entered] =
    known?.state === 'active'
      ? [known]
      : await db
          .insert(enrolments)
          .values({
            seminarId,
            personId,
            ...namesOf(person!),
            role: 'instructor',
            givenToAddress: false,
            joinedAt: now,
          })
          .onConflictDoUpdate({
            target: [enrolments.seminarId, enrolments.personId],
            set: { role: 'instructor', state: 'active', givenToAddress: false },
          })
          .returning()
  await db.insert(auditTrail).values({
    seminarId,
    actorId: entered!.id,
    at: now,
    act: 'archiveRestored',
    subjectId: seminarId,
    detail: { letIn: known?.state !== 'active' },
  })
}

/** Lets a seminar that was brought back speak again. What had become due meanwhile happens within a minute. */
export async function endSilence(db: Database, actor: Actor, now: Date): Promise<void> {
  const { id } = actor.seminar
  await db.transaction(async tx => {
    const ended = await tx
      .update(seminars)
      .set({ silentSince: null })
      .where(and(eq(seminars.id, id), isNotNull(seminars.silentSince)))
      .returning({ id: seminars.id })
    if (ended.length > 0)
      await tx
        .insert(auditTrail)
        .values({ seminarId: id, actorId: actor.enrolment.id, at: now, act: 'silenceEnded', subjectId: id })
  })
}
