import { randomUUID } from 'node:crypto'
import { and, eq, gt, inArray, isNull } from 'drizzle-orm'
import { hashPassword, passwordMatches } from '#server/access/password'
import { requireGoodPassword } from '#server/access/passwordQuality'
import { digestOf, endAllSessions, endOtherSessions, newSecret, type Person } from '#server/access/session'
import type { Database, Db } from '#server/database/client'
import { annotationTokens, enrolments, feeds, passwordLinks, persons } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { mailTo } from '#server/mail/mails'

const HOUR = 3_600_000 // milliseconds
/** An invitation waits for somebody who does not expect it; who asks for a link sits before the screen. */
const INVITATION = 14 * 24 * HOUR
const RESET = HOUR

/** Links that let each of some people choose a first password, good for two weeks. @returns paths, by person */
export const makeInvitationLinks = (db: Db, personIds: readonly string[]): Promise<Map<string, string>> =>
  makeLinks(db, personIds, INVITATION)

/** Only the digest of a link is kept. */
async function makeLinks(db: Db, personIds: readonly string[], lasts: number): Promise<Map<string, string>> {
  const made = personIds.map(personId => ({ personId, secret: newSecret() }))
  const expiresAt = new Date(Date.now() + lasts)
  if (made.length > 0)
    await db
      .insert(passwordLinks)
      .values(made.map(({ personId, secret }) => ({ digest: digestOf(secret), personId, expiresAt })))
  return new Map(made.map(({ personId, secret }) => [personId, `/password/${secret}`]))
}

const linkGone = () =>
  new Problem(
    404,
    'linkGone',
    'This link was used already, is too old, or a newer one was sent. Ask for a new one on the sign-in page.',
  )

const isOpen = (secret: string) =>
  and(
    eq(passwordLinks.digest, digestOf(secret)),
    isNull(passwordLinks.usedAt),
    gt(passwordLinks.expiresAt, new Date()),
  )

/** Whose password a link sets. */
export async function personOfLink(db: Db, secret: string) {
  const [row] = await db
    .select({ person: persons })
    .from(passwordLinks)
    .innerJoin(persons, eq(persons.id, passwordLinks.personId))
    .where(isOpen(secret))
  if (!row) throw linkGone()
  return row.person
}

/**
 * Sets a password by a link, once, and ends everything that was open with the one before. Whoever followed the link has
 * shown that the address is theirs.
 */
export async function choosePassword(
  db: Database,
  secret: string,
  password: string,
): Promise<{ readonly id: string }> {
  const owner = await personOfLink(db, secret)
  await requireGoodPassword(password, owner)
  const passwordHash = await hashPassword(password)
  return db.transaction(async tx => {
    // of two who use the link at once, one gets its row
    const [used] = await tx
      .update(passwordLinks)
      .set({ usedAt: new Date() })
      .where(isOpen(secret))
      .returning()
    if (!used) throw linkGone()
    if (!owner.confirmedAt) await closeOtherDoors(tx, used.personId)
    const [person] = await tx
      .update(persons)
      .set({ passwordHash, confirmedAt: new Date() })
      .where(eq(persons.id, used.personId))
      .returning()
    await tx
      .delete(passwordLinks)
      .where(and(eq(passwordLinks.personId, used.personId), isNull(passwordLinks.usedAt)))
    await endAllSessions(tx, used.personId)
    return person!
  })
}

/** Takes away what somebody else may have made before the address proved to be its owner's: secret addresses that read along. */
async function closeOtherDoors(tx: Db, personId: string): Promise<void> {
  const own = tx.select({ id: enrolments.id }).from(enrolments).where(eq(enrolments.personId, personId))
  await tx.delete(annotationTokens).where(inArray(annotationTokens.enrolmentId, own))
  await tx.delete(feeds).where(inArray(feeds.enrolmentId, own))
  await tx.update(persons).set({ calendarSecret: null }).where(eq(persons.id, personId))
}

/** Mails a link for a new password, in place of any that was sent before. Says the same whether the address is known or not. */
export async function askForPassword(db: Database, email: string, origin: string): Promise<void> {
  await db.transaction(async tx => {
    const [person] = await tx.select().from(persons).where(eq(persons.email, email)).for('update')
    if (!person || person.practiceOf) return
    await tx
      .delete(passwordLinks)
      .where(and(eq(passwordLinks.personId, person.id), isNull(passwordLinks.usedAt)))
    const links = await makeLinks(tx, [person.id], RESET)
    await mailTo(tx, {
      person,
      seminarId: null,
      key: `password:${randomUUID()}`,
      subject: 'A new password for Jovrel',
      text: [
        `Hello ${person.givenName},\n`,
        'choose a new password here:',
        `${origin}${links.get(person.id)!}\n`,
        'The link works once, for an hour. If you did not ask for it, do nothing: your password stays as it is.\n',
      ].join('\n'),
    })
  })
}

/** Refuses unless the password is the one the person has. */
export async function requirePassword(db: Db, person: Pick<Person, 'id'>, password: string, field: string) {
  const [row] = await db.select().from(persons).where(eq(persons.id, person.id))
  if (!row || !(await passwordMatches(password, row.passwordHash)))
    throw refusedField(field, 'wrongPassword', 'This is not your present password. Capital letters matter.')
  return row
}

/** Changes a password while signed in, and ends every other session. The owner is told by mail. */
export async function changePassword(
  db: Database,
  session: { readonly id: string; readonly person: Person },
  write: { readonly current: string; readonly password: string },
): Promise<void> {
  const owner = await requirePassword(db, session.person, write.current, 'current')
  await requireGoodPassword(write.password, owner)
  const passwordHash = await hashPassword(write.password)
  await db.transaction(async tx => {
    await tx.update(persons).set({ passwordHash }).where(eq(persons.id, owner.id))
    await tx
      .delete(passwordLinks)
      .where(and(eq(passwordLinks.personId, owner.id), isNull(passwordLinks.usedAt)))
    await endOtherSessions(tx, session)
    await mailTo(tx, {
      person: owner,
      seminarId: null,
      key: `passwordChanged:${randomUUID()}`,
      subject: 'Your password for Jovrel was changed',
      text: `Hello ${owner.givenName},\n\nyour password was changed just now, and every other browser was signed out. If it was not you, ask for a new password on the sign-in page at once.\n`,
    })
  })
}
