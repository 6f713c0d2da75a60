import { randomUUID } from 'node:crypto'
import { and, eq, gt, isNull, sql } from 'drizzle-orm'
import { hashPassword } from '#server/access/password'
import { digestOf, newSecret, type Person } from '#server/access/session'
import type { Database, Db } from '#server/database/client'
import { passwordLinks, persons } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { mailTo } from '#server/services/messaging/mails'
import { isMailroom } from '#server/services/messaging/mailServer'
import type { AccountView, AccountWrite, Installation } from '#shared/people/account'
import { isDemo } from './session'

const LINK_DAYS = 14

export async function installation(db: Db): Promise<Installation> {
  const [someone] = await db.select({ id: persons.id }).from(persons).limit(1)
  return { empty: !someone, demo: isDemo(), mailroom: isMailroom() }
}

/** The first account of an installation: an instructor who founds seminars. Later ones are made by joining or being invited. */
export async function makeFirstAccount(db: Database, write: AccountWrite): Promise<{ readonly id: string }> {
  const passwordHash = await hashPassword(write.password)
  return db.transaction(async tx => {
    await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended('first account', 0))`) // of two at once, one is first
    const { empty } = await installation(tx)
    if (!empty)
      throw new Problem(
        409,
        'notFirst',
        'This installation has its first account already. Sign in, or ask its owner to add you to a seminar.',
      )
    return insertPerson(tx, write, { passwordHash, foundsSeminars: true })
  })
}

export const nameOf = (p: { readonly givenName: string; readonly familyName: string }): string =>
  `${p.givenName} ${p.familyName}`

export async function insertPerson(
  db: Db,
  p: Pick<AccountWrite, 'givenName' | 'familyName' | 'email'>,
  more: { readonly passwordHash?: string | null; readonly foundsSeminars?: boolean } = {},
) {
  const [person] = await db
    .insert(persons)
    .values({ email: p.email, givenName: p.givenName, familyName: p.familyName, name: nameOf(p), ...more })
    .onConflictDoNothing()
    .returning()
  if (!person)
    throw refusedField(
      'email',
      'known',
      'There is an account with this address already. Sign in with it, then open the link again.',
      409,
    )
  return person
}

export async function accountView(db: Db, person: Person): Promise<AccountView> {
  const [row] = await db.select().from(persons).where(eq(persons.id, person.id))
  return {
    name: row!.name,
    email: row!.email,
    mailChoice: row!.mailChoice,
    calendarPath: row!.calendarSecret && `/calendar/${row!.calendarSecret}.ics`,
    foundsSeminars: row!.foundsSeminars,
  }
}

export async function setMailChoice(
  db: Db,
  person: Person,
  mailChoice: AccountView['mailChoice'],
): Promise<AccountView> {
  await db.update(persons).set({ mailChoice }).where(eq(persons.id, person.id))
  return accountView(db, person)
}

/** A new address for the calendar feed; the old one opens nothing from now on. Null takes the feed away. */
export async function setCalendar(db: Db, person: Person, on: boolean): Promise<AccountView> {
  await db
    .update(persons)
    .set({ calendarSecret: on ? newSecret() : null })
    .where(eq(persons.id, person.id))
  return accountView(db, person)
}

/** A link that lets its reader choose a password once, good for two weeks. Only its digest is kept. */
export async function makePasswordLink(db: Db, personId: string): Promise<string> {
  const secret = newSecret()
  await db
    .insert(passwordLinks)
    .values({ digest: digestOf(secret), personId, expiresAt: new Date(Date.now() + LINK_DAYS * 86_400_000) })
  return `/password/${secret}`
}

export async function personOfLink(db: Db, secret: string) {
  const [row] = await db
    .select({ person: persons })
    .from(passwordLinks)
    .innerJoin(persons, eq(persons.id, passwordLinks.personId))
    .where(
      and(
        eq(passwordLinks.digest, digestOf(secret)),
        isNull(passwordLinks.usedAt),
        gt(passwordLinks.expiresAt, new Date()),
      ),
    )
  if (!row)
    throw new Problem(
      404,
      'linkGone',
      'This link was used already, or is older than two weeks. Ask for a new one on the sign-in page.',
    )
  return row.person
}

export async function choosePassword(
  db: Database,
  secret: string,
  password: string,
): Promise<{ readonly id: string }> {
  const passwordHash = await hashPassword(password)
  return db.transaction(async tx => {
    const person = await personOfLink(tx, secret)
    await tx.update(persons).set({ passwordHash }).where(eq(persons.id, person.id))
    await tx
      .update(passwordLinks)
      .set({ usedAt: new Date() })
      .where(and(eq(passwordLinks.personId, person.id), isNull(passwordLinks.usedAt)))
    return person
  })
}

/** Mails a link for a new password. Says the same whether the address is known or not. */
export async function askForPassword(db: Database, email: string, origin: string): Promise<void> {
  const [person] = await db.select().from(persons).where(eq(persons.email, email))
  if (!person || person.practiceOf) return
  await mailTo(db, {
    person,
    seminarId: null,
    key: `password:${randomUUID()}`,
    subject: 'A new password for Jovrel',
    text: `Hello ${person.givenName},\n\nchoose a new password here:\n${origin}${await makePasswordLink(db, person.id)}\n\nThe link works once, for two weeks. If you did not ask for it, do nothing: your password stays as it is.\n`,
  })
}
