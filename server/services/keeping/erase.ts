import { randomUUID } from 'node:crypto'
import { noteActs } from '#server/services/auditTrail'
import { isDeepStrictEqual } from 'node:util'
import { and, eq, ne, or, sql } from 'drizzle-orm'
import type { Naming } from '#core/people/takeNamesOut'
import { nothingHere, type Actor, type Enrolment } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import {
  addressLinks,
  annotationTokens,
  enrolments,
  feeds,
  files,
  idempotencyRecords,
  mailroomMessages,
  mails,
  notices,
  passkeyChallenges,
  passkeys,
  passwordLinks,
  persons,
  recoveryCodes,
  secondFactors,
  sessions,
  signInSteps,
} from '#server/database/schema'
import { refusedField } from '#server/http/problem'
import { forgetInAccessLog } from '#server/services/people'
import type { ErasePreview, EraseWrite } from '#shared/keeping/archive'
import { findGivenAlone, takeNameOut } from './namedTexts'

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
  { name: typed, pointing }: EraseWrite,
  now: Date,
): Promise<{ name: string }> {
  return db.transaction(async tx => {
    const row = await requireErasable(tx, actor, enrolmentId, true)
    const { name } = row.enrolment
    if (typed.trim().toLowerCase() !== name.toLowerCase())
      throw refusedField('name', 'name', `Type “${name}” as it stands here. It cannot be undone.`)
    const number =
      1 +
      (await tx.$count(
        persons,
        and(eq(persons.givenName, GONE), sql`${persons.email} like '%@erased.invalid'`),
      ))
    const called = {
      name: `${GONE} student ${number}`,
      givenName: GONE,
      familyName: `student ${number}`,
    }
    const gone = {
      ...called,
      email: `${randomUUID()}@erased.invalid`,
      passwordHash: null,
      calendarSecret: null,
      mailChoice: 'never' as const,
      foundsSeminars: false,
      confirmedAt: null,
    }
    await withoutVoice(tx, enrolmentId)
    for (const naming of namingsOf(row))
      await takeNameOut(tx, { seminarId: actor.seminar.id, enrolmentId, name: naming }, pointing)
    await forget(tx, actor.seminar.id, row.person, enrolmentId, gone)
    await tx
      .update(enrolments)
      .set({ ...called, studentNumber: null, namedInFeeds: false })
      .where(eq(enrolments.id, enrolmentId))
    await noteActs(tx, actor, now, {
      act: 'personErased',
      subjectId: enrolmentId,
    })
    return { name: gone.name }
  })
}

/** Where the given name stands by itself, for staff to say in which places it points to this person. */
export async function previewErasure(db: Database, actor: Actor, enrolmentId: string): Promise<ErasePreview> {
  const row = await requireErasable(db, actor, enrolmentId, false)
  const others = await db
    .select({ name: enrolments.name })
    .from(enrolments)
    .where(
      and(
        eq(enrolments.seminarId, actor.seminar.id),
        eq(enrolments.givenName, row.enrolment.givenName),
        ne(enrolments.id, enrolmentId),
      ),
    )
  const found = { places: [] as ErasePreview['places'], count: 0 }
  for (const name of namingsOf(row)) {
    const { places, count } = await findGivenAlone(db, { seminarId: actor.seminar.id, enrolmentId, name })
    found.places.push(...places)
    found.count += count
  }
  return { ...found, sharedWith: others.map(o => o.name) }
}

/** What they may be called in texts: as the seminar has it and, where their account has another name, by that. */
function namingsOf({ person, enrolment }: { person: Person; enrolment: Enrolment }): Naming[] {
  const [here, own] = [enrolment, person].map(({ givenName, familyName }) => ({
    given: givenName,
    family: familyName,
    email: person.email,
  }))
  return isDeepStrictEqual(here, own) ? [here!] : [here!, own!]
}

async function requireErasable(db: Db, actor: Actor, enrolmentId: string, isErasing: boolean) {
  const found = db
    .select({ person: persons, enrolment: enrolments })
    .from(enrolments)
    .innerJoin(persons, eq(persons.id, enrolments.personId))
    .where(and(eq(enrolments.id, enrolmentId), eq(enrolments.seminarId, actor.seminar.id)))
  const [row] = await (isErasing ? found.for('update') : found)
  if (!row || row.enrolment.state === 'practice') throw nothingHere()
  if (row.enrolment.role !== 'student')
    throw refusedField(
      'name',
      'role',
      'Only students can be erased: what staff have written and decided stands under their name.',
    )
  return row
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

/** A recording is a voice: it goes; what was said in it stays as its transcript. */
async function withoutVoice(db: Db, enrolmentId: string): Promise<void> {
  await db
    .update(files)
    .set({ bytes: Buffer.alloc(0), size: 0 })
    .where(
      and(
        eq(files.madeBy, enrolmentId),
        or(sql`${files.type} like 'audio/%'`, sql`${files.type} like 'video/%'`),
      ),
    )
}
