import { randomUUID } from 'node:crypto'
import { and, eq, getTableColumns, ne, or, sql, type SQL } from 'drizzle-orm'
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core'
import { takeNamesOutOf, type Naming } from '#core/people/takeNamesOut'
import { nothingHere, type Actor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import {
  activities,
  allocations,
  annotationTokens,
  auditTrail,
  citations,
  closingAnswers,
  closingSurveys,
  contributionRevisions,
  contributions,
  enrolments,
  excuses,
  extensions,
  feeds,
  files,
  letterReplies,
  mailroomMessages,
  mails,
  marks,
  messages,
  messageThreads,
  notices,
  pageVersions,
  passwordLinks,
  persons,
  prompts,
  passkeyChallenges,
  passkeys,
  recoveryCodes,
  secondFactors,
  signInSteps,
  idempotencyRecords,
  secondMarks,
  sessions,
  addressLinks,
  wikiPages,
} from '#server/database/schema'
import { refusedField } from '#server/http/problem'
import { forgetInAccessLog } from '#server/services/people/accessLog'

const GONE = 'Former'

/**
 * Takes a person out of a seminar for good: their work and every figure stay, nobody can tell whose they were. Name,
 * address and number go; so do the name in what was written to, by and about them, recordings of their voice, and all
 * they could sign in with, unless another seminar needs it.
 *
 * @returns what they are called from now on
 */
export function erasePerson(
  db: Database,
  actor: Actor,
  enrolmentId: string,
  typed: string,
  now: Date,
): Promise<{ name: string }> {
  return db.transaction(async tx => {
    const [row] = await tx
      .select({ person: persons, enrolment: enrolments })
      .from(enrolments)
      .innerJoin(persons, eq(persons.id, enrolments.personId))
      .where(and(eq(enrolments.id, enrolmentId), eq(enrolments.seminarId, actor.seminar.id)))
      .for('update')
    if (!row || row.enrolment.state === 'practice') throw nothingHere()
    if (row.enrolment.role !== 'student')
      throw refusedField(
        'name',
        'role',
        'Only students can be erased: what staff have written and decided stands under their name.',
      )
    if (typed.trim().toLowerCase() !== row.person.name.toLowerCase())
      throw refusedField('name', 'name', `Type “${row.person.name}” as it stands here. It cannot be undone.`)
    const number =
      1 +
      (await tx.$count(
        persons,
        and(eq(persons.givenName, GONE), sql`${persons.email} like '%@erased.invalid'`),
      ))
    const gone = {
      name: `${GONE} student ${number}`,
      givenName: GONE,
      familyName: `student ${number}`,
      email: `${randomUUID()}@erased.invalid`,
      passwordHash: null,
      calendarSecret: null,
      mailChoice: 'never' as const,
      foundsSeminars: false,
      confirmedAt: null,
    }
    await takeOut(tx, actor.seminar.id, enrolmentId, {
      given: row.person.givenName,
      family: row.person.familyName,
    })
    await forget(tx, actor.seminar.id, row.person, enrolmentId, gone)
    await tx
      .update(enrolments)
      .set({ studentNumber: null, namedInFeeds: false })
      .where(eq(enrolments.id, enrolmentId))
    await tx.insert(auditTrail).values({
      seminarId: actor.seminar.id,
      actorId: actor.enrolment.id,
      at: now,
      act: 'personErased',
      subjectId: enrolmentId,
    })
    return { name: gone.name }
  })
}

type Person = typeof persons.$inferSelect

/** The person themselves. Whoever is in another seminar, too, or founds seminars, keeps their account as it is. */
async function forget(
  db: Db,
  seminarId: string,
  person: Person,
  enrolmentId: string,
  gone: typeof persons.$inferInsert,
): Promise<void> {
  await db.delete(notices).where(eq(notices.enrolmentId, enrolmentId))
  await db.delete(feeds).where(eq(feeds.enrolmentId, enrolmentId))
  await db.delete(annotationTokens).where(eq(annotationTokens.enrolmentId, enrolmentId))
  await db.delete(idempotencyRecords).where(eq(idempotencyRecords.enrolmentId, enrolmentId))
  await db.delete(mails).where(and(eq(mails.personId, person.id), eq(mails.seminarId, seminarId)))
  const elsewhere = await db.$count(
    enrolments,
    and(eq(enrolments.personId, person.id), ne(enrolments.id, enrolmentId)),
  )
  if (elsewhere > 0 || person.foundsSeminars) {
    const [other] = await db.insert(persons).values(gone).returning({ id: persons.id })
    await db.update(enrolments).set({ personId: other!.id }).where(eq(enrolments.id, enrolmentId))
    return
  }
  await db.delete(sessions).where(eq(sessions.personId, person.id))
  for (const table of [secondFactors, recoveryCodes, signInSteps, passkeys, passkeyChallenges])
    await db.delete(table).where(eq(table.personId, person.id))
  await forgetInAccessLog(db, person.id, person.email)
  await db.delete(passwordLinks).where(eq(passwordLinks.personId, person.id))
  await db.delete(addressLinks).where(eq(addressLinks.personId, person.id))
  await db.delete(mails).where(eq(mails.personId, person.id))
  await db
    .delete(mailroomMessages)
    .where(sql`${mailroomMessages.to} @> ${JSON.stringify([person.email])}::jsonb`)
  await db.update(persons).set(gone).where(eq(persons.id, person.id))
}

/** Their name, wherever it stands in the seminar. Counts of words stay as they were counted. */
async function takeOut(db: Db, seminarId: string, enrolmentId: string, name: Naming): Promise<void> {
  // a recording is a voice: it goes; what was said in it stays as its transcript
  await db
    .update(files)
    .set({ bytes: Buffer.alloc(0), size: 0 })
    .where(
      and(
        eq(files.madeBy, enrolmentId),
        or(sql`${files.type} like 'audio/%'`, sql`${files.type} like 'video/%'`),
      ),
    )
  const own = await db
    .select({ id: contributions.id })
    .from(contributions)
    .where(eq(contributions.authorId, enrolmentId))
  const near = new Set(own.map(c => c.id))
  const here = (column: PgColumn) => eq(column, seminarId)
  await inTexts(
    db,
    contributions,
    here(contributions.seminarId),
    ['doc', 'html', 'text', 'detail', 'sentBack'],
    r => near.has(r.id as string) || near.has(r.parentId as string),
    name,
  )
  await inTexts(
    db,
    contributionRevisions,
    here(contributionRevisions.seminarId),
    ['doc', 'html', 'text'],
    r => near.has(r.contributionId as string),
    name,
  )
  await inTexts(
    db,
    marks,
    here(marks.seminarId),
    ['letter', 'letterText', 'markerNote', 'overrideReason', 'excusedFrom', 'returned', 'before'],
    r => r.enrolmentId === enrolmentId,
    name,
  )
  await inTexts(
    db,
    letterReplies,
    here(letterReplies.seminarId),
    ['doc', 'html'],
    r => r.enrolmentId === enrolmentId,
    name,
  )
  await inTexts(
    db,
    citations,
    here(citations.seminarId),
    ['exact'],
    r => near.has(r.contributionId as string),
    name,
  )
  await inTexts(
    db,
    secondMarks,
    here(secondMarks.seminarId),
    ['remark'],
    r => r.enrolmentId === enrolmentId,
    name,
  )
  await inTexts(
    db,
    allocations,
    here(allocations.seminarId),
    ['setAsideReason', 'answerDoc', 'answerHtml'],
    r => r.subjectId === enrolmentId || r.reviewerId === enrolmentId,
    name,
  )
  await inTexts(db, excuses, here(excuses.seminarId), ['reason'], r => r.enrolmentId === enrolmentId, name)
  await inTexts(
    db,
    extensions,
    here(extensions.seminarId),
    ['reason'],
    r => r.enrolmentId === enrolmentId,
    name,
  )
  await inTexts(db, notices, here(notices.seminarId), ['text', 'detail'], () => false, name)
  await inTexts(db, prompts, here(prompts.seminarId), ['doc', 'html'], () => false, name)
  await inTexts(
    db,
    activities,
    here(activities.seminarId),
    ['title', 'summary', 'brief', 'briefHtml', 'starter', 'starterHtml', 'settings'],
    () => false,
    name,
  )
  await inTexts(db, wikiPages, here(wikiPages.seminarId), ['title', 'links'], () => false, name)
  // what links look for is kept in small letters
  await inTexts(db, wikiPages, here(wikiPages.seminarId), ['titleKey', 'formerKeys', 'links'], () => false, {
    given: name.given.toLowerCase(),
    family: name.family.toLowerCase(),
  })
  await inTexts(db, pageVersions, here(pageVersions.seminarId), ['summary'], () => false, name)
  await inTexts(db, closingSurveys, here(closingSurveys.seminarId), ['urns'], () => false, name)
  await inTexts(
    db,
    closingAnswers,
    here(closingAnswers.seminarId),
    ['answers'],
    r => r.enrolmentId === enrolmentId,
    name,
  )
  await inTexts(
    db,
    files,
    here(files.seminarId),
    ['name', 'transcript', 'textHtml'],
    r => r.madeBy === enrolmentId,
    name,
  )
  await inTexts(db, mails, here(mails.seminarId), ['subject', 'text'], () => false, name)
  await inTexts(
    db,
    auditTrail,
    here(auditTrail.seminarId),
    ['detail'],
    r => r.subjectId === enrolmentId,
    name,
  )
  const threads = new Set(
    (
      await db
        .select({ id: messageThreads.id })
        .from(messageThreads)
        .where(eq(messageThreads.studentId, enrolmentId))
    ).map(t => t.id),
  )
  await inTexts(
    db,
    messageThreads,
    here(messageThreads.seminarId),
    ['subject'],
    r => threads.has(r.id as string),
    name,
  )
  await inTexts(
    db,
    messages,
    here(messages.seminarId),
    ['text'],
    r => threads.has(r.threadId as string),
    name,
  )
}

const AT_ONCE = 500

/** Takes the name out of some columns of a table; only rows in which a part of it stands are looked at. */
async function inTexts(
  db: Db,
  table: PgTable,
  where: SQL,
  columns: readonly string[],
  isNear: (row: Record<string, unknown>) => boolean,
  name: Naming,
): Promise<void> {
  const all = getTableColumns(table) as Record<string, ReturnType<typeof getTableColumns>[string]>
  const keys = Object.entries(all)
    .filter(([, c]) => c.primary)
    .map(([k]) => k)
  const identity =
    keys.length > 0 ? keys : ['activityId', 'enrolmentId', 'contributionId', 'version'].filter(k => k in all)
  const pointers = Object.keys(all).filter(k =>
    [
      'id',
      'parentId',
      'contributionId',
      'enrolmentId',
      'subjectId',
      'reviewerId',
      'madeBy',
      'threadId',
    ].includes(k),
  )
  const holds = sql.join(
    columns.flatMap(c =>
      [name.family, name.given]
        .filter(Boolean)
        .map(n => sql`${all[c]!}::text ilike ${`%${n.replace(/[\\%_]/g, '\\$&')}%`}`),
    ),
    sql` or `,
  )
  const wanted = Object.fromEntries(
    [...new Set([...identity, ...pointers, ...columns])].map(k => [k, all[k]!]),
  )
  const rows = (await db
    .select(wanted)
    .from(table)
    .where(and(where, sql`(${holds})`))) as Array<Record<string, unknown>>
  for (let i = 0; i < rows.length; i += AT_ONCE) {
    for (const row of rows.slice(i, i + AT_ONCE)) {
      const near = isNear(row)
      const changed = Object.fromEntries(
        columns.flatMap(c => {
          const now = takeNamesOutOf(row[c], name, near)
          return JSON.stringify(now) === JSON.stringify(row[c]) ? [] : [[c, now]]
        }),
      )
      if (Object.keys(changed).length > 0)
        await db
          .update(table)
          .set(changed)
          .where(and(...identity.map(k => eq(all[k]!, row[k]))))
    }
  }
}
