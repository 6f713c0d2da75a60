import { initialsOf, keptNames } from '#core/people/names'
import { and, asc, desc, eq, inArray, isNull, max, ne, sql } from 'drizzle-orm'
import { noteActs } from '#server/services/auditTrail'
import { notifyOfEnding } from '#server/access/endings'
import { nothingHere, type Actor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { contributions, enrolments, joiningCodes, mails, persons, sections } from '#server/database/schema'
import { refusedField } from '#server/http/problem'
import { mailToAll } from '#server/mail/mails'
import { ownAddress } from '#server/mail/mailServer'
import { withIdempotency } from '#server/services/idempotency'
import type { PeopleView, PersonChange, PersonWrite } from '#shared/people/people'
import { insertPerson } from './account'
import { makeInvitationLinks } from './passwords'
import { namesOf } from './nameView'

/** Everyone in the seminar with their roles; who manages also gets the joining codes. */
export async function peopleView(db: Db, actor: Actor, now: Date): Promise<PeopleView> {
  const { seminar, enrolment } = actor
  const mayManage = enrolment.role === 'instructor'
  const [rows, counts, codes, sectionRows, invitations] = await Promise.all([
    db
      .select({ enrolment: enrolments, person: persons })
      .from(enrolments)
      .innerJoin(persons, eq(persons.id, enrolments.personId))
      .where(and(eq(enrolments.seminarId, seminar.id), ne(enrolments.state, 'practice'))),
    db
      .select({ authorId: contributions.authorId, n: sql<number>`count(*)::int` })
      .from(contributions)
      .where(and(eq(contributions.seminarId, seminar.id), eq(contributions.state, 'shown')))
      .groupBy(contributions.authorId),
    mayManage
      ? db
          .select()
          .from(joiningCodes)
          .where(and(eq(joiningCodes.seminarId, seminar.id), isNull(joiningCodes.revokedAt)))
          .orderBy(desc(joiningCodes.madeAt))
      : [],
    db
      .select({ id: sections.id, title: sections.title })
      .from(sections)
      .where(eq(sections.seminarId, seminar.id))
      .orderBy(asc(sections.position), asc(sections.title)),
    db
      .select({ personId: mails.personId, at: max(mails.madeAt) })
      .from(mails)
      .where(and(eq(mails.seminarId, seminar.id), sql`${mails.key} like 'invite:%'`))
      .groupBy(mails.personId),
  ])
  const order = new Intl.Collator('en')
  const written = new Map(counts.map(c => [c.authorId, c.n]))
  const invited = new Map(invitations.map(i => [i.personId, i.at]))
  return {
    people: rows
      .map(({ enrolment: e, person: p }) => ({
        id: e.id,
        ...namesOf(e),
        email: p.email,
        initials: initialsOf(e),
        role: e.role,
        sectionId: e.sectionId,
        studentNumber: e.studentNumber,
        state: e.state === 'withdrawn' ? ('withdrawn' as const) : ('active' as const),
        canSignIn: p.passwordHash !== null,
        invitedAt: invited.get(p.id)?.toISOString() ?? null,
        contributions: written.get(e.id) ?? 0,
        isMe: e.id === enrolment.id,
      }))
      .sort((a, b) => order.compare(a.familyName, b.familyName) || order.compare(a.givenName, b.givenName)),
    codes: codes.map(c => ({
      id: c.id,
      code: c.code,
      role: c.role,
      sectionId: c.sectionId,
      expiresAt: c.expiresAt.toISOString(),
      most: c.most,
      used: c.used,
      open: c.expiresAt > now && c.used < c.most,
    })),
    sections: sectionRows,
    mayManage,
  }
}

/** Adds one person by hand. Somebody who has an account already is added with it; somebody who had left comes back. */
export function addPerson(
  db: Database,
  actor: Actor,
  write: PersonWrite,
  now: Date,
): Promise<{ id: string }> {
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    await requireSection(tx, actor, write.sectionId)
    const [known] = await tx.select().from(persons).where(eq(persons.email, write.email))
    const person = known ?? (await insertPerson(tx, write))
    const [there] = await tx
      .select()
      .from(enrolments)
      .where(and(eq(enrolments.seminarId, actor.seminar.id), eq(enrolments.personId, person.id)))
    if (there && there.state !== 'withdrawn')
      throw refusedField('email', 'there', `${there.name} is in this seminar already.`, 409)
    const values = {
      role: write.role,
      sectionId: write.sectionId,
      state: 'active' as const,
      givenToAddress: true,
      ...(!there?.nameIsOwn && { ...keptNames(write) }),
    }
    const [row] = there
      ? await tx.update(enrolments).set(values).where(eq(enrolments.id, there.id)).returning()
      : await tx
          .insert(enrolments)
          .values({
            ...namesOf(person),
            seminarId: actor.seminar.id,
            personId: person.id,
            joinedAt: now,
            ...values,
          })
          .returning()
    await noteActs(tx, actor, now, {
      act: there ? 'personRestored' : 'personAdded',
      subjectId: row!.id,
    })
    if (write.invite) await inviteAll(tx, actor, [row!.id], now)
    return { id: row!.id }
  })
}

/** Changes role or section, withdraws or brings back. Work and marks stay; the last instructor cannot leave. */
export async function changePerson(
  db: Database,
  actor: Actor,
  enrolmentId: string,
  change: PersonChange,
  now: Date,
): Promise<void> {
  await db.transaction(async tx => {
    const staff = await tx
      .select()
      .from(enrolments)
      .where(
        and(
          eq(enrolments.seminarId, actor.seminar.id),
          eq(enrolments.role, 'instructor'),
          eq(enrolments.state, 'active'),
        ),
      )
      .for('update')
    const [row] = await tx
      .select()
      .from(enrolments)
      .where(and(eq(enrolments.id, enrolmentId), eq(enrolments.seminarId, actor.seminar.id)))
      .for('update')
    if (!row || row.state === 'practice') throw nothingHere()
    if (Object.values(change).every(value => value === undefined)) return
    const leaves = (change.role !== undefined && change.role !== 'instructor') || change.state === 'withdrawn'
    if (leaves && row.role === 'instructor' && row.state === 'active' && staff.length === 1) {
      throw refusedField(
        'role',
        'lastInstructor',
        'A seminar keeps one instructor at least. Make somebody else an instructor first.',
      )
    }
    if (change.sectionId !== undefined) await requireSection(tx, actor, change.sectionId)
    await tx
      .update(enrolments)
      .set({
        ...(change.role !== undefined && { role: change.role, givenToAddress: true }),
        ...(change.sectionId !== undefined && { sectionId: change.sectionId }),
        ...(change.state !== undefined && { state: change.state }),
      })
      .where(eq(enrolments.id, enrolmentId))
    await notifyOfEnding(tx, [row.personId])
    await noteActs(tx, actor, now, {
      act: 'personChanged',
      subjectId: enrolmentId,
      detail: { from: { role: row.role, sectionId: row.sectionId, state: row.state }, to: change },
    })
  })
}

export function invite(
  db: Database,
  actor: Actor,
  key: string,
  enrolmentIds: readonly string[],
  now: Date,
): Promise<{ invited: number }> {
  return withIdempotency(db, actor.enrolment, key, async tx => ({
    invited: await inviteAll(tx, actor, enrolmentIds, now),
  }))
}

/** Mails an invitation: a link to choose a password, or, for those who can sign in, to the seminar. */
export async function inviteAll(
  tx: Db,
  actor: Actor,
  enrolmentIds: readonly string[],
  now: Date,
): Promise<number> {
  const rows = await tx
    .select({ enrolmentId: enrolments.id, givenName: enrolments.givenName, person: persons })
    .from(enrolments)
    .innerJoin(persons, eq(persons.id, enrolments.personId))
    .where(
      and(
        inArray(enrolments.id, [...enrolmentIds]),
        eq(enrolments.seminarId, actor.seminar.id),
        eq(enrolments.state, 'active'),
      ),
    )
  // an account whose address nobody has confirmed may be somebody else's: a link gives it to the address's owner
  const opened = rows.filter(r => r.person.passwordHash !== null && r.person.confirmedAt !== null)
  const isOwn = new Set(opened.map(r => r.person.id))
  const links = await makeInvitationLinks(
    tx,
    rows.flatMap(r => (isOwn.has(r.person.id) ? [] : r.person.id)),
  )
  const letters = rows.map(({ enrolmentId, givenName, person }) => ({
    person,
    seminarId: actor.seminar.id,
    key: `invite:${enrolmentId}:${now.getTime()}`,
    subject: `${actor.seminar.title}: come in`,
    text: [
      `Hello ${givenName},\n`,
      `${actor.person.name} has added you to the seminar "${actor.seminar.title}".`,
      isOwn.has(person.id) ? 'Open it here:' : 'Choose a password here and come in:',
      `${ownAddress()}${links.get(person.id) ?? `/seminars/${actor.seminar.id}`}\n`,
    ].join('\n'),
  }))
  await mailToAll(tx, letters)
  return rows.length
}

export async function requireSection(db: Db, actor: Actor, sectionId: string | null): Promise<void> {
  if (sectionId === null) return
  const [found] = await db
    .select({ id: sections.id })
    .from(sections)
    .where(and(eq(sections.id, sectionId), eq(sections.seminarId, actor.seminar.id)))
  if (!found) throw refusedField('sectionId', 'noSection', 'This section is no longer there. Choose another.')
}
